// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { loadLocal } from '@/offline/device';
import { DemoServer, Page } from '../support/pages';

let server: DemoServer;
let page: Page;
beforeEach(() => {
  localStorage.clear();
  server = new DemoServer('maren');
});
afterEach(() => page?.close());
const cycles = (): Api['CycleSummary'][] => server.recorded('/projects/SKR/cycles');
const milestones = (): Api['MilestoneLine'][] => server.recorded('/projects/SKR/milestones');
const sentTo = (path: string) => page.sent.filter((s) => s.path === path);
/** The heading under which a cycle stands. */
function headOver(name: string): string {
  let head = '';
  for (const row of document.querySelectorAll('.list .at')) {
    head = row.querySelector('h2')?.textContent ?? head;
    if (row.querySelector('.names a')?.textContent === name) return head;
  }
  throw new Error(`${name} is not there.`);
}
const act = { act_id: 'act-1', title: 'Extended 1 cycle by 7 days', count: 1, refused: [], ids: [] };

describe('the cycles of a project', () => {
  it('stand under their milestones, or by folder, without those that were abandoned', async () => {
    const all = cycles();
    all[0]!.state = 'abandoned';
    server.on('GET /projects/SKR/cycles', all);
    page = await Page.open('/SKR/cycles', server);
    for (const m of milestones()) await page.see(m.name);
    expect(page.all('.names a')).toHaveLength(all.length - 1);
    for (const c of all) {
      const under = milestones().find((m) => m.id === c.milestone_id)?.name ?? 'Without a milestone';
      if (c.state !== 'abandoned') expect(headOver(c.name)).toContain(under);
    }
    await page.click('button', 'By folder');
    await vi.waitFor(() => expect(page.path).toContain('by=folder'));
    expect(page.all('h2').some((h) => milestones().some((m) => m.name === h))).toBe(false);
  });

  it('are narrowed by state, milestone, build and words, and a link shows the same', async () => {
    const all = cycles();
    all[0]!.state = 'abandoned';
    all[1]!.folder = 'Phones, old and new';
    server.on('GET /projects/SKR/cycles', all);
    const names = (of: Api['CycleSummary'][]): string[] => of.map((c) => c.name).sort();
    const shown = (): string[] => [...page.all('.names a')].sort();
    const some = all[2]!;
    const wanted: [string, (c: Api['CycleSummary']) => boolean][] = [
      ['state=abandoned', (c) => c.state === 'abandoned'],
      ['state=abandoned,released', (c) => ['abandoned', 'released'].includes(c.state)],
      [
        `milestone=${some.milestone_id}`,
        (c) => c.milestone_id === some.milestone_id && c.state !== 'abandoned',
      ],
      ['milestone=none', (c) => c.milestone_id === null && c.state !== 'abandoned'],
      [`build=${some.build?.id}`, (c) => c.build?.id === some.build?.id && c.state !== 'abandoned'],
      [`folder=${encodeURIComponent('Phones, old and new')}`, (c) => c.folder === 'Phones, old and new'],
      [`q=${encodeURIComponent(some.key.toLowerCase())}`, (c) => c === some],
    ];
    for (const [query, fits] of wanted) {
      page = await Page.open(`/SKR/cycles?${query}`, server);
      await vi.waitFor(() => expect(shown(), query).toEqual(names(all.filter(fits))));
      if (all.filter(fits).length === 0) await page.see('No cycle fits this.');
      page.close();
    }
    page = await Page.open('/SKR/cycles?state=closed&q=nothing+like+this', server);
    await page.click('button', 'Show all');
    await vi.waitFor(() => expect(shown()).toEqual(names(all.filter((c) => c.state !== 'abandoned'))));
  });

  it('are ordered within their milestones, and a milestone without a cycle is there', async () => {
    const all = cycles();
    const empty = milestones()[0]!;
    server.on(
      'GET /projects/SKR/cycles',
      all.map((c) => (c.milestone_id === empty.id ? { ...c, milestone_id: null } : c)),
    );
    for (const [sort, sign] of [
      ['name', 1],
      ['-name', -1],
    ] as const) {
      page = await Page.open(`/SKR/cycles?sort=${sort}`, server);
      await page.see(empty.name);
      let last = { head: '', name: '' };
      for (const name of page.all('.names a')) {
        const head = headOver(name);
        if (head === last.head) expect(sign * last.name.localeCompare(name)).toBeLessThan(0);
        last = { head, name };
      }
      page.close();
    }
  });

  it('are gone along and chosen by keys in the order in which they stand', async () => {
    page = await Page.open('/SKR/cycles', server);
    await page.see(cycles()[0]!.name);
    const names = page.all('.names a');
    await page.press('j', 'j', 'x');
    await page.see('1 cycle chosen');
    expect(document.querySelector<HTMLInputElement>(`[aria-label="Choose ${names[1]}"]`)?.checked).toBe(true);
    await page.press('Enter');
    await page.reach(`/SKR/cycles/${cycles().find((c) => c.name === names[1])!.key}`);
  });

  it('make a milestone, and say at its field what is wrong with it', async () => {
    server.on('POST /projects/SKR/milestones', {
      status: 422,
      errors: { name: ['There is a milestone called so.'], due_on: ['Say when it is due.'] },
    });
    page = await Page.open('/SKR/cycles', server);
    await page.click('button', 'New milestone');
    await page.type('form[aria-label="Milestone"] input[maxlength="200"]', 'Release 9');
    await page.submit('form[aria-label="Milestone"]');
    await page.see('There is a milestone called so.');
    await page.see('Say when it is due.');
    server.on('POST /projects/SKR/milestones', milestones()[0]);
    await page.submit('form[aria-label="Milestone"]');
    await vi.waitFor(() => expect(page.has('form[aria-label="Milestone"]')).toBe(false));
    expect(sentTo('/projects/SKR/milestones').at(-1)?.body).toMatchObject({ name: 'Release 9', due_on: '' });
  });

  it('keep a milestone that still holds cycles, and say which', async () => {
    const m = milestones()[0]!;
    server.on(`DELETE /milestones/${m.id}`, {
      status: 409,
      type: 'in-use',
      detail: `“${m.name}” stays: it holds ${cycles()[0]!.name}.`,
    });
    page = await Page.open('/SKR/cycles', server);
    await page.click(`[aria-label="Edit ${m.name}"]`);
    await page.click('form[aria-label="Milestone"] button', 'Take it out');
    await page.see(`“${m.name}” stays: it holds ${cycles()[0]!.name}.`);
  });

  it('are extended together, and that is taken back', async () => {
    const [first] = cycles();
    server.on('POST /projects/SKR/cycle-acts', act);
    server.on('POST /plan-acts/act-1/undo', { ...act, title: 'Undone: extended 1 cycle', act_id: null });
    page = await Page.open('/SKR/cycles', server);
    await page.click(`[aria-label="Choose ${first!.name}"]`);
    await page.see('1 cycle chosen');
    await page.type('[aria-label="Days"]', '3');
    await page.submit('.bulk form');
    await page.see(act.title);
    expect(sentTo('/projects/SKR/cycle-acts')[0]?.body).toEqual({ ids: [first!.id], days: 3 });
    await page.click('button', 'Undo');
    await page.see('Undone: extended 1 cycle');
  });

  it('offer a tester nothing to change', async () => {
    page = await Page.open('/SKR/cycles', 'tobias');
    await page.see('Release 4.2');
    expect(page.text()).not.toContain('New cycle');
    expect(page.has('.list input, .milestone button')).toBe(false);
    await page.press('n', 'w');
    expect(page.path).toBe('/SKR/cycles');
  });
});

