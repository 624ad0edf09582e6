// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, inRole, Page } from '../support/pages';

let page: Page;
let server: DemoServer;
beforeEach(() => (server = new DemoServer('maren')));
afterEach(() => page?.close());
const sent = (method: string, path: string) =>
  page.sent.filter((s) => s.method === method && s.path === path);

describe('the desk of an author', () => {
  const inbox = (): Api['Inbox'] => server.recorded('/projects/SKR/case-inbox');
  const care = (): Api['CaseCare'] => server.recorded('/projects/SKR/case-care');

  it('shows questions about my cases, and what is in review', async () => {
    page = await Page.open('/SKR/casebook/desk', server);
    await page.see('Questions and suggestions');
    for (const m of inbox().messages) await page.see(m.body.split('\n')[0]!);
    for (const c of inbox().in_review) await page.see(c.title, '[aria-label="Questions and suggestions"]');
    expect(server.asked.some((p) => p.includes('case-inbox?mine=yes'))).toBe(true);
  });

  it('shows those of every owner where that is wanted, and keeps it in the address', async () => {
    page = await Page.open('/SKR/casebook/desk', server);
    await page.click('input[type=checkbox]');
    await page.reach(/mine=no/);
    await vi.waitFor(() => expect(server.asked.some((p) => p.includes('case-inbox?mine=no'))).toBe(true));
  });

  it('lets an admin take words out with a reason, and shows the trace', async () => {
    const question = inbox().messages.find((m) => m.kind === 'question')!;
    const session = server.recorded<Api['SessionState']>('/session');
    server.on('GET /session', inRole(session, 'admin'));
    server.on('GET /projects/SKR/case-inbox', { ...inbox(), messages: [question] });
    const path = `/case-messages/${question.id}/removals`;
    server.on(`POST ${path}`, { status: 422, errors: { reason: ['Say why in a few words.'] } });
    page = await Page.open('/SKR/casebook/desk', server);
    await page.click('.card button', 'Take the words out');
    await page.type('[aria-label="Why these words are taken out"]', '-');
    await page.submit('.card form.ask');
    await page.see('Say why in a few words.');
    const by = { id: 'c', name: 'Corin Vale' };
    const gone = { ...question, body: '(removed)', removed_by: by, removed_reason: 'A passenger is named' };
    server.on(`POST ${path}`, gone);
    server.on('GET /projects/SKR/case-inbox', { ...inbox(), messages: [gone] });
    await page.type('[aria-label="Why these words are taken out"]', 'A passenger is named');
    await page.submit('.card form.ask');
    await page.see('Corin Vale took the words out: A passenger is named');
    expect(sent('POST', path).at(-1)?.body).toEqual({ reason: 'A passenger is named' });
  });

  it('offers a lead no such thing', async () => {
    page = await Page.open('/SKR/casebook/desk', server);
    await page.see('Questions and suggestions');
    await page.seeNot('Take the words out');
  });

  it('answers a question, and keeps the answer that was refused', async () => {
    const question = inbox().messages.find((m) => m.kind === 'question')!;
    server.on('GET /projects/SKR/case-inbox', { ...inbox(), messages: [question] });
    const path = `/case-messages/${question.id}/answers`;
    server.on(`POST ${path}`, { status: 409, type: 'answered', detail: 'It was answered meanwhile.' });
    page = await Page.open('/SKR/casebook/desk', server);
    await page.see(question.body);
    await page.type('.reply input', 'With the rack: 4.80 m.');
    await page.submit('.reply');
    await page.see('It was answered meanwhile.');
    expect(document.querySelector<HTMLInputElement>('.reply input')?.value).toBe('With the rack: 4.80 m.');
    expect(sent('POST', path)[0]?.body).toEqual({ as: 'answered', answer: 'With the rack: 4.80 m.' });
  });

  it('points a group out no more whose cases differ on purpose, and again by undo', async () => {
    const line = inbox().in_review.concat(inbox().returned)[0]!;
    const cases = [1, 2, 3, 4, 5, 6].map((n) => ({
      ...line,
      id: `c${n}`,
      key: `SKR-C90${n}`,
      title: `Alike ${n}`,
    }));
    const group = { ...care(), doubles: [{ cases, score: 0.83 }] };
    server.on('GET /projects/SKR/case-care', group);
    server.on('POST /projects/SKR/case-differences', null);
    page = await Page.open('/SKR/casebook/desk', server);
    await page.see('6 alike, 83 % of their words are the same');
    await page.seeNot('Alike 5');
    await page.click('button', '2 more');
    await page.see('Alike 6');
    server.on('GET /projects/SKR/case-care', { ...care(), doubles: [] });
    await page.click('button', 'These differ on purpose');
    await page.see('SKR-C906 are not pointed out any more.');
    await page.seeNot('83 %');
    server.on('GET /projects/SKR/case-care', group);
    await page.click('button', 'Undo');
    await page.see('83 %');
    expect(sent('POST', '/projects/SKR/case-differences').map((s) => s.body)).toEqual([
      { cases: cases.map((c) => c.id) },
      { cases: cases.map((c) => c.id), differ: false },
    ]);
  });

  it('asks for cases not walked for as long as is chosen', async () => {
    page = await Page.open('/SKR/casebook/desk', server);
    await page.choose('[aria-label="Not walked for how long"]', '7 days');
    await page.reach(/days=7/);
    await vi.waitFor(() => expect(server.asked.some((p) => p.includes('case-care?days=7'))).toBe(true));
  });
});

