// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
vi.setConfig({ testTimeout: 20_000 });
const OUT = { status: 401, type: 'signed-out', detail: 'Sign in to go on.' };
const guest = (): DemoServer =>
  new DemoServer('tobias').on('GET /session', OUT).on('GET /welcome', { demo: false, sign_ins: [] });

describe('one’s own account', () => {
  it('shows how hard a password is to guess, and asks for nothing but its length', async () => {
    page = await Page.open('/account', new DemoServer('tobias').on('GET /account', account));
    const told = (words: string): Promise<Page> => page.see(words, '.strength');
    await page.type('#new-password', 'qwertyuiop12');
    await told('guessed soon');
    await page.type('#new-password', 'four lanterns on the quay at dusk');
    await told('very hard to guess');
    await page.type('#new-password', '');
    await vi.waitFor(() => expect(page.has('.strength')).toBe(false));
  });

  const usual: Api['PreferenceSet'] = {
    time_zone: null,
    scheme: 'system',
    density: 'roomy',
    single_keys: true,
    keys: [],
    notices: [
      { kind: 'assigned', here: true, mail: false },
      { kind: 'standstill', here: true, mail: false },
    ],
  };
  const account: Api['AccountPage'] = {
    preferences: usual,
    name: 'Tobias Reyle',
    email: 'tobias@skerrywick.test',
    second_factor_at: null,
    recovery_codes: 0,
    sessions: [
      {
        id: 'a',
        device: 'Firefox on Linux',
        address: '10.0.0.7',
        used_at: '2026-11-29T08:00:00Z',
        is_this: true,
      },
      {
        id: 'b',
        device: 'Safari on iPhone',
        address: '10.0.0.9',
        used_at: '2026-11-29T07:00:00Z',
        is_this: false,
      },
    ],
  };
  const server = (): DemoServer => new DemoServer('tobias').on('GET /account', account);

  it('ends a session that one does not know, and never the one one sits at', async () => {
    const at = server().on('DELETE /account/sessions/b', {
      ...account,
      sessions: account.sessions.slice(0, 1),
    });
    page = await Page.open('/account', at);
    expect(page.all('table button')).toEqual(['Sign out']);
    await page.click('table button', 'Sign out');
    await page.see('Signed out there.');
    expect(page.text('table')).not.toContain('Safari');
  });

  it('changes the password by the one before, and keeps what was typed when that is wrong', async () => {
    const at = server().on('PUT /account/password', {
      status: 422,
      errors: { old: ['This is not the password that you have now.'] },
    });
    page = await Page.open('/account', at);
    await page.type('#old-password', 'a guess');
    await page.type('#new-password', 'four lanterns on the quay');
    await page.submit('form:has(#old-password)');
    await page.see('This is not the password that you have now.', '[role=alert]');
    expect((document.querySelector('#new-password') as HTMLInputElement).value).toBe(
      'four lanterns on the quay',
    );
    at.on('PUT /account/password', account);
    await page.submit('form:has(#old-password)');
    await page.see('Everywhere else you are signed out.');
    expect((document.querySelector('#new-password') as HTMLInputElement).value).toBe('');
  });

  it('sets a second factor up with a code that is drawn here, and shows recovery codes once', async () => {
    const at = server()
      .on('POST /account/second-factor', { secret: 'ABCDEFGH', uri: 'otpauth://totp/x?secret=ABCDEFGH' })
      .on('PUT /account/second-factor', { codes: ['aaaaa-bbbbb', 'ccccc-ddddd'] });
    page = await Page.open('/account', at);
    await page.click('button', 'Set one up');
    await page.see('ABCD EFGH');
    await vi.waitFor(() => expect(page.has('.qr svg')).toBe(true));
    await page.type('#factor-code', '123456');
    await page.submit('form:has(#factor-code)');
    await page.see('aaaaa-bbbbb', '[aria-label="Recovery codes"]');
    at.on('GET /account', { ...account, second_factor_at: '2026-11-29T08:00:00Z', recovery_codes: 2 });
    await page.click('button', 'I have kept them');
    await page.see('2 recovery codes are left');
    expect(page.text()).not.toContain('aaaaa-bbbbb');
    expect(at.asked.join(' '), 'the secret goes nowhere').not.toContain('ABCDEFGH');
  });

  it('asks for a code once the password is right, and says of that alone when it is wrong', async () => {
    const at = guest().on('POST /session', { status: 422, errors: { code: ['Enter the six digits.'] } });
    page = await Page.open('/sign-in', at);
    await page.type('#email', 'tobias@skerrywick.test');
    await page.type('#password', 'p');
    await page.submit();
    expect(page.has('#code')).toBe(true);
    expect(page.has('[role=alert]'), 'being asked is no mistake').toBe(false);
    at.on('POST /session', { status: 422, errors: { code: ['This is not the code of now.'] } });
    await page.type('#code', '000000');
    await page.submit();
    await page.see('This is not the code of now.', '[role=alert]');
    at.on('POST /session', at.recorded('/session'));
    await page.type('#code', '123456');
    await page.submit();
    await page.reach(/^\/SKR\//);
    expect(page.sent.at(-1)?.body.code).toBe('123456');
  });

  it('gives one another name at once', async () => {
    const at = server().on('PATCH /account', { ...account, name: 'Tobias Grove' });
    const session = at.recorded<Api['SessionState']>('/session');
    page = await Page.open('/account', at);
    at.on('GET /session', { ...session, user: { ...session.user, name: 'Tobias Grove' } });
    await page.type('#my-name', 'Tobias Grove');
    await page.submit('form:has(#my-name)');
    await page.see('You are Tobias Grove now');
    await page.see('Tobias Grove', 'header');
  });

  /** The server takes what was chosen, as it would. */
  function takes(at: DemoServer, change: Partial<Api['PreferenceSet']>): void {
    const preferences = { ...usual, ...change };
    at.on('PATCH /account/preferences', { ...account, preferences });
    at.on('GET /session', { ...at.recorded<Api['SessionState']>('/session'), preferences });
  }
  const look = (): DOMStringMap => document.documentElement.dataset;

  it('stands on the ground that one chose, at once and before the next page is asked for', async () => {
    const at = server();
    takes(at, { scheme: 'dark', density: 'dense' });
    page = await Page.open('/account', at);
    await page.click('input[value=dark]');
    await vi.waitFor(() => expect(look()).toMatchObject({ scheme: 'dark', density: 'dense' }));
    expect(page.sent.at(-1)).toMatchObject({ path: '/account/preferences', body: { scheme: 'dark' } });
    delete look().scheme;
    const { showKeptLook } = await import('@/kit/preferences');
    showKeptLook();
    expect(look().scheme).toBe('dark');
    localStorage.setItem('lucid-step-look', '{ half');
    showKeptLook();
    expect(look()).toMatchObject({ scheme: 'system', density: 'roomy' });
  });

  it('shows what counts where a choice was not taken, and says why', async () => {
    const at = server().on('PATCH /account/preferences', { status: 422, detail: 'Not now.' });
    page = await Page.open('/account', at);
    await page.click('input[value=dark]');
    await page.see('Not now.', '[role=alert]');
    expect((document.querySelector('input[value=system]') as HTMLInputElement).checked).toBe(true);
    expect(look().scheme).toBe('system');
  });

  it('is told by mail or here of what one likes, and always here that nothing works', async () => {
    const at = server();
    takes(at, { notices: [{ kind: 'assigned', here: true, mail: true }] });
    page = await Page.open('/account', at);
    expect(page.has('[aria-label="Nothing works in the background: here"]:disabled')).toBe(true);
    await page.click('[aria-label="Entries are assigned to you: by mail"]');
    await vi.waitFor(() =>
      expect(page.sent.at(-1)?.body).toEqual({ notices: [{ kind: 'assigned', here: true, mail: true }] }),
    );
  });

  it('changes a key where keys are listed: it and the one pressed change places, in every tip', async () => {
    const at = new DemoServer('tobias');
    page = await Page.open('/SKR/cycles', at);
    takes(at, {
      keys: [
        { key: '/', pressed: 'q' },
        { key: 'q', pressed: '/' },
      ],
    });
    await page.press('?');
    await page.see('All keys');
    await page.click('[role=dialog] .key', 'Find cycles');
    await page.see('Press the key you want');
    await page.press('Enter');
    await page.see('Only a key that writes one letter');
    await page.click('[role=dialog] .key', 'Find cycles');
    await page.press('q');
    await page.see('q and / have changed places');
    expect(page.sent.at(-1)?.body).toEqual({
      keys: [
        { key: 'q', pressed: '/' },
        { key: '/', pressed: 'q' },
      ],
    });
    expect(page.text()).toContain('Find cycles: q. Choose another key');
  });
});