describe('a new cycle', () => {
  it('marks the fields that cannot be taken, and keeps all of it', async () => {
    server.on('POST /projects/SKR/cycles', {
      status: 422,
      errors: { name: ['There is a cycle called so.'], 'picks.configurations': ['One of these is gone.'] },
    });
    page = await Page.open('/SKR/cycles/new', server);
    await page.type('#cycle-name', 'Before the storm');
    await page.submit('form');
    await page.see('There is a cycle called so.');
    await page.see('One of these is gone.', '.p-invalid-words[role=alert]');
    expect(document.querySelector<HTMLInputElement>('#cycle-name')?.value).toBe('Before the storm');
  });

  it('keeps on the device what was typed, until the cycle is there', async () => {
    page = await Page.open('/SKR/cycles/new', server);
    await page.type('#cycle-name', 'Half a plan');
    page.close();
    page = await Page.open('/SKR/cycles/new', server, true);
    await vi.waitFor(() =>
      expect(document.querySelector<HTMLInputElement>('#cycle-name')?.value).toBe('Half a plan'),
    );
    server.on('POST /projects/SKR/cycles', server.recorded<Api['CyclePlan']>('/cycles/SKR-R3/plan').cycle);
    await page.submit('form');
    await page.reach('/SKR/cycles/SKR-R3/plan');
    expect(await loadLocal('draft:new-cycle:SKR')).toBeNull();
  });

  it('says when there is more to walk than time', async () => {
    server.on('POST /projects/SKR/selection-counts', {
      cases: 40,
      entries: 40,
      there: 0,
      seconds: 90_000,
      days: 2,
      capacity_seconds: 36_000,
      refused: [],
      refused_count: 0,
      usual: 0,
      with_tables: [],
      rows: {},
    });
    page = await Page.open('/SKR/cycles/new', server);
    await page.see('That is more than there is time for: 15h too much.');
  });

  it('is for those who plan', async () => {
    const setup = server.recorded<Api['PlanningSetup']>('/projects/SKR/planning-setup');
    server.on('GET /projects/SKR/planning-setup', { ...setup, may_plan: false });
    page = await Page.open('/SKR/cycles/new', server);
    await page.see('Leads and admins plan cycles.');
    expect(page.has('form')).toBe(false);
  });
});

