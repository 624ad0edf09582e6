import { describe, expect, it } from 'vitest';
import { answer, gapOf, isGap, moved, shownRows, type Row } from '@/areas/coverage/tree';

/** The tree of requirements: what is shown of it, what is wanting, and where a row goes. */
const row = (id: string, parent: string | null = null, more: Partial<Row> = {}): Row => ({
  id,
  key: `TST-${id}`,
  title: id,
  parent_id: parent,
  external_id: null,
  state: 'pass',
  cases: 1,
  walked: 1,
  own_cases: 1,
  to_look_at: 0,
  open_defects: 0,
  unsteady: 0,
  case_counts: [],
  ...more,
});
const rows = [
  row('a', null, { state: 'fail' }),
  row('b', 'a'),
  row('c', 'b', { state: 'fail', open_defects: 2 }),
  row('d', 'a'),
  row('e', null, { cases: 0, walked: 0, own_cases: 0, state: 'uncovered' }),
  row('f'),
];
const ids = (turned: string[] = [], gaps = false): string[] =>
  shownRows(rows, new Set(turned), gaps ? isGap : null).map((r) => `${'-'.repeat(r.depth)}${r.row.id}`);

describe('the tree', () => {
  it('is open where it is small, and a closed one hides all below it', () => {
    expect(ids()).toEqual(['a', '-b', '--c', '-d', 'e', 'f']);
    expect(ids(['b'])).toEqual(['a', '-b', '-d', 'e', 'f']);
    expect(ids(['a'])).toEqual(['a', 'e', 'f']);
  });

  it('begins closed where it is large', () => {
    const many = Array.from({ length: 100 }, (_, n) => row(`r${n}`, n > 3 ? `r${n % 4}` : null)).sort(
      (x, y) => Number((x.parent_id ?? x.id).slice(1)) - Number((y.parent_id ?? y.id).slice(1)),
    );
    expect(shownRows(many, new Set(), null)).toHaveLength(4);
    expect(shownRows(many, new Set(['r0']), null)).toHaveLength(28);
  });

  it('shows only what is wanting, with what is above it', () => {
    expect(ids([], true)).toEqual(['a', '-b', '--c', 'e']);
    expect(shownRows([row('x')], new Set(), isGap)).toEqual([]);
  });

  it('says what is wanting', () => {
    expect(gapOf(rows[4]!)).toBe('no case yet');
    expect(gapOf(rows[2]!)).toBe('2 open defects');
    expect(gapOf(row('x', null, { to_look_at: 3, open_defects: 1 }))).toBe(
      'words changed: 3 to look at, 1 open defect',
    );
    expect(gapOf(row('x', null, { state: 'fail' }))).toBe('failing');
    expect(gapOf(row('x', null, { state: 'not_run', walked: 0 }))).toBe('not walked to the end');
    expect(gapOf(row('x'))).toBe('');
  });

  it('moves a row among its neighbours, into the one before it, and out of the one above it', () => {
    const of = (id: string): Row => rows.find((r) => r.id === id)!;
    expect(moved(rows, of('d'), 'ArrowUp')).toEqual({ parent: 'a', before: 'b' });
    expect(moved(rows, of('d'), 'ArrowDown')).toBeNull();
    expect(moved(rows, of('e'), 'ArrowDown')).toEqual({ parent: null, before: null });
    expect(moved(rows, of('d'), 'ArrowRight')).toEqual({ parent: 'b', before: null });
    expect(moved(rows, of('b'), 'ArrowRight')).toBeNull();
    expect(moved(rows, of('c'), 'ArrowLeft')).toEqual({ parent: 'a', before: 'd' });
    expect(moved(rows, of('a'), 'ArrowLeft')).toBeNull();
  });

  it('answers in one sentence, and says nothing of nothing', () => {
    expect(
      answer([
        { state: 'fail', count: 2 },
        { state: 'uncovered', count: 1 },
        { state: 'pass', count: 8 },
        { state: 'not_applicable', count: 1 },
      ]),
    ).toBe('9 of 12 requirements proven, 2 failing, 1 without a case');
    expect(answer([])).toBe('');
  });
});
