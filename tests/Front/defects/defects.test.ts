// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
const detail = (server: DemoServer): Api['DefectDetail'] => server.recorded('/defects/SKR-D35');

/** The defect as a developer or a tester has it, with something else of it. */
function open(who: 'lina' | 'tobias' | 'corin', more: Partial<Api['DefectDetail']> = {}): DemoServer {
  const choices = new DemoServer('tobias').recorded<object>('/projects/SKR/defect-choices');
  const server = new DemoServer(who).on('GET /projects/SKR/defect-choices', choices);
  return server.on('GET /defects/SKR-D35', {
    ...new DemoServer('tobias').recorded<object>('/defects/SKR-D35'),
    ...more,
  });
}
const kept = (selector: string): string => document.querySelector<HTMLTextAreaElement>(selector)?.value ?? '';

describe('a defect', () => {
  it('shows how to get there with the failing step lit, then where it was met and what became of it', async () => {
    const server = new DemoServer('tobias');
    const d = detail(server);
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.see(d.defect.title, 'h1');
    await page.see('Choose Back.', '[aria-label="The failing step"]');
    await page.see(d.actual, '[aria-label="The failing step"]');
    await page.see('Step 5 of 5', '[aria-label="The failing step"]');
    expect(page.all('[aria-label="How to get there"] li')).toHaveLength(5);
    await page.see(`${d.origins[0]?.case_key} step ${d.origins[0]?.step}`, '[aria-label="Met in"]');
    await page.see('Filed', '[aria-label="History"]');
    expect(page.has(`a[href*="attempt=${d.origins[0]?.attempt_id}"]`)).toBe(true);
  });

  it('lays the pass beside the fail, and names only what was otherwise', async () => {
    const server = new DemoServer('tobias');
    const { reproduction } = server.recorded<Api['ReproductionAnswer']>('/defects/SKR-D35/reproduction');
    const beside: Api['PassedBeside'] = {
      entry_id: 'e9',
      attempt_id: 'a9',
      attempt_number: 1,
      round: 1,
      tester: { id: 'p', name: 'Tobias Reyle' },
      build: { id: 'b', name: '4.1.0-3' },
      finished_at: '2026-11-12T10:00:00Z',
      is_before: true,
      same_configuration: false,
      same_data: true,
      differences: [{ what: 'Build', passed: '4.1.0-3', failed: '4.2.0-7' }],
      evidence: [],
    };
    server.on('GET /defects/SKR-D35/reproduction', { reproduction: { ...reproduction, beside } });
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.see('It passed before', '[aria-label="Where it passed"]');
    await page.see('on another configuration', '[aria-label="Where it passed"]');
    expect(page.text('[aria-label="Where it passed"]')).not.toContain('with other data');
    expect(page.all('[aria-label="Where it passed"] tbody td')).toEqual(['Build', '4.1.0-3', '4.2.0-7']);
  });

  it('shows what was reported without a walk as it was told, and never as markup', async () => {
    const bad = '<img src=x onerror="window.broken = true"> Press\n\n<script>window.broken = true</script>';
    const server = open('tobias', { body: `# Steps\n\n1. ${bad}`, actual: bad, expected: '**12.40**' });
    server.on('GET /defects/SKR-D35/reproduction', { reproduction: null });
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.see('Steps', '.report');
    await page.see('12.40', '.told');
    expect(document.querySelector('main img[onerror], .page img[onerror], .page script')).toBeNull();
    expect((window as { broken?: boolean }).broken).toBeUndefined();
  });

  it('is asked about with one key, in words that stay until they are sent', async () => {
    const moves = ['accepted', 'in_work', 'fixed', 'needs_information', 'rejected', 'duplicate'];
    const server = open('lina', { moves });
    server.on('POST /defects/SKR-D35/moves', {
      status: 412,
      type: 'state-changed',
      detail: 'Somebody moved it meanwhile: it is accepted now.',
    });
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.see('Take it in work');
    await page.press('a');
    await page.type('#move-note', 'Which browser?');
    await page.submit('form.move');
    await page.see('it is accepted now', '[role=alert]');
    expect(kept('#move-note')).toBe('Which browser?');
    const now = detail(new DemoServer('tobias'));
    now.defect.state = 'needs_information';
    server.on('POST /defects/SKR-D35/moves', now);
    await page.submit('form.move');
    await page.see('SKR-D35: needs information.');
    expect(page.sent.at(-1)).toMatchObject({
      path: '/defects/SKR-D35/moves',
      body: { state: 'needs_information', note: 'Which browser?', seen: 'new' },
    });
    expect(page.has('form.move')).toBe(false);
  });

  it('asks for the build of a fix, the key of the other of a duplicate, and says at the field what is missing', async () => {
    const moves = ['in_work', 'fixed', 'duplicate', 'rejected'];
    const server = open('lina', { moves }).on('POST /defects/SKR-D35/moves', {
      status: 422,
      errors: { duplicate_of: ['Say which defect it is a duplicate of.'] },
    });
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.click('aside button', 'Fixed in a build');
    expect(page.has('[aria-label="Build with the fix"]')).toBe(true);
    await page.click('aside button', 'It is a duplicate');
    expect(page.has('[aria-label="Build with the fix"]')).toBe(false);
    await page.type('#duplicate-of', 'skr-d99');
    await page.submit('form.move');
    await page.see('Say which defect it is a duplicate of.', '[role=alert]');
    expect(kept('#duplicate-of')).toBe('skr-d99');
  });

  it('shows what is to be known while it waits, and offers the answer first', async () => {
    const base = new DemoServer('tobias').recorded<Api['DefectDetail']>('/defects/SKR-D35');
    const asked: Api['DefectChangeLine'] = {
      id: 'h9',
      actor: { id: 'l', name: 'Lina Ashgrove' },
      from: 'in_work',
      to: 'needs_information',
      note: 'On which phone?',
      at: '2026-11-29T10:00:00Z',
      fields: [],
      attempt_id: null,
      entry_id: null,
      outside: false,
    };
    const server = open('tobias', {
      defect: { ...base.defect, state: 'needs_information' },
      asked_in: 'in_work',
      moves: ['in_work', 'rejected', 'duplicate', 'closed'],
      history: [...base.history, asked],
    });
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.see('Lina Ashgrove asks: On which phone?', '.asked');
    await page.click('.title-line button', 'Answered');
    await page.see('The answer', 'form.move');
  });

  it('keeps both where two people change the same, and lets one take theirs', async () => {
    const server = open('tobias');
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.press('e');
    await page.type('#defect-actual', 'Both names are gone.');
    server.on('PATCH /defects/SKR-D35', {
      status: 412,
      type: 'saved-meanwhile',
      detail: 'Somebody changed the same meanwhile.',
      now: { actual: 'The names are empty.' },
    });
    await page.submit('form[aria-label="What it says"]');
    await page.see('Theirs: The names are empty.');
    expect(kept('#defect-actual')).toBe('Both names are gone.');
    server.on('PATCH /defects/SKR-D35', { ...detail(server), actual: 'Both names are gone.' });
    await page.submit('form[aria-label="What it says"]');
    await page.seeNot('Theirs:');
    expect(page.sent.at(-1)?.body).toEqual({
      actual: 'Both names are gone.',
      was: { actual: 'The names are empty.' },
    });
    expect(page.has('form[aria-label="What it says"]')).toBe(false);
  });

  it('is given to somebody in place, and shows who has it where that was refused', async () => {
    const server = open('lina').on('PATCH /defects/SKR-D35', { status: 422, detail: 'Nobody like this.' });
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.click('aside button', 'Give it to me');
    await page.see('Nobody like this.', '[role=alert]');
    const me = server.recorded<Api['SessionState']>('/session').user;
    expect(page.sent[0]?.body).toEqual({ assignee_id: me.id, was: { assignee_id: null } });
  });

  it('is talked about: what is being written stays while the server is away, and names are offered', async () => {
    const server = open('lina');
    page = await Page.open('/SKR/defects/SKR-D35', server);
    server.away = true;
    await page.type('#talk', 'Only with a bike, @ano');
    await page.click('[aria-label="Name somebody"] button', '@Anouk Sorrel');
    expect(kept('#talk')).toBe('Only with a bike, @Anouk Sorrel ');
    await page.submit('form:has(#talk)');
    await page.see('cannot be reached', '[aria-label="Talk"] [role=alert]');
    expect(kept('#talk')).toBe('Only with a bike, @Anouk Sorrel ');
    server.away = false;
    const me = server.recorded<Api['SessionState']>('/session').user;
    const said: Api['DefectCommentLine'] = {
      id: 'c1',
      author: me,
      text: 'Only with a bike, <b>@Anouk Sorrel</b>',
      at: new Date().toISOString(),
      edited_at: null,
      stands_at: new Date(Date.now() + 600_000).toISOString(),
      removed: null,
      files: [],
    };
    const d = { ...detail(new DemoServer('tobias')), comments: [said] };
    server.on('POST /defects/SKR-D35/comments', d).on('GET /defects/SKR-D35', d);
    await page.submit('form:has(#talk)');
    await page.see('Only with a bike, <b>@Anouk Sorrel</b>', '[aria-label="Talk"] li');
    expect(kept('#talk')).toBe('');
    await page.click('[aria-label="Talk"] button', 'Change');
    await page.type('[aria-label="What you said"]', 'Only with two bikes');
    const mended = { ...d, comments: [{ ...said, text: 'Only with two bikes', edited_at: said.at }] };
    server.on('PATCH /defect-comments/c1', mended).on('GET /defects/SKR-D35', mended);
    await page.click('[aria-label="Talk"] li button', 'Save');
    await page.see('Only with two bikes', '[aria-label="Talk"] li');
    await page.see('changed', '[aria-label="Talk"] li');
  });

  it('is copied as text for elsewhere', async () => {
    const server = new DemoServer('tobias');
    const write = vi.fn(() => Promise.resolve());
    Object.defineProperty(navigator, 'clipboard', { value: { writeText: write }, configurable: true });
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.click('button', 'Copy as text');
    await page.see('Copied as plain text');
    expect(write).toHaveBeenCalledWith(detail(server).plain);
  });
});

