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
const invitation: Api['InvitationPage'] = {
  project: 'Skerrywick Ferries',
  project_code: 'SKR',
  inviter: 'Corin Vale',
  email: 'ana@bakery.test',
  name: 'Ana Bell',
  role: 'tester',
  has_account: false,
  signed_in_as: null,
  is_me: false,
};

describe('an invitation', () => {
  it('is accepted with a name and a password, by what stands behind the #', async () => {
    const server = guest().on('POST /invitation-lookups', invitation);
    server.on('POST /invitation-acceptances', server.recorded('/session'));
    page = await Page.open('/join#the-token', server);
    await page.see('Join Skerrywick Ferries', 'h1');
    expect((document.querySelector('#name') as HTMLInputElement).value).toBe('Ana Bell');
    await page.type('#new-password', 'lantern');
    await page.see('5 more characters.');
    await page.type('#new-password', 'four lanterns on the quay');
    await page.submit();
    await page.reach(/^\/SKR\/today/);
    expect(page.sent[0]).toMatchObject({ path: '/invitation-lookups', body: { token: 'the-token' } });
    expect(page.sent[1]?.body).toEqual({
      token: 'the-token',
      name: 'Ana Bell',
      password: 'four lanterns on the quay',
    });
    expect(
      server.asked.filter((a) => a.includes('the-token')),
      'no address has it',
    ).toEqual([]);
  });

  it('says what is wrong by its field, and keeps what was typed', async () => {
    const server = guest()
      .on('POST /invitation-lookups', invitation)
      .on('POST /invitation-acceptances', {
        status: 422,
        errors: { password: ['This is one of the commonest passwords.'] },
      });
    page = await Page.open('/join#t', server);
    await page.type('#new-password', '123456789012');
    await page.submit();
    await page.see('commonest passwords', '[role=alert]');
    expect((document.querySelector('#new-password') as HTMLInputElement).value).toBe('123456789012');
  });

  it.each([
    [{ ...invitation, has_account: true }, 'Sign in, and one more click takes you in.'],
    [
      { ...invitation, signed_in_as: 'Tobias Reyle' },
      'You are signed in as Tobias Reyle, who is somebody else.',
    ],
    [{ status: 404, type: 'not-found' }, 'There is no such invitation.'],
    [
      { status: 409, type: 'invitation-over', detail: 'This invitation has expired. Ask Corin Vale.' },
      'This invitation has expired.',
    ],
  ])('says who it is for and what to do', async (answer, words) => {
    page = await Page.open('/join#t', guest().on('POST /invitation-lookups', answer));
    await page.see(words);
    expect(page.has('form')).toBe(false);
  });

  it('is not lost over the sign-in, and its proof goes into no address that is sent', async () => {
    const server = guest().on('POST /invitation-lookups', { ...invitation, has_account: true });
    page = await Page.open('/join#the-token', server);
    await page.click('main a', 'Sign in');
    await page.reach(/^\/sign-in/);
    expect(page.path).toBe('/sign-in?to=/join');
    server.on('POST /invitation-lookups', { ...invitation, has_account: true, is_me: true });
    server.on('POST /session', server.recorded('/session'));
    await page.type('#email', 'ana@bakery.test');
    await page.type('#password', 'p');
    await page.submit();
    await page.see('Join Skerrywick Ferries', 'h1');
    expect(page.sent.at(-1)).toMatchObject({ path: '/invitation-lookups', body: { token: 'the-token' } });
  });

  it('is one click for whoever is signed in as that person', async () => {
    const server = new DemoServer('tobias').on('POST /invitation-lookups', { ...invitation, is_me: true });
    server.on('GET /welcome', {}).on('POST /invitation-acceptances', server.recorded('/session'));
    page = await Page.open('/join#t', server);
    await page.click('button', 'Join');
    await page.reach(/^\/SKR\/today/);
  });
});

