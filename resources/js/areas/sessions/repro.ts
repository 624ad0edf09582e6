import type { Api } from '@/api/client';

/** What somebody changed of what is proposed: kept on the device until it is saved. */
export interface ReproDraft {
  /** By line: whether it stays, where that is not as proposed. */
  stays: Record<string, boolean>;
  /** By line or own id: other words. */
  words: Record<string, string>;
  /** Steps written by hand, each behind a line, another of them, or the beginning (empty). */
  added: { id: string; behind: string; words: string }[];
  /** What the saved one was when this began; 0: nobody saved it yet. */
  version: number;
}
export const emptyRepro = (version = 0): ReproDraft => ({ stays: {}, words: {}, added: [], version });

/** A row of what leads to a fault. */
export interface ReproRow {
  id: string;
  /** The line it comes from; null: written by hand. */
  line: Api['StretchLine'] | null;
  words: string;
  stays: boolean;
  /** Its number among the steps that stay; 0: it is none. */
  number: number;
  /** Why it is left out; empty where it stays. */
  why: string;
}
type Saved = Pick<Api['ReproDetail'], 'steps' | 'version'> | null;

/** What a saved one says over what is proposed: only its steps stay. */
export function fromSaved(lines: readonly Api['StretchLine'][], saved: Saved): ReproDraft {
  if (!saved || saved.steps.length === 0) return emptyRepro();
  const draft = emptyRepro(saved.version);
  const of = new Map(lines.map((l) => [l.id, l]));
  let behind = '';
  for (const [at, step] of saved.steps.entries()) {
    const line = step.line === null ? undefined : of.get(step.line);
    if (line) {
      if (line.why !== null) draft.stays[line.id] = true;
      if (line.words !== step.words) draft.words[line.id] = step.words;
      behind = line.id;
    } else {
      const id = `saved-${at}`;
      draft.added.push({ id, behind, words: step.words });
      behind = id;
    }
  }
  const kept = new Set(saved.steps.map((s) => s.line));
  for (const line of lines)
    if (line.is_step && line.why === null && !kept.has(line.id)) draft.stays[line.id] = false;
  return draft;
}

/** The rows in order, numbered, what is left out among them. */
export function rowsOf(lines: readonly Api['StretchLine'][], draft: ReproDraft): ReproRow[] {
  const rows: ReproRow[] = [];
  let number = 0;
  const behind = (id: string): void => {
    for (const own of draft.added.filter((a) => a.behind === id)) {
      const stays = draft.stays[own.id] ?? true;
      const words = draft.words[own.id] ?? own.words;
      rows.push({
        id: own.id,
        line: null,
        words,
        stays,
        number: stays ? ++number : 0,
        why: stays ? '' : 'you left it out',
      });
      behind(own.id);
    }
  };
  behind('');
  for (const line of lines) {
    const stays = draft.stays[line.id] ?? line.why === null;
    rows.push({
      id: line.id,
      line,
      words: draft.words[line.id] ?? line.words,
      stays,
      number: stays && line.is_step ? ++number : 0,
      why: stays ? '' : line.why === null ? 'you left it out' : line.why_words,
    });
    behind(line.id);
  }
  return rows;
}

/** The steps that stay, as they are saved. */
export const stepsOf = (rows: readonly ReproRow[]): Api['ReproStep'][] =>
  rows.filter((r) => r.number > 0).map((r) => ({ line: r.line?.id ?? null, words: r.words }));

/** How often it showed, as one reads it; empty where nobody walked it again. */
export const seenWords = (of: { tries: number; shown: number } | null | undefined): string =>
  of && of.tries > 0 ? `seen ${of.shown} of ${of.tries} times` : '';
