// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let server: DemoServer;
let page: Page;
beforeEach(() => (server = new DemoServer('maren')));
afterEach(() => page?.close());
const value = (selector: string): string =>
  document.querySelector<HTMLInputElement | HTMLTextAreaElement>(selector)?.value ?? '';
const sentTo = (method: string, path: string) =>
  page.sent.filter((s) => s.method === method && s.path === path);

describe('a case being written', () => {
  const KEY = 'SKR-C68';
  const detail = (): Api['CaseDetail'] => server.recorded(`/cases/${KEY}`);
  const saved = (revision: number) => ({
    case: { ...detail().case, revision },
    version: 3,
    new_version: true,
  });
  const open = async (): Promise<void> => {
    page = await Page.open(`/SKR/casebook/${KEY}`, server);
    await vi.waitFor(() => expect(value('#case-title')).toBe(detail().case.title));
  };

  it('is saved against the revision it began from, and says where it stands', async () => {
    server.on(`PUT /cases/${KEY}`, saved(detail().case.revision + 1));
    await open();
    await page.see('Saved', '.actions');
    await page.type('#case-title', 'The fare follows the length');
    await page.see('Not saved yet, kept on this device', '.actions');
    await page.click('.actions button', 'Save');
    await vi.waitFor(() => expect(sentTo('PUT', `/cases/${KEY}`)).toHaveLength(1));
    expect(sentTo('PUT', `/cases/${KEY}`)[0]?.body).toMatchObject({
      title: 'The fare follows the length',
      revision: detail().case.revision,
    });
  });

  it('saves by Ctrl S, and shows what the server refuses at its field', async () => {
    server.on(`PUT /cases/${KEY}`, { status: 422, errors: { title: ['Give the case a title.'] } });
    await open();
    await page.type('#case-title', ' ');
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 's', ctrlKey: true }));
    await page.see('Give the case a title.');
    expect(value('#case-title')).toBe(' ');
  });

  it('is given back after it was left without saving, and dropped on request', async () => {
    await open();
    await page.type('#case-title', 'Half a thought');
    await vi.waitFor(async () => {
      await page.settle(2);
      const { loadLocal } = await import('@/offline/device');
      expect(await loadLocal(`draft:case:${KEY}`)).not.toBeNull();
    });
    page.close();
    page = await Page.open(`/SKR/casebook/${KEY}`, server, true);
    await page.see('did not save is back');
    expect(value('#case-title')).toBe('Half a thought');
    await page.click('.band button', 'Drop it');
    await vi.waitFor(() => expect(value('#case-title')).toBe(detail().case.title));
  });

  it('shows both where somebody saved meanwhile, and loses neither', async () => {
    server.on(`PUT /cases/${KEY}`, { status: 412, type: 'saved-meanwhile', detail: 'Piet saved this case.' });
    server.on(`POST /cases/${KEY}/merges`, {
      revision: 9,
      by: 'Piet Halloran',
      at: '2026-11-28T10:00:00Z',
      conflicts: 1,
      texts: [
        { field: 'title', outcome: 'conflict', base: detail().case.title, mine: 'Mine', theirs: 'Theirs' },
      ],
      steps: [],
      files: [],
    });
    await open();
    await page.click('.talk button', 'Ask or suggest something');
    await page.type('.talk textarea', 'With the rack, or without it?');
    await page.type('#case-title', 'Mine');
    await page.click('.actions button', 'Save');
    await page.see('Theirs');
    await page.see('Mine');
    const question = document.querySelector<HTMLTextAreaElement>('.talk textarea');
    expect(question?.value, 'what is typed beside the text stays').toBe('With the rack, or without it?');
    expect(document.querySelector<HTMLElement>('.columns')?.style.display, 'out of sight').toBe('none');
  });

  it('goes to the bin and comes back by undo', async () => {
    const done = { act_id: 'act-9', title: `Binned 1 case`, changed: 1, keys: [], refused: [] };
    server.on('POST /projects/SKR/case-acts', done);
    server.on('POST /case-acts/act-9/undo', { ...done, title: 'Undone: binned 1 case', act_id: null });
    await open();
    await page.click('.actions button', 'Bin');
    await page.see(`${KEY} is in the bin`);
    await page.click('button', 'Undo');
    await vi.waitFor(() => expect(sentTo('POST', '/case-acts/act-9/undo')).toHaveLength(1));
  });

  it('shows a reader the text and no field', async () => {
    server.on(`GET /cases/${KEY}`, { ...detail(), may_write: false });
    page = await Page.open(`/SKR/casebook/${KEY}`, server);
    await page.see(detail().case.title, 'h1');
    expect(page.has('#case-title')).toBe(false);
    expect(page.text('.actions')).not.toContain('Save');
  });
});

