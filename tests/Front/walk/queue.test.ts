// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import type { Api } from '@/api/client';
import { DemoServer, Page } from '../support/pages';

let page: Page;
afterEach(() => page?.close());
const LATE = 'section[aria-label="Arrived too late"]';
const queue = (server: DemoServer): Api['LeadQueue'] => server.recorded('/projects/SKR/queue');
const without = (server: DemoServer, kind: string): Api['LeadQueue'] => {
  const all = queue(server);
  return { ...all, items: all.items.filter((i) => i.kind !== kind) };
};

describe('what waits for a lead', () => {
  it('says what late acts would do, and accepts all of one person at once', async () => {
    const server = new DemoServer('maren').on('POST /late-commands/x', null);
    const late = queue(server).items.find((i) => i.kind === 'late')!;
    server.on(`POST /late-commands/${late.subject_id}/judgements`, { applied: 3, refused: [] });
    page = await Page.open('/SKR/queue', server);
    for (const line of late.lines) await page.see(line, LATE);
    server.on('GET /projects/SKR/queue', without(server, 'late'));
    await page.click(`${LATE} button`, `Accept all ${late.lines.length}`);
    await page.see('Accepted, and applied as it was recorded.');
    expect(page.sent).toEqual([
      {
        method: 'POST',
        path: `/late-commands/${late.subject_id}/judgements`,
        body: { accept: true, all: true },
      },
    ]);
    expect(page.has(LATE)).toBe(false);
  });

  it('says which of them the rules refused, and why', async () => {
    const server = new DemoServer('maren');
    const late = queue(server).items.find((i) => i.kind === 'late')!;
    server.on(`POST /late-commands/${late.subject_id}/judgements`, {
      applied: 2,
      refused: [{ command: 'Round 1: walked once more', why: 'Round 2 walks this row once more already.' }],
    });
    page = await Page.open('/SKR/queue', server);
    await page.click(`${LATE} button`, 'Accept all');
    await page.see('Set aside, since it cannot be applied: Round 1: walked once more. Round 2 walks');
  });

  it('sets aside what is not to count', async () => {
    const server = new DemoServer('maren');
    const late = queue(server).items.find((i) => i.kind === 'late')!;
    server.on(`POST /late-commands/${late.subject_id}/judgements`, { applied: 0, refused: [] });
    page = await Page.open('/SKR/queue', server);
    await page.click(`${LATE} button`, 'Set all aside');
    await page.see('Set aside. It stays readable.');
    expect(page.sent[0]?.body).toEqual({ accept: false, all: true });
  });

  it('lets a look be done with', async () => {
    const server = new DemoServer('maren');
    const look = queue(server).items.find((i) => i.kind === 'look')!;
    page = await Page.open('/SKR/queue', server);
    await page.see(look.text);
    server.on('GET /projects/SKR/queue', without(server, 'look'));
    await page.click('button', 'Looked at');
    await page.see('looked at.');
    expect(page.sent[0]?.path).toBe(`/entries/${look.subject_id}/looked`);
    await page.seeNot(look.text, 'main');
  });

  it('asks for a retest with what is to be looked at again', async () => {
    const server = new DemoServer('maren');
    const all = queue(server);
    const item = { ...all.items[0]!, id: 'retest-1', kind: 'retest', subject_id: 'e1', lines: [] };
    server.on('GET /projects/SKR/queue', {
      ...all,
      items: [{ ...item, title: 'SKR-C13 Vehicle', text: 'SKR-D3 fixed in 4.2.0-7: ask for a retest?' }],
    });
    page = await Page.open('/SKR/queue', server);
    await page.click('button', 'Ask for a retest');
    const field = document.querySelector<HTMLInputElement>('[aria-label="What to look at again"]');
    expect(field?.value, 'proposed').toBe('SKR-D3 fixed in 4.2.0-7');
    await page.type('[aria-label="What to look at again"]', 'The band of 5 m');
    await page.submit('section form');
    await page.see('retest asked.');
    expect(page.sent[0]).toMatchObject({ path: '/entries/e1/retests', body: { reason: 'The band of 5 m' } });
  });

  it('says what the place is for when nothing waits', async () => {
    const server = new DemoServer('maren').on('GET /projects/SKR/queue', { items: [], counts: {} });
    page = await Page.open('/SKR/queue', server);
    await page.see('Nothing waits for you.');
  });

  it('says why something could not be decided, and reads the queue anew', async () => {
    const server = new DemoServer('maren');
    const late = queue(server).items.find((i) => i.kind === 'late')!;
    server.on(`POST /late-commands/${late.subject_id}/judgements`, {
      status: 409,
      type: 'judged',
      detail: 'This was accepted already.',
    });
    page = await Page.open('/SKR/queue', server);
    server.on('GET /projects/SKR/queue', without(server, 'late'));
    await page.click(`${LATE} button`, 'Accept all');
    await page.see('This was accepted already.');
    await page.seeNot('Arrived too late', 'main');
  });
});
