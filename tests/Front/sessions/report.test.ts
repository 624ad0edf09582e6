// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { keep, read, startReport, type Act } from '@/observer/report';

/** What was done on a page is sent in order and once, and waits on the device while nobody takes it. */
interface Sent {
  code: string;
  lost: number;
  acts: Act[];
}
let sent: Sent[] = [];
let answer: () => Response | Promise<Response> = () => Response.json({ state: 'running', charter: 'SKR-S4' });
const act = (n: number, more: Partial<Act> = {}): Act => ({
  id: `id-${n}`,
  kind: 'press',
  at: n,
  n,
  tab: 't',
  page: '/',
  ...more,
});
const told: string[] = [];
const start = (tab = 't'): ReturnType<typeof startReport> =>
  startReport('https://lucid.example/api/v1/observations', 'CODE', tab, (state, charter, waiting) =>
    told.push(`${state} ${charter} ${waiting}`.trim()),
  );
beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  sent = [];
  told.length = 0;
  answer = () => Response.json({ state: 'running', charter: 'SKR-S4' });
  vi.stubGlobal('fetch', async (_: string, init: RequestInit) => {
    const response = await answer();
    if (response.ok) sent.push(JSON.parse(String(init.body)) as Sent);
    return response;
  });
});
afterEach(() => {
  vi.clearAllTimers();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const ids = (): string[] => sent.flatMap((s) => s.acts.map((a) => a.id));
const pass = (ms: number): Promise<unknown> => vi.advanceTimersByTimeAsync(ms);

describe('what a page reports', () => {
  it('goes in batches, with the code, and nothing of it stays on the device then', async () => {
    const report = start();
    for (let n = 0; n < 250; n++) report.add(act(n));
    expect(read('q:t')).not.toBe('');
    await pass(5000);
    expect(sent.map((s) => [s.code, s.acts.length])).toEqual([
      ['CODE', 100],
      ['CODE', 100],
      ['CODE', 50],
    ]);
    expect(ids()).toEqual(Array.from({ length: 250 }, (_, n) => `id-${n}`));
    expect([read('q:t'), told.at(-1)]).toEqual(['', 'running SKR-S4 0']);
  });

  it('is kept in parts that a page may send while it goes', async () => {
    const report = start();
    for (let n = 0; n < 60; n++) report.add(act(n, { value: 'x'.repeat(2000) }));
    await pass(10_000);
    expect(ids()).toHaveLength(60);
    for (const batch of sent) expect(JSON.stringify(batch).length).toBeLessThanOrEqual(60_000);
  });

  it('waits while nobody answers, is tried again later and later, and arrives once whatever came between', async () => {
    let seed = 11;
    const random = (most: number): number => (seed = (seed * 16807) % 2147483647) % most;
    const report = start();
    let n = 0;
    answer = () => {
      const luck = random(4);
      if (luck === 0) throw new TypeError('away');
      if (luck === 1) return new Response('{}', { status: [500, 503, 429, 408][random(4)]! });
      return Response.json({ state: 'running', charter: 'SKR-S4' });
    };
    for (let i = 0; i < 60; i++) {
      for (let k = random(6); k > 0; k--) report.add(act(n++));
      await pass(random(3000));
    }
    answer = () => Response.json({ state: 'running', charter: 'SKR-S4' });
    await pass(60_000);
    expect(ids()).toEqual(Array.from({ length: n }, (_, i) => `id-${i}`));
    expect(told.some((t) => t.startsWith('away'))).toBe(true);
  });

  it('says how many it could not keep, once', async () => {
    answer = () => {
      throw new TypeError('away');
    };
    const report = start();
    for (let n = 0; n < 1007; n++) report.add(act(n));
    answer = () => Response.json({ state: 'running' });
    await pass(60_000);
    expect(ids()).toHaveLength(1000);
    expect(sent.map((s) => s.lost).filter((l) => l > 0)).toEqual([7]);
  });

  it('is taken over from the page before, and from tabs that are closed, not from those that live', async () => {
    keep('q:t', JSON.stringify({ at: Date.now(), acts: [act(2)] }));
    keep('q:closed', JSON.stringify({ at: Date.now() - 60_000, acts: [act(1, { tab: 'closed' })] }));
    keep('q:alive', JSON.stringify({ at: Date.now(), acts: [act(3, { tab: 'alive' })] }));
    keep('q:broken', '{');
    start();
    await pass(3000);
    expect(ids()).toContain('id-2');
    expect(ids()).not.toContain('id-3');
    expect(read('q:alive')).not.toBe('');
  });

  it('ends where no session listens; what cannot be taken is not sent for ever', async () => {
    const report = start();
    answer = () => new Response('{}', { status: 422 });
    report.add(act(1));
    await pass(3000);
    expect(read('q:t')).toBe('');
    let asked = 0;
    answer = () => {
      asked++;
      return new Response('{}', { status: 404 });
    };
    report.add(act(2));
    await pass(900);
    expect(told.at(-1)).toMatch(/^refused/);
    await pass(15_000);
    expect(asked).toBe(1);
  });

  it('says that it is still there while nothing is done', async () => {
    start();
    await pass(30_000);
    expect(sent.map((s) => s.acts.length)).toEqual([0, 0]);
  });
});
