// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let server: DemoServer;
let page: Page;
let cases: Api['CaseLine'][];
const BULK = 'section[aria-label="With the chosen cases"]';
const choose = (n: number): Promise<Page> => page.click(`[aria-label="Choose ${cases[n]!.key}"]`);
const asked = (): URLSearchParams =>
  new URLSearchParams(
    page.server.asked
      .filter((a) => a.startsWith('/projects/SKR/cases?'))
      .at(-1)
      ?.split('?')[1],
  );
const sentTo = (path: string) => page.sent.filter((s) => s.path === path);
const done = { act_id: 'act-1', title: 'Changed 2 cases', changed: 2, keys: [], refused: [] };

beforeEach(() => {
  server = new DemoServer('maren');
  cases = server.recorded<Api['CasePage']>('/projects/SKR/cases').items;
  server.on('POST /projects/SKR/case-acts', done);
});
afterEach(() => page?.close());
const open = async (query = ''): Promise<void> => {
  page = await Page.open(`/SKR/casebook${query}`, server);
  await page.see(cases[0]!.title);
};

describe('the casebook', () => {
  it('narrows by words, criteria and folders, each in the address and asked of the server', async () => {
    await open('?priority=high');
    await page.see('Priority: High');
    expect(asked().get('priority')).toBe('high');
    await page.type('[aria-label="Find cases by words or a key"]', 'tide');
    await vi.waitFor(() => expect(asked().get('q')).toBe('tide'));
    const folder = server.recorded<Api['CasebookFrame']>('/projects/SKR/casebook').folders[0]!;
    await page.click('nav .line button', folder.name);
    await vi.waitFor(() => expect(asked().get('folder')).toBe(folder.id));
    expect(page.path).toContain(`folder=${folder.id}`);
    await page.click('.chosen button[aria-label="Drop Priority"]');
    await vi.waitFor(() => expect(asked().has('priority')).toBe(false));
    expect(asked().get('q')).toBe('tide');
  });

  it('says what to do where nothing fits, and shows all again', async () => {
    server.on('GET /projects/SKR/cases', { items: [], next: null });
    page = await Page.open('/SKR/casebook?q=whales', server);
    await page.see('No case fits this. Take a filter away, or look with other words.');
    await page.click('button', 'Show all');
    await page.reach('/SKR/casebook');
    await page.see('The casebook holds all cases of the project. There is none here yet.');
    await page.see('Write the first case');
  });

  it('opens a case by keys, and looks at its results beside the list', async () => {
    await open();
    server.on(`GET /cases/${cases[1]!.key}/results`, []);
    await page.press('j', 'j', 'l');
    await vi.waitFor(() => expect(page.path).toContain(`peek=${cases[1]!.key}`));
    await page.press('l');
    await vi.waitFor(() => expect(page.path).not.toContain('peek'));
    await page.press('Enter');
    await page.reach(`/SKR/casebook/${cases[1]!.key}`);
  });

  it('edits what is chosen after it was looked at, and takes it back', async () => {
    await open();
    server.on('POST /projects/SKR/case-previews', {
      cases: 2,
      changed: 1,
      unchanged: 1,
      refused: [],
      samples: [
        {
          key: cases[0]!.key,
          title: cases[0]!.title,
          changes: [{ field: 'priority', from: 'high', to: 'low' }],
        },
      ],
    });
    server.on('POST /case-acts/act-1/undo', { ...done, title: 'Undone: changed 2 cases', act_id: null });
    await choose(0);
    await choose(1);
    await page.see('2 cases chosen', BULK);
    await page.click(`${BULK} button`, 'Edit');
    await page.choose('[aria-label="Priority"]', 'Low');
    await page.click(`${BULK} button`, 'See what changes');
    await page.see('1 of 2 change', BULK);
    await page.see('Priority: High → Low', BULK);
    await page.click(`${BULK} button`, 'Change 1 case');
    await page.see('Changed 2 cases.');
    expect(sentTo('/projects/SKR/case-acts')[0]?.body).toMatchObject({
      act: 'edit',
      filter: { ids: `${cases[0]!.id},${cases[1]!.id}` },
      changes: { priority: 'low' },
    });
    expect(page.has(BULK)).toBe(false);
    await page.click('button', 'Undo');
    await page.see('Undone: changed 2 cases');
  });

  it('names what was left out of an act', async () => {
    await open();
    const refused = [{ key: cases[0]!.key, title: cases[0]!.title, why: 'It is being walked just now.' }];
    server.on('POST /projects/SKR/case-acts', { ...done, title: 'Binned 1 case', refused });
    await choose(0);
    await page.click(`${BULK} button`, 'Bin');
    await page.see(`Binned 1 case. Left out: ${cases[0]!.key} (It is being walked just now.)`);
  });

  it('keeps the choice where the server refuses all of it', async () => {
    await open();
    server.on('POST /projects/SKR/case-acts', {
      status: 422,
      detail: 'Nothing was changed.',
      errors: { filter: ['At most 2000 cases at once.'] },
    });
    await choose(0);
    await page.click(`${BULK} button`, 'Bin');
    await page.see('At most 2000 cases at once.', BULK);
    await page.see('1 case chosen', BULK);
  });

  it('puts cases into a suite that is there, or into a new one', async () => {
    await open();
    server.on('POST /projects/SKR/suites', { id: 's', name: 'For the storm' });
    await choose(0);
    await page.click(`${BULK} button`, 'Into a suite');
    await page.type('[aria-label="Name of the new suite"]', 'For the storm');
    await page.submit(`${BULK} form`);
    await page.see('1 case put into the suite "For the storm".');
    expect(sentTo('/projects/SKR/suites')[0]?.body).toMatchObject({
      name: 'For the storm',
      kind: 'picked',
      add: [cases[0]!.id],
    });
    const known = server
      .recorded<Api['CasebookFrame']>('/projects/SKR/casebook')
      .suites.find((s) => s.kind === 'picked')!;
    await page.click(`${BULK} button`, 'Into a suite');
    await page.choose('[aria-label="Suite"]', known.name);
    await page.submit(`${BULK} form`);
    await vi.waitFor(() => expect(sentTo(`/suites/${known.id}`)).toHaveLength(1));
  });

  it('moves a case in its folder by keys, and only where the folder’s own order is shown', async () => {
    const folder = server.recorded<Api['CasebookFrame']>('/projects/SKR/casebook').folders[0]!;
    const alt = (): void =>
      void window.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', altKey: true }));
    await open();
    await page.press('j');
    alt();
    await page.settle();
    expect(page.sent).toEqual([]);
    page.close();
    await open(`?folder=${folder.id}`);
    await page.press('j');
    alt();
    await vi.waitFor(() => expect(sentTo('/projects/SKR/case-acts')).toHaveLength(1));
    expect(sentTo('/projects/SKR/case-acts')[0]?.body).toMatchObject({
      act: 'move',
      filter: { ids: cases[0]!.id },
      changes: { folder_id: folder.id, before: cases[2]!.id },
    });
  });

  it('offers a reader nothing to change', async () => {
    const frame = server.recorded<Api['CasebookFrame']>('/projects/SKR/casebook');
    server.on('GET /projects/SKR/casebook', { ...frame, may_write: false });
    await open();
    expect(page.text()).not.toContain('New case');
    await choose(0);
    expect(page.has(BULK)).toBe(false);
    await page.press('n');
    expect(page.path).toBe('/SKR/casebook');
  });
});

