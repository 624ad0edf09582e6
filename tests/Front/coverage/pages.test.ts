// @vitest-environment happy-dom
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

/** Coverage and a requirement as pages. */
let page: Page;
afterEach(() => page?.close());
beforeAll(() => {
  // Rows that a made-up browser has no height for are shown all the same.
  Object.defineProperty(HTMLElement.prototype, 'offsetHeight', { configurable: true, get: () => 600 });
  Object.defineProperty(HTMLElement.prototype, 'offsetWidth', { configurable: true, get: () => 800 });
});
const detail = (more: Partial<Api['RequirementDetail']> = {}): Api['RequirementDetail'] => ({
  ...new DemoServer('maren').recorded<Api['RequirementDetail']>('/requirements/SKR-Q6'),
  ...more,
});

describe('coverage', () => {
  it('shows the tree through a lens that stands in the address, and nothing to write for who only reads', async () => {
    page = await Page.open('/SKR/coverage', new DemoServer('maren'));
    await page.see('requirements proven', '.title-line');
    await page.see('New requirement');
    await page.press('w');
    await page.see('All requirements');
    await page.close();
    page = await Page.open('/SKR/coverage', new DemoServer('lina'));
    await page.see('requirements proven', '.title-line');
    expect(document.body.textContent).not.toContain('New requirement');
  });

  it('moves a requirement by Alt and an arrow key, once', async () => {
    const server = new DemoServer('maren');
    const tree = server.recorded<Api['CoverageTree']>('/projects/SKR/coverage');
    const second = tree.rows.filter((r) => r.parent_id === null)[1]!;
    server.on(`POST /requirements/${second.id}/moves`, detail());
    page = await Page.open('/SKR/coverage', server);
    await page.see(second.title, '[role=treegrid]');
    const link = [...document.querySelectorAll<HTMLElement>('[role=treegrid] a')].find(
      (a) => a.textContent === second.title,
    )!;
    link.dispatchEvent(new FocusEvent('focus'));
    link.dispatchEvent(
      new KeyboardEvent('keydown', { key: 'ArrowUp', altKey: true, bubbles: true, cancelable: true }),
    );
    await vi.waitFor(() => expect(page.sent.filter((s) => s.path.endsWith('/moves'))).toHaveLength(1));
    expect(page.sent.at(-1)?.body).toMatchObject({
      parent_id: null,
      before_id: tree.rows.filter((r) => r.parent_id === null)[0]!.id,
    });
  });

  it('shows each build and configuration side by side, and says what a cell is', async () => {
    const server = new DemoServer('maren');
    const grid = server.recorded<Api['CoverageGrid']>('/projects/SKR/coverage/grid');
    page = await Page.open('/SKR/coverage', server);
    await page.see('requirements proven', '.title-line');
    await page.click('button', 'By build');
    await page.see(grid.columns[0]!.name, '[role=treegrid]');
    const marks = document.querySelectorAll('[role=treegrid] .column svg');
    expect(marks).toHaveLength(grid.columns.length * grid.rows.length);
    expect(marks[0]!.getAttribute('aria-label')).toContain(
      `${grid.rows[0]!.key} on ${grid.columns[0]!.name}`,
    );
    expect(document.querySelector('[role=treegrid] .column a')!.getAttribute('href')).toContain(
      `build=${grid.columns[0]!.id}`,
    );
    await page.press('v');
    await page.see('Desktop', '[aria-label="Requirements by configuration"]');
  });

  it('shows day by day as a table beside the chart, and goes on until every day is counted', async () => {
    const server = new DemoServer('maren');
    const trend = server.recorded<Api['CoverageTrend']>('/projects/SKR/coverage/trend?days=30');
    server.on('GET /projects/SKR/coverage/trend', { points: trend.points.slice(-2), missing: 3 });
    page = await Page.open('/SKR/coverage?view=trend', server);
    await page.see('days still to be counted');
    server.on('GET /projects/SKR/coverage/trend', trend);
    await page.seeNot('still to be counted');
    await page.see('Today, by now', '.trend');
    expect(document.querySelectorAll('.trend tbody tr')).toHaveLength(trend.points.length);
  });

  it('looks at a day that is past without anything to change, and says why a day is refused', async () => {
    const server = new DemoServer('maren');
    const tree = server.recorded<Api['CoverageTree']>('/projects/SKR/coverage');
    server.on('GET /projects/SKR/coverage', tree);
    page = await Page.open('/SKR/coverage?as_of=2026-11-20', server);
    await page.see('As it stood at the end of 20 Nov');
    await page.seeNot('New requirement');
    expect(document.querySelector('[draggable=true]')).toBeNull();
    await page.click('button', 'Back to now');
    await page.see('New requirement');
    await page.close();
    server.on('GET /projects/SKR/coverage', {
      type: 'urn:lucid-step:problem:invalid',
      status: 422,
      detail: 'Nothing was changed. See the fields.',
      errors: { as_of: ['This day is still to come.'] },
    });
    page = await Page.open('/SKR/coverage?as_of=2099-01-01', server);
    await page.see('This day is still to come.');
    await page.see('As of', '.lens');
  });

  it('says what to do where nothing is required yet', async () => {
    const server = new DemoServer('maren');
    server.on('GET /projects/SKR/coverage', {
      ...server.recorded<Api['CoverageTree']>('/projects/SKR/coverage'),
      counts: [],
      rows: [],
    });
    page = await Page.open('/SKR/coverage', server);
    await page.see('Nothing is required yet');
  });
});

describe('a requirement', () => {
  it('keeps what is being written, and says who saved another meanwhile', async () => {
    const server = new DemoServer('maren').on('GET /requirements/SKR-Q6', detail());
    page = await Page.open('/SKR/coverage/SKR-Q6', server);
    await page.see(detail().title, 'h1');
    await page.click('button', 'Change');
    await page.type('.form input', 'Mine');
    server.on('PUT /requirements/SKR-Q6', {
      type: 'saved-meanwhile',
      detail: 'Somebody saved this requirement while you were writing.',
      status: 412,
      revision: 9,
    });
    server.on('GET /requirements/SKR-Q6', detail({ title: 'Theirs', revision: 9 }));
    await page.submit('.form');
    await page.see('Somebody saved this requirement');
    expect(document.querySelector<HTMLInputElement>('.form input')?.value).toBe('Mine');
  });

  it('asks for a look at cases whose words changed, and confirms them by a key', async () => {
    const cases = detail().cases.map((c, i) => ({ ...c, to_look_at: i < 2 }));
    const server = new DemoServer('maren').on('GET /requirements/SKR-Q6', detail({ cases }));
    server.on('POST /requirements/SKR-Q6/confirmations', detail());
    page = await Page.open('/SKR/coverage/SKR-Q6', server);
    await page.see('2 cases to be looked at');
    server.on('GET /requirements/SKR-Q6', detail({ cases: cases.map((c) => ({ ...c, to_look_at: false })) }));
    await page.press('y');
    await page.seeNot('to be looked at');
    expect(page.sent.at(-1)?.body).toMatchObject({ cases: null });
  });
});
