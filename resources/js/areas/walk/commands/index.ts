import { registerCommands, type Command, type CommandMap, type QueuedCommand } from '@/offline/commands';
import type { Api } from '@/api/client';
import type { WalkView } from '../types';
import * as attempt from './attempt';
import * as defects from './defects';
import * as evidence from './evidence';
import type { WalkKind } from './kind';
import * as steps from './steps';

/** Every kind of command that the walk has. A new kind is one entry here. */
const KINDS = {
  start: attempt.start,
  away: attempt.idleTime,
  surroundings: attempt.environment,
  finish: attempt.finish,
  message: attempt.message,
  outage: attempt.outage,
  stops: attempt.stops,
  verdict: steps.verdict,
  note: steps.note,
  try: steps.retry,
  round: steps.round,
  evidence: evidence.evidence,
  caption: evidence.caption,
  move: evidence.move,
  markup: evidence.markup,
  redact: evidence.redact,
  remove: evidence.remove,
  defect: defects.defect,
  link: defects.link,
} satisfies { [K in keyof CommandMap]?: WalkKind<K> };
registerCommands(KINDS);

const walkKind = (command: Command): Partial<WalkKind<keyof CommandMap>> =>
  (KINDS as unknown as Partial<Record<string, WalkKind<keyof CommandMap>>>)[command.kind] ?? {};

/** Lays the commands that wait over what the server knows. Pure: the detail is left as it is. */
export function applyCommands(detail: Api['AttemptDetail'], commands: readonly QueuedCommand[]): WalkView {
  const view: WalkView = {
    ...detail,
    attempt: { ...detail.attempt },
    rounds: detail.rounds.map((r) => ({ ...r, steps: r.steps.map((s) => ({ ...s })) })),
    evidence: detail.evidence.map((e) => ({ ...e })),
    defects: [...detail.defects],
    waiting: new Set(),
  };
  for (const queued of commands) {
    // A refused file stays in sight, to be sent again or kept.
    if (queued.refused !== undefined && queued.command.kind !== 'evidence') continue;
    walkKind(queued.command).apply?.(view, queued.command, queued);
  }
  return view;
}

/** What the server knows once it has taken a command. */
export function settleCommand(
  before: Api['AttemptDetail'],
  queued: QueuedCommand,
  answer: Record<string, unknown>,
): Api['AttemptDetail'] {
  if (queued.command.kind === 'start')
    return answer.attempt ? (answer as unknown as Api['AttemptDetail']) : before;
  const view = applyCommands(before, [queued]);
  walkKind(queued.command).settle?.(view, queued.command, answer);
  const { waiting: _, ...settled } = view;
  return {
    ...settled,
    evidence: view.evidence.map(({ local: _l, drawn: _d, refused: _r, held: _h, ...e }) => e),
  };
}
