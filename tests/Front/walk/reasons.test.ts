import { describe, expect, it } from 'vitest';
import { meantReason } from '@/areas/walk/reasons';

describe('the reason that is meant', () => {
  const names = ['Environment down', 'Data missing', 'Waits for a fix', 'Waits', 'No data'];
  it.each([
    ['data missing', 'Data missing'],
    [' DATA', 'Data missing'],
    ['waits', 'Waits'],
    ['waits f', 'Waits for a fix'],
    ['down', 'Environment down'],
    ['data', 'Data missing'],
    ['o d', 'No data'],
    ['cat', null],
    ['', null],
    ['  ', null],
  ])('“%s” is %s', (typed, meant) => expect(meantReason(names, typed)).toBe(meant));
});
