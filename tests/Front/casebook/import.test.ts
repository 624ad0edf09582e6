// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let server: DemoServer;
let page: Page;
const state = (more: Partial<Api['ImportState']> = {}): Api['ImportState'] => ({
  id: 'i1',
  name: 'harbour.csv',
  state: 'ready',
  left_out: [],
  words: [],
  format: 'csv',
  header: ['Titel', 'Schritt', 'Rest'],
  samples: [['Pay at the quay', 'Pay', 'x']],
  mapping: ['title', 'action', null],
  layout: 'step',
  charset: 'UTF-8',
  separator: ';',
  rows: 12,
  creates: 3,
  changes: 1,
  refuses: 1,
  same: 0,
  new_types: [],
  done: 0,
  total: 4,
  problem: '',
  report: [
    { row: 2, is: 'create', key: null, title: 'Pay at the quay', steps: 2, reasons: [] },
    { row: 5, is: 'refuse', key: null, title: '', steps: 0, reasons: ['It has no title.'] },
  ],
  targets: ['title', 'action', 'data', 'expected'],
  standstill: '',
  undoable: false,
  ...more,
});
const sentTo = (path: string) => page.sent.filter((s) => s.path === path);
beforeEach(() => {
  server = new DemoServer('maren');
  server.on('GET /case-imports/i1', state());
});
afterEach(() => page?.close());
const open = async (): Promise<void> => {
  page = await Page.open('/SKR/casebook/import?file=i1', server);
  await page.see('harbour.csv');
};

describe('bringing cases in', () => {
  it('says what would be done before anything is, and names what is left out', async () => {
    await open();
    await page.see('cells between semicolons');
    await page.see('Make 3 cases, change 1');
    await page.see('It has no title.');
    expect(page.sent).toEqual([]);
  });

  it('gives a column another meaning, and takes it from where it was', async () => {
    server.on('POST /case-imports/i1/mapping', state({ mapping: [null, 'action', 'title'] }));
    await open();
    const third = document.querySelectorAll('tbody select')[2] as HTMLSelectElement;
    third.value = 'title';
    third.dispatchEvent(new Event('change', { bubbles: true }));
    await vi.waitFor(() => expect(sentTo('/case-imports/i1/mapping')).toHaveLength(1));
    expect(sentTo('/case-imports/i1/mapping')[0]?.body).toEqual({
      mapping: [null, 'action', 'title'],
      words: [],
      layout: 'step',
    });
  });

  it('says what a word of the file means here, and that is sent', async () => {
    const word = { field: 'priority', word: 'dringend', times: 3, value: null } as const;
    server.on('GET /case-imports/i1', state({ words: [word] }));
    server.on(
      'POST /case-imports/i1/mapping',
      state({ words: [{ ...word, value: 'critical' }], creates: 4, refuses: 0 }),
    );
    await open();
    await page.see('Words that this project does not have');
    const field = document.querySelector<HTMLSelectElement>('[aria-label="What dringend means"]')!;
    await vi.waitFor(() => expect([...field.options].map((o) => o.text.trim())).toContain('Critical'));
    field.value = 'critical';
    field.dispatchEvent(new Event('change'));
    await vi.waitFor(() => expect(sentTo('/case-imports/i1/mapping')).toHaveLength(1));
    expect(sentTo('/case-imports/i1/mapping')[0]?.body['words']).toEqual([
      { field: 'priority', word: 'dringend', value: 'critical' },
    ]);
  });

  it('reads the file in the other layout', async () => {
    server.on('POST /case-imports/i1/mapping', state({ layout: 'case', creates: 1, changes: 0 }));
    await open();
    await page.click('fieldset label', 'one row for each case');
    const other = document.querySelectorAll<HTMLInputElement>('input[name=layout]')[1]!;
    other.dispatchEvent(new Event('change', { bubbles: true }));
    await page.see('Make 1 case');
    expect(sentTo('/case-imports/i1/mapping').at(-1)?.body).toMatchObject({ layout: 'case' });
  });

  it('runs, tells how far it is, and is undone as one act', async () => {
    server.on('POST /case-imports/i1/start', state({ state: 'running', done: 1 }));
    await open();
    server.on('GET /case-imports/i1', state({ state: 'done', undoable: true }));
    await page.click('button', 'Make 3 cases');
    await page.see('1 of 4');
    await page.see('It is all in the casebook.');
    server.on('POST /case-imports/i1/undo', state({ state: 'undone' }));
    await page.click('button', 'Undo all of it');
    await page.see('What came in was taken out again, as one act.');
    await page.see('Taken out again.');
  });

  it('is stopped, and says that nothing was written', async () => {
    server.on('GET /case-imports/i1', state({ state: 'running', done: 2 }));
    server.on('POST /case-imports/i1/cancel', state({ state: 'cancelled' }));
    await open();
    await page.click('button', 'Stop');
    await page.see('Stopped. Nothing was written.');
  });

  it('says why a file cannot be read, and why it is over', async () => {
    server.on('GET /case-imports/i1', state({ state: 'failed', problem: 'The file has no row with names.' }));
    await open();
    await page.see('The file has no row with names.', '[role=alert]');
    server.on('GET /case-imports/i1', state());
    server.on('POST /case-imports/i1/start', {
      status: 409,
      type: 'file-gone',
      detail: 'The file of this import is not kept any more. Choose it again.',
    });
    page.close();
    await open();
    await page.click('button', 'Make 3 cases');
    await page.see('The file of this import is not kept any more.', '[role=alert]');
  });

  it('takes a file that is chosen, and refuses with the words of the server', async () => {
    page = await Page.open('/SKR/casebook/import', server);
    const field = document.querySelector<HTMLInputElement>('input[type=file]')!;
    Object.defineProperty(field, 'files', { value: [new File(['a;b'], 'harbour.csv')], configurable: true });
    server.on('POST /projects/SKR/case-imports', {
      status: 422,
      detail: 'Nothing was changed.',
      errors: { file: ['At most 20 MB.'] },
    });
    field.dispatchEvent(new Event('change', { bubbles: true }));
    await page.see('At most 20 MB.', '[role=alert]');
    server.on('POST /projects/SKR/case-imports', state());
    field.dispatchEvent(new Event('change', { bubbles: true }));
    await page.reach('/SKR/casebook/import?file=i1');
  });
});

describe('whoever may not write cases', () => {
  it('is offered no file to bring in, and told whom to ask', async () => {
    const server = new DemoServer('tobias');
    const session = server.recorded<Api['SessionState']>('/session');
    const projects = session.projects.map((p) => ({
      ...p,
      may: p.may.filter((m) => m !== 'write_cases'),
    }));
    page = await Page.open('/SKR/casebook/import', server.on('GET /session', { ...session, projects }));
    await page.see('Cases are not yours to write in this project');
    expect(page.has('.drop')).toBe(false);
  });
});
