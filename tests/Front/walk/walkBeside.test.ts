// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { freshDevice, Person } from '../support/person';
import { Server } from '../support/server';

let server: Server;
let me: Person;
beforeEach(() => {
  freshDevice();
  server = new Server();
});
afterEach(() => me?.close());

describe('from the step, without leaving it', () => {
  it('a defect is drafted with what was filled in, filed, and stands beside the step', async () => {
    me = await Person.open(server);
    await me.press('2');
    await me.type('#happened', 'It broke.');
    await me.click('button', 'Record and draft a defect');
    await me.see('Defect from step 1');
    await vi.waitFor(() => expect(me.valueOf('#defect-title')).toBe('Case 1 – It broke'));
    await me.type('#defect-title', '');
    await me.submit('.panel form');
    await me.see('A defect needs a title.');
    await me.type('#defect-title', 'The bike is discounted');
    await me.submit('.panel form');
    await me.seeNot('Defect from step 1');
    await me.saved();
    expect(server.writes.at(-1)).toMatchObject({
      path: '/projects/SKR/defects',
      body: { title: 'The bike is discounted', round: 1, step: 1, attempt_id: 'a1', actual: 'It broke.' },
    });
    await me.see('SKR-D9', '.tray');
    await me.see('Step 1 of 4');
  });

  it('a draft is kept while it is written, over a reload', async () => {
    me = await Person.open(server);
    await me.press('d');
    await me.see('Defect from step 1');
    await vi.waitFor(() => expect(me.valueOf('#defect-title')).toBe('Case 1 – It broke'));
    await me.type('#defect-title', 'Half a thought');
    await me.wait(250);
    me.close();
    me = await Person.open(server);
    await me.press('d');
    await vi.waitFor(() => expect(me.valueOf('#defect-title')).toBe('Half a thought'));
  });

  it('one outage blocks many of my entries', async () => {
    me = await Person.open(server);
    await me.press('3');
    await me.type('#reason', 'Harbour dark');
    await me.submit('form.more');
    await me.see('“Harbour dark” is none of this project’s reasons.');
    await me.type('#reason', 'environ');
    await me.see('Environment down', '.chip[aria-pressed=true]');
    await me.type('#waits', 'power');
    await me.click('button', 'The same outage blocks more of my entries');
    await me.see('All 2 entries');
    await me.check('.also input');
    await me.see('Record the block, and on 2 more entries');
    await me.submit('form.more');
    await me.see('Step 2 of 4');
    await me.saved();
    expect(server.writes.at(-1)).toMatchObject({
      path: '/cycles/SKR-R2/list-verdicts',
      body: { ids: ['e2', 'e3'], verdict: 'blocked', reason: 'Environment down', waits_on: 'power' },
    });
  });

  it('the author is asked, or given a better wording', async () => {
    me = await Person.open(server);
    await me.press('a');
    await me.see('To the author of the case');
    await me.submit('.ask');
    await me.see('Write the question.');
    await me.type('#ask-body', 'Which card is meant?');
    await me.submit('.ask');
    await me.seeNot('To the author of the case');
    await me.saved();
    expect(server.writes.at(-1)).toMatchObject({
      path: '/cases/SKR-C1/messages',
      body: { kind: 'question', step: 1, body: 'Which card is meant?' },
    });
    await me.blur();
    await me.press('j', 'a');
    await me.check('input[value="suggestion"]');
    await me.type('#ask-action', 'Do 2, slowly');
    await me.submit('.ask');
    await me.saved();
    expect(server.writes.at(-1)?.body).toMatchObject({
      kind: 'suggestion',
      step: 2,
      proposal: { action: 'Do 2, slowly', expected: 'See 2.' },
    });
  });

  it('a document on a step with secrets waits until somebody has looked it over', async () => {
    server.attempt().secret = true;
    me = await Person.open(server);
    await me.choosesFile(new File(['%PDF-1.7\0'], 'report.pdf', { type: 'application/pdf' }));
    await me.see('Look report.pdf over before it leaves', '.tray');
    expect(server.writes).toEqual([]);
    await me.seeNot('Hide parts of it');
    await me.see('Nothing to hide, send it', '.tray');
  });

  it('what it is really walked on is said', async () => {
    me = await Person.open(server);
    await me.see('The first verdict confirms it.');
    await me.click('.band .link', 'It is something else');
    await me.choose('[aria-label="Environment"]', 'e1');
    expect(me.valueOf('[aria-label="Build"]'), 'what is deployed there').toBe('b2');
    await me.type('[aria-label="More of where, in words"]', 'the left one');
    await me.submit('[aria-label="What it is walked on"]');
    await me.saved();
    expect(server.writes.at(-1)).toMatchObject({
      path: '/attempts/a1/surroundings',
      body: { build_id: 'b2', environment_id: 'e1', environment: 'the left one' },
    });
    await me.see('build 4.3.0-1 · Staging · the left one');
  });

  it('what it is walked on is in sight and changed by a key after verdicts too', async () => {
    me = await Person.open(server);
    await me.press('1');
    await me.saved();
    await me.see('build 4.2.0-7', '.top');
    await me.press('e');
    await me.choose('[aria-label="Environment"]', 'e1');
    await me.choose('[aria-label="Build"]', 'b1');
    await me.see('Build 4.3.0-1 is deployed in Staging.');
    await me.submit('[aria-label="What it is walked on"]');
    await me.saved();
    expect(server.writes.at(-1)?.body).toMatchObject({ build_id: 'b1', environment_id: 'e1' });
    await me.see('build 4.2.0-7 · Staging', '.top');
  });
});

