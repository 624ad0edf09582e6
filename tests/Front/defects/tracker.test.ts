// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

/** The tracker outside: where a defect stands in it, and how an admin sets it up. */
let page: Page;
afterEach(() => page?.close());
const detail = (): Api['DefectDetail'] =>
  new DemoServer('tobias').recorded<Api['DefectDetail']>('/defects/SKR-D35');
const call = (
  state: 'waiting' | 'refused',
  more: Partial<Api['TrackerCallLine']> = {},
): Api['TrackerCallLine'] => ({
  id: `c-${state}`,
  defect: 'SKR-D35',
  act: 'comment',
  state,
  tries: 2,
  since: '2026-11-30T10:00:00Z',
  next_at: state === 'waiting' ? '2026-11-30T10:04:00Z' : null,
  problem: '',
  ...more,
});
const outside = (more: Partial<Api['OutsideStand']>): Api['OutsideStand'] => ({
  state: 'here',
  key: null,
  url: '',
  outside_state: '',
  outside_assignee: '',
  seen_at: null,
  calls: [],
  sends_each: false,
  ...more,
});
const section = '[aria-label="In the tracker outside"]';

describe('a defect and the tracker outside', () => {
  it('is sent by whoever files, and says where it stands there', async () => {
    const server = new DemoServer('tobias')
      .on('GET /defects/SKR-D35', { ...detail(), outside: outside({}) })
      .on('POST /defects/SKR-D35/tracker-calls', {
        ...detail(),
        outside: outside({
          state: 'changed',
          key: 'TRK-7',
          outside_state: 'doing',
          outside_assignee: 'Ines',
        }),
      });
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.see('Only here', section);
    await page.click(`${section} button`, 'Send it there');
    await page.see('Changed there TRK-7: doing, with Ines', section);
  });

  it('says what waits and why something was refused, and sends it again or leaves it out', async () => {
    const calls = [
      call('refused', { problem: '401: It does not take the token any more.' }),
      call('waiting'),
    ];
    const server = new DemoServer('tobias').on('GET /defects/SKR-D35', {
      ...detail(),
      outside: outside({ state: 'refused', calls }),
    });
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.see('401: It does not take the token any more.', section);
    await page.see('tried 2 times', section);
    server.on('POST /tracker-calls/c-refused/repetitions', {
      ...detail(),
      outside: outside({ state: 'waiting', calls: [call('waiting')] }),
    });
    await page.click(`${section} button`, 'Send it again');
    await page.seeNot('refused', section);
    server.on('DELETE /tracker-calls/c-waiting', {
      status: 409,
      detail: 'This was sent or left out already.',
    });
    await page.click(`${section} button`, 'Leave it out');
    await page.see('This was sent or left out already.', `${section} [role=alert]`);
  });

  it('is offered to nobody who may not file', async () => {
    const server = new DemoServer('lina')
      .on('GET /defects/SKR-D35', { ...detail(), outside: outside({}) })
      .on('GET /defects/SKR-D35/reproduction', { reproduction: null });
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.see('Only here', section);
    expect(page.has(`${section} button`)).toBe(false);
  });
});

describe('the tracker in Setup', () => {
  const mapping = (): Api['TrackerFields'] => ({
    paths: { file: 'POST /issues' },
    fields: { title: 'title' },
    answers: { key: 'key' },
    states: { new: 'open' },
    back: { open: 'accepted' },
    headers: { Authorization: 'Bearer {token}' },
  });
  const setup = (more: Partial<Api['TrackerSetup']> = {}): Api['TrackerSetup'] => ({
    is_set: false,
    enabled: true,
    sends_each: true,
    address: '',
    has_token: false,
    webhook: '',
    mapping: mapping(),
    problem: '',
    resting_until: null,
    polled_at: null,
    waiting: 0,
    refused: 0,
    calls: [],
    shipped: 'http://127.0.0.1:8089/tracker/api',
    ...more,
  });

  it('is set up, tried out with the answer shown, and shows all that waits', async () => {
    const server = new DemoServer('corin').on('GET /projects/SKR/tracker', setup());
    const lists = new DemoServer('maren').recorded<object>('/projects/SKR/lists');
    server.on('GET /projects/SKR/lists', lists);
    page = await Page.open('/SKR/setup/defects', server);
    await page.see('How it is spoken to');
    await page.type('input[type=password]', 'secret-token');
    server.on('PATCH /projects/SKR/tracker', {
      status: 422,
      errors: { address: ['Write a whole address.'] },
    });
    await page.submit('form[aria-label="The tracker"]');
    await page.see('Write a whole address.', '[role=alert]');
    const there = setup({
      is_set: true,
      has_token: true,
      address: 'http://127.0.0.1:8089/tracker/api',
      waiting: 1,
      refused: 1,
      problem: 'It answered 503.',
      calls: [call('refused', { problem: 'Mend it.' })],
    });
    server.on('PATCH /projects/SKR/tracker', there).on('GET /projects/SKR/tracker', there);
    await page.submit('form[aria-label="The tracker"]');
    await page.see('The tracker is set up.');
    expect(page.sent.at(-1)?.body).toMatchObject({
      address: 'http://127.0.0.1:8089/tracker/api',
      token: 'secret-token',
      sends_each: true,
      mapping: { paths: { file: 'POST /issues' } },
    });
    await page.see('1 call waits, 1 refused.');
    await page.see('It answered 503.');
    await page.see('SKR-D35 a comment: refused');
    const tried: Api['TrackerTry'] = {
      asked: 'POST x',
      status: 201,
      answer: '{"no":1}',
      key: '',
      problem: 'No key stands at "key".',
    };
    server.on('POST /projects/SKR/tracker-tries', tried);
    await page.click('button', 'Send a test, show the answer');
    await page.see('No key stands at "key".');
    await page.see('{"no":1}');
    server.on('POST /projects/SKR/tracker-secrets', { secret: 'shown-once' });
    await page.click('button', 'Make a new secret');
    await page.see('Shown this once: shown-once');
  });

  it('is no matter of a lead', async () => {
    const server = new DemoServer('maren');
    page = await Page.open('/SKR/setup/defects', server);
    await page.see('Components');
    expect(page.text()).not.toContain('Tracker outside');
  });
});
