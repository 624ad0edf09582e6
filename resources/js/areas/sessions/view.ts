import type { Api } from '@/api/client';
import type { QueuedCommand } from '@/offline/commands';
import type { Focus, ShownLine, Work } from './types';

type Run = [number, number | null];

/** What the clock of a session shows at a moment, in ms: pauses are left out. */
export const clockAt = (runs: readonly Run[], at: number): number =>
  runs.reduce((sum, [from, to]) => sum + Math.max(0, Math.min(at, to ?? at) - from), 0);

/** A session as it is shown: what waits to be sent lies over what the server knows. */
export interface SessionView {
  state: Api['SessionDetail']['state'];
  runs: Run[];
  box_ms: number;
  focus: Focus;
  work: Work;
  lines: ShownLine[];
}

const blank = (id: string, kind: ShownLine['kind'], atMs: number, words: string): ShownLine => ({
  id,
  number: Number.MAX_SAFE_INTEGER,
  kind,
  at_ms: atMs,
  words,
  former: [],
  pinned: false,
  page: null,
  name: '',
  media_type: null,
  url: null,
  thumbnail_url: null,
  removed: null,
  waiting: true,
});

/** Changes the view by one command. */
function apply(view: SessionView, queued: QueuedCommand): void {
  const { command } = queued;
  const at = Date.parse(queued.at);
  if (command.kind === 'session_move' && queued.refused === undefined) {
    const last = view.runs.at(-1);
    if (command.to === 'running') {
      if (!last || last[1] !== null) view.runs = [...view.runs, [at, null]];
    } else if (last && last[1] === null)
      view.runs = [...view.runs.slice(0, -1), [last[0], Math.max(at, last[0])]];
    view.state = command.to;
  } else if (command.kind === 'session_box' && queued.refused === undefined)
    view.box_ms = command.minutes * 60_000;
  else if (command.kind === 'session_switch' && queued.refused === undefined) {
    if (command.to === 'charter' || command.to === 'opportunity') view.focus = command.to;
    else view.work = command.to;
  } else if (command.kind === 'session_line' || command.kind === 'session_capture') {
    if (view.lines.some((l) => l.id === command.id)) return;
    const kind = command.kind === 'session_line' ? command.line : 'capture';
    const line = blank(command.id, kind, clockAt(view.runs, at), command.words);
    if (command.kind === 'session_capture')
      Object.assign(line, { name: command.name, media_type: command.file.type, local: command.file });
    if (queued.refused !== undefined) line.refused = queued.refused;
    else if (queued.held) line.held = true;
    view.lines = [...view.lines, line];
  } else if (command.kind === 'session_mend' && queued.refused === undefined)
    view.lines = view.lines.map((l) =>
      l.id === command.id
        ? {
            ...l,
            ...(command.words === undefined || command.words === l.words
              ? {}
              : { words: command.words, former: [...l.former, l.words] }),
            ...(command.pinned === undefined ? {} : { pinned: command.pinned }),
            waiting: true,
          }
        : l,
    );
}

/** Lays what waits over what the server knows, in the order in which it was done. */
export function viewOf(
  detail: Pick<Api['SessionDetail'], 'state' | 'runs' | 'box_ms' | 'focus' | 'work'>,
  lines: readonly Api['TimelineLine'][],
  commands: readonly QueuedCommand[],
): SessionView {
  const view: SessionView = {
    state: detail.state,
    runs: detail.runs as Run[],
    box_ms: detail.box_ms,
    focus: detail.focus,
    work: detail.work,
    lines: [...lines],
  };
  for (const queued of commands) apply(view, queued);
  return view;
}
