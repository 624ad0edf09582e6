// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const TOBIAS = { user: { id: 'tobias', name: 'Tobias Reyle' }, email: 't@a.test', projects: [] };
const MAREN = { user: { id: 'maren', name: 'Maren Voss' }, email: 'm@a.test', projects: [] };
/** Who the server says is signed in; away: it does not answer. */
let server: { who: typeof TOBIAS | null; away: boolean; closed: number; trouble?: number };
let replaced: string[];

/** A page that was just opened at the same browser. */
async function page() {
  vi.resetModules();
  const session = await import('@/areas/people/session');
  const device = await import('@/offline/device');
  return { ...session, ...device };
}
async function answer(request: Request | string, init?: RequestInit): Promise<Response> {
  if (server.away) throw new TypeError('Failed to fetch');
  const url = typeof request === 'string' ? request : request.url;
  const method = typeof request === 'string' ? (init?.method ?? 'GET') : request.method;
  const json = (body: unknown, status = 200): Response => new Response(JSON.stringify(body), { status });
  if (server.trouble) return json({ type: 'urn:lucid-step:problem:fault', detail: 'x' }, server.trouble);
  if (url.endsWith('/welcome')) return json({ demo: false, sign_ins: [] });
  if (method === 'DELETE') {
    server.closed++;
    server.who = null;
    return new Response(null, { status: 204 });
  }
  return server.who
    ? json(server.who)
    : json({ type: 'urn:lucid-step:problem:signed-out', detail: 'Out' }, 401);
}
const kept = async (at: Awaited<ReturnType<typeof page>>): Promise<string[]> =>
  (await (await at.device()).getAllKeys('kept')).map(String).sort();

let tests = 0;
const Channel = BroadcastChannel;

beforeEach(() => {
  // Pages of the tests before hear nothing of these.
  const at = ++tests;
  vi.stubGlobal(
    'BroadcastChannel',
    class extends Channel {
      constructor(name: string) {
        super(`${name}-${at}`);
      }
    },
  );
  vi.stubGlobal('indexedDB', new IDBFactory());
  vi.stubGlobal('fetch', vi.fn(answer));
  localStorage.clear();
  // What waits is not sent here.
  Object.defineProperty(navigator, 'locks', {
    configurable: true,
    value: { request: () => Promise.resolve() },
  });
  server = { who: TOBIAS, away: false, closed: 0 };
  replaced = [];
  vi.spyOn(window.location, 'replace').mockImplementation((to) => void replaced.push(String(to)));
});
afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

