// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
const OUT = { status: 401, type: 'signed-out', detail: 'Sign in to go on.' };
const welcome = {
  demo: true,
  sign_ins: [{ name: 'Tobias Reyle', email: 'tobias@skerrywick.test', password: 'p', role: 'tester' }],
};
const guest = (): DemoServer => new DemoServer('tobias').on('GET /session', OUT).on('GET /welcome', welcome);
async function signIn(email: string, password: string): Promise<void> {
  await page.type('#email', email);
  await page.type('#password', password);
  await page.submit();
}

describe('signing in', () => {
  it('comes first, and then goes where one wanted to', async () => {
    const server = guest();
    page = await Page.open('/SKR/defects', server);
    await page.see('Sign in to walk your cycles.');
    expect(page.path).toBe('/sign-in?to=/SKR/defects');
    server.on('POST /session', server.recorded('/session'));
    await signIn('tobias@skerrywick.test', 'p');
    await page.see('SKR-D35');
    expect(page.path).toBe('/SKR/defects');
  });

  it('says what is missing without asking the server', async () => {
    page = await Page.open('/sign-in', guest());
    await page.submit();
    await page.see('Enter your e-mail address and your password.', '[role=alert]');
    expect(page.sent).toEqual([]);
  });

  it.each([
    [
      { status: 422, errors: { email: ['This address and password do not belong together.'] } },
      'do not belong',
    ],
    [{ status: 429, type: 'http' }, 'Too many tries.'],
  ])('says why it is refused, and keeps the address', async (refusal, words) => {
    page = await Page.open('/sign-in', guest().on('POST /session', refusal));
    await signIn('tobias@skerrywick.test', 'wrong');
    await page.see(words, '[role=alert]');
    expect((document.querySelector('#email') as HTMLInputElement).value).toBe('tobias@skerrywick.test');
  });

  it('never leads away from the application', async () => {
    const server = guest();
    server.on('POST /session', server.recorded('/session'));
    page = await Page.open('/sign-in?to=//elsewhere.test/', server);
    await signIn('tobias@skerrywick.test', 'p');
    await page.reach(/^\/SKR\//);
  });

  it('offers the demo’s people by one click', async () => {
    const server = guest();
    server.on('POST /session', server.recorded('/session'));
    page = await Page.open('/sign-in', server);
    await page.click('.demo button', 'Tobias Reyle');
    expect(page.sent.find((s) => s.path === '/session')?.body).toEqual({
      email: 'tobias@skerrywick.test',
      password: 'p',
    });
  });
});

describe('the masthead', () => {
  it('names the areas that one may enter, and marks where one is', async () => {
    page = await Page.open('/SKR/casebook');
    expect(page.all('header nav a')).toEqual([
      'Today',
      'Cycles',
      'Casebook',
      'Sessions',
      'Defects',
      'Coverage',
      'Setup',
    ]);
    expect(page.text('header [aria-current=page]')).toContain('Casebook');
    page.close();
    page = await Page.open('/SKR/casebook', 'tobias');
    expect(page.all('header nav a')).toEqual([
      'Today',
      'Cycles',
      'Casebook',
      'Sessions',
      'Defects',
      'Coverage',
    ]);
    await page.press('g', 's');
    expect(page.path).toBe('/SKR/casebook');
    await page.press('g', 'd');
    await page.reach('/SKR/defects');
  });

  it('keeps other projects, the keys and the way out in the menu of the person', async () => {
    const server = new DemoServer('maren');
    const session = server.recorded<Api['SessionState']>('/session');
    const other = {
      ...session.projects[0]!,
      id: 'other',
      code: 'HAR',
      name: 'Harbour lights',
      role: 'reader',
    };
    server.on('GET /session', { ...session, projects: [...session.projects, other] });
    page = await Page.open('/SKR/cycles', server);
    await page.click('.person button', 'Maren Voss');
    await page.see('lead in Skerrywick Ferries', '.menu');
    await page.see('Harbour lights', '.menu');
    await page.click('.menu button', 'Keys');
    await page.see('Single keys act');
    await page.click('.person button', 'Maren Voss');
    await page.click('.menu button', 'Harbour lights');
    await page.reach('/HAR/today');
  });

  it('finds things by words and goes to them', async () => {
    const server = new DemoServer('maren').on('GET /projects/SKR/go-to', {
      items: [
        { kind: 'defect', key: 'SKR-D35', title: 'Going back from payment', of: '', link: 'defects/SKR-D35' },
        { kind: 'entry', key: 'SKR-C3', title: 'Going back', of: 'SKR-R2', link: 'entries/e3' },
      ],
    });
    page = await Page.open('/SKR/cycles', server);
    await page.click('header button', 'Go to');
    await page.type('[aria-label="Words or a key"]', 'payment');
    await page.see('Going back from payment');
    await page.see('entry of SKR-R2');
    await page.click('#go-to-list li', 'SKR-D35');
    await page.reach('/SKR/defects/SKR-D35');
  });

  it('leads to pages and acts by keys alone', async () => {
    page = await Page.open('/SKR/cycles');
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'k', ctrlKey: true }));
    await page.type('[aria-label="Words or a key"]', 'bin');
    await page.see('What was binned', '#go-to-list');
    await page.press('Enter');
    await page.reach('/SKR/casebook/bin');
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'k', ctrlKey: true }));
    await page.type('[aria-label="Words or a key"]', 'all ke');
    await page.see('What single keys do here', '#go-to-list');
    await page.press('Enter');
    await page.see('Single keys act');
  });

  it('says that the server is away while it is', async () => {
    const server = new DemoServer('maren');
    page = await Page.open('/SKR/cycles', server);
    await page.see('Saved', 'header');
  });
});

