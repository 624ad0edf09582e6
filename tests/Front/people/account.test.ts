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

  const account: Api['AccountPage'] = {
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
});
