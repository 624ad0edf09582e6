import * as Plot from '@observablehq/plot';
import type { Api } from '@/api/client';

export const BY: { value: Api['SessionFigures']['by']; word: string }[] = [
  { value: 'folder', word: 'Folder' },
  { value: 'label', word: 'Label' },
  { value: 'requirement', word: 'Requirement' },
  { value: 'build', word: 'Build' },
  { value: 'person', word: 'Person' },
  { value: 'month', word: 'Month' },
];
type Row = Api['FigureRow'];

/** Issues an hour, as one reads it: with its interval; a dash without any time. */
export const rateWords = (row: Pick<Row, 'per_hour' | 'lower' | 'upper'>): string =>
  row.per_hour === null
    ? '–'
    : `${short(row.per_hour)} (${short(row.lower ?? 0)} to ${short(row.upper ?? 0)})`;
const short = (n: number): string =>
  (n >= 10 ? n.toFixed(0) : n >= 1 ? n.toFixed(1) : n.toFixed(2)).replace(/^0\.00$/, '0');

/** Since when an area was not explored, as one reads it; empty where it was, on the newest build. */
export function sinceWords(
  row: Pick<Row, 'sessions' | 'builds_since' | 'is_behind' | 'newest_build'>,
): string {
  if (row.sessions === 0) return 'never explored';
  if (row.builds_since === null) return 'on no build';
  return row.is_behind ? `not since ${row.newest_build}` : '';
}

/** Issues an hour of each area as a mark with its interval as a line, what was found most first. */
export function rateChart(rows: readonly Row[], width: number): Plot.PlotOptions {
  const known = rows
    .filter((r) => r.per_hour !== null)
    .sort((a, b) => (b.per_hour ?? 0) - (a.per_hour ?? 0))
    .slice(0, 20);
  return {
    height: 76 + known.length * 30,
    marginBottom: 54,
    marginLeft: Math.min(220, Math.max(80, Math.round(width * 0.25))),
    marginRight: 90,
    x: { label: 'Issues an hour of testing, with the interval', grid: true, zero: true, nice: true },
    y: { label: null, domain: known.map((r) => r.name), tickFormat: (name: string) => cut(name) },
    marks: [
      Plot.ruleY(known, { y: 'name', x1: 'lower', x2: 'upper', strokeWidth: 2 }),
      Plot.tickX(known, { y: 'name', x: 'lower', insetTop: 9, insetBottom: 9 }),
      Plot.tickX(known, { y: 'name', x: 'upper', insetTop: 9, insetBottom: 9 }),
      Plot.dot(known, { y: 'name', x: 'per_hour', r: 5, fill: 'currentColor', symbol: 'diamond' }),
      Plot.text(known, {
        y: 'name',
        x: 'upper',
        text: (r: Row) => `${short(r.per_hour ?? 0)} an hour`,
        dx: 8,
        textAnchor: 'start',
      }),
    ],
  };
}

/** Hours of each area, of them testing in ink. */
export function timeChart(rows: readonly Row[], width: number): Plot.PlotOptions {
  const known = rows.filter((r) => r.active_ms > 0).slice(0, 20);
  const hours = (ms: number): number => ms / 3_600_000;
  return {
    height: 76 + known.length * 30,
    marginBottom: 54,
    marginLeft: Math.min(220, Math.max(80, Math.round(width * 0.25))),
    marginRight: 110,
    x: { label: 'Hours, of them testing in ink', grid: true, zero: true, nice: true },
    y: { label: null, domain: known.map((r) => r.name), tickFormat: (name: string) => cut(name) },
    marks: [
      Plot.barX(known, {
        y: 'name',
        x: (r: Row) => hours(r.active_ms),
        fill: 'none',
        stroke: 'currentColor',
        insetTop: 5,
        insetBottom: 5,
      }),
      Plot.barX(known, {
        y: 'name',
        x: (r: Row) => hours(r.testing_ms),
        fill: 'currentColor',
        insetTop: 5,
        insetBottom: 5,
      }),
      Plot.text(known, {
        y: 'name',
        x: (r: Row) => hours(r.active_ms),
        text: (r: Row) =>
          `${short(hours(r.active_ms))} h, ${r.sessions} ${r.sessions === 1 ? 'session' : 'sessions'}`,
        dx: 8,
        textAnchor: 'start',
      }),
    ],
  };
}
const cut = (name: string): string => (name.length > 30 ? `${name.slice(0, 29)}…` : name);