describe('a routine being written', () => {
  const path = (): string => server.first('/routines/');
  const detail = (): Api['RoutineDetail'] => server.recorded(path());
  const open = async (): Promise<void> => {
    page = await Page.open(`/SKR/casebook${path().replace('data-', '')}`, server);
    await vi.waitFor(() => expect(value('[aria-label="Name of the routine"]')).toBe(detail().routine.name));
  };

  it('is saved for all places it is used in only after they were seen', async () => {
    server.on(`PUT ${path()}`, { ...detail(), routine: { ...detail().routine, revision: 7, uses: 37 } });
    await open();
    await page.type('[aria-label="Name of the routine"]', 'Begin to book');
    await page.click('.actions button', 'Save');
    await page.see('This changes', '[role=dialog]');
    expect(sentTo('PUT', path())).toEqual([]);
    await page.click('[role=dialog] button', 'Save for all of them');
    await page.see('Saved, for 37 cases.');
    expect(sentTo('PUT', path())[0]?.body).toMatchObject({
      name: 'Begin to book',
      revision: detail().routine.revision,
    });
  });

  it('says at its field what is wrong with a parameter, and keeps it', async () => {
    server.on(`GET ${path()}`, { ...detail(), used_in: [] });
    server.on(`PUT ${path()}`, {
      status: 422,
      errors: { 'parameters.0.name': ['Letters, digits and _ only.'] },
    });
    await open();
    await page.type('[aria-label="Name of parameter 1"]', 'a route');
    await page.click('.actions button', 'Save');
    await page.see('Letters, digits and _ only.', 'fieldset');
    expect(page.all('[role=alert] p')).toEqual([]);
    expect(value('[aria-label="Name of parameter 1"]')).toBe('a route');
  });

  it('drops what was changed on request', async () => {
    await open();
    await page.type('[aria-label="Name of the routine"]', 'Something else');
    await page.click('.actions button', 'Drop my changes');
    await vi.waitFor(() => expect(value('[aria-label="Name of the routine"]')).toBe(detail().routine.name));
    expect(page.sent).toEqual([]);
  });

  it('says why it cannot be binned', async () => {
    server.on(`DELETE ${path()}`, {
      status: 409,
      type: 'in-use',
      detail: '"Begin a booking" is used in 37 places. Take it out there first.',
    });
    await open();
    await page.click('.actions button', 'Bin');
    await page.see('is used in 37 places');
    expect(page.path).toContain(path());
  });

  it('is made new, and then has its own address', async () => {
    server.on('POST /projects/SKR/routines', {
      ...detail(),
      routine: { ...detail().routine, id: 'fresh', uses: 0 },
    });
    server.on('GET /routines/fresh', { ...detail(), routine: { ...detail().routine, id: 'fresh' } });
    page = await Page.open('/SKR/casebook/routines/new', server);
    await page.type('[aria-label="Name of the routine"]', 'Look at the tide');
    await page.click('button', 'Add a parameter');
    await page.type('[aria-label="Name of parameter 1"]', 'harbour');
    await page.click('.actions button', 'Save');
    await page.reach('/SKR/casebook/routines/fresh');
    expect(sentTo('POST', '/projects/SKR/routines')[0]?.body).toMatchObject({
      name: 'Look at the tide',
      parameters: [{ name: 'harbour', default: '' }],
    });
  });
});

describe('a data table being written', () => {
  const path = (): string => server.first('/data-tables/');
  const detail = (): Api['TableDetail'] => server.recorded(path());
  const open = async (): Promise<void> => {
    page = await Page.open(`/SKR/casebook${path().replace('data-', '')}`, server);
    await vi.waitFor(() => expect(value('[aria-label="Name of the data table"]')).toBe(detail().table.name));
  };

  it('sends every cell, and leaves secret ones that were not typed as they are', async () => {
    server.on(`PUT ${path()}`, detail());
    await open();
    await page.type('#cell-0-0', 'Typed');
    await page.click('.actions button', 'Save');
    await page.see(`"${detail().table.name}" is saved.`);
    const rows = sentTo('PUT', path())[0]?.body.rows as { id: string; cells: (string | null)[] }[];
    expect(rows[0]).toEqual({
      id: detail().rows[0]!.id,
      cells: ['Typed', ...detail().rows[0]!.cells.slice(1)],
    });
  });

  it('takes columns and rows out, and back by undo', async () => {
    await open();
    const columns = detail().table.columns.length;
    await page.click('th button', 'Take out');
    expect(document.querySelectorAll('thead th .field')).toHaveLength(columns - 1);
    await page.click('button', 'Undo');
    expect(document.querySelectorAll('thead th .field')).toHaveLength(columns);
    await page.click('tbody button', 'Take out');
    await page.see('Row 1 is out.');
    await page.click('button', 'Undo');
    expect(value('#cell-0-0')).toBe(detail().rows[0]!.cells[0]);
    expect(page.has('.actions button[disabled]')).toBe(true);
  });

  it('names the row that the server cannot take', async () => {
    server.on(`PUT ${path()}`, {
      status: 422,
      errors: { 'row 2': ['It has a value more than there are columns.'] },
    });
    await open();
    await page.type('#cell-0-0', 'x');
    await page.click('.actions button', 'Save');
    await page.see('Row 2: It has a value more than there are columns.', '[role=alert]');
  });

  it('goes along its cells by keys, and makes a row at the end', async () => {
    await open();
    const rows = detail().rows.length;
    document.querySelector<HTMLInputElement>('#cell-0-0')!.focus();
    await page.press('Enter');
    expect(document.activeElement?.id).toBe('cell-1-0');
    document.querySelector<HTMLInputElement>(`#cell-${rows - 1}-0`)!.focus();
    await page.press('Enter');
    expect(page.has(`#cell-${rows}-0`)).toBe(true);
  });
});