describe('the log of a cycle', () => {
  it('wants a word where a cycle is signed off with entries left', async () => {
    server.on('POST /cycles/SKR-R3/sign-offs', {
      status: 422,
      errors: { note: ['13 entries are not walked: say in a few words why that is all right.'] },
    });
    page = await Page.open('/SKR/cycles/SKR-R3/log', server);
    await page.click('button', 'Sign off');
    await page.see('say in a few words why that is all right');
  });

  it('lets an admin alone take the words out with which something was done', async () => {
    const line = { at: '2026-11-28T10:00:00Z', by: null, act_id: null, changes: [] };
    const log = [{ ...line, id: 4, text: 'Closed the cycle', reason: 'Isla Fenn said so' }];
    server.on('GET /cycles/SKR-R3/log', log);
    page = await Page.open('/SKR/cycles/SKR-R3/log', server);
    await page.see('Isla Fenn said so');
    await page.seeNot('Take the words out');
    page.close();
    const admin = new DemoServer('corin')
      .on('GET /cycles/SKR-R3/log', log)
      .on('GET /cycles/SKR-R3/plan', server.recorded('/cycles/SKR-R3/plan'));
    page = await Page.open('/SKR/cycles/SKR-R3/log', admin);
    await page.click('button', 'Take the words out');
    const gone = [{ ...line, id: 4, text: 'Closed the cycle', reason: '(removed)' }];
    admin.on('GET /cycles/SKR-R3/log', gone).on('POST /cycles/SKR-R3/log/4/removals', gone);
    await page.type('[aria-label^="Why"]', 'A person is named');
    await page.click('button[type=submit]', 'Take the words out');
    await page.see('(removed)');
    await page.seeNot('Take the words out');
  });
});
