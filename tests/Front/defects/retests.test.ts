// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());

const line = (n: number, more: Partial<Api['RetestLine']> = {}): Api['RetestLine'] => ({
  entry_id: `e${n}`,
  case_key: `SKR-C${n}`,
  title: `Case ${n}`,
  cycle_key: 'SKR-R2',
  cycle_name: 'Release 4.2',
  assignee: { id: 'p', name: 'Tobias Reyle' },
  walked_on: '4.2.0-5',
  build: '4.2.0-7',
  fixed: ['SKR-D2'],
  waits_on: [],
  behind: false,
  at: '2026-11-29T10:00:00Z',
  ...more,
});
const section = '[aria-label="To be walked again"]';
function fixed(who: 'maren' | 'tobias', lines: Api['RetestLine'][]): DemoServer {
  const server = new DemoServer(who);
  const d = new DemoServer('tobias').recorded<Api['DefectDetail']>('/defects/SKR-D2');
  const reproduction = new DemoServer('tobias').recorded<object>('/defects/SKR-D2/reproduction');
  return server
    .on('GET /defects/SKR-D2', d)
    .on('GET /defects/SKR-D2/reproduction', reproduction)
    .on('GET /defects/SKR-D2/retests', lines);
}

describe('what is to be walked again after a fix', () => {
  it('is asked for in one act, without what still waits, and is gone then', async () => {
    const server = fixed('maren', [
      line(1),
      line(2, { waits_on: ['SKR-D9'] }),
      line(3),
      line(4, { behind: true }),
    ]);
    page = await Page.open('/SKR/defects/SKR-D2', server);
    await page.see('still waits on SKR-D9', section);
    await page.see('the cycle tests an earlier build', section);
    expect(document.querySelector<HTMLInputElement>('#retest-e2')?.disabled).toBe(true);
    await page.click('#retest-e3');
    await page.see('Ask for 1 retest', section);
    server.on('POST /defects/SKR-D2/retests', []).on('GET /defects/SKR-D2/retests', [line(3)]);
    await page.click(`${section} button`, 'Ask for 1 retest');
    await page.see('1 retest asked for.');
    expect(page.sent.at(-1)?.body).toEqual({ entries: ['e1'] });
    await vi.waitFor(() => expect(page.text(section)).not.toContain('Case 1'));
  });

  it('says why where it was refused, and asks nothing of who may not', async () => {
    const server = fixed('maren', [line(1)]).on('POST /defects/SKR-D2/retests', {
      status: 422,
      errors: { 'entries.0': ['This entry is not proposed any more.'] },
    });
    page = await Page.open('/SKR/defects/SKR-D2', server);
    await page.click(`${section} button`, 'Ask for 1 retest');
    await page.see('This entry is not proposed any more.', `${section} [role=alert]`);
    page.close();
    page = await Page.open('/SKR/defects/SKR-D2', fixed('tobias', [line(1)]));
    await page.see('Case 1', section);
    expect(page.has(`${section} button, ${section} input`)).toBe(false);
  });

  it('is not there while nothing is fixed', async () => {
    page = await Page.open('/SKR/defects/SKR-D35', new DemoServer('tobias'));
    await page.see('How to get there');
    expect(page.has(section)).toBe(false);
  });
});

describe('Today', () => {
  it('shows what is asked of one about defects, and nothing where nothing is', async () => {
    const server = new DemoServer('tobias');
    const d = server.recorded<Api['DefectDetail']>('/defects/SKR-D35').defect;
    const none: Api['DefectPage'] = { items: [], total: 0, next: null, groups: [] };
    server.on('GET /projects/SKR/defects', none);
    page = await Page.open('/SKR/today', server);
    await page.settle(6);
    expect(page.has('[aria-label="Asked of you about defects"]')).toBe(false);
    page.close();
    server.on('GET /projects/SKR/defects', {
      ...none,
      items: [{ ...d, state: 'needs_information' }],
      total: 1,
    });
    page = await Page.open('/SKR/today', server);
    await page.see(d.title, '[aria-label="Asked of you about defects"]');
    expect(server.asked.find((a) => a.startsWith('/projects/SKR/defects'))).toContain('reporter=me');
  });
});
