import type { Api } from '@/api/client';
import { plural, type Shown } from '@/kit/words';

type Link = Api['TraceLink'];
type Row = Api['TraceRow'];
export type Kind = Api['Trace']['kind'];

/** Where a thing is looked at; a file for evidence. */
export function addressOf(project: string, kind: Kind, link: Link, entry = ''): string {
  switch (kind) {
    case 'requirement':
      return `/${project}/coverage/${link.key}`;
    case 'case':
      return `/${project}/casebook/${link.key}`;
    case 'cycle':
      return `/${project}/cycles/${link.key}`;
    case 'entry':
      return `/${project}/entries/${link.id}`;
    case 'attempt':
      return `/${project}/entries/${entry}?attempt=${link.id}`;
    case 'defect':
      return `/${project}/defects/${link.key}`;
    case 'session':
      return `/${project}/sessions/${link.key}`;
    case 'evidence':
      // A link that was recorded has no file: it is looked at where it was walked.
      return link.state === null ? `/${project}/entries/${entry}` : `/api/v1/evidence/${link.id}/file`;
  }
}

/** The mark of an attempt: an open one is in progress; one that was given up has none. */
export const markOf = (state: string | null): Shown | null =>
  state === 'open' ? 'in_progress' : state === 'abandoned' || state === null ? null : (state as Shown);

const COLUMNS = ['requirement', 'case', 'entry', 'attempt'] as const;
export type Column = (typeof COLUMNS)[number];
/** A row, and over how many rows each of its first cells goes; 0: an earlier one goes over this one. */
export interface TraceLine {
  row: Row;
  spans: Record<Column, number>;
}

/** The rows with the cells that go over several of them. */
export function linesOf(rows: readonly Row[]): TraceLine[] {
  const lines = rows.map((row) => ({ row, spans: { requirement: 1, case: 1, entry: 1, attempt: 1 } }));
  const begins: Partial<Record<Column, TraceLine>> = {};
  lines.forEach((line, i) => {
    const before = rows[i - 1];
    let same = before !== undefined;
    for (const column of COLUMNS) {
      same &&= (line.row[column]?.id ?? null) === (before?.[column]?.id ?? null);
      const first = begins[column];
      if (same && first) {
        line.spans[column] = 0;
        first.spans[column]++;
      } else begins[column] = line;
    }
  });
  return lines;
}

/** How much there is of what, in a sentence. */
export function countWords(trace: Api['Trace']): string {
  const of = (links: (Link | null)[]): number => new Set(links.flatMap((l) => (l ? [l.id] : []))).size;
  const { rows, sessions } = trace;
  const counts: [number, string, string?][] = [
    [of(rows.map((r) => r.requirement)), 'requirement'],
    [of([...rows.map((r) => r.case), ...sessions.flatMap((s) => s.cases)]), 'case'],
    [of(rows.map((r) => r.entry)), 'entry', 'entries'],
    [of(rows.map((r) => r.attempt)), 'attempt'],
    [of([...rows.flatMap((r) => r.defects), ...sessions.flatMap((s) => s.defects)]), 'defect'],
    [of(rows.flatMap((r) => r.evidence)), 'piece of evidence', 'pieces of evidence'],
    [sessions.length, 'session'],
  ];
  return counts
    .filter(([n]) => n > 0)
    .map(([n, one, many]) => plural(n, one, many))
    .join(', ');
}

const WAYS: Record<string, [number, number]> = {
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
};

/**
 * The one of some places that lies next in a direction: the nearest, one straight ahead before one aside.
 *
 * @param places their middles, in px
 *
 * @return its index; -1: none lies there
 */
export function nextPlace(places: readonly { x: number; y: number }[], from: number, key: string): number {
  const here = places[from];
  if (!here) return -1;
  const [dx, dy] = WAYS[key] ?? [0, 0];
  let best = -1;
  let least = Infinity;
  places.forEach((p, i) => {
    const ahead = (p.x - here.x) * dx + (p.y - here.y) * dy;
    const aside = Math.abs((p.x - here.x) * dy) + Math.abs((p.y - here.y) * dx);
    // Two in one cell stand nearly side by side.
    if (i === from || ahead < 4) return;
    const far = ahead + 3 * aside;
    if (far < least) [best, least] = [i, far];
  });
  return best;
}