describe('the history of a case', () => {
  const KEY = 'SKR-C68';
  const history = (): Api['CaseHistory'] => server.recorded(`/cases/${KEY}/history`);
  const version = (number: number): Api['VersionLine'] => ({
    ...history().versions[0]!,
    number,
    current: false,
  });

  it('compares the newest with the one before it, and any two that are chosen', async () => {
    server.on(`GET /cases/${KEY}/history`, { ...history(), versions: [version(3), version(2), version(1)] });
    const comparison = {
      from: 2,
      to: 3,
      to_by: 'Anouk Sorrel',
      to_at: new Date().toISOString(),
      fields: [
        {
          field: 'title',
          parts: [
            { kind: 'same', text: 'The fare follows the ' },
            { kind: 'removed', text: 'weight' },
            { kind: 'added', text: 'length' },
          ],
        },
      ],
      steps: [],
    };
    server.on(`GET /cases/${KEY}/comparison`, comparison);
    page = await Page.open(`/SKR/casebook/${KEY}/history`, server);
    await page.see('Anouk Sorrel, just now');
    expect(page.text('del')).toBe('weight');
    expect(page.text('ins')).toBe('length');
    expect(server.asked).toContain(`/cases/${KEY}/comparison?from=2&to=3`);
    await page.choose('.pick', '1');
    await vi.waitFor(() => expect(server.asked).toContain(`/cases/${KEY}/comparison?from=1&to=3`));
    await page.choose('.pick', '3');
    await page.see('Choose two different versions.');
  });

  it('brings an old version back, and the newest again', async () => {
    server.on(`GET /cases/${KEY}/history`, { ...history(), versions: [version(2), version(1)] });
    server.on(`POST /cases/${KEY}/restorations`, { case: {}, version: 3, new_version: true });
    page = await Page.open(`/SKR/casebook/${KEY}/history`, server);
    await page.click('li:nth-child(2) button', 'Bring back');
    await page.see('Version 1 is back, as the newest.');
    await page.click('button', 'Undo');
    await page.see('Version 2 is back.');
    expect(sent('POST', `/cases/${KEY}/restorations`).map((s) => s.body.version)).toEqual([1, 2]);
  });

  it('has nothing to compare where there is one version', async () => {
    server.on(`GET /cases/${KEY}/history`, { ...history(), versions: [version(1)] });
    page = await Page.open(`/SKR/casebook/${KEY}/history`, server);
    await page.see('There is one version; nothing to compare yet.');
    expect(server.asked.some((p) => p.includes('/comparison'))).toBe(false);
  });
});
