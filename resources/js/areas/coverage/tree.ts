import type { Api } from '@/api/client';

/** What coverage can be asked of. */
export type LensName = 'release' | 'build' | 'configuration' | 'milestone';
/** What it is asked of, by id, and as of which day. */
export type Lens = { [K in LensName | 'as_of']?: string };
export const LENS: { name: LensName; from: keyof Api['CoverageLenses']; word: string }[] = [
  { name: 'release', from: 'releases', word: 'Release' },
  { name: 'build', from: 'builds', word: 'Build' },
  { name: 'configuration', from: 'configurations', word: 'Configuration' },
  { name: 'milestone', from: 'milestones', word: 'Milestone' },
];

/** What stands of it in an address. */
export const lensOf = (query: Record<string, unknown>): Lens =>
  Object.fromEntries(
    [...LENS.map((l) => l.name), 'as_of' as const].flatMap((name) =>
      query[name] ? [[name, String(query[name])]] : [],
    ),
  );

/** How coverage is looked at. */
export type View = 'tree' | 'build' | 'configuration' | 'trend';
export const VIEWS: { value: View; word: string }[] = [
  { value: 'tree', word: 'Tree' },
  { value: 'build', word: 'By build' },
  { value: 'configuration', word: 'By configuration' },
  { value: 'trend', word: 'Day by day' },
];

export type Row = Api['RequirementRow'];
/** What every row of requirements has. */
export interface Item {
  id: string;
  key: string;
  title: string;
  parent_id: string | null;
}
/** A row as the tree shows it. */
export interface TreeRow<T extends Item = Item> {
  row: T;
  depth: number;
  hasBelow: boolean;
  open: boolean;
}

/** More rows than these begin folded. */
const MANY = 60;

/** What is wanting of a requirement, in words; empty: nothing. */
export function gapOf(row: Row): string {
  if (row.own_cases === 0 && row.cases === 0) return 'no case yet';
  const words = [
    row.to_look_at > 0 ? `words changed: ${row.to_look_at} to look at` : '',
    row.open_defects > 0 ? `${row.open_defects} open ${row.open_defects === 1 ? 'defect' : 'defects'}` : '',
    row.unsteady > 0 ? `${row.unsteady} unsteady ${row.unsteady === 1 ? 'case' : 'cases'}` : '',
  ].filter(Boolean);
  if (words.length === 0 && row.own_cases > 0) {
    if (row.state === 'fail') return 'failing';
    if (row.walked < row.cases) return 'not walked to the end';
  }
  return words.join(', ');
}

const PROVEN = ['pass', 'not_applicable'];
export const isGap = (row: Row): boolean => gapOf(row) !== '' || !PROVEN.includes(row.state);
/** Of a row of the grid: whether it is not proven where it was looked at last. */
export const isOpen = (row: { states: readonly string[] }): boolean =>
  !PROVEN.includes(row.states.at(-1) ?? '');

/**
 * The rows that are shown, each after the one above it.
 *
 * @param turned ids that somebody opened or closed against how they begin
 * @param wanted only those for which it is true, with those above them; null: all
 */
export function shownRows<T extends Item>(
  rows: readonly T[],
  turned: ReadonlySet<string>,
  wanted: ((row: T) => boolean) | null,
): TreeRow<T>[] {
  const known = new Map(rows.map((r) => [r.id, r]));
  const below = new Set(rows.map((r) => r.parent_id).filter((id) => id !== null && known.has(id)));
  const chosen = new Set<string>();
  if (wanted)
    for (const row of rows.filter(wanted))
      for (let at: T | undefined = row; at && !chosen.has(at.id); at = known.get(at.parent_id ?? ''))
        chosen.add(at.id);
  const begin = rows.length <= MANY || wanted !== null;
  const depths = new Map<string, number>();
  const hidden = new Set<string>();
  const shown: TreeRow<T>[] = [];
  for (const row of rows) {
    const parent = row.parent_id !== null && known.has(row.parent_id) ? row.parent_id : null;
    const depth = parent === null ? 0 : (depths.get(parent) ?? 0) + 1;
    depths.set(row.id, depth);
    const open = begin !== turned.has(row.id);
    if (parent !== null && hidden.has(parent)) hidden.add(row.id);
    else {
      if (!wanted || chosen.has(row.id)) shown.push({ row, depth, hasBelow: below.has(row.id), open });
      if (!open) hidden.add(row.id);
    }
  }
  return shown;
}

type Counts = readonly Api['StateCount'][];
const countOf = (counts: Counts, state: string): number => counts.find((c) => c.state === state)?.count ?? 0;
/** How many requirements are proven, and of how many. */
export const provenOf = (counts: Counts): { proven: number; all: number } => ({
  proven: countOf(counts, 'pass') + countOf(counts, 'not_applicable'),
  all: counts.reduce((sum, c) => sum + c.count, 0),
});

/** The answer in one sentence. */
export function answer(counts: Counts): string {
  const { proven, all } = provenOf(counts);
  if (all === 0) return '';
  const fail = countOf(counts, 'fail');
  const uncovered = countOf(counts, 'uncovered');
  const parts = [
    `${proven} of ${all} requirements proven`,
    fail > 0 ? `${fail} failing` : '',
    uncovered > 0 ? `${uncovered} without a case` : '',
  ];
  return parts.filter(Boolean).join(', ');
}

/** Where a row goes by an arrow key: among its neighbours, into the one before it, or out of the one it stands below. */
export function moved(
  rows: readonly Item[],
  row: Item,
  key: string,
): { parent: string | null; before: string | null } | null {
  const near = rows.filter((r) => r.parent_id === row.parent_id);
  const at = near.findIndex((r) => r.id === row.id);
  if (key === 'ArrowUp' && at > 0) return { parent: row.parent_id, before: near[at - 1]!.id };
  if (key === 'ArrowDown' && at < near.length - 1)
    return { parent: row.parent_id, before: near[at + 2]?.id ?? null };
  if (key === 'ArrowRight' && at > 0) return { parent: near[at - 1]!.id, before: null };
  const parent = rows.find((r) => r.id === row.parent_id);
  if (key === 'ArrowLeft' && parent) {
    const above = rows.filter((r) => r.parent_id === parent.parent_id);
    return {
      parent: parent.parent_id,
      before: above[above.findIndex((r) => r.id === parent.id) + 1]?.id ?? null,
    };
  }
  return null;
}
