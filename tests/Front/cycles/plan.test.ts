// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page, type Sent } from '../support/pages';

const KEY = 'SKR-R3';
let server: DemoServer;
let page: Page;
let lines: Api['EntryLine'][];
const plan = (): Api['CyclePlan'] => server.recorded(`/cycles/${KEY}/plan`);
const TRAY = 'section[aria-label="The chosen entries"]';
const choose = (n: number): Promise<Page> =>
  page.click(`[aria-label="Choose #${lines[n]!.position} ${lines[n]!.case_key}"]`);
const acts = (): Sent[] => page.sent.filter((s) => s.path === `/cycles/${KEY}/entry-acts`);
const done = { act_id: 'act-1', title: 'Done', count: 1, refused: [], ids: [] };

beforeEach(() => {
  server = new DemoServer('maren');
  lines = server.recorded<Api['EntryPage']>(`/cycles/${KEY}/entries`).items;
  server.on(`POST /cycles/${KEY}/entry-acts`, done);
});
afterEach(() => page?.close());
const open = async (query = ''): Promise<void> => {
  page = await Page.open(`/SKR/cycles/${KEY}/plan${query}`, server);
  await page.see(lines[0]!.title);
};

describe('the plan of a cycle', () => {
  it('assigns what is chosen, says so, and takes it back', async () => {
    await open();
    server.on('POST /plan-acts/act-1/undo', { ...done, title: 'Taken back', act_id: null });
    await choose(0);
    await choose(2);
    await page.see('2 entries chosen', TRAY);
    await page.type(`${TRAY} input[maxlength="2000"]`, 'Before noon, please');
    await page.submit(`${TRAY} form`);
    await page.see('Done.');
    expect(acts()[0]?.body).toMatchObject({
      act: 'assign',
      ids: [lines[0]!.id, lines[2]!.id],
      changes: { assignee_id: null, note: 'Before noon, please' },
    });
    await page.click('button', 'Undo');
    await page.see('Taken back.');
  });

  it('keeps what was typed where the server refuses', async () => {
    await open();
    server.on(`POST /cycles/${KEY}/entry-acts`, {
      status: 409,
      type: 'cycle-closed',
      detail: 'The cycle is closed.',
    });
    await choose(1);
    await page.type(`${TRAY} input[maxlength="2000"]`, 'A word');
    await page.submit(`${TRAY} form`);
    await page.see('The cycle is closed.', TRAY);
    expect(document.querySelector<HTMLInputElement>(`${TRAY} input[maxlength="2000"]`)?.value).toBe('A word');
  });

  it('says what is no date, and takes it once it is one', async () => {
    await open();
    await page.press('j');
    await page.see('Not before', TRAY);
    const field = `${TRAY} input[aria-label="Not before"]`;
    const leave = (): unknown => document.querySelector(field)!.dispatchEvent(new FocusEvent('blur'));
    for (const [typed, wrong] of [
      ['soon', true],
      ['2026-02-30 09:30', true],
      ['2026-12-01', true],
      ['2026-12-1 9:30', false],
    ] as const) {
      await page.type(field, typed);
      leave();
      if (wrong) await page.see(`“${typed}” is no date. Write it like 2026-11-28 14:30.`, TRAY);
      else await vi.waitFor(() => expect(page.text(TRAY)).not.toContain('is no date'));
    }
    expect(document.querySelector<HTMLInputElement>(field)!.value).toBe('2026-12-01 09:30');
  });

  it('sets a condition on an entry found by words on the server', async () => {
    await open();
    const needed = lines[4]!;
    await choose(0);
    server.on(`GET /cycles/${KEY}/entries?q=${needed.case_key}&size=40`, {
      items: [needed],
      total: 1,
      next: null,
    });
    await page.type(`${TRAY} [aria-label="The entry it waits for"]`, needed.case_key);
    await page.pick(`#${needed.position} ${needed.case_key}`);
    await page.click(`${TRAY} button`, 'Set the condition');
    await vi.waitFor(() =>
      expect(acts()[0]?.body).toMatchObject({
        act: 'condition',
        ids: [lines[0]!.id],
        changes: { needs_id: needed.id, kind: 'only_if_passed' },
      }),
    );
  });

  it('moves the entry one is on by keys, and all chosen ones together', async () => {
    await open();
    const alt = (key: string): void =>
      void window.dispatchEvent(new KeyboardEvent('keydown', { key, altKey: true, bubbles: true }));
    await page.press('j', 'j');
    alt('ArrowUp');
    await vi.waitFor(() => expect(acts()).toHaveLength(1));
    expect(acts()[0]?.body).toMatchObject({
      act: 'move',
      ids: [lines[1]!.id],
      changes: { before_id: lines[0]!.id },
    });
    await choose(1);
    await choose(3);
    await page.settle();
    alt('ArrowDown');
    await vi.waitFor(() => expect(acts()).toHaveLength(2));
    expect(acts()[1]?.body).toMatchObject({
      ids: [lines[1]!.id, lines[3]!.id],
      changes: { before_id: lines[4]!.id },
    });
  });

  it('moves nothing while the list is narrowed or ordered otherwise', async () => {
    await open('?sort=title');
    await page.press('j', 'j');
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', altKey: true }));
    await page.settle();
    expect(acts()).toEqual([]);
  });

  it('names what stands too early, and sorts it', async () => {
    const fault = {
      entry_id: lines[0]!.id,
      case_key: lines[0]!.case_key,
      needs_id: lines[1]!.id,
      needs_case_key: lines[1]!.case_key,
      kind: 'after',
    };
    server.on(`GET /cycles/${KEY}/plan`, { ...plan(), faults: [fault], faults_count: 7 });
    await open();
    await page.see(
      `7 entries stand before what they depend on: ${fault.case_key} before ${fault.needs_case_key} …`,
    );
    await page.click('button', 'Put them behind');
    await vi.waitFor(() => expect(acts()[0]?.body).toMatchObject({ act: 'sort_by_dependencies', ids: [] }));
  });

  it('shows the entry that a link names, also when it was not read yet', async () => {
    const far = { ...lines[0]!, id: 'far', case_key: 'SKR-C900', title: 'Far down' };
    server.on(`GET /cycles/${KEY}/entries?ids=far`, { items: [far], total: 1, next: null });
    await open('?entry=far');
    await page.see('Far down', TRAY);
  });

  it('counts what was chosen all together, with its time', async () => {
    server.on(
      `GET /cycles/${KEY}/entry-choices`,
      Array.from({ length: 300 }, (_, n) => ({ id: `c${n}`, seconds: 3600, walking: n === 0, done: false })),
    );
    await open();
    await page.click('[aria-label="Choose all that are shown"]');
    await page.see('300 entries chosen, 300h', TRAY);
    await page.see('It is being walked', TRAY);
  });

  it('opens its panels by keys', async () => {
    await open();
    await page.press('a');
    await page.see('The whole casebook');
    await page.press('s');
    await page.see('Short of time');
    await page.press('h');
    await page.see('By shares instead of people’s time');
  });

  it('offers nothing to change where one may not plan', async () => {
    server.on(`GET /cycles/${KEY}/plan`, { ...plan(), may_plan: false });
    await open();
    await choose(0);
    expect(page.has(TRAY)).toBe(false);
  });
});
