import { isObserved, type ShownLine } from './types';

/** A row of the timeline: a line, or a run of observed acts that is folded into one. */
export type Row =
  { key: string; line: ShownLine; fold?: never } | { key: string; line?: never; fold: ShownLine[] };

/** So many observed acts in a row are folded. */
const FEWEST = 3;
/** So many pages are named of a run. */
const NAMED = 2;

/** Trouble and what is pinned stands by itself. */
const folds = (line: ShownLine): boolean =>
  isObserved(line) && line.kind !== 'trouble' && !line.pinned && !line.removed;

/**
 * Folds observed acts into runs, but those that are opened, each known by its first line.
 * @param lines in order of time
 */
export function foldRows(lines: readonly ShownLine[], opened: ReadonlySet<string>): Row[] {
  const rows: Row[] = [];
  for (let at = 0; at < lines.length;) {
    let end = at;
    while (end < lines.length && folds(lines[end]!)) end++;
    const run = lines.slice(at, Math.max(end, at + 1));
    if (end - at >= FEWEST && !opened.has(run[0]!.id)) rows.push({ key: `fold-${run[0]!.id}`, fold: run });
    else rows.push(...run.map((line) => ({ key: line.id, line })));
    at += run.length;
  }
  return rows;
}

/** The pages of a run as one reads them: the first ones, and how many more. */
export function pagesOf(run: readonly ShownLine[]): string {
  const pages = [...new Set(run.map((l) => l.page ?? '').filter(Boolean))];
  const more = pages.length - NAMED;
  return pages.slice(0, NAMED).join(' and ') + (more > 0 ? ` and ${more} more` : '');
}
