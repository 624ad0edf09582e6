// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import { addressOf, countWords, linesOf, markOf, nextPlace, type Kind } from '@/areas/coverage/trace';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

/** A trace: which cells go over several rows, where keys lead, and what it says of itself. */
let page: Page | undefined;
afterEach(() => page?.close());
const link = (id: string, state: string | null = null): Api['TraceLink'] => ({
  id,
  key: id.toUpperCase(),
  title: `Title ${id}`,
  state,
});
const row = (q: string, c: string, e = '', a = '', step: number | null = null): Api['TraceRow'] => ({
  requirement: q ? link(q) : null,
  case: c ? link(c) : null,
  entry: e ? link(e, 'pass') : null,
  attempt: a ? link(a, 'pass') : null,
  finished_at: null,
  round: step === null ? null : 1,
  step,
  step_verdict: step === null ? null : 'fail',
  defects: step === null ? [] : [link('d1', 'new')],
  evidence: [],
});
const rows = [
  row('q1', 'c1', 'e1', 'a1', 1),
  row('q1', 'c1', 'e1', 'a1', 2),
  row('q1', 'c1', 'e2'),
  row('q1', 'c2'),
  row('q2', 'c2', 'e1', 'a1', 1),
  row('q2', ''),
];

describe('a trace', () => {
  it('lets a cell go over the rows below it that have the same, and what is above it the same', () => {
    const spans = linesOf(rows).map((l) => Object.values(l.spans).join(' '));
    expect(spans).toEqual(['4 3 2 2', '0 0 0 0', '0 0 1 1', '0 1 1 1', '2 1 1 1', '0 1 1 1']);
    for (const column of ['requirement', 'case', 'entry', 'attempt'] as const)
      expect(linesOf(rows).reduce((sum, l) => sum + l.spans[column], 0)).toBe(rows.length);
    expect(linesOf([])).toEqual([]);
  });

  it('says how much there is, each thing once', () => {
    const session = {
      charter: link('s1'),
      requirement: null,
      started_at: '',
      cases: [link('c9')],
      defects: [link('d1')],
    };
    const trace: Api['Trace'] = {
      kind: 'requirement',
      of: link('q1'),
      rows,
      sessions: [session],
      more: false,
      whole: true,
    };
    expect(countWords(trace)).toBe('2 requirements, 3 cases, 2 entries, 1 attempt, 1 defect, 1 session');
    expect(countWords({ ...trace, rows: [], sessions: [] })).toBe('');
  });

  it('knows where each thing is looked at', () => {
    const of = (kind: Kind, state: string | null = 'x'): string =>
      addressOf('SKR', kind, link('k', state), 'e');
    expect(of('requirement')).toBe('/SKR/coverage/K');
    expect(of('case')).toBe('/SKR/casebook/K');
    expect(of('cycle')).toBe('/SKR/cycles/K');
    expect(of('entry')).toBe('/SKR/entries/k');
    expect(of('attempt')).toBe('/SKR/entries/e?attempt=k');
    expect(of('defect')).toBe('/SKR/defects/K');
    expect(of('session')).toBe('/SKR/sessions/K');
    expect(of('evidence')).toBe('/api/v1/evidence/k/file');
    expect(of('evidence', null)).toBe('/SKR/entries/e');
    expect([markOf('open'), markOf('abandoned'), markOf(null), markOf('fail')]).toEqual([
      'in_progress',
      null,
      null,
      'fail',
    ]);
  });

  it('goes by an arrow key to the next one straight ahead', () => {
    const places = [
      { x: 0, y: 0 },
      { x: 200, y: 0 },
      { x: 200, y: 40 },
      { x: 0, y: 120 },
    ];
    expect(nextPlace(places, 0, 'ArrowRight')).toBe(1);
    expect(nextPlace(places, 1, 'ArrowDown')).toBe(2);
    expect(nextPlace(places, 0, 'ArrowDown')).toBe(3);
    expect(nextPlace(places, 2, 'ArrowLeft')).toBe(0);
    expect(nextPlace(places, 0, 'ArrowUp')).toBe(-1);
    expect(nextPlace(places, 9, 'ArrowUp')).toBe(-1);
  });

  it('shows a way from what must hold to its picture, and traces on from what is lit', async () => {
    const server = new DemoServer('maren');
    const trace = server.recorded<Api['Trace']>('/projects/SKR/trace?kind=requirement&id=SKR-Q6');
    page = await Page.open('/SKR/trace/requirement/SKR-Q6', server);
    await page.see(trace.of.title, '.title-line');
    await page.see(countWords(trace));
    const failed = trace.rows.find((r) => r.defects.length > 0)!;
    await page.see(failed.defects[0]!.key, '.defects');
    expect(document.querySelectorAll('tbody tr')).toHaveLength(trace.rows.length);
    document.querySelector<HTMLElement>('[data-kind=defect]')!.focus();
    await page.press('t');
    expect(page.path).toBe(`/SKR/trace/defect/${failed.defects[0]!.id}`);
  });
});
