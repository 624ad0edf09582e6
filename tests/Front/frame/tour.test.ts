// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import demo from '../answers/demo.json';
import { DemoServer, Page, type Who } from '../support/pages';

let page: Page | null = null;
afterEach(() => page?.close());
const first = (who: Who, start: string): string =>
  Object.keys(demo[who]).find((p) => new RegExp(`^${start}/0000[^/]*$`).test(p)) ?? '';
const id = (of: string): string => of.split('/').at(-1) ?? '';

const issue =
  Object.keys(demo.tobias)
    .find((p) => p.endsWith('/stretch'))
    ?.split('/')[2] ?? '';

/** Every page, what it must say, and who looks at it. */
const PAGES: [Who, string, string][] = [
  ['tobias', '/SKR/today', 'Release 4.2'],
  ['maren', '/SKR/today', 'Release 4.2'],
  ['maren', '/SKR/cycles', 'Release 4.2'],
  ['tobias', '/SKR/cycles', 'Release 4.2'],
  ['maren', '/SKR/cycles/new', 'What is walked'],
  ['maren', '/SKR/cycles/SKR-R3', 'SKR-C'],
  ['maren', '/SKR/cycles/SKR-R3/plan', 'Load'],
  ['maren', '/SKR/cycles/SKR-R3/log', 'Changed the milestone'],
  ['maren', '/SKR/queue', 'Looked at'],
  ['maren', '/SKR/casebook', '71 cases'],
  ['tobias', '/SKR/casebook', '71 cases'],
  ['maren', '/SKR/casebook/SKR-C68', 'Walked in'],
  ['maren', '/SKR/casebook/SKR-C68/history', 'Version'],
  ['maren', '/SKR/casebook/routines', 'Routine'],
  ['maren', '/SKR/casebook/tables', 'table'],
  ['maren', '/SKR/casebook/desk', 'SKR-C'],
  ['maren', '/SKR/casebook/import', 'CSV'],
  ['maren', '/SKR/setup', 'Types'],
  ['maren', '/SKR/setup/planning', 'Configurations'],
  ['maren', '/SKR/setup/walking', 'A failing step decides the attempt'],
  ['tobias', '/SKR/setup', 'Types'],
  ['maren', '/SKR/defects', 'SKR-D1'],
  ['tobias', '/SKR/defects/SKR-D35', 'History'],
  ['tobias', '/SKR/sessions', 'Refunds near'],
  ['tobias', '/SKR/sessions/SKR-S1', 'Debrief'],
  ['maren', '/SKR/sessions/SKR-S1', 'Read, sign it off'],
  ['maren', '/SKR/sessions/SKR-S5', 'Time box'],
  ['maren', '/SKR/sessions/new', 'Start now'],
  ['maren', '/SKR/sessions/figures', 'Not explored on'],
  ['maren', '/SKR/coverage', 'requirements proven'],
  ['maren', '/SKR/coverage/SKR-Q6', 'to be looked at'],
  ['maren', '/SKR/coverage/import', 'A file: CSV'],
  ['tobias', '/SKR/sessions/SKR-S1/sheet', 'What happened'],
  ['tobias', `/SKR/sessions/SKR-S1/lines/${issue}`, 'What came of it'],
  ['maren', '/mail', 'mail'],
  ['maren', `/SKR/entries/${id(first('maren', '/entries'))}`, 'Sealed'],
  ['maren', `/SKR/casebook/routines/${id(first('maren', '/routines'))}`, 'used'],
  ['maren', `/SKR/casebook/tables/${id(first('maren', '/data-tables'))}`, 'row'],
  ['maren', '/SKR/nothing/here', 'nothing'],
];

describe('each page', () => {
  it.each(PAGES)(
    'of %s at %s says %s, complains of nothing and asks for nothing unknown',
    async (who, path, words) => {
      page = await Page.open(path, who);
      await page.see(words);
      expect(page.server.missing).toEqual([]);
      expect(page.complaints).toEqual([]);
      expect(page.sent.filter((s) => s.method !== 'POST')).toEqual([]);
      // One main part, one heading of the first level at most, and every field and button has a name.
      const nameless = [...document.querySelectorAll('button, input, select, textarea, a[href]')].filter(
        (e) => {
          const label = e.id ? document.querySelector(`label[for="${e.id}"]`) : null;
          const said = [
            e.textContent,
            e.getAttribute('aria-label'),
            e.getAttribute('title'),
            e.getAttribute('aria-labelledby'),
            e.closest('label')?.textContent,
            label?.textContent,
            e.querySelector('img')?.alt,
          ];
          return e.getAttribute('type') !== 'hidden' && said.every((s) => !s?.trim());
        },
      );
      expect(nameless.map((e) => e.outerHTML.slice(0, 120))).toEqual([]);
    },
  );

  it.each(PAGES.filter(([who, path]) => who === 'maren' && path.startsWith('/SKR')))(
    'of %s at %s says so when the server is away, and offers to try again',
    async (who, path) => {
      const server = new DemoServer(who);
      page = await Page.open('/SKR/nothing/here', server);
      server.away = true;
      const { router } = await import('@/router');
      await router.push(path);
      await page.settle(6);
      expect(page.text('main, #content, body').length).toBeGreaterThan(0);
      expect(page.complaints.filter((c) => /Unhandled|TypeError: Cannot/.test(c))).toEqual([]);
    },
  );
});
