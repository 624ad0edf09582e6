// @vitest-environment happy-dom
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

/** A session on the page: what is written is seen at once, what came of it is read and signed off. */
let page: Page;
afterEach(() => page?.close());
beforeAll(() => {
  // Lines that a made-up browser has no height for are shown all the same.
  Object.defineProperty(HTMLElement.prototype, 'offsetHeight', { configurable: true, get: () => 600 });
  Object.defineProperty(HTMLElement.prototype, 'offsetWidth', { configurable: true, get: () => 800 });
});
const charter = (): Api['CharterDetail'] => new DemoServer('tobias').recorded('/charters/SKR-S1');
const id = (): string => charter().charter.last!.id;
const detail = (more: Partial<Api['SessionDetail']> = {}): Api['SessionDetail'] => ({
  ...new DemoServer('tobias').recorded<Api['SessionDetail']>(`/test-sessions/${id()}`),
  ...more,
});
const running = (server: DemoServer): DemoServer =>
  server.on(
    `GET /test-sessions/${id()}`,
    detail({ state: 'running', mine: true, runs: [[Date.now() - 60_000, null]], as_of: Date.now() }),
  );

describe('a session that runs', () => {
  it('is written into by keys; the kind is chosen by Alt and its letter, and is a note again after', async () => {
    const server = running(new DemoServer('tobias'));
    page = await Page.open('/SKR/sessions/SKR-S1', server);
    await page.see('59:', '[role=timer]');
    const line = { ...server.recorded<Api['TimelinePage']>(`/test-sessions/${id()}/lines`).items[0]! };
    server.on(`POST /test-sessions/${id()}/lines`, {
      ...line,
      id: 'x',
      kind: 'issue',
      words: 'It is cut',
      at_ms: 61_000,
    });
    await page.type('#line', 'It is cut');
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'x', altKey: true }));
    await vi.waitFor(() =>
      expect(document.querySelector('[role=radio][aria-checked=true]')?.textContent).toContain('Issue'),
    );
    document
      .querySelector('#line')
      ?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    await page.see('It is cut', '[aria-label="Issues"]');
    await vi.waitFor(() => expect(page.sent.filter((s) => s.path.endsWith('/lines'))).toHaveLength(1));
    expect(page.sent.at(-1)?.body).toMatchObject({ kind: 'issue', words: 'It is cut' });
    expect(document.querySelector<HTMLTextAreaElement>('#line')?.value).toBe('');
    await vi.waitFor(() =>
      expect(document.querySelector('[role=radio][aria-checked=true]')?.textContent).toContain('Note'),
    );
  });

  it('keeps what is done while the server is away, and says so at the line', async () => {
    const server = running(new DemoServer('tobias'));
    page = await Page.open('/SKR/sessions/SKR-S1', server);
    await page.see('left', '[role=timer]');
    server.away = true;
    await page.type('#line', 'Without the server');
    await page.submit('form[aria-label="Write into the timeline"]');
    const known = server.recorded<Api['TimelinePage']>(`/test-sessions/${id()}/lines`).items.length;
    await page.see(`${known + 1} lines in the timeline`, 'aside');
    await page.click('[aria-label="What the time goes to"] button', 'Setting up');
    await vi.waitFor(() =>
      expect(
        document.querySelector('[aria-label="What the time goes to"] [aria-pressed=true]')?.textContent,
      ).toContain('Setting up'),
    );
    await page.click('button', 'Pause');
    await page.see('Go on');
  });

  describe('after a long time without a sign', () => {
    const since = (minutes: number): DemoServer =>
      new DemoServer('tobias').on(
        `GET /test-sessions/${id()}`,
        detail({
          state: 'running',
          mine: true,
          runs: [[Date.now() - minutes * 60_000, null]],
          as_of: Date.now(),
        }),
      );

    it('asks whether it counts, and leaves it out from when it began', async () => {
      const server = since(25);
      page = await Page.open('/SKR/sessions/SKR-S1', server);
      await page.see('Nothing was done for 25 min');
      server.on(`POST /test-sessions/${id()}/moves`, detail({ state: 'running', mine: true }));
      await page.click('button', 'Leave it out');
      await vi.waitFor(() => expect(page.sent.filter((s) => s.path.endsWith('/moves'))).toHaveLength(2));
      const [paused, goes] = page.sent.filter((s) => s.path.endsWith('/moves')).map((s) => s.body);
      expect([paused?.to, goes?.to]).toEqual(['paused', 'running']);
      const gap = Date.parse(String(goes?.device_time)) - Date.parse(String(paused?.device_time));
      expect(Math.round(gap / 60_000)).toBe(25);
      await page.seeNot('Nothing was done');
    });

    it('counts it when one says so, and says nothing of a short one', async () => {
      page = await Page.open('/SKR/sessions/SKR-S1', since(5));
      await page.see('left', '[role=timer]');
      expect(document.body.textContent).not.toContain('Nothing was done for');
      await page.close();
      page = await Page.open('/SKR/sessions/SKR-S1', since(50));
      await page.click('button', 'It counts');
      await page.seeNot('Nothing was done');
      expect(page.sent.filter((s) => s.path.endsWith('/moves'))).toEqual([]);
    });
  });

  it('is looked on by others, who write nothing', async () => {
    const server = new DemoServer('maren').on(
      `GET /test-sessions/${id()}`,
      detail({ state: 'running', mine: false, runs: [[Date.now(), null]], as_of: Date.now() }),
    );
    page = await Page.open('/SKR/sessions/SKR-S1', server);
    await page.see('Tobias Reyle runs it; you look on.');
    expect(document.querySelector('#line')).toBeNull();
    expect(document.querySelector('[aria-label="What the time goes to"] button:not([disabled])')).toBeNull();
  });
});

