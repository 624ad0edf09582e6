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

describe('the walk by keys', () => {
  it('moves the light on with each verdict and comes to the wrap-up', async () => {
    me = await Person.open(server);
    await me.see('Step 1 of 4');
    await me.press('1');
    await me.see('Step 2 of 4');
    await me.press('4');
    await me.see('Step 3 of 4');
    await me.press('1', '1');
    await me.see('Finish this attempt');
    await me.saved();
    expect(server.verdicts()).toEqual(['pass', 'not_applicable', 'pass', 'pass']);
  });

  it('moves by j and k without judging, and past the last step to the wrap-up and back', async () => {
    me = await Person.open(server);
    await me.press('j', 'j');
    await me.see('Step 3 of 4');
    await me.press('k');
    await me.see('Step 2 of 4');
    await me.press('k', 'k', 'k');
    await me.see('Step 1 of 4');
    await me.press('f');
    await me.see('Finish this attempt');
    await me.press('k');
    await me.see('Step 4 of 4');
    expect(server.writes).toEqual([]);
  });

  it('asks for words when it fails, keeps them when the form is left, and records them', async () => {
    me = await Person.open(server);
    await me.press('2');
    await me.see('What happened instead?');
    await me.submit('form.more');
    await me.see('Say what happened instead.');
    expect(server.writes).toEqual([]);
    await me.type('#happened', 'The bike is discounted too.');
    await me.click('button', 'Leave it');
    await me.seeNot('What happened instead?');
    await me.blur();
    await me.press('2');
    expect(me.valueOf('#happened')).toBe('The bike is discounted too.');
    await me.submit('form.more');
    await me.see('Step 2 of 4');
    await me.saved();
    expect(server.attempt().rounds[0]?.steps[0]).toMatchObject({
      verdict: 'fail',
      happened: 'The bike is discounted too.',
    });
  });

  it('asks why when it is blocked, with the reasons of the project to choose', async () => {
    me = await Person.open(server);
    await me.press('3');
    await me.see('Environment down');
    await me.submit('form.more');
    await me.see('Say why it is blocked.');
    await me.click('.offered button', 'Environment down');
    expect(me.valueOf('#reason')).toBe('Environment down');
    await me.type('#waits', 'power at the quay');
    await me.submit('form.more');
    await me.see('Step 2 of 4');
    await me.saved();
    expect(server.attempt().rounds[0]?.steps[0]).toMatchObject({
      verdict: 'blocked',
      reason: 'Environment down',
      waits_on: 'power at the quay',
    });
  });

  it('takes back the verdict of the lit step, else of the one judged last', async () => {
    me = await Person.open(server);
    await me.press('1', '1');
    await me.see('Step 3 of 4');
    await me.press('0');
    await me.see('Step 2 of 4');
    await me.saved();
    expect(server.verdicts()).toEqual(['pass', 'not_run', 'not_run', 'not_run']);
    await me.press('k', '0');
    await me.saved();
    expect(server.verdicts()).toEqual(['not_run', 'not_run', 'not_run', 'not_run']);
  });

  it('keeps keys quiet while one types, and a note that was typed', async () => {
    me = await Person.open(server);
    await me.press('n');
    await me.type('.note', 'Slow today');
    await me.press('1', '2');
    expect(server.writes).toEqual([]);
    await me.blur();
    await me.saved();
    expect(server.attempt().rounds[0]?.steps[0]?.note).toBe('Slow today');
  });

  it('counts tries without a verdict', async () => {
    me = await Person.open(server);
    await me.press('t', 'T', 't');
    await me.see('fails 2 of 3');
    await me.saved();
    expect(server.verdicts()[0]).toBe('not_run');
    expect(server.attempt().rounds[0]?.steps[0]).toMatchObject({ tries: 3, tries_failed: 2 });
  });

  it('copies the values of a step one after another', async () => {
    const copied: string[] = [];
    vi.stubGlobal('navigator', navigator);
    Object.defineProperty(navigator, 'clipboard', {
      value: { writeText: (text: string) => Promise.resolve(void copied.push(text)) },
      configurable: true,
    });
    server = new Server(2, [{ who: 'isla', seats: '' }]);
    me = await Person.open(server);
    await me.press('v', 'v', 'v', 'v', 'v');
    await me.press('v');
    expect(copied).toEqual(['isla', '', 'data one', 'data two', 'HL-220', 'isla']);
    await me.see('1 of 5, who copied');
    server.attempt().steps[1]!.action = 'Nothing to copy here';
    me.close();
    me = await Person.open(server);
    await me.press('j', 'v');
    await me.see('There is no value in this step');
  });

  it('offers the known defects of the step before a new one and links by key', async () => {
    server.known.push({
      id: 'd1',
      key: 'SKR-D4',
      title: 'Discount on everything',
      state: 'accepted',
    } as never);
    me = await Person.open(server);
    await me.press('2');
    await me.see('Discount on everything');
    await me.blur();
    await me.press('l');
    await me.see('Step 2 of 4');
    await me.saved();
    expect(server.attempt().rounds[0]?.steps[0]?.happened).toBe('As in SKR-D4: Discount on everything');
    expect(server.writes.at(-1)).toMatchObject({
      path: '/defects/SKR-D4/links',
      body: { attempt_id: 'a1', round: 1, step: 1 },
    });
  });
});

