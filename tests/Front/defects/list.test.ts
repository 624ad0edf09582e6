// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

/** The list of defects and the board: many at once, groups, kept filters, files. */
let page: Page;
afterEach(() => page?.close());
const lines = (): Api['DefectPage'] =>
  new DemoServer('tobias').recorded<Api['DefectPage']>('/projects/SKR/defects');

describe('the list', () => {
  it('changes many at once, seen beforehand, and takes it back', async () => {
    const seen: Api['DefectActPreview'] = {
      defects: 2,
      changed: 1,
      unchanged: 0,
      refused: [{ key: 'SKR-D29', title: 'x', why: 'It cannot become that.' }],
      samples: [{ key: 'SKR-D35', title: 'y', changes: [{ field: 'severity', was: 'major', is: 'minor' }] }],
    };
    const done: Api['DefectActResult'] = {
      act_id: 'a1',
      title: 'Changed 1 defect',
      changed: 1,
      refused: seen.refused,
    };
    const server = new DemoServer('maren')
      .on('POST /projects/SKR/defect-act-previews', seen)
      .on('POST /projects/SKR/defect-acts', done)
      .on('POST /defect-acts/a1/undo', { ...done, act_id: null, title: 'Undone: changed 1 defect' });
    page = await Page.open('/SKR/defects', server);
    await page.see('SKR-D35');
    for (const key of ['SKR-D35', 'SKR-D29']) await page.click(`[role=row] input[aria-label*="${key}"]`);
    await page.see('2 defects chosen');
    await page.click('.bulk button', 'Change');
    await page.choose('[aria-label="Severity"]', 'Minor');
    await page.choose('[aria-label="With"]', 'Nobody');
    await page.submit('.bulk form');
    await page.see('severity: major → minor', '.bulk');
    await page.see('SKR-D29 left out: It cannot become that.', '.bulk');
    expect(page.sent.at(-1)?.body).toEqual({
      filter: { ids: 'SKR-D35,SKR-D29' },
      changes: { severity: 'minor', assignee_id: null },
    });
    await page.submit('.bulk form');
    await page.see('Changed 1 defect. Left out: SKR-D29 (It cannot become that.)');
    await page.click('[role=status] button, .notice button', 'Undo');
    await page.see('Undone: changed 1 defect');
    expect(page.sent.at(-1)?.path).toContain('/defect-acts/a1/undo');
  });

  it('is grouped and kept under a name with how it is shown, and taken out as a file', async () => {
    const all = lines();
    const grouped = {
      ...all,
      groups: [
        { value: 'critical', defects: 2 },
        { value: 'major', defects: 7 },
      ],
    };
    const kept: Api['SavedFilterLine'] = {
      id: 's1',
      name: 'Grave ones',
      shared: true,
      mine: true,
      by: 'Maren Voss',
      filter: { severity: 'critical' },
    };
    const server = new DemoServer('maren')
      .on('GET /projects/SKR/defects', grouped)
      .on('POST /projects/SKR/defect-filters', kept);
    page = await Page.open('/SKR/defects?group=severity&severity=critical,major', server);
    await page.see('Major 7');
    await page.click('button', 'View');
    await page.click('.menu input[type=checkbox]');
    await vi.waitFor(() => expect(page.path).toContain('columns='));
    await page.type('#keep-name', 'Grave ones');
    await page.click('.menu button', 'For everybody');
    await page.see('Kept as "Grave ones".');
    expect(page.sent.at(-1)?.body).toMatchObject({
      name: 'Grave ones',
      shared: true,
      filter: { group: 'severity', severity: 'critical,major' },
    });
    await page.click('button', 'Take out');
    const links = [...document.querySelectorAll<HTMLAnchorElement>('.menu a')].map((a) =>
      a.getAttribute('href'),
    );
    expect(links).toContain('/api/v1/projects/SKR/defect-export?severity=critical%2Cmajor&format=csv');
    expect(links).toHaveLength(5);
  });

  it('offers no more than one may', async () => {
    page = await Page.open('/SKR/defects', new DemoServer('lina').on('GET /projects/SKR/defects', lines()));
    await page.see('SKR-D35');
    expect(page.text('.actions')).not.toContain('New defect');
    await page.press('n');
    expect(page.path).toBe('/SKR/defects');
    await page.click('[role=row] input[aria-label*="SKR-D29"]');
    await page.click('.bulk button', 'Change');
    const moves = page.all('[aria-label="Move"] option');
    expect(moves).toContain('Fixed in a build');
    expect(moves).not.toContain('It is gone');
    await page.press('b');
    await vi.waitFor(() => expect(page.path).toContain('as=board'));
  });
});

describe('the board', () => {
  const only = (n: number): DemoServer => {
    const [first] = lines().items;
    const line = { ...first!, key: `SKR-D${n}`, state: 'new' as const };
    const of = (state: string): string =>
      `GET /projects/SKR/defects?${new URLSearchParams({ as: 'board', state, sort: 'severity' })}`.replace(
        'as=board&',
        '',
      );
    const none = { items: [], total: 0, next: null, groups: [] };
    return new DemoServer('maren')
      .on('GET /projects/SKR/defects', none)
      .on(of('new'), { ...none, items: [line], total: 1 });
  };
  const card = (): HTMLElement => document.getElementById('card-SKR-D35')!;

  it('moves a card by keys; what a move asks for is asked, what is refused says why', async () => {
    const detail = new DemoServer('tobias').recorded<Api['DefectDetail']>('/defects/SKR-D35');
    const server = only(35).on('GET /defects/SKR-D35', detail);
    page = await Page.open('/SKR/defects?as=board', server);
    await page.see('SKR-D35', '[aria-label="New"]');
    server.on('POST /defects/SKR-D35/moves', {
      status: 409,
      detail: 'It cannot become reopened from there.',
    });
    card().focus();
    card().dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', altKey: true, bubbles: true }));
    await page.see('SKR-D35: It cannot become reopened from there.', '[role=alert]');
    expect(page.sent.at(-1)?.body).toEqual({ state: 'reopened', seen: 'new' });
    server.on('POST /defects/SKR-D35/moves', { status: 422, errors: { build_id: ['Choose the build.'] } });
    await page.choose('[aria-label="Move SKR-D35"]', 'Fixed');
    await page.see('Build with the fix', 'form.move');
    server.on('POST /defects/SKR-D35/moves', { ...detail, defect: { ...detail.defect, state: 'fixed' } });
    await page.submit('form.move');
    await page.see('SKR-D35: fixed.');
  });

  it('takes a card that is dropped on a column', async () => {
    const detail = new DemoServer('tobias').recorded<Api['DefectDetail']>('/defects/SKR-D35');
    const server = only(35).on('POST /defects/SKR-D35/moves', {
      ...detail,
      defect: { ...detail.defect, state: 'in_work' },
    });
    page = await Page.open('/SKR/defects?as=board', server);
    await page.see('SKR-D35', '[aria-label="New"]');
    card().dispatchEvent(new Event('dragstart', { bubbles: true }));
    document
      .querySelector('[aria-label="In work"]')!
      .dispatchEvent(new Event('drop', { bubbles: true, cancelable: true }));
    await page.see('SKR-D35: in work.');
    expect(page.sent.at(-1)?.body).toEqual({ state: 'in_work', seen: 'new' });
  });
});
