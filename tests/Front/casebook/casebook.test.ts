import { describe, expect, it } from 'vitest';
import { tree } from '@/areas/casebook/filter';
import { asCases, asRows, cells, isTable } from '@/areas/casebook/paste';
import {
  blank,
  duplicate,
  insertAt,
  moveBy,
  moveTo,
  split,
  toRows,
  toSteps,
  type Row,
} from '@/areas/casebook/steps';
import { inWords, toggled, withValue } from '@/kit/criteria';

/** Small repeatable randomness. */
function dice(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return state % below;
  };
}
const names = (rows: Row[]): string => rows.map((r) => r.action).join('');
const rowsOf = (text: string): Row[] => [...text].map((action) => blank({ action }));

describe('what a spreadsheet puts on the clipboard', () => {
  it('comes back cell by cell, with quotes, tabs and line ends inside', () => {
    const roll = dice(5);
    const pieces = ['a', '"', '\t', '\n', 'two words', '""', 'ä'];
    for (let n = 0; n < 800; n++) {
      const table = Array.from({ length: 1 + roll(4) }, () =>
        Array.from(
          { length: 2 + roll(3) },
          () => `x${Array.from({ length: roll(4) }, () => pieces[roll(pieces.length)]).join('')}y`,
        ),
      );
      const text = table
        .map((row) => row.map((c) => (/["\t\n]/.test(c) ? `"${c.replaceAll('"', '""')}"` : c)).join('\t'))
        .join('\r\n');
      expect(cells(text)).toEqual(table);
    }
  });

  it('is not confused by words in quotes', () => {
    expect(cells('"Choose" is shown\tnext\n"a')).toEqual([['"Choose" is shown', 'next'], ['"a']]);
    expect(isTable('one line of words')).toBe(false);
    expect(isTable('two\nlines')).toBe(false);
    expect(isTable('a\tb')).toBe(true);
    expect(cells('\n\t\n')).toEqual([]);
  });

  it('becomes steps from the column it is pasted into', () => {
    const [row] = asRows([['see', 'too much']], 'expected');
    expect([row?.action, row?.data, row?.expected]).toEqual(['', '', 'see']);
    expect(
      asRows(cells('do\twith\tsee\tmore\n\t\tsee 2')).map((r) => [r.action, r.data, r.expected]),
    ).toEqual([
      ['do', 'with', 'see'],
      ['', '', 'see 2'],
    ]);
  });

  it('becomes cases when the first column is a title', () => {
    const found = asCases(cells('One\tdo\t\tsee\n\tdo 2\t\tsee 2\nTwo\tdo\tx\tsee\nTwo\tagain\t\t.'));
    expect(found?.map((c) => [c.title, c.steps.length])).toEqual([
      ['One', 2],
      ['Two', 2],
    ]);
    expect(asCases(cells('do\twith\tsee\ndo\twith\tsee'))).toBeNull();
    expect(asCases(cells('Only\tdo\t\tsee\n\tdo\t\tsee'))).toBeNull();
  });
});

describe('the rows of the grid', () => {
  it('are the same after a way there and back', () => {
    const steps: Parameters<typeof toRows>[0] = [
      {
        action: 'a',
        data: '',
        expected: 'b',
        files: [{ sha256: 'x', name: 'y' }],
        routine: null,
        values: {},
      },
      { action: '', data: '', expected: '', files: [], routine: 'r', values: { who: 'isla' } },
    ];
    expect(toSteps([...toRows(steps), blank(), blank({ action: '  ' })])).toEqual(steps);
  });

  it('never get lost by moving', () => {
    const roll = dice(9);
    let rows = rowsOf('abcdef');
    for (let n = 0; n < 500; n++) {
      const from = roll(6);
      rows = roll(2)
        ? moveBy(rows, from, Math.min(5, from + roll(3)), roll(2) ? 1 : -1)
        : moveTo(rows, from, roll(6));
      expect([...names(rows)].sort().join('')).toBe('abcdef');
    }
  });

  it('move, double and split as one means', () => {
    expect(names(moveBy(rowsOf('abcd'), 1, 2, 1))).toBe('adbc');
    expect(names(moveBy(rowsOf('abcd'), 0, 1, -1))).toBe('abcd');
    expect(names(moveTo(rowsOf('abcd'), 0, 2))).toBe('bcad');
    expect(names(insertAt(rowsOf('ab'), 1, rowsOf('xy')))).toBe('axyb');
    const row = blank({ action: 'Open. Pay', data: 'd', expected: 'e' });
    expect(duplicate(row)).toMatchObject({ action: 'Open. Pay', data: 'd' });
    expect(duplicate(row).id).not.toBe(row.id);
    const [one, two] = split(row, 'action', 5);
    expect([one.action, one.data, two.action, two.data, two.expected]).toEqual([
      'Open.',
      '',
      'Pay',
      'd',
      'e',
    ]);
    expect(split(row, 'expected', 0)[1].expected).toBe('e');
  });
});

describe('filters', () => {
  it('stand in the address', () => {
    const query = { state: 'draft', sort: '-changed', q: ['tide'], 'field.x': 'High', peek: 'K', empty: '' };
    expect(withValue(query, 'state', undefined).state).toBeUndefined();
    expect(withValue({}, 'state', 'a,b')).toEqual({ state: 'a,b' });
    expect(toggled('a,b', 'a')).toBe('b');
    expect(toggled(undefined, 'a')).toBe('a');
  });

  it('are told in words', () => {
    const choices = [
      { value: 'high', label: 'High' },
      { value: 'low', label: 'Low' },
    ];
    expect(inWords({ name: 'priority', label: 'Priority', choices, many: true }, 'high,low')).toBe(
      'Priority: High or Low',
    );
    expect(inWords({ name: 'label', label: 'Label', choices: [], many: true, joint: 'and' }, 'a,b')).toBe(
      'Label: a and b',
    );
  });
});

describe('the folders', () => {
  it('stand below one another with what is in them', () => {
    const folder = (id: string, parent_id: string | null, cases: number) => ({
      id,
      parent_id,
      name: id,
      cases,
      seen: '',
    });
    const folders = [folder('b', null, 1), folder('a', null, 2), folder('a1', 'a', 3), folder('a2', 'a', 4)];
    expect(tree(folders, new Set()).map((l) => [l.id, l.depth, l.all])).toEqual([
      ['b', 0, 1],
      ['a', 0, 9],
      ['a1', 1, 3],
      ['a2', 1, 4],
    ]);
    expect(tree(folders, new Set(['a'])).map((l) => l.id)).toEqual(['b', 'a']);
  });
});
