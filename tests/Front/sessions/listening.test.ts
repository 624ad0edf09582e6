// @vitest-environment happy-dom
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

/** What a session listens to, what comes of it, what is said of it, and all of it on one sheet and in figures. */
let page: Page;
afterEach(() => page?.close());
beforeAll(() => {
  Object.defineProperty(HTMLElement.prototype, 'offsetHeight', { configurable: true, get: () => 600 });
  Object.defineProperty(HTMLElement.prototype, 'offsetWidth', { configurable: true, get: () => 800 });
});
const charter = new DemoServer('tobias').recorded<Api['CharterDetail']>('/charters/SKR-S1');
const at = `/test-sessions/${charter.charter.last!.id}`;
const observer = (more: Partial<Api['ObserverDetail']> = {}): Api['ObserverDetail'] => ({
  ...new DemoServer('tobias').recorded<Api['ObserverDetail']>(`${at}/observer`),
  code: null,
  is_paired: false,
  page: '',
  came_at: null,
  left_out: 0,
  refused: '',
  ...more,
});
const running = (more: Partial<Api['ObserverDetail']> = {}, mine = true): DemoServer => {
  const server = new DemoServer(mine ? 'tobias' : 'maren');
  const detail = server.recorded<Api['SessionDetail']>(at);
  server.on(`GET ${at}`, {
    ...detail,
    state: 'running',
    mine,
    runs: [[Date.now() - 60_000, null]],
    as_of: Date.now(),
  });
  return server.on(`GET ${at}/observer`, observer(more));
};
const HERE = '[aria-label="The page that is observed"]';
const CODE = 'ABCD-EFGH-JKMN-PQRS';

describe('the page that is observed', () => {
  it('is opened with the code, from a listed address, by a bookmark or on another device', async () => {
    const server = running();
    const address = {
      environment_id: 'e',
      name: 'Staging',
      origin: 'https://s.example',
      built_in: false,
      observed: true,
      build: null,
    };
    server.on(
      `POST ${at}/observer`,
      observer({
        code: CODE,
        is_paired: true,
        script: 'https://lucid.example/observe.js',
        addresses: [
          { ...address, address: 'https://s.example/' },
          { ...address, name: 'Hashed', address: 'https://s.example/#/start' },
        ],
      }),
    );
    page = await Page.open('/SKR/sessions/SKR-S1', server);
    await page.click(`${HERE} button`, 'Observe the application');
    await page.see('Open Staging', HERE);
    const links = [...document.querySelectorAll<HTMLAnchorElement>(`${HERE} li a`)].map((a) =>
      a.getAttribute('href'),
    );
    expect(links).toEqual([
      `https://s.example/#lucid-step=${CODE}`,
      `https://s.example/#/start:lucid-step=${CODE}`,
    ]);
    await page.click(`${HERE} button`, 'In another way');
    const mark = document.querySelector<HTMLAnchorElement>(`${HERE} .mark`)!.getAttribute('href')!;
    expect(mark).toContain("s.src='https://lucid.example/observe.js'");
    expect(mark).toContain(`s.dataset.code='${CODE}'`);
    server.on(`DELETE ${at}/observer`, observer());
    await page.click(`${HERE} button`, 'Listen no more');
    await page.see('Observe the application', HERE);
  });

  it('says what came, since when nothing did, what was too much, and who asks in vain', async () => {
    page = await Page.open(
      '/SKR/sessions/SKR-S1',
      running({ is_paired: true, code: CODE, page: '/#/pay', came_at: new Date().toISOString() }),
    );
    await page.see('Listening to the page', HERE);
    await page.see('it is there', HERE);
    await page.close();
    page = await Page.open(
      '/SKR/sessions/SKR-S1',
      running({
        is_paired: true,
        code: CODE,
        page: '/#/pay',
        came_at: new Date(Date.now() - 600_000).toISOString(),
        left_out: 40,
        refused: 'https://other.example',
      }),
    );
    await page.see('nothing came for', HERE);
    await page.see('40 acts were left out', HERE);
    await page.see('https://other.example asks to report', HERE);
  });

  it('is only looked at by others: no code, no way in', async () => {
    page = await Page.open('/SKR/sessions/SKR-S1', running({ is_paired: true, page: '/#/pay' }, false));
    await page.see('/#/pay', HERE);
    expect(document.querySelector(HERE)?.textContent).not.toContain('Listen no more');
    expect(document.querySelector(`${HERE} li a`)).toBeNull();
  });
});

describe('after a session', () => {
  it('an idea becomes a charter, and the record is checked', async () => {
    const server = new DemoServer('tobias');
    page = await Page.open('/SKR/sessions/SKR-S1', server);
    await page.see('What was observed', HERE);
    expect(document.querySelector(HERE)?.textContent).not.toContain('it is there');
    server.on(`GET ${at}/verification`, {
      state: 'whole',
      events: 21,
      at: null,
      why: null,
      head: 'x',
      removed: [],
    });
    await page.click('button', 'Check it');
    await page.see('Whole, 21 events.');
    await page.click('a', 'Explore it next');
    await page.reach(/\/SKR\/sessions\/new\?title=Same\+with\+a\+sailing/);
    await vi.waitFor(() =>
      expect(document.querySelector<HTMLInputElement>('#charter-title')?.value).toContain(
        'Same with a sailing',
      ),
    );
  });

  it('something is said of it, and kept when that fails', async () => {
    const server = new DemoServer('maren');
    page = await Page.open('/SKR/sessions/SKR-S1', server);
    await page.see('Is the same true of moved sailings?');
    server.on(`POST ${at}/comments`, { status: 422, detail: 'x', errors: { to_id: ['No part in it.'] } });
    await page.type('#session-say', 'What of the clock?');
    await page.click('button', 'Say it');
    await page.see('No part in it.');
    expect(document.querySelector<HTMLTextAreaElement>('#session-say')?.value).toBe('What of the clock?');
    expect(page.sent.at(-1)?.body).toEqual({ text: 'What of the clock?', to_id: null });
  });

  it('stands on one sheet, which is saved as Markdown and as JSON', async () => {
    const saved: string[] = [];
    vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      saved.push(this.download);
    });
    URL.createObjectURL = () => 'blob:x';
    URL.revokeObjectURL = () => undefined;
    page = await Page.open('/SKR/sessions/SKR-S1/sheet', 'tobias');
    await page.see('Exactly 24 hours of notice');
    await page.see('SKR-D41');
    await page.see('acts observed beside');
    await page.click('button', 'Markdown');
    await page.click('button', 'JSON');
    expect(saved).toEqual(['SKR-S1-1.md', 'SKR-S1-1.json']);
    vi.restoreAllMocks();
  });

  it('comes to figures by area, and what was not explored leads to a charter of it', async () => {
    page = await Page.open('/SKR/sessions/figures', 'maren');
    await page.see('an hour of testing');
    await page.see('never explored', 'table');
    await page.click('[aria-label=By] button', 'Person');
    await page.reach(/by=person/);
    page.press('v');
    await page.reach(/as=charts/);
    await page.click('[aria-label="Not explored"] a', 'Explore it');
    await page.reach(/\/sessions\/new\?(folder|label)=/);
  });
});