describe('signing out', () => {
  /** The device as the page has it. */
  const here = (): Promise<typeof import('@/offline/device')> => import('@/offline/device');
  const kept = async (): Promise<unknown> => (await here()).loadLocal('draft:case:SKR-C1');
  const leave = async (): Promise<void> => {
    await page.click('.person button', 'Tobias Reyle');
    await page.click('.menu button', 'Sign out');
  };

  it('says what stays on the device for whoever left, and that it is theirs alone', async () => {
    const server = new DemoServer('tobias');
    const replaced = vi.spyOn(window.location, 'replace').mockImplementation(() => undefined);
    page = await Page.open('/SKR/cycles', server);
    await (await here()).saveLocal('draft:case:SKR-C1', { title: 'half' });
    await leave();
    await vi.waitFor(() => expect(replaced).toHaveBeenCalledWith('/sign-in'));
    expect(await kept()).toBeNull();
    const told = sessionStorage.getItem('lucid-step-stays');
    page.close();
    page = await Page.open('/sign-in', guest(), true);
    expect(told).toBe('1 text being written stays on this device, locked for Tobias Reyle.');
    replaced.mockRestore();
  });

  it('asks before what is being written is lost, where the browser cannot lock it', async () => {
    const server = new DemoServer('tobias');
    const session = server.recorded<Api['SessionState']>('/session');
    server.on('GET /session', { ...session, device_key: '' });
    const replaced = vi.spyOn(window.location, 'replace').mockImplementation(() => undefined);
    page = await Page.open('/SKR/cycles', server);
    await (await here()).saveLocal('draft:case:SKR-C1', { title: 'half' });
    await leave();
    await page.see('1 text being written would be lost', '[role=dialog]');
    await page.click('[role=dialog] button', 'Stay');
    await page.seeNot('would be lost');
    expect(await kept()).toEqual({ title: 'half' });
    expect(server.sent.filter((s) => s.method === 'DELETE')).toEqual([]);
    await leave();
    await page.click('[role=dialog] button', 'Sign out without it');
    await vi.waitFor(() => expect(replaced).toHaveBeenCalledWith('/sign-in'));
    expect(await kept()).toBeNull();
    replaced.mockRestore();
  });

  it('tells whom a proxy names that nobody here has this address', async () => {
    page = await Page.open(
      '/sign-in',
      guest().on('GET /welcome', { ...welcome, came_as: 'nobody@bakery.test' }),
    );
    await page.see('You came as nobody@bakery.test, and nobody here has this address.');
  });
});
