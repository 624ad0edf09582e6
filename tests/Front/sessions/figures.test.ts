import { describe, expect, it } from 'vitest';
import type { Api } from '@/api/client';
import { rateChart, rateWords, sinceWords, timeChart } from '@/areas/sessions/figures';

const row = (more: Partial<Api['FigureRow']>): Api['FigureRow'] => ({
  id: 'a',
  name: 'Booking',
  sessions: 1,
  active_ms: 3_600_000,
  testing_ms: 3_600_000,
  on_charter: 1,
  issues: 0,
  questions: 0,
  per_hour: null,
  lower: null,
  upper: null,
  days_since: 1,
  builds_since: 0,
  newest_build: '4.2.0',
  is_behind: false,
  ...more,
});

describe('figures of sessions', () => {
  it('are read with their interval, a dash without any time', () => {
    expect(rateWords(row({ per_hour: 1.5, lower: 0.409, upper: 3.877 }))).toBe('1.5 (0.41 to 3.9)');
    expect(rateWords(row({ per_hour: 0, lower: 0, upper: 1.997 }))).toBe('0 (0 to 2.0)');
    expect(rateWords(row({ per_hour: 12.34, lower: 10.01, upper: 20 }))).toBe('12 (10 to 20)');
    expect(rateWords(row({}))).toBe('–');
  });

  it('say since when an area was not explored', () => {
    expect(sinceWords(row({}))).toBe('');
    expect(sinceWords(row({ builds_since: 2, is_behind: true }))).toBe('not since 4.2.0');
    expect(sinceWords(row({ sessions: 0 }))).toBe('never explored');
    expect(sinceWords(row({ builds_since: null }))).toBe('on no build');
  });

  it('are drawn with room for each area, those without time left out', () => {
    const rows = [row({ per_hour: 1, lower: 0.5, upper: 2 }), row({ name: 'Refunds', active_ms: 0 })];
    expect(rateChart(rows, 800).y).toMatchObject({ domain: ['Booking'] });
    expect(timeChart(rows, 800).y).toMatchObject({ domain: ['Booking'] });
  });
});
