// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
const KEY = 'SKR-R3';
const JUDGE = 'section[aria-label="Judge the chosen entries"]';
const board = (server: DemoServer): Api['CycleBoard'] => server.recorded(`/cycles/${KEY}`);
const titles = (): string[] => page.all('table.lines a.plain');

describe('the board of a cycle', () => {
  it('shows every entry in the order of the cycle, and how much there is', async () => {
    const server = new DemoServer('maren');
    const { entries } = board(server);
    page = await Page.open(`/SKR/cycles/${KEY}`, server);
    await page.see(`${entries.length} entries`);
    expect(titles()).toEqual(entries.map((e) => e.title));
  });

  it('filters by words, by what an entry shows and by whose it is, in the address', async () => {
    const server = new DemoServer('maren');
    const { entries } = board(server);
    const someone = entries.find((e) => e.assignee !== null)!.assignee!;
    page = await Page.open(`/SKR/cycles/${KEY}?who=${someone.id}`, server);
    const theirs = entries.filter((e) => e.assignee?.id === someone.id);
    await page.see(`${theirs.length} of ${entries.length} entries`);
    expect(titles()).toEqual(theirs.map((e) => e.title));
    const word = theirs[0]!.case_key;
    await page.type('[aria-label="Filter by words or a key"]', word);
    await vi.waitFor(() => expect(page.path).toContain(`q=${word}`));
    await vi.waitFor(() =>
      expect(titles()).toEqual(theirs.filter((e) => e.case_key.includes(word)).map((e) => e.title)),
    );
  });

  it('orders by a column, and by the order of the cycle again', async () => {
    const server = new DemoServer('maren');
    page = await Page.open(`/SKR/cycles/${KEY}?sort=title`, server);
    const byTitle = board(server)
      .entries.map((e) => e.title)
      .sort((a, b) => (a.toLowerCase() < b.toLowerCase() ? -1 : 1));
    await vi.waitFor(() =>
      expect(titles().map((t) => t.toLowerCase())).toEqual(byTitle.map((t) => t.toLowerCase())),
    );
    await page.click('th button', '#');
    await vi.waitFor(() => expect(page.path).not.toContain('sort='));
  });

  it('judges chosen entries with one note, and keeps those chosen that were refused', async () => {
    const server = new DemoServer('tobias');
    const [first, second] = board(server).entries as [Api['EntryLine'], Api['EntryLine']];
    const refused = { id: second.id, key: second.case_key, title: second.title, why: 'It is held.' };
    server.on(`POST /cycles/${KEY}/list-verdicts`, { done: [first.id], refused: [refused] });
    page = await Page.open(`/SKR/cycles/${KEY}`, server);
    await page.see(first.title);
    await page.press('x');
    for (const e of [first, second]) await page.click(`[aria-label="Choose ${e.case_key} ${e.title}"]`);
    await page.see('2 entries chosen', JUDGE);
    await page.click(`${JUDGE} button`, 'Blocked');
    await page.type('#list-note', 'no');
    await page.submit(`${JUDGE} form`);
    await page.see('Say in a few words why', JUDGE);
    expect(page.sent).toEqual([]);
    await page.type('#list-note', 'The harbour is dark');
    await page.submit(`${JUDGE} form`);
    await page.see('It is held.', JUDGE);
    await page.see('1 entry chosen', JUDGE);
    expect(page.sent[0]?.body).toMatchObject({
      ids: [first.id, second.id],
      verdict: 'blocked',
      note: 'The harbour is dark',
    });
  });

  it('offers no judging where nobody may judge', async () => {
    const server = new DemoServer('maren');
    const closed = board(server);
    closed.cycle.state = 'closed';
    page = await Page.open(`/SKR/cycles/${KEY}`, server.on(`GET /cycles/${KEY}`, closed));
    await page.see(closed.entries[0]!.title);
    expect(page.text()).not.toContain('Judge from the list');
    await page.press('x');
    expect(page.has(JUDGE)).toBe(false);
  });

  it('walks the entry that the server names as next', async () => {
    const server = new DemoServer('tobias');
    const next = board(server).entries.find((e) => e.readiness === 'ready')!.id;
    server.on(`GET /cycles/${KEY}`, { ...board(server), next_entry_id: next });
    server.on(`POST /entries/${next}/attempts`, { status: 409, type: 'held', detail: 'This entry is held.' });
    page = await Page.open(`/SKR/cycles/${KEY}`, server);
    await page.click('button', 'Walk my next entry');
    await page.see('This entry is held.', '[role=alert]');
    expect(page.sent.map((s) => s.path)).toEqual([`/entries/${next}/attempts`]);
  });
});
