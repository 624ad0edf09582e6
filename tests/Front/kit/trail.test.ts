// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';
import PathTrail, { type TrailMark } from '@/kit/PathTrail.vue';
import type { Shown } from '@/kit/words';

const SHOWN: Shown[] = [
  'pass',
  'pass',
  'pass',
  'not_run',
  'not_run',
  'fail',
  'blocked',
  'retest',
  'held',
  'in_progress',
  'not_applicable',
];
const random = (seed: number) => () => {
  seed = (seed * 1664525 + 1013904223) % 4294967296;
  return seed / 4294967296;
};
const marksOf = (shown: Shown[], groups: (n: number) => string = () => ''): TrailMark[] =>
  shown.map((s, n) => ({ id: `e${n}`, shown: s, label: `SKR-C${n}: ${s}`, group: groups(n) }));
const trail = (marks: TrailMark[], current: string | null = null, longest = 48) =>
  mount(PathTrail, { props: { marks, current, label: 'My entries', longest }, attachTo: document.body });
/** How many marks each button stands for. */
const counts = (page: ReturnType<typeof trail>): number[] =>
  page.findAll('button').map((b) => Number(b.find('.count').exists() ? b.find('.count').text() : 1));

describe('the trail', () => {
  it('shows each mark as long as there is room', () => {
    const page = trail(marksOf(['pass', 'fail', 'not_run']), 'e1');
    expect(counts(page)).toEqual([1, 1, 1]);
    expect(page.findAll('button')[1]?.attributes('aria-current')).toBe('step');
    expect(page.findAll('button')[1]?.attributes('title')).toBe('SKR-C1: fail');
    page.unmount();
  });

  it('condenses to runs with counts, never across what must be seen or where one is, and loses none', () => {
    for (let seed = 1; seed <= 40; seed += 1) {
      const next = random(seed);
      const shown = Array.from(
        { length: 20 + Math.floor(next() * 200) },
        () => SHOWN[Math.floor(next() * SHOWN.length)] as Shown,
      );
      const group = (n: number): string => (n % 37 < 20 ? 'tablet' : 'phone');
      const marks = marksOf(shown, group);
      const here = `e${Math.floor(next() * shown.length)}`;
      const page = trail(marks, here, 12);
      const runs = counts(page);
      expect(
        runs.reduce((a, b) => a + b),
        `seed ${seed}`,
      ).toBe(marks.length);
      let at = 0;
      for (const count of runs) {
        const run = marks.slice(at, at + count);
        expect(new Set(run.map((m) => m.shown)).size).toBe(1);
        expect(new Set(run.map((m) => m.group)).size).toBe(1);
        if (count > 1) {
          expect(['fail', 'blocked', 'retest']).not.toContain(run[0]?.shown);
          expect(run.some((m) => m.id === here)).toBe(false);
        }
        at += count;
      }
      page.unmount();
    }
  });

  it('opens a run on a click and goes to a mark on another', async () => {
    const page = trail(marksOf(Array(60).fill('pass') as Shown[]), null, 10);
    expect(counts(page)).toEqual([60]);
    await page.find('button').trigger('click');
    expect(page.findAll('button')).toHaveLength(60);
    expect(page.emitted('choose')).toBeUndefined();
    await page.findAll('button')[4]?.trigger('click');
    expect(page.emitted('choose')).toEqual([['e4']]);
    page.unmount();
  });

  it('is walked by the arrows, and stops at its ends', async () => {
    const page = trail(marksOf(['pass', 'fail', 'not_run']));
    const buttons = page.findAll('button');
    buttons[0]?.element.focus();
    await buttons[0]?.trigger('keydown', { key: 'ArrowRight' });
    expect(document.activeElement).toBe(buttons[1]?.element);
    await buttons[1]?.trigger('keydown', { key: 'ArrowRight' });
    await buttons[2]?.trigger('keydown', { key: 'ArrowRight' });
    expect(document.activeElement).toBe(buttons[2]?.element);
    await buttons[2]?.trigger('keydown', { key: 'ArrowLeft' });
    expect(document.activeElement).toBe(buttons[1]?.element);
    page.unmount();
  });

  it('has a word for every mark', () => {
    const page = trail(marksOf(SHOWN));
    for (const svg of page.findAll('svg')) expect(svg.attributes('aria-label')).toMatch(/^SKR-C\d+: \w+/);
    page.unmount();
  });
});
