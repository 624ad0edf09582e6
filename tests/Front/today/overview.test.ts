// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
vi.setConfig({ testTimeout: 20_000 });

describe('a day', () => {
  it('shows a lead each running cycle with its pace, and what waits', async () => {
    page = await Page.open('/SKR/today', 'maren');
    await page.see('Release 4.2, booking and boarding', '[aria-label="Running cycles"]');
    await page.see('needed', '[aria-label="Running cycles"]');
    expect(page.all('[aria-label="Waits for you"] li').length).toBeGreaterThan(0);
    expect(page.has('[aria-label="Walking now"]')).toBe(true);
    expect(page.text('.actions'), 'nobody’s entry is begun by Enter').toBe('');
    await page.press('w');
    await page.reach(/^\/SKR\/queue/);
  });

  it('tells an admin what fails in the background', async () => {
    const server = new DemoServer('corin');
    const overview = server.recorded<Api['OverviewPage']>('/projects/SKR/overview');
    overview.failing = [{ text: 'The mail of an invitation did not go.', page: '/setup/people' }];
    page = await Page.open('/SKR/today', server.on('GET /projects/SKR/overview', overview));
    await page.see('The mail of an invitation did not go.', '[aria-label="Does not work"]');
    await page.click('[aria-label="Does not work"] a', 'Look');
    await page.reach(/^\/SKR\/setup\/people/);
  });

  it('shows a lead their own entries last, and begins only those by Enter', async () => {
    const server = new DemoServer('maren');
    const mine = new DemoServer('tobias').recorded<Api['TodayPage']>('/projects/SKR/today');
    page = await Page.open('/SKR/today', server.on('GET /projects/SKR/today', mine));
    await page.see('Yours to walk');
    expect(page.text('.actions')).toContain('SKR-C13');
    const order = page.all('h2');
    expect(order.indexOf('Yours to walk')).toBeGreaterThan(order.indexOf('Turned since yesterday'));
  });

  it('shows a developer what came back and what is theirs', async () => {
    const server = new DemoServer('lina');
    const overview = server.recorded<Api['OverviewPage']>('/projects/SKR/overview');
    overview.defects[0]!.group = 'reopened';
    server.on('GET /projects/SKR/overview', overview);
    page = await Page.open('/SKR/today', server);
    await page.see(overview.defects[0]!.title, '[aria-label="Came back"]');
    expect(page.all('h2').slice(0, 2)).toEqual(['Came back 1', 'With you 8']);
  });

  it('says in words how a cycle goes', async () => {
    const server = new DemoServer('maren');
    const overview = server.recorded<Api['OverviewPage']>('/projects/SKR/overview');
    const states = { done: 'Everything has a verdict.', late: 'its time is over', behind: 'needed' } as const;
    const one = overview.cycles[0]!;
    overview.cycles = Object.keys(states).map(
      (pace, n) => ({ ...one, pace, cycle: { ...one.cycle, id: `${n}` } }) as typeof one,
    );
    server.on('GET /projects/SKR/overview', overview);
    page = await Page.open('/SKR/today', server);
    for (const words of Object.values(states)) await page.see(words, '[aria-label="Running cycles"]');
  });

  it('offers a tester what is free in one line', async () => {
    const server = new DemoServer('tobias');
    const today = server.recorded<Api['TodayPage']>('/projects/SKR/today');
    server.on('GET /projects/SKR/today', { ...today, cycles: [], free_entries: 12, free_cycles: 3 });
    page = await Page.open('/SKR/today', server);
    await page.see('12 entries in 3 cycles can be taken');
  });
});
