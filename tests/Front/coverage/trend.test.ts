import { describe, expect, it } from 'vitest';
import { countOn, spread, statesOf, trendChart, trendWords } from '@/areas/coverage/trend';
import type { Api } from '@/api/client';

/** What was proven day by day, as words and as layers. */
const point = (day: string, counts: Record<string, number>): Api['CoveragePoint'] => ({
  day,
  counts: Object.entries(counts).map(([state, count]) => ({ state, count }) as Api['StateCount']),
  cases: 10,
  walked: 4,
});
const points = [
  point('2026-11-28', { not_run: 3, uncovered: 1 }),
  point('2026-11-29', { fail: 1, not_run: 1, pass: 2 }),
  point('2026-11-30', { fail: 1, pass: 3, not_applicable: 1 }),
];

describe('day by day', () => {
  it('says in a sentence what changed since the first day', () => {
    expect(trendWords(points)).toBe(
      '4 of 5 requirements are proven, 4 more than on 28 Nov. 4 were required then.',
    );
    expect(trendWords([points[1]!, points[1]!])).toBe(
      '2 of 4 requirements are proven, as many as on 29 Nov.',
    );
    expect(trendWords([points[2]!, points[0]!])).toContain('0 of 4 requirements are proven, 4 fewer than');
    expect(trendWords(points.slice(0, 1))).toBe('');
    expect(trendWords([])).toBe('');
  });

  it('lays what is proven on the ground and what fails on top, and leaves out what never was', () => {
    expect(statesOf(points)).toEqual(['pass', 'not_applicable', 'uncovered', 'not_run', 'fail']);
    expect(countOn(points[0]!, 'pass')).toBe(0);
  });

  it('draws as many layers as there are states, up to the most that was required', () => {
    const chart = trendChart(points, 800);
    expect(chart.marks).toHaveLength(2 * statesOf(points).length + 1);
    expect((chart.y as { domain: number[] }).domain).toEqual([0, 5]);
  });

  it('puts labels apart, in their order and within the chart, wherever they belong', () => {
    for (let n = 0; n < 200; n++) {
      const many = 1 + (n % 8);
      const belong = Array.from({ length: many }, () => Math.random() * 280).sort((a, b) => a - b);
      const put = spread(belong, 17, 280);
      expect(put.at(-1)!).toBeLessThanOrEqual(280);
      put.slice(1).forEach((at, i) => expect(at - put[i]!).toBeGreaterThanOrEqual(16.99));
    }
    expect(spread([10, 100, 200], 17, 280)).toEqual([10, 100, 200]);
  });
});
