// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, inRole, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
vi.setConfig({ testTimeout: 20_000 });
const PEOPLE = '/SKR/setup/people';

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

  it('are still in the field after a reload, and when the server is away', async () => {
    const server = new DemoServer('corin');
    page = await Page.open(PEOPLE, server);
    await page.type('#invited', 'ana@bakery.test\nben@bakery.test');
    server.away = true;
    await page.submit();
    await page.see('The server cannot be reached.', '[role=alert]');
    await new Promise((resolve) => setTimeout(resolve, 250));
    page.close();
    server.away = false;
    page = await Page.open(PEOPLE, server, true);
    await vi.waitFor(() =>
      expect((document.querySelector('#invited') as HTMLTextAreaElement).value).toBe(
        'ana@bakery.test\nben@bakery.test',
      ),
    );
    server.on('POST /projects/SKR/invitations', []);
    await page.submit();
    expect(page.sent.at(-1)?.body.text).toBe('ana@bakery.test\nben@bakery.test');
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

  it('keeps a project that is being written through a reload, with the code that one chose', async () => {
    const server = new DemoServer('corin');
    page = await Page.open('/installation', server);
    await page.click('button', 'New project');
    await page.type('#project-name', 'The bakery');
    await page.type('#project-code', 'rolls');
    await new Promise((resolve) => setTimeout(resolve, 250));
    page.close();
    page = await Page.open('/installation', server, true);
    await page.click('button', 'New project');
    const value = (id: string): string => (document.querySelector(id) as HTMLInputElement).value;
    await vi.waitFor(() => expect(value('#project-name')).toBe('The bakery'));
    expect(value('#project-code')).toBe('ROLLS');
    await page.type('#project-name', 'The bakery at the quay');
    expect(value('#project-code')).toBe('ROLLS');
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

describe('deleting a project', () => {
  it('asks for its name, says what goes and offers to take it out first', async () => {
    const server = new DemoServer('corin');
    const now = server.recorded<Api['InstallationPage']>('/installation');
    const harbour = now.projects.find((p) => p.role !== null)!;
    await (page = await Page.open('/installation', server)).see(harbour.name);
    expect(page.has(`button[aria-label="Delete … ${harbour.name}"]`), 'one that runs').toBe(false);
    page.close();
    harbour.archived_at = '2026-11-29T08:00:00Z';
    server.on('GET /installation', now);
    page = await Page.open('/installation', server);
    await page.click(`button[aria-label="Delete … ${harbour.name}"]`);
    await page.see('go for good');
    expect(page.has(`a[href="/${harbour.code}/casebook"]`)).toBe(true);
    const button = (): HTMLButtonElement | undefined =>
      [...document.querySelectorAll('button')].find((b) => b.textContent?.includes('Delete it'));
    expect(button()?.disabled).toBe(true);
    await page.type(`#delete-${harbour.id}`, harbour.name);
    expect(button()?.disabled).toBe(false);
    const by = { id: 'c', name: 'Corin Vale' };
    const deleted = [
      {
        code: harbour.code,
        name: harbour.name,
        by,
        asked_at: '2026-11-30T08:00:00Z',
        done_at: null,
      },
    ];
    const projects = now.projects.filter((p) => p.id !== harbour.id);
    server.on(`POST /installation/projects/${harbour.id}/deletions`, { ...now, projects, deleted });
    server.on('GET /installation', { ...now, projects, deleted });
    await page.submit('table form');
    await page.see(`${harbour.name} is deleted.`);
    await page.see('was deleted by Corin Vale', '[aria-label="Deleted projects"]');
    await page.see('its files are still on their way out');
    expect(server.sent[0]?.body).toEqual({ name: harbour.name });
  });

  it('tries mail and storage, and says what is wrong', async () => {
    const server = new DemoServer('corin')
      .on('POST /installation/mail-tests', { works: false, words: 'Connection refused', took_ms: 3 })
      .on('POST /installation/storage-tests', { works: true, words: 'Wrote a file.', took_ms: 12 });
    page = await Page.open('/installation', server);
    await page.click('button', 'Send me a mail');
    await page.see('Does not work: Connection refused');
    await page.click('button', 'Write a file');
    await page.see('Works. Wrote a file. 12 ms');
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

describe('who may what', () => {
  const lines: Api['AccessLine'][] = [
    { permission: 'read', words: 'read cases', roles: ['reader', 'developer', 'tester', 'lead', 'admin'] },
    { permission: 'write_cases', words: 'write cases', roles: ['tester', 'lead', 'admin'] },
  ];
  const policies = { readers_see_evidence: true, testers_write_cases: true, second_factor_required: false };
  const access: Api['AccessPage'] = { lines, policies, without_second_factor: 3, may_manage: true };

  it('is shown to everybody, and changed by admins alone', async () => {
    const seen = { ...access, may_manage: false };
    page = await Page.open(PEOPLE, new DemoServer('maren').on('GET /projects/SKR/access', seen));
    await page.see('write cases', '[aria-label="Who may what"] tbody');
    expect(page.all('[aria-label="Who may what"] tbody tr')[1]).toBe('write cases––yesyesyes');
    expect(document.querySelector<HTMLInputElement>('#testers_write_cases')?.disabled).toBe(true);
  });

  it('shows what counts where a change is refused, and the new table where it is taken', async () => {
    const changing = 'PATCH /projects/SKR/access';
    const why = 'Set a second factor up for yourself first.';
    const server = new DemoServer('corin')
      .on('GET /projects/SKR/access', access)
      .on(changing, { status: 422, errors: { second_factor_required: [why] } });
    page = await Page.open(PEOPLE, server);
    const box = (id: string): HTMLInputElement | null => document.querySelector(`#${id}`);
    await page.see('3 here have none yet.');
    await page.click('#second_factor_required');
    await page.see(why, '[role=alert]');
    expect(box('second_factor_required')?.checked).toBe(false);
    const leads = lines.map((l) => ({ ...l, roles: l.roles.filter((r) => r !== 'tester') }));
    server.on(changing, { ...access, lines: leads, policies: { ...policies, testers_write_cases: false } });
    await page.click('#testers_write_cases');
    await page.see('write cases–––yesyes', '[aria-label="Who may what"] tbody');
    expect(server.sent.at(-1)?.body).toEqual({ testers_write_cases: false });
    expect(box('testers_write_cases')?.checked).toBe(false);
  });

  it('lets nobody without a second factor into a project that asks for one, and says where to set it up', async () => {
    const server = new DemoServer('tobias');
    const session = server.recorded<Api['SessionState']>('/session');
    const projects = session.projects.map((p) => ({ ...p, lacks_second_factor: true }));
    server.on('GET /session', { ...session, projects });
    page = await Page.open('/SKR/cycles', server);
    await page.see('Skerrywick Ferries asks for a second factor');
    await page.click('main a', 'Your account');
    await page.reach('/account');
  });

  it('leads a reader of results alone to nothing that they may not see', async () => {
    const server = new DemoServer('lina');
    const session = inRole(server.recorded<Api['SessionState']>('/session'), 'reader');
    const projects = session.projects.map((p) => ({ ...p, may: ['read'] }));
    server.on('GET /session', { ...session, projects });
    page = await Page.open('/SKR/cycles', server);
    await page.see('Casebook', '[aria-label="Areas"]');
    expect(page.all('[aria-label="Areas"] a')).toEqual(['Today', 'Cycles', 'Casebook', 'Coverage']);
  });
});
