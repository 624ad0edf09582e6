// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
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
const PEOPLE = '/SKR/setup/people';

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

describe('the people of a project', () => {
  it('are told without addresses to whoever does not look after them', async () => {
    page = await Page.open(PEOPLE, 'maren');
    await page.see('Anouk Sorrel');
    expect(page.text()).not.toContain('anouk@skerrywick.test');
    expect(page.has('#invited')).toBe(false);
  });

  it('are invited many at once; what cannot be taken stays, with why', async () => {
    const line = (
      n: number,
      became: string,
      text: string,
      problem: string | null = null,
    ): Api['InvitedLine'] => ({ line: n, text, email: text, became, problem }) as Api['InvitedLine'];
    const server = new DemoServer('corin').on('POST /projects/SKR/invitations', [
      line(1, 'invited', 'ana@bakery.test'),
      line(2, 'refused', 'Just a name', 'There is no mail address in this line.'),
    ]);
    page = await Page.open(PEOPLE, server);
    await page.type('#invited', 'ana@bakery.test\nJust a name');
    await page.submit();
    await page.see('Line 1: There is no mail address in this line.');
    expect((document.querySelector('#invited') as HTMLTextAreaElement).value).toBe('Just a name');
    expect(page.sent[0]?.body).toEqual({ text: 'ana@bakery.test\nJust a name', role: 'tester' });
  });

  it('hand on what is open when they leave', async () => {
    const server = new DemoServer('corin');
    const people = server.recorded<Api['PeoplePage']>('/projects/SKR/people').people;
    const anouk = people.find((p) => p.name === 'Anouk Sorrel')!;
    const piet = people.find((p) => p.name === 'Piet Halloran')!;
    server.on(`POST /projects/SKR/people/${anouk.id}/departures`, null);
    page = await Page.open(PEOPLE, server);
    await page.click('button[aria-label="Take out … Anouk Sorrel"]');
    await page.see(`Open: ${anouk.open.join(', ')}.`);
    await page.choose('[aria-label="Hand what is open to"]', 'Piet Halloran, tester');
    await page.click('form[aria-label="Take Anouk Sorrel out"] button', 'Take out');
    await page.see('Anouk Sorrel has left the project.');
    expect(page.sent.at(-1)?.body).toEqual({ to: piet.id });
  });

  it('keep their role when it cannot be another', async () => {
    const server = new DemoServer('corin');
    const me = server
      .recorded<Api['PeoplePage']>('/projects/SKR/people')
      .people.find((p) => p.name === 'Corin Vale')!;
    server.on(`PUT /projects/SKR/people/${me.id}/role`, {
      status: 409,
      type: 'last-admin',
      detail: 'Corin Vale is the last admin of the project.',
    });
    page = await Page.open(PEOPLE, server);
    await page.choose('[aria-label="Role of Corin Vale"]', 'lead');
    await page.see('Corin Vale is the last admin of the project.');
    const shown = document.querySelector<HTMLSelectElement>('select[aria-label="Role of Corin Vale"]');
    expect(shown?.selectedOptions[0]?.textContent, 'the list shows what counts').toBe('admin');
  });
});

describe('the installation', () => {
  it('makes a project whose code is checked as one types', async () => {
    const server = new DemoServer('corin');
    server.on('POST /projects', {
      ...server.recorded<Api['SessionState']>('/session').projects[0],
      code: 'BAK',
    });
    page = await Page.open('/installation', server);
    await page.click('button', 'New project');
    await page.type('#project-name', 'The bakery');
    expect((document.querySelector('#project-code') as HTMLInputElement).value).toBe('BAK');
    await page.type('#project-code', 'skr');
    await page.see('SKR is taken.');
    await page.type('#project-code', 'b-k');
    await page.see('two to ten capital letters');
    await page.type('#project-code', 'bake');
    await page.submit();
    await page.reach(/^\/BAK\/setup\/people/);
    expect(page.sent[0]?.body).toMatchObject({ code: 'BAKE', name: 'The bakery', like: null });
  });

  it('finds one of thousands by a part of the name, and shows no more than one can look through', async () => {
    const server = new DemoServer('corin');
    const now = server.recorded<Api['InstallationPage']>('/installation');
    const one = now.people[0]!;
    now.people = Array.from({ length: 900 }, (_, n) => ({
      ...one,
      id: `${n}`,
      name: `Person ${n}`,
      email: `p${n}@bakery.test`,
    }));
    page = await Page.open('/installation', server.on('GET /installation', now));
    await page.see('And 700 more.');
    await page.type('[aria-label="Find people"]', 'P899@');
    await page.see('Person 899');
    await page.seeNot('Person 12');
    await page.type('[aria-label="Find people"]', 'nobody at all');
    await page.see('Nobody is called so.');
  });

  it('takes the second factor of whoever lost it, and keeps the last owner', async () => {
    const server = new DemoServer('corin');
    const now = server.recorded<Api['InstallationPage']>('/installation');
    const anouk = now.people.find((p) => p.name === 'Anouk Sorrel')!;
    const corin = now.people.find((p) => p.name === 'Corin Vale')!;
    anouk.has_second_factor = true;
    server.on('GET /installation', now);
    const without = structuredClone(now);
    without.people.find((p) => p.id === anouk.id)!.has_second_factor = false;
    server.on(`POST /installation/people/${anouk.id}/factor-removals`, without);
    server.on(`PUT /installation/people/${corin.id}/ownership`, {
      status: 409,
      type: 'last-owner',
      detail: 'Corin Vale is the last owner of this installation.',
    });
    page = await Page.open('/installation', server);
    await page.click('button', 'Lost');
    await page.see('Anouk Sorrel signs in with the password alone now.');
    await page.click('[aria-label="Corin Vale is an owner"]');
    await page.see('Corin Vale is the last owner of this installation.');
    const box = document.querySelector<HTMLInputElement>('[aria-label="Corin Vale is an owner"]');
    expect(box?.checked, 'the box shows what counts').toBe(true);
  });

  it('archives, and takes it back by one click', async () => {
    const server = new DemoServer('corin');
    const now = server.recorded<Api['InstallationPage']>('/installation');
    const harbour = now.projects[0]!;
    const archived = structuredClone(now);
    archived.projects[0]!.archived_at = '2026-11-29T08:00:00Z';
    server.on(`POST /installation/projects/${harbour.id}/archivings`, archived);
    server.on(`POST /installation/projects/${harbour.id}/restorations`, now);
    page = await Page.open('/installation', server);
    await page.click(`button[aria-label="Archive ${harbour.name}"]`);
    await page.see(`${harbour.name} is archived`);
    await page.click('button', 'Undo');
    await page.see('taken up again');
    expect(page.has(`button[aria-label="Archive ${harbour.name}"]`)).toBe(true);
  });

  it('is for owners', async () => {
    page = await Page.open(
      '/installation',
      new DemoServer('maren').on('GET /installation', { status: 403, type: 'not-allowed' }),
    );
    await page.see('Only owners of this installation see this page.');
  });
});

