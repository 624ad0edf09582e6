// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

/** Files that go with a defect, and with what is said of it. */
let page: Page;
afterEach(() => page?.close());
const detail = (): Api['DefectDetail'] => new DemoServer('tobias').recorded('/defects/SKR-D35');
const png = (name: string): File =>
  new File([new Uint8Array([0x89, 0x50, 0x4e, 0x47, 1, 2, 3])], name, { type: 'image/png' });
/** What a browser tells of files on the clipboard or in the hand. */
function hand(selector: string, kind: 'paste' | 'drop', ...files: File[]): void {
  const event = new Event(kind, { bubbles: true, cancelable: true });
  Object.assign(event, { [kind === 'paste' ? 'clipboardData' : 'dataTransfer']: { files } });
  document.querySelector(selector)?.dispatchEvent(event);
}
const line = (name: string, more: Partial<Api['DefectFileLine']> = {}): Api['DefectFileLine'] => ({
  id: name,
  name,
  media_type: 'image/png',
  bytes: 2048,
  width: 9,
  height: 7,
  url: `/api/v1/defect-files/${name}/file`,
  thumbnail_url: `/api/v1/defect-files/${name}/thumbnail`,
  added_by_id: 'x',
  removed: null,
  ...more,
});
const talk = '[aria-label="Talk"]';

describe('pictures in the talk', () => {
  it(
    'are pasted, stay over a reload and a failure, and go before the words, once each',
    { timeout: 15_000 },
    async () => {
      const server = new DemoServer('lina').on('GET /defects/SKR-D35', detail());
      server.on('GET /defects/SKR-D35/reproduction', { reproduction: null });
      page = await Page.open('/SKR/defects/SKR-D35', server);
      await page.see('Talk');
      hand('#talk', 'paste', png('one.png'), png('two.png'));
      await page.see('Say it', talk);
      await page.click(`${talk} button`, 'Take off: two.png');
      expect(document.querySelectorAll(`${talk} [aria-label="Pictures to send along"] li`)).toHaveLength(1);
      page.close();

      page = await Page.open('/SKR/defects/SKR-D35', server, true);
      await page.see('Draw or hide', talk);
      server.on('POST /defects/SKR-D35/files', {
        status: 422,
        errors: { file: ['There is no room for this.'] },
      });
      await page.submit('form:has(#talk)');
      await page.see('There is no room for this.', `${talk} [role=alert]`);
      expect(page.sent.some((s) => s.path.endsWith('/comments'))).toBe(false);
      await page.see('Draw or hide', talk);

      const said = {
        ...detail(),
        comments: [{ ...detail().comments[0]!, text: '', files: [line('one.png')] }],
      };
      server.on('POST /defects/SKR-D35/files', line('one.png'));
      server.on('POST /defects/SKR-D35/comments', said).on('GET /defects/SKR-D35', said);
      await page.submit('form:has(#talk)');
      await vi.waitFor(() =>
        expect(document.querySelector(`${talk} li img`)?.getAttribute('alt')).toBe('one.png'),
      );
      const [file, again, words] = page.sent.filter((s) => s.method === 'POST').slice(-3);
      expect([file?.path, again?.path, words?.path]).toEqual([
        '/defects/SKR-D35/files',
        '/defects/SKR-D35/files',
        '/defects/SKR-D35/comments',
      ]);
      // Tried again it has the id that it had, and the words have the one that it was sent for.
      const [one, other] = [file?.body, again?.body] as Record<string, string>[];
      expect(other?.id).toBe(one?.id);
      expect(words?.body).toEqual({ id: other?.comment, text: '' });
      expect(document.querySelectorAll(`${talk} [aria-label="Pictures to send along"] li`)).toHaveLength(0);
    },
  );

  it('are taken out by who may, with the trace in their place', async () => {
    const d = detail();
    d.comments = [{ ...d.comments[0]!, files: [line('face.png')] }];
    const server = new DemoServer('corin').on('GET /defects/SKR-D35', d);
    for (const path of ['/projects/SKR/defect-choices', '/defects/SKR-D35/reproduction'])
      server.on(`GET ${path}`, new DemoServer('tobias').recorded<object>(path));
    page = await Page.open('/SKR/defects/SKR-D35', server);
    await page.click(`${talk} button`, 'Take the file out: face.png');
    await page.type('[aria-label="Why the file is taken out"]', 'A face');
    const by = { id: 'c', name: 'Corin Vale' };
    const removed = { by, at: new Date().toISOString(), reason: 'A face' };
    const gone = {
      ...d,
      comments: [{ ...d.comments[0]!, files: [line('x', { url: '', thumbnail_url: null, removed })] }],
    };
    server.on('POST /defect-files/face.png/removals', gone).on('GET /defects/SKR-D35', gone);
    await page.submit(`${talk} li form`);
    await page.see('Corin Vale took a file out, just now: A face', talk);
    expect(page.sent.at(-1)?.body).toEqual({ reason: 'A face' });
  });
});

describe('files of a defect', () => {
  it('are dropped, refused where they are none, and added', async () => {
    const server = new DemoServer('tobias').on('GET /defects/SKR-D35', detail());
    page = await Page.open('/SKR/defects/SKR-D35', server);
    const files = '[aria-label="Files"]';
    await page.see('Add a file', files);
    hand(`${files} .files`, 'drop', new File([], 'none.log'));
    await page.see('none.log is empty.', files);
    hand(`${files} .files`, 'drop', new File(['a line'], 'boot.log', { type: 'text/plain' }));
    await page.see('boot.log, 1 KB', files);
    const now = { ...detail(), files: [line('boot.log', { media_type: 'text/plain', thumbnail_url: null })] };
    server.on('POST /defects/SKR-D35/files', now.files[0]!).on('GET /defects/SKR-D35', now);
    await page.click(`${files} button`, 'Add 1 file');
    await vi.waitFor(() =>
      expect(document.querySelector(`${files} .strip a`)?.getAttribute('href')).toBe(
        '/api/v1/defect-files/boot.log/file',
      ),
    );
    expect(document.querySelector(`${files} button`)).toBeNull();
  });

  it('wait at a defect that was filed while they could not go', async () => {
    const filed = { ...detail(), files: [] };
    const server = new DemoServer('tobias').on('GET /projects/SKR/likely-defects', []);
    page = await Page.open('/SKR/defects/new', server);
    await page.type('#defect-title', 'The gate stays shut');
    hand('form .files', 'paste', png('gate.png'));
    await page.see('Draw or hide', 'form');
    // What is typed is kept a moment later.
    await new Promise((r) => setTimeout(r, 250));
    page.close();
    page = await Page.open('/SKR/defects/new', server, true);
    await vi.waitFor(() =>
      expect(document.querySelector<HTMLInputElement>('#defect-title')?.value).toBe('The gate stays shut'),
    );
    await page.see('Draw or hide', 'form');
    const id = (): string => (page.sent.at(-2)?.body as { id: string }).id;
    server.on('POST /defects/SKR-D35/files', {
      status: 422,
      errors: { file: ['There is no room for this.'] },
    });
    server.on('POST /projects/SKR/defects', filed).on('GET /defects/SKR-D35', filed);
    await page.submit('form[aria-label="New defect"]');
    await page.reach('/SKR/defects/SKR-D35');
    await page.see('Files wait at it on this device: There is no room for this.');
    expect(id()).not.toBe(filed.defect.id);
    await page.see('Add 1 file', '[aria-label="Files"]');
  });
});
