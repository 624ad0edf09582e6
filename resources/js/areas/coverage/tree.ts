import type { Api } from '@/api/client';

/** What coverage can be asked of. */
export type LensName = 'release' | 'build' | 'configuration' | 'milestone';
/** What it is asked of, by id. */
export type Lens = { [K in LensName]?: string };
export const LENS: { name: LensName; from: keyof Api['CoverageLenses']; word: string }[] = [
  { name: 'release', from: 'releases', word: 'Release' },
  { name: 'build', from: 'builds', word: 'Build' },
  { name: 'configuration', from: 'configurations', word: 'Configuration' },
  { name: 'milestone', from: 'milestones', word: 'Milestone' },
];

/** What stands of it in an address. */
export const lensOf = (query: Record<string, unknown>): Lens =>
  Object.fromEntries(LENS.flatMap((l) => (query[l.name] ? [[l.name, String(query[l.name])]] : [])));

export type Row = Api['RequirementRow'];
/** A row as the tree shows it. */
export interface TreeRow {
  row: Row;
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
  ].filter(Boolean);
  if (words.length === 0 && row.own_cases > 0) {
    if (row.state === 'fail') return 'failing';
    if (row.walked < row.cases) return 'not walked to the end';
  }
  return words.join(', ');
}

const isGap = (row: Row): boolean => gapOf(row) !== '' || !['pass', 'not_applicable'].includes(row.state);

/**
 * The rows that are shown, each after the one above it.
 *
 * @param turned ids that somebody opened or closed against how they begin
 * @param gaps   only those that want something, with those above them
 */
export function shownRows(rows: readonly Row[], turned: ReadonlySet<string>, gaps: boolean): TreeRow[] {
  const known = new Map(rows.map((r) => [r.id, r]));
  const below = new Set(rows.map((r) => r.parent_id).filter((id) => id !== null && known.has(id)));
  const wanted = new Set<string>();
  if (gaps)
    for (const row of rows.filter(isGap))
      for (let at: Row | undefined = row; at && !wanted.has(at.id); at = known.get(at.parent_id ?? ''))
        wanted.add(at.id);
  const begin = rows.length <= MANY || gaps;
  const depths = new Map<string, number>();
  const hidden = new Set<string>();
  const shown: TreeRow[] = [];
  for (const row of rows) {
    const parent = row.parent_id !== null && known.has(row.parent_id) ? row.parent_id : null;
    const depth = parent === null ? 0 : (depths.get(parent) ?? 0) + 1;
    depths.set(row.id, depth);
    const open = begin !== turned.has(row.id);
    if (parent !== null && hidden.has(parent)) hidden.add(row.id);
    else {
      if (!gaps || wanted.has(row.id)) shown.push({ row, depth, hasBelow: below.has(row.id), open });
      if (!open) hidden.add(row.id);
    }
  }
  return shown;
}

/** The answer in one sentence. */
export function answer(tree: Api['CoverageTree']): string {
  const all = tree.counts.reduce((sum, c) => sum + c.count, 0);
  if (all === 0) return '';
  const of = (state: string): number => tree.counts.find((c) => c.state === state)?.count ?? 0;
  const parts = [
    `${of('pass') + of('not_applicable')} of ${all} requirements proven`,
    of('fail') > 0 ? `${of('fail')} failing` : '',
    of('uncovered') > 0 ? `${of('uncovered')} without a case` : '',
  ];
  return parts.filter(Boolean).join(', ');
}

/** Where a row goes by an arrow key: among its neighbours, into the one before it, or out of the one it stands below. */
export function moved(
  rows: readonly Row[],
  row: Row,
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
