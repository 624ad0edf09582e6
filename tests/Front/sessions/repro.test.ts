// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { emptyRepro, fromSaved, rowsOf, seenWords, stepsOf } from '@/areas/sessions/repro';
import { DemoServer, Page } from '../support/pages';

/** What led to a fault: trimmed by hand, kept, walked again, filed. */
let page: Page;
afterEach(() => page?.close());
const line = (id: string, words: string, more: Partial<Api['StretchLine']> = {}): Api['StretchLine'] => ({
  id,
  kind: 'press',
  at_ms: 1000,
  words,
  is_step: true,
  why: null,
  why_words: '',
  pinned: false,
  thumbnail_url: null,
  ...more,
});
const out = { why: 'detour' as const, why_words: 'a way round that came back' };
const LINES = [
  line('a', 'Open "/"', { kind: 'visit' }),
  line('b', 'Press "Help"', out),
  line('c', 'Open "/pay"', { kind: 'visit', is_step: false }),
  line('d', 'Press "Pay"'),
];

describe('what leads to a fault', () => {
  it('numbers what stays, and says why the rest is left out', () => {
    const rows = rowsOf(LINES, emptyRepro());
    expect(rows.map((r) => [r.number, r.why])).toEqual([
      [1, ''],
      [0, 'a way round that came back'],
      [0, ''],
      [2, ''],
    ]);
    expect(stepsOf(rows).map((s) => s.words)).toEqual(['Open "/"', 'Press "Pay"']);
    expect([seenWords({ tries: 3, shown: 2 }), seenWords({ tries: 0, shown: 0 }), seenWords(null)]).toEqual([
      'seen 2 of 3 times',
      '',
      '',
    ]);
  });

  it('is, once saved, what was saved: whatever was brought back, left out, changed or put in', () => {
    // Of a hundred random drafts, what is saved and read again stands as it was.
    let seed = 5;
    const random = (most: number): number => (seed = (seed * 16807) % 2147483647) % most;
    for (let run = 0; run < 100; run++) {
      const draft = emptyRepro();
      for (const l of LINES) {
        if (random(3) === 0) draft.stays[l.id] = random(2) === 0;
        if (l.is_step && random(3) === 0) draft.words[l.id] = `${l.words} ${run}`;
      }
      let behind = ['', 'a', 'd'][random(3)]!;
      for (let i = random(3); i > 0; i--) {
        draft.added.push({ id: `own-${i}`, behind, words: `By hand ${i}` });
        behind = `own-${i}`;
      }
      const steps = stepsOf(rowsOf(LINES, draft));
      const again = fromSaved(LINES, { steps, version: 4 });
      if (steps.length === 0) expect(again).toEqual(emptyRepro());
      else expect([stepsOf(rowsOf(LINES, again)), again.version]).toEqual([steps, 4]);
    }
  });
});

const stretch = (more: Partial<Api['StretchDetail']> = {}): Api['StretchDetail'] => ({
  session_id: 's',
  charter_key: 'SKR-S1',
  charter_title: 'Refunds',
  number: 1,
  marked: {
    id: 'm',
    number: 9,
    kind: 'issue',
    at_ms: 61_000,
    words: 'It pays half',
    former: [],
    pinned: false,
    page: null,
    name: '',
    media_type: null,
    url: null,
    thumbnail_url: null,
    removed: null,
  },
  lines: LINES,
  before: 0,
  captures: [],
  title: 'Refunds – It pays half',
  actual: 'It pays half',
  environment: '',
  body: '',
  build: null,
  configuration: null,
  repro: null,
  ...more,
});
const saved = (more: Partial<Api['ReproDetail']> = {}): Api['ReproDetail'] => ({
  line_id: 'm',
  at_ms: 61_000,
  words: 'It pays half',
  steps: [{ line: 'd', words: 'Press "Pay"' }],
  tries: 0,
  shown: 0,
  defect: null,
  case_key: null,
  case_title: null,
  version: 1,
  saved_by: { id: 'p', name: 'Piet Halloran' },
  saved_at: '2026-11-30T10:00:00Z',
  ...more,
});
const serving = (
  of: Api['StretchDetail'],
  who: ConstructorParameters<typeof DemoServer>[0] = 'tobias',
): DemoServer =>
  new DemoServer(who).on('GET /session-lines/m/stretch', of).on('GET /projects/SKR/likely-defects', []);

