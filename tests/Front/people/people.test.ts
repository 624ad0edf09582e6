// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
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
    await page.see('SKR-D5');
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
    await vi.waitFor(() => expect(page.path).toMatch(/^\/SKR\//), { timeout: 4000 });
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
  it('names the areas and marks where one is', async () => {
    page = await Page.open('/SKR/casebook');
    const areas = page.all('header nav a');
    expect(areas).toEqual(expect.arrayContaining(['Today', 'Cycles', 'Casebook', 'Defects']));
    expect(page.text('header [aria-current=page]')).toContain('Casebook');
  });

  it('finds things by words and goes to them', async () => {
    const server = new DemoServer('maren').on('GET /projects/SKR/go-to', {
      items: [{ kind: 'defect', key: 'SKR-D5', title: 'Going back from payment' }],
    });
    page = await Page.open('/SKR/cycles', server);
    await page.click('header button', 'Go to');
    await page.type('[aria-label="Words or a key"]', 'payment');
    await page.see('Going back from payment');
    await page.click('#go-to-list li', 'SKR-D5');
    await vi.waitFor(() => expect(page.path).toBe('/SKR/defects/SKR-D5'));
  });

  it('says that the server is away while it is', async () => {
    const server = new DemoServer('maren');
    page = await Page.open('/SKR/cycles', server);
    await page.see('Saved', 'header');
  });
});
