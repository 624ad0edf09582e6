/** What a trail's condensing looks at. */
interface Mark {
  shown: string;
  group?: string;
}
/** What always stands for itself. */
const ALONE = ['fail', 'blocked', 'retest'];

/**
 * Makes runs with counts of what shows the same, where a trail is longer than `longest`: never across a fail, a blocked one,
 * a retest, a gap between groups, or what `alone` names. The same as `CondensedTrail` of the core; both run on
 * `tests/shared/trail.json`.
 */
export function condense<M extends Mark>(
  marks: readonly M[],
  longest: number,
  alone: (mark: M) => boolean = () => false,
): { mark: M; count: number; gap: boolean }[] {
  const runs: { mark: M; count: number; gap: boolean }[] = [];
  for (const mark of marks) {
    const before = runs.at(-1);
    const gap = before !== undefined && (before.mark.group ?? '') !== (mark.group ?? '');
    const same =
      marks.length > longest &&
      before !== undefined &&
      !gap &&
      before.mark.shown === mark.shown &&
      !ALONE.includes(mark.shown) &&
      !alone(mark) &&
      !alone(before.mark);
    if (same) before.count += 1;
    else runs.push({ mark, count: 1, gap });
  }
  return runs;
}
