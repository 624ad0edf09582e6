import { describe, expect, it, vi } from 'vitest';
import { chosenCases, planOf } from '@/areas/casebook/filter';
import { conditionWords, leftOut } from '@/areas/cycles/usePlan';
import { durationText, parseMinutes } from '@/kit/duration';

describe('time as planners write it', () => {
  it('reads hours and minutes', () => {
    const read = ['4h', '4h 30m', '1.5h', '2,5h', '90m', '90', '1h 5'].map(parseMinutes);
    expect(read).toEqual([240, 270, 90, 150, 90, 90, 65]);
  });
  it('takes nothing else', () => {
    for (const text of ['', 'soon', '0', '0h', '-3h', '4h 4h', 'h', '1:30'])
      expect(parseMinutes(text)).toBeNull();
  });
  it('reads back what it writes, for every minute up to a hundred hours', () => {
    for (let minutes = 1; minutes < 6000; minutes++)
      expect(parseMinutes(durationText(minutes * 60_000))).toBe(minutes);
  });
  it('leaves minutes out where only hours matter', () => {
    expect([0, 59 * 60, 3600, 100 * 3600 + 59 * 60].map((s) => durationText(1000 * s))).toEqual([
      '0m',
      '59m',
      '1h',
      '100h',
    ]);
  });
});

describe('what is said of an act', () => {
  const refused = (n: number) =>
    Array.from({ length: n }, (_, i) => ({
      id: `${i}`,
      key: `SKR-C${i}`,
      title: 'x',
      why: 'It was walked.',
    }));
  it('names what was left as it is, the first three', () => {
    expect(leftOut([])).toBe('');
    expect(leftOut(refused(1))).toBe(' Left as it is: SKR-C0 (It was walked.)');
    expect(leftOut(refused(5))).toContain('SKR-C2 (It was walked.) and 2 more');
  });
  it('says conditions as people do', () => {
    expect(conditionWords('after', '#3 SKR-C1')).toBe('after #3 SKR-C1');
    expect(conditionWords('only_if_passed', '#3 SKR-C1')).toBe('only if #3 SKR-C1 passed');
  });
});

describe('planning from the casebook', () => {
  it('takes the chosen cases, or all that the filter finds', () => {
    expect(planOf('SKR', { ids: 'a,b' }).query).toEqual({ cases: 'a,b' });
    const all = planOf('SKR', { priority: 'high', q: 'tide' });
    expect(all.path).toBe('/SKR/cycles/new');
    expect(JSON.parse(all.query.filter!)).toEqual({ priority: 'high', q: 'tide' });
  });
  it('keeps long selections out of the address', () => {
    const kept = new Map<string, string>();
    vi.stubGlobal('sessionStorage', {
      getItem: (k: string) => kept.get(k) ?? null,
      setItem: (k: string, v: string) => void kept.set(k, v),
    });
    const ids = Array.from(
      { length: 200 },
      (_, i) => `00000000-0000-7000-8000-${String(i).padStart(12, '0')}`,
    );
    for (const n of [1, 80, 81, 200]) {
      const { query } = planOf('SKR', { ids: ids.slice(0, n).join(',') });
      expect(JSON.stringify(query).length).toBeLessThan(3100);
      expect(chosenCases(query.cases!)).toEqual(ids.slice(0, n));
    }
    vi.unstubAllGlobals();
  });
});
