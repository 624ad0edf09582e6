// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
const KEY = 'SKR-R3';
const JUDGE = 'section[aria-label="Judge the chosen entries"]';
const board = (server: DemoServer): Api['CycleBoard'] => server.recorded(`/cycles/${KEY}`);
const entries = (server: DemoServer): Api['EntryLine'][] =>
  server.recorded<Api['EntryPage']>(`/cycles/${KEY}/entries`).items;
const titles = (): string[] => page.all('.list a.plain');
const asked = (): URLSearchParams =>
  new URLSearchParams(
    page.server.asked
      .filter((a) => a.startsWith(`/cycles/${KEY}/entries?`))
      .at(-1)
      ?.split('?')[1],
  );

describe('the board of a cycle', () => {
  it('shows the entries in the order of the cycle, how much there is, and who walks', async () => {
    const server = new DemoServer('maren');
    const walker = { person: { id: 'p', name: 'Tobias Reyle' }, case_key: 'SKR-C9', entry_id: 'e' };
    server.on(`GET /cycles/${KEY}`, { ...board(server), walkers: [walker], held: 3, active_ms: 5_400_000 });
    page = await Page.open(`/SKR/cycles/${KEY}`, server);
    await page.see(`${entries(server).length} entries`);
    await page.see('1h 30m spent · 3 held · Tobias Reyle on SKR-C9');
    expect(titles()).toEqual(entries(server).map((e) => e.title));
  });

  it('asks the server for words, for what an entry shows and for whose it is, and keeps them in the address', async () => {
    const server = new DemoServer('maren');
    const someone = entries(server).find((e) => e.assignee !== null)!.assignee!;
    page = await Page.open(`/SKR/cycles/${KEY}?who=${someone.id}`, server);
    await page.see(`Assigned to: ${someone.name}`);
    expect(asked().get('who')).toBe(someone.id);
    await page.type('[aria-label="Find entries by words or a key"]', 'SKR-C6');
    await vi.waitFor(() => expect(page.path).toContain('q=SKR-C6'));
    await page.click('button', 'Filter');
    await page.click('.item', 'Shows');
    await page.click('.choices label', 'Held');
    await vi.waitFor(() => expect(Object.fromEntries(asked())).toMatchObject({ q: 'SKR-C6', shows: 'held' }));
    await page.click('.bar button', 'Clear');
    await page.reach(`/SKR/cycles/${KEY}`);
  });

  it('orders by a column, backwards by it, and as the cycle has it again', async () => {
    page = await Page.open(`/SKR/cycles/${KEY}`, 'maren');
    for (const sort of ['title', '-title', '']) {
      await page.click('.head button', 'Entry');
      await vi.waitFor(() => expect(asked().get('sort') ?? '').toBe(sort));
    }
    expect(page.path).not.toContain('sort=');
  });

  it('reads the next window when one comes near the end of the first', async () => {
    const server = new DemoServer('maren');
    const all = entries(server);
    const total = all.length * 2;
    server.on(`GET /cycles/${KEY}/entries?sort=&after=`, { items: all, total, next: 'more' });
    const more = all.map((e) => ({ ...e, id: `${e.id}-2`, title: `${e.title} again` }));
    server.on(`GET /cycles/${KEY}/entries?sort=&after=more`, { items: more, total, next: null });
    page = await Page.open(`/SKR/cycles/${KEY}`, server);
    await page.see(`${total} entries`);
    await page.see(' again');
    expect(server.asked.filter((a) => a.includes('after=more'))).toHaveLength(1);
  });

  it('opens a run of the trail as a filter, a single mark as its entry', async () => {
    const server = new DemoServer('maren');
    const run = { entry_id: 'run', shown: 'pass', name: '', group: '', count: 70 };
    const one = { ...run, entry_id: entries(server)[0]!.id, shown: 'fail', name: '1. SKR-C1 One', count: 1 };
    server.on(`GET /cycles/${KEY}`, { ...board(server), trail: [run, one] });
    page = await Page.open(`/SKR/cycles/${KEY}`, server);
    await page.see('70', '.trail');
    await page.click('.trail button', '70');
    await vi.waitFor(() => expect(page.path).toContain('shows=pass'));
    await page.click('.trail button', '1. SKR-C1 One: Fail');
    await page.reach(`/SKR/entries/${one.entry_id}`);
  });

  it('goes along the entries by keys and opens one', async () => {
    const server = new DemoServer('maren');
    page = await Page.open(`/SKR/cycles/${KEY}`, server);
    await page.see(entries(server)[1]!.title);
    await page.press('j', 'j', 'j', 'k');
    await page.see(entries(server)[1]!.title, '.line.current');
    await page.press('Enter');
    await page.reach(`/SKR/entries/${entries(server)[1]!.id}`);
  });

  it('judges chosen entries with one note, and keeps those chosen that were refused', async () => {
    const server = new DemoServer('tobias');
    const [first, second] = entries(server) as [Api['EntryLine'], Api['EntryLine']];
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
    await page.press('Escape');
    await page.press('Escape');
    expect(page.has(JUDGE)).toBe(false);
  });

  it('keeps the note where all were refused, and lets go what a filter hides', async () => {
    const server = new DemoServer('tobias');
    const first = entries(server)[0]!;
    const refused = { id: first.id, key: first.case_key, title: first.title, why: 'It is held.' };
    server.on(`POST /cycles/${KEY}/list-verdicts`, { done: [], refused: [refused] });
    page = await Page.open(`/SKR/cycles/${KEY}`, server);
    await page.see(first.title);
    await page.press('x');
    await page.click(`[aria-label="Choose ${first.case_key} ${first.title}"]`);
    await page.click(`${JUDGE} button`, 'Pass');
    await page.type('#list-note', 'The harbour is dark');
    await page.submit(`${JUDGE} form`);
    await page.see('It is held.', JUDGE);
    expect(document.querySelector<HTMLTextAreaElement>('#list-note')?.value).toBe('The harbour is dark');
    expect(page.text()).not.toContain('judged pass');
    await page.type('[aria-label="Find entries by words or a key"]', 'elsewhere');
    await vi.waitFor(() => expect(page.text(JUDGE)).not.toContain('1 entry chosen'));
  });

  it('chooses all that the filter finds, also what was not read yet, and says how many were walked', async () => {
    const server = new DemoServer('tobias');
    const choice = (n: number) => ({ id: `far-${n}`, seconds: 60, walking: false, done: n < 3 });
    server.on(
      `GET /cycles/${KEY}/entry-choices`,
      Array.from({ length: 700 }, (_, n) => choice(n)),
    );
    page = await Page.open(`/SKR/cycles/${KEY}`, server);
    await page.see('Judge from the list');
    await page.press('x');
    await page.click(`${JUDGE} button`, 'Choose all of the list');
    await page.see('700 entries chosen', JUDGE);
    await page.see('3 of them walked already', JUDGE);
  });

  it('offers no judging where nobody may judge', async () => {
    const server = new DemoServer('maren');
    const closed = board(server);
    closed.cycle.state = 'closed';
    page = await Page.open(`/SKR/cycles/${KEY}`, server.on(`GET /cycles/${KEY}`, closed));
    await page.see(entries(server)[0]!.title);
    expect(page.text()).not.toContain('Judge from the list');
    await page.press('x');
    expect(page.has(JUDGE)).toBe(false);
  });

  it('walks the entry that the server names as next', async () => {
    const server = new DemoServer('tobias');
    const next = entries(server).find((e) => e.readiness === 'ready')!.id;
    server.on(`GET /cycles/${KEY}`, { ...board(server), next_entry_id: next });
    server.on(`POST /entries/${next}/attempts`, { status: 409, type: 'held', detail: 'This entry is held.' });
    page = await Page.open(`/SKR/cycles/${KEY}`, server);
    await page.click('button', 'Walk my next entry');
    await page.see('This entry is held.', '[role=alert]');
    expect(page.sent.map((s) => s.path)).toEqual([`/entries/${next}/attempts`]);
  });
});
