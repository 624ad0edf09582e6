// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
const READ = '/projects/SKR/today';
const today = (server: DemoServer): Api['TodayPage'] => server.recorded(READ);
const entries = (of: Api['TodayPage']): Api['EntryLine'][] => of.cycles.flatMap((c) => c.entries);

describe('Today', () => {
  it('lists what is mine, what is due first at the top, and says how much is left', async () => {
    const server = new DemoServer('tobias');
    const open = entries(today(server)).filter((e) => e.readiness !== 'done');
    const ready = open.filter((e) => e.readiness === 'ready');
    page = await Page.open('/SKR/today', server);
    await page.see(`${ready.length} ${ready.length === 1 ? 'entry' : 'entries'} to walk`);
    const text = page.text('main');
    const places = open.map((e) => text.indexOf(e.title));
    expect(places.every((at) => at >= 0)).toBe(true);
  });

  it('starts the next entry by Enter', async () => {
    const server = new DemoServer('tobias');
    const next = today(server).next_entry_id!;
    server.on(`POST /entries/${next}/attempts`, { status: 409, type: 'held', detail: 'This entry is held.' });
    page = await Page.open('/SKR/today', server);
    await page.see('to walk');
    (document.activeElement as HTMLElement | null)?.blur();
    await page.press('Enter');
    await page.see('This entry is held.');
    expect(page.sent.map((s) => s.path)).toEqual([`/entries/${next}/attempts`]);
  });

  it('says what changed until it was seen', async () => {
    const server = new DemoServer('tobias');
    const before = today(server);
    page = await Page.open('/SKR/today', server);
    for (const line of before.news) await page.see(line.text, 'ul.news');
    (document.activeElement as HTMLElement | null)?.blur();
    server.on(`GET ${READ}`, { ...before, news: [] }).on(`POST ${READ}-seen`, null);
    await page.press('x');
    expect(page.sent).toEqual([{ method: 'POST', path: `${READ}-seen`, body: { as_of: before.as_of } }]);
    await vi.waitFor(() => expect(page.has('ul.news')).toBe(false));
  });

  it('offers nothing to start where nothing is ready', async () => {
    const server = new DemoServer('tobias');
    const none = { ...today(server), next_entry_id: null };
    page = await Page.open('/SKR/today', server.on(`GET ${READ}`, none));
    await page.see('to walk');
    (document.activeElement as HTMLElement | null)?.blur();
    await page.press('Enter');
    expect(page.sent).toEqual([]);
  });

  it('keeps notes through the day', async () => {
    const server = new DemoServer('tobias');
    page = await Page.open('/SKR/today', server.on('PUT /projects/SKR/scratch', {}));
    await page.see('to walk');
    await page.type('textarea', 'Ask about the tide');
    await vi.waitFor(() => expect(page.sent.map((s) => s.body)).toEqual([{ text: 'Ask about the tide' }]), {
      timeout: 4000,
    });
  });
});