describe('an address that works once', () => {
  it('makes the first owner', async () => {
    const server = guest().on('POST /link-lookups', { purpose: 'owner', email: null, name: null });
    server.on('POST /link-uses', { ...server.recorded<object>('/session'), is_owner: true });
    server.on('GET /installation', { projects: [], people: [] });
    page = await Page.open('/begin#t', server);
    await page.see('The first owner', 'h1');
    await page.type('#name', 'Ada');
    await page.type('#email', 'ada@bakery.test');
    await page.type('#new-password', 'four lanterns on the quay');
    await page.submit();
    await page.reach(/^\/installation/);
    await page.see('New project');
  });

  it('says when it is over, and how to go on', async () => {
    page = await Page.open('/begin#t', guest().on('POST /link-lookups', { status: 404, type: 'not-found' }));
    await page.see('This address does not work any more');
    expect(page.has('a[href="/forgot"]')).toBe(true);
  });

  it('is sent to whoever forgot, whether or not somebody has the address', async () => {
    page = await Page.open('/forgot', guest().on('POST /password-resets', null));
    await page.submit();
    await page.see('Enter the e-mail address', '[role=alert]');
    await page.type('#email', 'nobody@bakery.test');
    await page.submit();
    await page.see('If somebody here signs in as nobody@bakery.test');
  });
});

describe('an address after a second factor was set up', () => {
  it('asks for a code beside the new password', async () => {
    const at = guest()
      .on('POST /link-lookups', {
        purpose: 'password',
        email: 'tobias@skerrywick.test',
        name: 'Tobias Reyle',
      })
      .on('POST /link-uses', { status: 422, errors: { code: ['Enter the six digits.'] } });
    page = await Page.open('/begin#t', at);
    expect(page.has('#code')).toBe(false);
    await page.type('#new-password', 'four lanterns on the quay');
    await page.submit();
    await page.see('Enter the six digits.', '[role=alert]');
    at.on('POST /link-uses', at.recorded('/session'));
    await page.type('#code', 'aaaaa-bbbbb');
    await page.submit();
    await page.reach(/^\/SKR\/today/);
    expect(page.sent.at(-1)?.body).toMatchObject({
      code: 'aaaaa-bbbbb',
      password: 'four lanterns on the quay',
    });
  });

  it('is told apart from a server that is away', async () => {
    const at = guest();
    page = await Page.open('/begin#t', at.on('POST /link-lookups', { status: 503, type: 'away' }));
    await page.see('cannot be reached', '[role=alert]');
    at.on('POST /link-lookups', { purpose: 'password', email: 'a@b.test', name: 'A' });
    await page.click('button', 'Try again');
    await page.see('For A, a@b.test.');
  });
});

describe('the way home', () => {
  const two = (server: DemoServer): Api['SessionState'] => {
    const session = server.recorded<Api['SessionState']>('/session');
    const other = { ...session.projects[0]!, id: 'other', code: 'BAK', name: 'The bakery' };
    return { ...session, projects: [...session.projects, other] };
  };

  it('leads to the project one was in last', async () => {
    const server = new DemoServer('tobias');
    server.on('GET /session', two(server));
    page = await Page.open('/SKR/today', server);
    page.close();
    page = await Page.open('/', server, true);
    await page.reach(/^\/SKR\/today/);
  });

  it('shows all of them to whoever was in none, and tells archived ones apart', async () => {
    const server = new DemoServer('tobias');
    const session = two(server);
    session.projects[1]!.archived_at = '2026-11-29T08:00:00Z';
    session.projects.push({
      ...session.projects[1]!,
      id: 'third',
      code: 'LIB',
      name: 'The library',
      archived_at: null,
    });
    server.on('GET /session', session);
    page = await Page.open('/', server);
    expect(page.all('main li a')).toEqual(['Skerrywick Ferries', 'The library', 'The bakery']);
    await page.see('BAK: can be read, and not changed');
  });

  it('says what to do where there is no project', async () => {
    const server = new DemoServer('tobias');
    const session = { ...server.recorded<Api['SessionState']>('/session'), projects: [] };
    page = await Page.open('/', server.on('GET /session', session));
    await page.see('Ask an admin to invite tobias@skerrywick.test.');
    page.close();
    page = await Page.open('/', new DemoServer('tobias').on('GET /session', { ...session, is_owner: true }));
    await page.see('Make the first one.');
  });
});
