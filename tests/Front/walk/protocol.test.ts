// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, inRole, Page, type Who } from '../support/pages';

const ENTRY = new DemoServer('maren').first('/entries/');
const ATTEMPT = new DemoServer('maren').first('/attempts/');
let page: Page;
let server: DemoServer;
afterEach(() => page?.close());
const attempt = (): Api['AttemptDetail'] => server.recorded(ATTEMPT);
const sent = (path: string) => page.sent.filter((s) => s.path === path);
const open = async (who: Who, prepare: () => void = () => undefined): Promise<void> => {
  server = new DemoServer(who);
  prepare();
  page = await Page.open(`/SKR${ENTRY}`, server);
  await page.see(attempt().attempt.tester.name);
};
/** Makes whoever is signed in an admin of the project. */
const asAdmin = (): void => {
  const session = server.recorded<Api['SessionState']>('/session');
  server.on('GET /session', inRole(session, 'admin'));
};

describe('the protocol of an attempt', () => {
  it('says what its record proves', async () => {
    const check = { state: 'sealed', events: 12, head: 'abcdef0123456789', at: null, why: null, removed: [] };
    for (const [facts, words] of [
      [{}, 'Sealed: 12 events fit, head abcdef012345…'],
      [{ state: 'open' }, 'Open, not sealed: 12 events fit'],
      [{ removed: [3] }, '1 part taken out, with its trace'],
      [{ removed: [3, 5] }, '2 parts taken out, with its trace'],
      [
        { state: 'broken', at: 7, why: 'its hash is another' },
        'The record is broken at event 7: its hash is another.',
      ],
    ] as const) {
      await open('maren', () => server.on(`GET ${ATTEMPT}/verification`, { ...check, ...facts }));
      await page.see(words);
      page.close();
    }
    await open('maren');
  });

  it('takes a corrected time, and tells what was measured', async () => {
    await open('maren');
    const now = attempt();
    now.attempt.corrected_ms = 300_000;
    server.on(`POST ${ATTEMPT}/time`, now);
    await page.click('button', 'Correct');
    await page.type('#correct-time', '5m');
    await page.submit('form.correct');
    await page.see('5m, corrected from 2m');
    expect(sent(`${ATTEMPT}/time`)[0]?.body).toEqual({ time: '5m' });
    expect(page.has('#correct-time')).toBe(false);
    expect(server.asked.filter((p) => p === ATTEMPT)).toHaveLength(1);
  });

  it('keeps a time that was refused, with why', async () => {
    await open('maren');
    server.on(`POST ${ATTEMPT}/time`, { status: 422, errors: { time: ['Write it like 1h 20m.'] } });
    await page.click('button', 'Correct');
    await page.type('#correct-time', 'long');
    await page.submit('form.correct');
    await page.see('Write it like 1h 20m.');
    expect(document.querySelector<HTMLInputElement>('#correct-time')?.value).toBe('long');
    await page.click('form.correct button', 'Leave it');
    expect(page.has('#correct-time')).toBe(false);
  });

  it('lets nobody correct the time of another but a lead', async () => {
    await open('tobias');
    await page.see('Every event');
    expect(page.all('button').some((b) => b.includes('Correct'))).toBe(false);
  });

  it('shows every event, and lets an admin alone take content out', async () => {
    await open('maren');
    await page.click('.record button', 'Every event');
    const record = server.recorded<Api['AttemptRecord']>(`${ATTEMPT}/record`);
    await page.see(`${record.events.length} events`, '.record');
    expect(page.all('.record tbody tr')).toHaveLength(record.events.length);
    expect(page.text('.record thead')).not.toContain('Take out');
    await page.click('.record button', 'Hide the events');
    expect(page.has('.record tbody')).toBe(false);
  });

  it('takes the text of an event out with a reason, keeps a refused one', async () => {
    await open('maren', asAdmin);
    await page.click('.record button', 'Every event');
    await page.see('Take out', '.record thead');
    const { events } = server.recorded<Api['AttemptRecord']>(`${ATTEMPT}/record`);
    const withText = events.filter((e) => e.has_text);
    expect(withText.length).toBeLessThan(events.length);
    expect(page.all('.record tbody button')).toHaveLength(withText.length);
    const removals = `${ATTEMPT}/removals`;
    server.on(`POST ${removals}`, { status: 422, errors: { reason: ['Say in a few words why.'] } });
    await page.click('.record tbody button');
    await page.type('.record form input', 'x');
    await page.submit('.record form');
    await page.see('Say in a few words why.', '.record form');
    server.on(`POST ${removals}`, null);
    await page.type('.record form input', 'A card number');
    await page.submit('.record form');
    await vi.waitFor(() => expect(page.has('.record form')).toBe(false));
    const { sequence } = withText[0]!;
    expect(sent(removals).map((s) => s.body)).toEqual([
      { reason: 'x', sequence },
      { reason: 'A card number', sequence },
    ]);
    await vi.waitFor(() =>
      expect(server.asked.filter((p) => p === `${ATTEMPT}/record`).length).toBeGreaterThan(1),
    );
  });
});