describe('the wrap-up', () => {
  const all = async (verdict = '1'): Promise<void> => {
    me = await Person.open(server);
    await me.press(verdict, verdict, verdict, verdict);
    await me.see('Finish this attempt');
  };

  it('finishes with what the steps say and goes on to the next entry', async () => {
    await all();
    await me.see('Every step is judged.');
    await me.press('Enter');
    await me.see('Case 2', 'h1');
    await me.saved();
    expect(server.attempt().attempt).toMatchObject({ state: 'finished', verdict: 'pass' });
    expect(me.path).toBe('/SKR/walk/a2');
  });

  it('stays where the project says so, and shows what became final', async () => {
    server.policies.after_finishing = 'stay';
    await all();
    await me.press('Enter');
    await me.see('This attempt is finished');
    expect(me.path).toBe('/SKR/walk/a1');
    await me.press('1');
    await me.saved();
    expect(server.writes.filter((w) => w.path.endsWith('/verdicts'))).toHaveLength(4);
  });

  it('wants a verdict and why while steps are not run', async () => {
    me = await Person.open(server);
    await me.press('1', 'f');
    await me.see('3 steps not run');
    await me.press('Enter');
    await me.see('Choose the verdict and say why');
    await me.click('#final-pass');
    await me.press('Enter');
    expect(server.attempt().attempt.state).toBe('open');
    await me.type('#final-note', 'ok');
    await me.click('button', 'Finish and go on');
    await me.see('Say in a few words why it is pass');
    await me.type('#final-note', 'The rest is out of reach');
    await me.click('button', 'Finish and go on');
    await me.see('Case 2', 'h1');
    await me.saved();
    expect(server.attempt().attempt).toMatchObject({ verdict: 'pass', note: 'The rest is out of reach' });
  });

  it('wants a word for another verdict than the steps say', async () => {
    await all();
    await me.click('#final-fail');
    await me.see('Why fail?');
    await me.click('button', 'Finish and go on');
    await me.see('The steps say pass.');
    await me.type('#final-note', '…');
    await me.click('button', 'Finish and go on');
    await me.see('The steps say pass.');
    expect(server.attempt().attempt.state).toBe('open');
    await me.type('#final-note', 'Far too slow');
    await me.click('button', 'Finish and go on');
    await me.see('Case 2', 'h1');
    await me.saved();
    expect(server.attempt().attempt).toMatchObject({ verdict: 'fail', note: 'Far too slow' });
  });

  it('takes a corrected time as people write it, and refuses what is none', async () => {
    await all();
    await me.type('#final-time', 'soon');
    await me.click('button', 'Finish and go on');
    await me.see('Write it like 90s, 12m');
    expect(server.attempt().attempt.state).toBe('open');
    await me.type('#final-time', '1h 20m');
    await me.click('button', 'Finish and go on');
    await me.see('Case 2', 'h1');
    await me.saved();
    expect(server.writes.find((w) => w.path.endsWith('/finish'))?.body.time).toBe('1h 20m');
  });

  it('stops what needs the pass only where one says so', async () => {
    server.stops = [{ id: 'e3', key: 'SKR-C3', title: 'Pay', why: 'needs its pass' }];
    me = await Person.open(server);
    await me.press('2');
    await me.type('#happened', 'It broke.');
    await me.submit('form.more');
    await me.press('1', '1', '1');
    await me.see('Stop what needs the pass of this entry');
    await me.see('SKR-C3');
    await me.check('.stops input');
    await me.click('button', 'Finish and go on');
    await me.see('Case 2', 'h1');
    await me.saved();
    expect(server.writes.map((w) => w.path)).toContain('/entries/e1/stops');
  });

  it('is skipped on a clean pass where the project says so, and only there', async () => {
    server.policies.skip_wrap_up_on_pass = true;
    me = await Person.open(server);
    await me.press('1', '1', '1', '1');
    await me.see('Case 2', 'h1');
    await me.see('Step 1 of 4');
    await me.press('1', '4', '1', '2');
    await me.type('#happened', 'It broke.');
    await me.submit('form.more');
    await me.see('Finish this attempt');
    await me.saved();
    expect(server.attempt('a1').attempt.state).toBe('finished');
    expect(server.attempt('a2').attempt.state).toBe('open');
  });

  it('keeps what was written there over a reload', async () => {
    await all();
    // One note; a word of why is asked only where the verdict is another than the steps say.
    expect(document.querySelector('#final-note')).toBeNull();
    await me.type('#attempt-remark', 'A long thought about this one');
    await me.wait(250);
    me.close();
    me = await Person.open(server);
    await me.see('Finish this attempt');
    await vi.waitFor(() => expect(me.valueOf('#attempt-remark')).toBe('A long thought about this one'));
    await me.click('button', 'Finish and go on');
    await me.see('Case 2', 'h1');
    await me.saved();
    expect(server.attempt().attempt.remark).toBe('A long thought about this one');
  });
});

