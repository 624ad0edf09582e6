import * as Plot from '@observablehq/plot';
import type { Api } from '@/api/client';
import { day, wordOf } from '@/kit/words';
import { provenOf } from './tree';

type Point = Api['CoveragePoint'];
type State = Api['StateCount']['state'];

/** From the ground up: what is proven stands lowest, what fails on top. */
const ORDER: State[] = [
  'pass',
  'not_applicable',
  'uncovered',
  'not_run',
  'in_progress',
  'retest',
  'blocked',
  'fail',
];

export const countOn = (point: Point, state: string): number =>
  point.counts.find((c) => c.state === state)?.count ?? 0;

/** The states that occur on any of the days, from the ground up. */
export const statesOf = (points: readonly Point[]): State[] =>
  ORDER.filter((s) => points.some((p) => countOn(p, s) > 0));

/** What changed, in a sentence; empty without two days. */
export function trendWords(points: readonly Point[]): string {
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last || points.length < 2) return '';
  const [was, is] = [provenOf(first.counts), provenOf(last.counts)];
  const more = is.proven - was.proven;
  const change = more === 0 ? 'as many as' : `${Math.abs(more)} ${more > 0 ? 'more' : 'fewer'} than`;
  const required = is.all === was.all ? '' : ` ${was.all} were required then.`;
  return `${is.proven} of ${is.all} requirements are proven, ${change} on ${day(first.day)}.${required}`;
}

/**
 * Puts labels near where they belong, so far apart that none covers another.
 *
 * @param places where they belong, in px, in ascending order
 * @param gap    the least between two, in px
 */
export function spread(places: readonly number[], gap: number, end: number): number[] {
  const put = [...places];
  for (let i = 1; i < put.length; i++) put[i] = Math.max(put[i]!, put[i - 1]! + gap);
  for (let i = put.length - 1; i >= 0; i--) put[i] = Math.min(put[i]!, end - (put.length - 1 - i) * gap);
  return put;
}

const HEIGHT = 340;
const MARGIN = { top: 30, bottom: 34 };

/** Requirements by what they showed, day by day, one layer on the other, each named where it ends. */
export function trendChart(points: readonly Point[], width: number): Plot.PlotOptions {
  const states = statesOf(points);
  const days = points.map((p) => ({ at: new Date(`${p.day}T00:00:00Z`), p }));
  const top = Math.max(1, ...points.map((p) => provenOf(p.counts).all));
  const layers = days.flatMap(({ at, p }) => {
    let below = 0;
    return states.map((state) => {
      const count = countOn(p, state);
      below += count;
      return { at, state, from: below - count, to: below };
    });
  });
  const inner = HEIGHT - MARGIN.top - MARGIN.bottom;
  const last = layers.slice(-states.length).filter((l) => l.to > l.from);
  const ends = last.map((l) => ((l.from + l.to) / 2 / top) * inner);
  const labels = spread(ends, 17, inner - 6).map((px, i) => ({ ...last[i]!, y: (px / inner) * top }));
  return {
    height: HEIGHT,
    marginTop: MARGIN.top,
    marginBottom: MARGIN.bottom,
    marginLeft: 40,
    marginRight: width < 500 ? 96 : 130,
    x: { type: 'utc', label: null, ticks: width < 500 ? 4 : 8 },
    y: {
      domain: [0, top],
      label: 'Requirements',
      grid: true,
      tickFormat: (n: number) => (n % 1 ? '' : `${n}`),
    },
    marks: [
      ...states.map((state) =>
        Plot.areaY(
          layers.filter((l) => l.state === state),
          {
            x: 'at',
            y1: 'from',
            y2: 'to',
            fill: `var(--${state === 'uncovered' ? 'rule' : state})`,
            // What is still open stays behind what is known.
            fillOpacity: state === 'not_run' ? 0.4 : 0.85,
          },
        ),
      ),
      // A line between two layers: they are told apart in one colour too.
      ...states.map((state) =>
        Plot.lineY(
          layers.filter((l) => l.state === state),
          { x: 'at', y: 'to', stroke: 'var(--paper)', strokeWidth: 1.5 },
        ),
      ),
      Plot.text(labels, {
        x: 'at',
        y: 'y',
        text: (l: (typeof labels)[number]) => `${l.to - l.from} ${wordOf(l.state).toLowerCase()}`,
        textAnchor: 'start',
        dx: 8,
      }),
    ],
  };
}
