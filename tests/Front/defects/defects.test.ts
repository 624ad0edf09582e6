// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
const detail = (server: DemoServer): Api['DefectDetail'] => server.recorded('/defects/SKR-D5');
const choose = (label: string, option: string): Promise<Page> =>
  page.choose(`[aria-label="${label}"]`, option);

describe('a defect', () => {
  it('shows where it was met, its pictures and its history', async () => {
    const server = new DemoServer('tobias');
    const d = detail(server);
    page = await Page.open('/SKR/defects/SKR-D5', server);
    await page.see(d.defect.title, 'h1');
    await page.see(`${d.origins[0]?.case_key} step ${d.origins[0]?.step}`, 'aside');
    await page.see('Filed', 'aside');
    expect(page.has(`a[href*="attempt=${d.origins[0]?.attempt_id}"]`)).toBe(true);
  });

  it('shows the report as words, never as markup', async () => {
    const server = new DemoServer('tobias');
    const d = detail(server);
    server.on('GET /defects/SKR-D5', {
      ...d,
      body: '# Steps\n\n1. <img src=x onerror="window.broken = true"> Press\n\n<script>window.broken = true</script>',
    });
    page = await Page.open('/SKR/defects/SKR-D5', server);
    await page.see('Steps', 'article');
    expect(document.querySelector('article img[onerror], article script')).toBeNull();
    expect((window as { broken?: boolean }).broken).toBeUndefined();
  });

  it('goes on to another state, with a word, and is what the server says then', async () => {
    const server = new DemoServer('tobias');
    const now = detail(server);
    now.defect.state = 'needs_information';
    now.moves = ['accepted'];
    server.on('POST /defects/SKR-D5/moves', now);
    page = await Page.open('/SKR/defects/SKR-D5', server);
    await choose('Move it to', 'Needs information');
    await page.type('[aria-label="A word on it"]', 'Which browser?');
    await page.submit('aside form');
    await page.see('Needs information', 'aside dl');
    expect(page.sent[0]).toMatchObject({
      path: '/defects/SKR-D5/moves',
      body: { state: 'needs_information', note: 'Which browser?', build_id: null },
    });
    expect(page.has('[aria-label="A word on it"]')).toBe(false);
  });

  it('says why it may not go there, and keeps the word', async () => {
    const server = new DemoServer('tobias').on('POST /defects/SKR-D5/moves', {
      status: 409,
      type: 'moved',
      detail: 'Lina Ashgrove moved it to in work meanwhile.',
      errors: {},
    });
    page = await Page.open('/SKR/defects/SKR-D5', server);
    await choose('Move it to', 'Rejected');
    await page.type('[aria-label="A word on it"]', 'As meant');
    await page.submit('aside form');
    await page.see('Lina Ashgrove moved it to in work meanwhile.', '[role=alert]');
    expect((document.querySelector('[aria-label="A word on it"]') as HTMLTextAreaElement).value).toBe(
      'As meant',
    );
  });

  it('asks for the build with the fix only where it is fixed', async () => {
    page = await Page.open('/SKR/defects/SKR-D5', 'tobias');
    await choose('Move it to', 'Accepted');
    expect(page.has('[aria-label="Build with the fix"]')).toBe(false);
    await choose('Move it to', 'Fixed');
    expect(page.has('[aria-label="Build with the fix"]')).toBe(true);
  });

  it('is copied as text for elsewhere', async () => {
    const server = new DemoServer('tobias');
    const write = vi.fn(() => Promise.resolve());
    Object.defineProperty(navigator, 'clipboard', { value: { writeText: write }, configurable: true });
    page = await Page.open('/SKR/defects/SKR-D5', server);
    await page.click('button', 'Copy as text');
    await page.see('Copied as plain text');
    expect(write).toHaveBeenCalledWith(detail(server).plain);
  });
});

describe('the list of defects', () => {
  it('keeps its filter in the address, so that a link shows the same', async () => {
    page = await Page.open('/SKR/defects?state=open', 'tobias');
    await page.see('SKR-D5');
    expect(page.path).toContain('state=open');
    await page.type('input[type=search], main input', 'Farra');
    await vi.waitFor(() => expect(page.path).toContain('q=Farra'));
  });

  it('says what the place is for when there are none', async () => {
    const empty = {
      ...new DemoServer('tobias').recorded<Api['DefectPage']>('/projects/SKR/defects'),
      items: [],
    };
    page = await Page.open('/SKR/defects', new DemoServer('tobias').on('GET /projects/SKR/defects', empty));
    await page.settle(6);
    expect(page.text('main')).toMatch(/No defect|Nothing|none/i);
  });
});