describe('known already?', () => {
  it('says why each may be the same, and one key links the first instead', async () => {
    const { mount, flushPromises } = await import('@vue/test-utils');
    const { QueryClient, VueQueryPlugin } = await import('@tanstack/vue-query');
    const { default: PrimeVue } = await import('primevue/config');
    const { default: LikelyDefects } = await import('@/areas/defects/parts/LikelyDefects.vue');
    const server = new DemoServer('tobias');
    const line = detail(server).defect;
    const likely = (more: Partial<Api['LikelyDefect']>): Api['LikelyDefect'] => ({
      defect: line,
      likeness: 0.5,
      at_this_step: false,
      same_case: false,
      same_component: false,
      words: ['total', 'band'],
      ...more,
    });
    server.on('GET /projects/SKR/likely-defects', [
      likely({ at_this_step: true, words: [] }),
      likely({ defect: { ...line, id: 'd2', key: 'SKR-D2', state: 'closed' }, same_case: true }),
    ]);
    vi.stubGlobal('fetch', server.fetch);
    const shown = mount(LikelyDefects, {
      props: { project: 'SKR', title: 'The total of a band', actual: '', attempt: 'a1', step: 3 },
      attachTo: document.body,
      global: { plugins: [[VueQueryPlugin, { queryClient: new QueryClient() }], PrimeVue] },
    });
    await vi.waitFor(async () => {
      await flushPromises();
      expect(shown.text()).toContain('same step');
    });
    expect(shown.findAll('li')[1]!.text()).toContain('closed · same case, same words: total, band');
    expect(server.asked.at(-1)).toContain('step=3');
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'l' }));
    expect(shown.emitted('link')).toBeUndefined();
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'l', altKey: true }));
    expect(shown.emitted('link')?.[0]).toEqual([line]);
    shown.unmount();
  });
});

describe('the list of defects', () => {
  it('keeps its filter in the address, so that a link shows the same', async () => {
    page = await Page.open('/SKR/defects?state=open', 'tobias');
    await page.see('SKR-D35');
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