describe('the bin', () => {
  it('gives back what was chosen, cases in one act and the rest one by one', async () => {
    const binned = { ...cases[0]!, binned_at: '2026-11-20T10:00:00Z' };
    const routine = {
      ...server.recorded<Api['RoutineLine'][]>('/projects/SKR/routines')[0]!,
      binned_at: null,
    };
    server.on('GET /projects/SKR/cases', { items: [binned], next: null });
    server.on('GET /projects/SKR/routines', [routine]);
    server.on('GET /projects/SKR/data-tables', []);
    server.on('POST /projects/SKR/case-acts', { ...done, title: 'Restored 1 case' });
    server.on(`POST /routines/${routine.id}/restorations`, {});
    page = await Page.open('/SKR/casebook/bin', server);
    await page.see(binned.title);
    await page.see(routine.name);
    await page.click('[aria-label="Choose all that are shown"]');
    await page.click('button', 'Restore the chosen');
    await page.see('Restored 1 case.');
    expect(sentTo(`/routines/${routine.id}/restorations`)).toHaveLength(1);
    expect(sentTo('/projects/SKR/case-acts')[0]?.body).toMatchObject({
      act: 'restore',
      filter: { ids: binned.id },
    });
  });

  it('says why something cannot come back', async () => {
    const table = server.recorded<Api['TableLine'][]>('/projects/SKR/data-tables')[0]!;
    server.on('GET /projects/SKR/cases', { items: [], next: null });
    server.on('GET /projects/SKR/routines', []);
    server.on('GET /projects/SKR/data-tables', [table]);
    server.on(`POST /data-tables/${table.id}/restorations`, {
      status: 422,
      detail: 'Nothing was changed.',
      errors: { name: ['There is a data table called so.'] },
    });
    page = await Page.open('/SKR/casebook/bin', server);
    await page.click('.list button', 'Restore');
    await page.see('There is a data table called so.');
  });

  it('says what it is for while it is empty', async () => {
    server.on('GET /projects/SKR/cases', { items: [], next: null });
    for (const kind of ['routines', 'data-tables']) server.on(`GET /projects/SKR/${kind}`, []);
    page = await Page.open('/SKR/casebook/bin', server);
    await page.see('The bin is empty.');
  });
});

describe('routines and data tables', () => {
  it('are found by words, ordered by a column and opened by keys', async () => {
    const routines = server.recorded<Api['CasebookFrame']>('/projects/SKR/casebook').routines;
    page = await Page.open('/SKR/casebook/routines', server);
    await page.see(routines[0]!.name);
    await page.click('.head button', 'Steps');
    const steps = page.all('.line').map((l) => Number(/(\d+)(\d+ cases?|no case)/.exec(l)?.[1]));
    expect(steps).toHaveLength(routines.length);
    const words = routines[1]!.name.toLowerCase().split(' ');
    const fit = routines.filter((r) =>
      words.every((w) => `${r.name} ${r.description}`.toLowerCase().includes(w)),
    );
    await page.type('[aria-label="Find routines by words or a key"]', routines[1]!.name);
    await vi.waitFor(() => expect(page.path).toContain('q='));
    await vi.waitFor(() =>
      expect([...page.all('.list strong')].sort()).toEqual(fit.map((r) => r.name).sort()),
    );
    await page.press('Escape');
    (document.activeElement as HTMLElement | null)?.blur();
    await page.press('j', 'Enter');
    await page.reach(/routines\/0000/);
  });

  it('offer no new one to who may not write', async () => {
    const frame = server.recorded<Api['CasebookFrame']>('/projects/SKR/casebook');
    server.on('GET /projects/SKR/casebook', { ...frame, may_write: false, tables: [] });
    page = await Page.open('/SKR/casebook/tables', server);
    await page.see('A case bound to a data table is walked once for each row');
    expect(page.text('.title-line')).not.toContain('New data table');
    await page.press('n');
    expect(page.path).toBe('/SKR/casebook/tables');
  });
});