describe('marking all', () => {
  it('is one click, and once more takes the marks away', async () => {
    me = await Person.open(server);
    await me.press('.');
    await me.see('The lit step, or mark several');
    await me.check('[aria-label="Mark all"]');
    await me.see('4 steps marked');
    await me.check('[aria-label="Mark all"]', false);
    await me.see('The lit step, or mark several');
    await me.check('[aria-label="Mark all"]');
    await me.press('4');
    await me.saved();
    expect(server.verdicts()).toEqual(Array(4).fill('not_applicable'));
    await me.see('Finish this attempt');
  });
});

describe('what others do', () => {
  it('is locked while another person walks it, says so, and is taken over with a word', async () => {
    server.attempt().attempt.tester = { id: 'u2', name: 'Anouk Sorrel' };
    me = await Person.open(server);
    await me.see('Anouk Sorrel is walking this attempt');
    await me.press('1', '2', '0', 'n');
    expect(server.writes).toEqual([]);
    await me.click('button', 'Take it over');
    await me.type('[aria-label="A word to Anouk Sorrel"]', 'You are off today');
    await me.submit('form');
    await me.seeNot('is walking this attempt');
    expect(server.writes[0]).toMatchObject({
      path: '/attempts/a1/take-over',
      body: { word: 'You are off today' },
    });
    await me.press('1');
    await me.saved();
    expect(server.verdicts()[0]).toBe('pass');
  });

  it('shows a retest with the reviewer’s words', async () => {
    server.attempt().retest_reason = 'Fixed in 4.2.0-8';
    me = await Person.open(server);
    await me.see('Fixed in 4.2.0-8');
  });
});

describe('scratch notes', () => {
  const notes = async (words: string): Promise<void> => {
    await vi.waitFor(() => expect(me.valueOf('#scratch')).toBe(words));
  };

  it('are never written over by a device that has not read them', async () => {
    me = await Person.open(server);
    await me.saved();
    me.close();
    // Another device writes; this one forgets what it had and begins without the server.
    server.scratch = 'Ask Maren about the tide table';
    server.mood = 'away';
    const { saveLocal } = await import('@/offline/device');
    await saveLocal('scratch:SKR', { text: '', sent: true });
    me = await Person.open(server);
    await me.press('1');
    await me.see('1 waiting', 'header');
    server.mood = 'fine';
    await me.press('1');
    await me.saved();
    await notes('Ask Maren about the tide table');
    expect(server.scratch).toBe('Ask Maren about the tide table');
  });

  it('typed without the server are there after a reload and arrive when it is back', async () => {
    me = await Person.open(server);
    await me.see('Scratch notes');
    server.mood = 'away';
    await me.type('#scratch', 'The quay printer jams');
    await me.see('On this device', '.scratch');
    await me.wait(50);
    me.close();
    me = await Person.open(server);
    await notes('The quay printer jams');
    server.mood = 'fine';
    await me.blur();
    await me.press('1');
    await me.saved();
    await vi.waitFor(() => expect(server.scratch).toBe('The quay printer jams'));
    await me.seeNot('On this device', '.scratch');
  });
});