describe('the page of it', () => {
  it('leaves out and brings back by a key, keeps first and files then', async () => {
    const server = serving(stretch());
    page = await Page.open('/SKR/sessions/SKR-S1/lines/m', server);
    await page.see('What led to 1:01');
    await page.see('3 acts, 2 stay');
    page.press('j');
    page.press('x');
    await page.see('3 acts, 3 stay');
    await page.see('Press "Help"', 'aside');
    server.on('PUT /session-lines/m/repro', saved());
    server.on('POST /projects/SKR/defects', { status: 422, errors: { title: ['Say what is wrong.'] } });
    await page.click('button', 'File the defect');
    await vi.waitFor(() => expect(page.sent.filter((s) => s.method === 'POST')).toHaveLength(1));
    expect(page.sent.find((s) => s.method === 'PUT')?.body).toMatchObject({
      version: 0,
      steps: [
        { line: 'a', words: 'Open "/"' },
        { line: 'b', words: 'Press "Help"' },
        { line: 'd', words: 'Press "Pay"' },
      ],
    });
    await page.see('Say what is wrong.');
    expect(page.sent.at(-1)?.body).toMatchObject({
      line_id: 'm',
      actual: 'It pays half',
    });
  });

  it('walks it again: one step lit, at the end what one saw', async () => {
    const server = serving(stretch());
    server.on('PUT /session-lines/m/repro', saved());
    server.on('POST /session-lines/m/repro/tries', saved({ tries: 2, shown: 1 }));
    page = await Page.open('/SKR/sessions/SKR-S1/lines/m', server);
    await page.see('What led to');
    page.press('w');
    await page.see('Open "/"', '[aria-label="Walk it again"] .lit');
    page.press('1');
    page.press('1');
    await page.see('It pays half', '[aria-label="Walk it again"] .lit');
    page.press('2');
    await vi.waitFor(() => expect(page.sent.at(-1)?.body).toMatchObject({ shown: false }));
  });

  it('says who kept another meanwhile, and takes either', async () => {
    const server = serving(stretch());
    page = await Page.open('/SKR/sessions/SKR-S1/lines/m', server);
    await page.see('2 stay');
    page.press('x');
    await page.see('1 stay');
    server.on('GET /session-lines/m/stretch', stretch({ repro: saved() }));
    server.on('PUT /session-lines/m/repro', { status: 412, detail: 'Meanwhile', version: 1 });
    await page.click('button', 'Case from it');
    await page.see('Piet Halloran kept 1 step meanwhile.');
    await page.click('button', 'Take theirs');
    await page.see('Press "Pay"', 'aside');
    expect(document.querySelector('aside')?.textContent).not.toContain('Open "/"');
  });

  it('shows what came of it, and lets readers only look', async () => {
    const defect = { id: 'd', key: 'SKR-D9', title: 'Half', state: 'new' };
    page = await Page.open(
      '/SKR/sessions/SKR-S1/lines/m',
      serving(
        stretch({ repro: saved({ defect, case_key: 'SKR-C9', case_title: 'Half', tries: 3, shown: 2 }) }),
        'lina',
      ),
    );
    await page.see('SKR-D9', 'aside');
    await page.see('Seen 2 of 3 times', 'aside');
    expect(document.body.textContent).not.toContain('File the defect');
    expect(document.body.textContent).not.toContain('leave out or keep');
  });
});