describe('a day', () => {
  it('shows a lead each running cycle with its pace, and what waits', async () => {
    page = await Page.open('/SKR/today', 'maren');
    await page.see('Release 4.2, booking and boarding', '[aria-label="Running cycles"]');
    await page.see('needed', '[aria-label="Running cycles"]');
    expect(page.all('[aria-label="Waits for you"] li').length).toBeGreaterThan(0);
    expect(page.has('[aria-label="Walking now"]')).toBe(true);
    expect(page.text('.actions'), 'nobody’s entry is begun by Enter').toBe('');
    await page.press('w');
    await page.reach(/^\/SKR\/queue/);
  });

  it('tells an admin what fails in the background', async () => {
    const server = new DemoServer('corin');
    const overview = server.recorded<Api['OverviewPage']>('/projects/SKR/overview');
    overview.failing = [{ text: 'The mail of an invitation did not go.', page: '/setup/people' }];
    page = await Page.open('/SKR/today', server.on('GET /projects/SKR/overview', overview));
    await page.see('The mail of an invitation did not go.', '[aria-label="Does not work"]');
    await page.click('[aria-label="Does not work"] a', 'Look');
    await page.reach(/^\/SKR\/setup\/people/);
  });

  it('shows a lead their own entries last, and begins only those by Enter', async () => {
    const server = new DemoServer('maren');
    const mine = new DemoServer('tobias').recorded<Api['TodayPage']>('/projects/SKR/today');
    page = await Page.open('/SKR/today', server.on('GET /projects/SKR/today', mine));
    await page.see('Yours to walk');
    expect(page.text('.actions')).toContain('SKR-C13');
    const order = page.all('h2');
    expect(order.indexOf('Yours to walk')).toBeGreaterThan(order.indexOf('Turned since yesterday'));
  });

  it('shows a developer what came back and what is theirs', async () => {
    const server = new DemoServer('lina');
    const overview = server.recorded<Api['OverviewPage']>('/projects/SKR/overview');
    overview.defects[0]!.group = 'reopened';
    server.on('GET /projects/SKR/overview', overview);
    page = await Page.open('/SKR/today', server);
    await page.see(overview.defects[0]!.title, '[aria-label="Came back"]');
    expect(page.all('h2').slice(0, 2)).toEqual(['Came back 1', 'With you 1']);
  });

  it('says in words how a cycle goes', async () => {
    const server = new DemoServer('maren');
    const overview = server.recorded<Api['OverviewPage']>('/projects/SKR/overview');
    const states = { done: 'Everything has a verdict.', late: 'its time is over', behind: 'needed' } as const;
    const one = overview.cycles[0]!;
    overview.cycles = Object.keys(states).map(
      (pace, n) => ({ ...one, pace, cycle: { ...one.cycle, id: `${n}` } }) as typeof one,
    );
    server.on('GET /projects/SKR/overview', overview);
    page = await Page.open('/SKR/today', server);
    for (const words of Object.values(states)) await page.see(words, '[aria-label="Running cycles"]');
  });

  it('offers a tester what is free in one line', async () => {
    const server = new DemoServer('tobias');
    const today = server.recorded<Api['TodayPage']>('/projects/SKR/today');
    server.on('GET /projects/SKR/today', { ...today, cycles: [], free_entries: 12, free_cycles: 3 });
    page = await Page.open('/SKR/today', server);
    await page.see('12 entries in 3 cycles can be taken');
  });
});

describe('one’s own account', () => {
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

describe('what is archived', () => {
  it('says so on every page of the project', async () => {
    const server = new DemoServer('maren');
    const session = server.recorded<Api['SessionState']>('/session');
    session.projects[0]!.archived_at = '2026-11-29T08:00:00Z';
    server.on('GET /session', session);
    page = await Page.open('/SKR/cycles', server);
    await page.see('This project is archived', '[role=note]');
  });
});
vi.setConfig({ testTimeout: 20_000 });
