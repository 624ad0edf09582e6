// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page, type Who } from '../support/pages';

const ENTRY = new DemoServer('maren').first('/entries/');
let page: Page;
let server: DemoServer;
afterEach(() => page?.close());
const recorded = (): Api['EntryDetail'] => server.recorded(ENTRY);
const open = async (
  who: Who,
  change: (detail: Api['EntryDetail']) => void = () => undefined,
): Promise<void> => {
  server = new DemoServer(who);
  const detail = recorded();
  change(detail);
  server.on(`GET ${ENTRY}`, detail);
  page = await Page.open(`/SKR${ENTRY}`, server);
  await page.see(detail.entry.title, 'h1');
};
const sent = (path: string) => page.sent.filter((s) => s.path === path);

describe('an entry', () => {
  it('offers each role what it may do with it', async () => {
    await open('maren');
    await page.see('Ask for a retest', '.title-line');
    await page.see('Walk it again', '.title-line');
    page.close();
    await open('tobias');
    await page.see('Walk it again', '.title-line');
    expect(page.text('.title-line')).not.toContain('Ask for a retest');
  });

  it('asks for a retest with a reason, and is what the server says then', async () => {
    await open('maren');
    const now = recorded();
    now.entry.display_state = 'retest';
    now.entry.retest_reason = 'Build 4.2.0-7 sorts by time';
    now.entry.retest_by = { id: '1', name: 'Maren Voss' };
    server.on(`POST ${ENTRY}/retests`, now);
    await page.click('.title-line button', 'Ask for a retest');
    await page.type('#retest-reason', 'Build 4.2.0-7 sorts by time');
    await page.submit('form.ask');
    await page.see('“Build 4.2.0-7 sorts by time” Maren Voss');
    expect(sent(`${ENTRY}/retests`)[0]?.body).toEqual({ reason: 'Build 4.2.0-7 sorts by time' });
    expect(server.asked.filter((p) => p === ENTRY)).toHaveLength(1);
  });

  it('keeps the reason that was refused, and says why', async () => {
    await open('maren');
    const errors = { reason: ['Say in a few words why.'] };
    server.on(`POST ${ENTRY}/retests`, { status: 422, errors });
    await page.click('.title-line button', 'Ask for a retest');
    await page.type('#retest-reason', 'x');
    await page.submit('form.ask');
    await page.see('Say in a few words why.');
    expect(document.querySelector<HTMLTextAreaElement>('#retest-reason')?.value).toBe('x');
  });

  it('is handed to a lead for a look, who marks it as looked at', async () => {
    await open('tobias');
    const handed = recorded();
    handed.entry.look = 'Is the 7:30 right on Sundays?';
    server.on(`POST ${ENTRY}/looks`, handed);
    await page.click('.care button', 'Hand it to a lead for a look');
    await page.type('#look-note', 'Is the 7:30 right on Sundays?');
    await page.submit('.care form');
    await page.see('“Is the 7:30 right on Sundays?”', '.care');
    expect(page.text('.care')).not.toContain('Looked at');
    page.close();

    await open('maren', (d) => (d.entry.look = 'Is the 7:30 right on Sundays?'));
    server.on(`POST ${ENTRY}/looked`, recorded());
    await page.click('.care button', 'Looked at');
    await page.seeNot('Sundays', '.care');
    expect(sent(`${ENTRY}/looked`)).toHaveLength(1);
  });

  it('stops what needs its pass, until it passes', async () => {
    await open('tobias');
    const held = { key: 'SKR-C3', title: 'Going back', id: 'e3' };
    server.on(`GET ${ENTRY}/stops`, { stops: [held], stopped: [] });
    server.on(`POST ${ENTRY}/stops`, { stops: [], stopped: [held] });
    page.close();
    page = await Page.open(`/SKR${ENTRY}`, server);
    await page.see('1 entry needs its pass: SKR-C3', '.stops');
    await page.click('.stops button', 'Stop it until it passes');
    await page.see('1 entry waits on it: SKR-C3.', '.stops');
    expect(sent(`${ENTRY}/stops`)).toHaveLength(1);
  });

  it('takes the newer version of its case, seen beforehand', async () => {
    await open('maren', (d) => (d.entry.outdated = true));
    await page.see('Its case was changed since it was planned.', '.care');
    server.on(`GET ${ENTRY}/new-version`, { status: 503, detail: 'The server cannot be reached.' });
    await page.click('.care button', 'See what changed');
    await page.see('The server cannot be reached', '.care');
  });

  it('says what stands against taking an attempt over', async () => {
    await open('tobias', (d) => {
      d.entry.walking = { id: 'p', name: 'Piet Halloran' };
      d.entry.open_attempt_id = 'a9';
      d.entry.display_state = 'in_progress';
    });
    server.on('POST /attempts/a9/take-over', {
      status: 409,
      type: 'ended',
      detail: 'This attempt has ended.',
    });
    await page.click('.title-line button', 'Take over from Piet Halloran');
    await page.see('This attempt has ended.');
    expect(page.path).toBe(`/SKR${ENTRY}`);
    server.on('POST /attempts/a9/take-over', { attempt: { id: 'a9' } });
    await page.click('.title-line button', 'Take over from Piet Halloran');
    await page.reach('/SKR/walk/a9');
  });

  it('asks why before it is walked against a warning', async () => {
    await open('tobias', (d) => {
      d.entry.readiness = 'ready';
      d.entry.warnings = [
        { kind: 'not_passed', entry_key: 'SKR-C3', entry_title: 'Going back' },
      ] as unknown as Api['EntryLine']['warnings'];
    });
    server.on(`POST ${ENTRY}/attempts`, { status: 422, errors: { word: ['Say why it is walked now.'] } });
    await page.see('Why walk it now?');
    await page.click('.title-line button', 'Walk it again');
    await page.see('Say why it is walked now.');
    await page.type('#walk-word', 'The harbour is open again');
    await page.click('.title-line button', 'Walk it again');
    await vi.waitFor(() => expect(sent(`${ENTRY}/attempts`)).toHaveLength(2));
    expect(sent(`${ENTRY}/attempts`)[1]?.body).toMatchObject({
      word: 'The harbour is open again',
      again: false,
    });
  });
});