describe('the debrief', () => {
  it('lists what was found, moves time within a split, and is written by who ran it', async () => {
    const server = new DemoServer('tobias');
    page = await Page.open('/SKR/sessions/SKR-S1', server);
    await page.see('Exactly 24 hours of notice', '[aria-label="Issues"]');
    await page.see('77 %', '[aria-label="Debrief"]');
    await page.click('[aria-label="Move time from Investigating"]');
    await page.type('[aria-label="Move time"] input', 'lots');
    await page.submit('[aria-label="Move time"]');
    await page.see('Write it like 90s, 12m or 1h 20m.', '[role=alert]');
    await page.type('[aria-label="Move time"] input', '5m');
    server.on(`POST /test-sessions/${id()}/time-moves`, {
      status: 422,
      errors: { ms: ['There is not so much time to move.'] },
    });
    await page.submit('[aria-label="Move time"]');
    await page.see('There is not so much time to move.', '[role=alert]');
    expect(page.sent.at(-1)?.body).toMatchObject({ from: 'investigating', to: 'testing', ms: 300_000 });
    await page.type('#covered', 'Everything near two days');
    server.on(`PUT /test-sessions/${id()}/debrief`, detail({ covered: 'Everything near two days' }));
    await page.submit('form:has(#covered)');
    await vi.waitFor(() =>
      expect(page.sent.at(-1)?.body).toMatchObject({ covered: 'Everything near two days' }),
    );
  });

  it('is read and signed off by a lead, and stands then', async () => {
    const server = new DemoServer('maren');
    page = await Page.open('/SKR/sessions/SKR-S1', server);
    await page.type('#sign-note', 'Read');
    const by = server.recorded<Api['SessionState']>('/session').user;
    const signed = detail({
      state: 'debriefed',
      mine: false,
      signed_by: by,
      signed_at: new Date().toISOString(),
      sign_note: 'Read',
    });
    server.on(`POST /test-sessions/${id()}/sign-offs`, signed).on(`GET /test-sessions/${id()}`, signed);
    await page.submit('form:has(#sign-note)');
    await page.see('Maren Voss read it and signed it off');
    expect(page.sent.at(-1)?.body).toEqual({ note: 'Read' });
    expect(document.querySelector('#sign-note')).toBeNull();
  });
});

describe('a charter', () => {
  it('is written with what is wrong said at its field, kept, and begun at once', async () => {
    const server = new DemoServer('tobias');
    page = await Page.open('/SKR/sessions/new', server);
    await page.type('#charter-find', 'what is cut');
    server.on('POST /projects/SKR/charters', {
      status: 422,
      errors: { title: ['Say what is to be explored.'] },
    });
    await page.submit('form[aria-label="New session"]');
    await page.see('Say what is to be explored.', '[role=alert]');
    await page.type('#charter-title', 'Odd names');
    server.on('POST /projects/SKR/charters', server.recorded<object>('/charters/SKR-S5'));
    server.on('POST /charters/SKR-S5/sessions', detail({ id: 'new', state: 'running', mine: true }));
    await page.submit('form[aria-label="New session"]');
    await page.reach('/SKR/sessions/SKR-S5');
    const sent = page.sent.find(
      (s) => s.path === '/projects/SKR/charters' && (s.body as { title: string }).title !== '',
    );
    expect(sent?.body).toMatchObject({ title: 'Odd names', to_find: 'what is cut', box_minutes: 60 });
    await vi.waitFor(() => expect(page.sent.some((s) => s.path === '/charters/SKR-S5/sessions')).toBe(true));
  });

  it('that nobody is to run any more says so, and is let run again by who may', async () => {
    const server = new DemoServer('maren');
    page = await Page.open('/SKR/sessions/SKR-S5', server);
    const known = server.recorded<Api['CharterDetail']>('/charters/SKR-S5');
    server.on('DELETE /charters/SKR-S5', { ...known, charter: { ...known.charter, state: 'dropped' } });
    await page.click('button', 'Drop it');
    await page.see('Nobody is to run it any more.');
    server.on('POST /charters/SKR-S5/restorations', known);
    await page.click('button', 'Let it be run again');
    await page.seeNot('Nobody is to run it any more.');
  });
});