describe('rounds', () => {
  beforeEach(() => {
    server = new Server(2, [{ who: 'isla' }, { who: 'rory' }, { who: 'una' }]);
  });

  it('walks one after another, each with its values', async () => {
    me = await Person.open(server);
    await me.see('Round 1 of 3');
    await me.see('isla');
    await me.press('1', '1');
    await me.see('Round 2 of 3');
    await me.see('rory');
    await me.press('1', '1', '1', '1');
    await me.see('Finish this attempt');
    await me.saved();
    expect([1, 2, 3].flatMap((r) => server.verdicts('a1', r))).toEqual(Array(6).fill('pass'));
  });

  it('is left out with a word of why, and taken up again', async () => {
    me = await Person.open(server);
    await me.click('button', 'Leave this round out');
    await me.type('[aria-label="Why the round is left out"]', 'x');
    await me.submit('.rounds form');
    await me.see('Say in a few words why.');
    await me.type('[aria-label="Why the round is left out"]', 'Isla is away');
    await me.submit('.rounds form');
    await me.saved();
    expect(server.attempt().rounds[0]?.skipped).toBe('Isla is away');
    await me.press('{');
    await me.press('{');
    await me.see('Isla is away');
    await me.click('button', 'Take it up again');
    await me.saved();
    expect(server.attempt().rounds[0]?.skipped).toBeNull();
  });

  it('is walked once more in place of the one before', async () => {
    me = await Person.open(server);
    await me.press('2');
    await me.type('#happened', 'It broke.');
    await me.submit('form.more');
    await me.press('1');
    await me.press('{');
    await me.see('Round 1 of 3');
    await me.click('button', 'Walk it once more');
    await me.see('Round 4 of 4');
    await me.see('this one counts in its place');
    await me.press('1', '1');
    await me.press('1', '1', '1', '1');
    await me.see('Finish this attempt');
    await me.saved();
    expect(server.attempt().attempt.roll_up).toBe('pass');
    expect(server.verdicts('a1', 1)).toEqual(['fail', 'pass']);
  });
});

describe('the sheet', () => {
  it('judges the marked steps with one key and one word', async () => {
    me = await Person.open(server);
    await me.press('.');
    await me.see('The lit step, or mark several');
    await me.press('x', 'j', 'j', 'X');
    await me.see('3 steps marked');
    await me.press('2');
    await me.see('What happened instead?');
    await me.submit('.ask');
    await me.see('Say what happened instead.');
    await me.type('#sheet-word', 'All three are dark');
    await me.submit('.ask');
    await me.saved();
    expect(server.verdicts()).toEqual(['fail', 'fail', 'fail', 'not_run']);
    expect(server.attempt().rounds[0]?.steps[2]?.happened).toBe('All three are dark');
  });

  it('judges the lit step where none is marked, takes back, and is remembered on the device', async () => {
    me = await Person.open(server);
    await me.press('.');
    await me.see('The lit step, or mark several');
    await me.press('1', '4');
    await me.saved();
    expect(server.verdicts()).toEqual(['pass', 'not_applicable', 'not_run', 'not_run']);
    await me.press('k', '0');
    await me.saved();
    expect(server.verdicts()).toEqual(['pass', 'not_run', 'not_run', 'not_run']);
    me.close();
    me = await Person.open(server);
    await me.see('The lit step, or mark several');
    await me.press('.');
    await me.see('Step');
  });
});