describe('what stays on a device', () => {
  it.each([false, true])('is nothing but unsent work after signing out (server away: %s)', async (away) => {
    const me = await page();
    await me.whoIsThere();
    await me.saveLocal('pack:SKR', { secret: 'GEHEIM-4711' });
    await me.saveLocal('draft:case:SKR-C1', { title: 'half' });
    localStorage.setItem('lucid-step:new-cycle', '{"name":"GEHEIM-4711"}');
    await (await me.device()).add('acts', { key: 'k', user: 'tobias' } as never);
    server.away = away;
    await me.signOut();
    // An answer that was on its way comes too late.
    expect(await me.saveLocal('pack:SKR', { secret: 'GEHEIM-4711' })).toBe(false);
    expect(me.session.value).toBeNull();
    expect(await kept(me)).toEqual([]);
    expect(JSON.stringify({ ...localStorage })).not.toContain('GEHEIM');
    expect(await me.queuedOnDevice()).toHaveLength(1);
    expect(server.closed).toBe(away ? 0 : 1);
    // Nobody is there until the server was told.
    const next = await page();
    expect(await next.whoIsThere()).toBeNull();
    server.away = false;
    expect(await (await page()).whoIsThere()).toBeNull();
    expect(server.closed).toBe(1);
  });

  it('is what was typed, and no answer of the server, when the session is over', async () => {
    const me = await page();
    await me.whoIsThere();
    for (const key of ['pack:SKR', 'attempt:a1', 'entries:SKR-R1', 'draft:step', 'scratch:SKR'])
      await me.saveLocal(key, 'x');
    server.who = null;
    const next = await page();
    expect(await next.whoIsThere()).toBeNull();
    expect(await kept(next)).toEqual(['draft:step', 'scratch:SKR']);
    server.who = TOBIAS;
    await next.signIn('t@a.test', 'p');
    expect(await kept(next)).toEqual(['draft:step', 'person', 'scratch:SKR', 'session']);
  });

  it('is nothing of one person for the next', async () => {
    const me = await page();
    await me.whoIsThere();
    await me.saveLocal('draft:step', 'mine');
    localStorage.setItem('lucid-step:new-cycle', 'mine');
    server.who = MAREN;
    const other = await page();
    // What the page itself holds is somebody else's too.
    expect(await other.signIn('m@a.test', 'p')).toBe(true);
    expect(await other.signIn('m@a.test', 'p')).toBe(false);
    expect(await kept(other)).toEqual(['person', 'session']);
    expect(localStorage.getItem('lucid-step:new-cycle')).toBeNull();
    expect(await other.saveLocal('pack:SKR', 'hers')).toBe(true);
  });

  it('is over for whoever was not seen by the server for as long as a session lasts', async () => {
    vi.useFakeTimers({ toFake: ['Date'] });
    const me = await page();
    await me.whoIsThere();
    await me.saveLocal('pack:SKR', 'x');
    server.away = true;
    vi.setSystemTime(Date.now() + 11 * 3_600_000);
    expect((await (await page()).whoIsThere())?.user.id).toBe('tobias');
    vi.setSystemTime(Date.now() + 2 * 3_600_000);
    const late = await page();
    expect(await late.whoIsThere()).toBeNull();
    expect(await kept(late)).toEqual([]);
  });

  it('lets one go on as before with what an older release kept, which says nothing of what one may', async () => {
    const me = await page();
    await me.whoIsThere();
    const project = { code: 'SKR', role: 'tester' };
    await me.saveLocal('session', { session: { ...TOBIAS, projects: [project] }, at: Date.now() });
    server.away = true;
    const next = await page();
    expect((await next.whoIsThere())?.user.id).toBe('tobias');
    expect([next.mayRecord('SKR'), next.may('SKR', 'write_cases'), next.mayLead('SKR')]).toEqual([
      true,
      true,
      false,
    ]);
    expect(next.mayRecord('OTH')).toBe(false);
  });

  it.each([500, 503, 429])('stays while the server is there and in trouble (%i)', async (trouble) => {
    const me = await page();
    await me.whoIsThere();
    await me.saveLocal('pack:SKR', 'x');
    server.trouble = trouble;
    const next = await page();
    expect((await next.whoIsThere())?.user.id).toBe('tobias');
    expect(await kept(next)).toContain('pack:SKR');
    // Nor is a session over because the server could not end it.
    await next.signOut();
    delete server.trouble;
    expect(await (await page()).whoIsThere()).toBeNull();
    expect(server.closed).toBe(1);
  });

  it('is what an older release kept, where it was replaced while the server is away', async () => {
    const me = await page();
    await me.saveLocal('session', TOBIAS);
    await me.saveLocal('attempt:a1', 'x');
    server.away = true;
    const next = await page();
    expect((await next.whoIsThere())?.user.id).toBe('tobias');
    expect(await kept(next)).toContain('attempt:a1');
  });

  it('is begun anew in a tab that shows somebody else', async () => {
    const me = await page();
    await me.whoIsThere();
    await (await page()).whoIsThere();
    await new Promise((done) => setTimeout(done, 50));
    expect(replaced).toEqual([]);
    server.who = MAREN;
    const other = await page();
    await other.signIn('m@a.test', 'p');
    await vi.waitFor(() => expect(replaced).toEqual(['/', '/']));
  });
});
