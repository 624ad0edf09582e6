// @vitest-environment happy-dom
import { afterEach, describe, expect, it } from 'vitest';
import { freshDevice, Person } from '../support/person';
import { Server } from '../support/server';

let me: Person | null = null;
afterEach(() => me?.close());

const STEPS = 4;
const ROWS = [{ who: 'isla' }, { who: 'rory' }];
const random = (seed: number) => () => {
  seed = (seed * 1664525 + 1013904223) % 4294967296;
  return seed / 4294967296;
};
type Sent = { path: string; body: Record<string, unknown> };
const verdictsOf = (sent: Sent[]): Sent[] => sent.filter((w) => w.path.endsWith('/verdicts'));

/** What the sheet of the round that is open says of each step. */
async function shown(page: Person): Promise<string[]> {
  await page.blur();
  if (!page.has('.whole')) await page.press('.');
  await page.see('The lit step, or mark several');
  return page.rows('table.lines tbody tr').map((row) => {
    const word = ['Not applicable', 'Not run', 'Pass', 'Fail', 'Blocked'].find((w) => row.includes(w));
    return (word ?? '?').toLowerCase().replace(' ', '_');
  });
}

describe('a walk with all that can happen to it', () => {
  it.each([1, 2, 3, 4])(
    'ends with the server knowing what the page shows, each act once and in order (seed %i)',
    async (seed) => {
      freshDevice();
      const server = new Server(STEPS, ROWS);
      const next = random(seed);
      const of = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)] as T;
      me = await Person.open(server);
      let pressed = 0;
      for (let n = 0; n < 45; n += 1) {
        const what = next();
        if (what < 0.6) {
          await me.press(of(['1', '4', '0', 'j', 'k', 't', '{', '}', '1', '1']));
          pressed += 1;
        } else if (what < 0.7 && me.has('.lit')) {
          await me.press('2');
          await me.type('#happened', `It broke, ${n}.`);
          await me.submit('form.more');
        } else if (what < 0.82) server.mood = of(['fine', 'away', 'lost', 'fine'] as const);
        else if (what < 0.92) await me.wait(20);
        else {
          me.close();
          me = await Person.open(server);
        }
      }
      expect(pressed).toBeGreaterThan(10);
      server.mood = 'fine';
      // A page that begins anew sends what waits, at once.
      me.close();
      me = await Person.open(server);
      await me.saved();

      const counters = server.writes.flatMap((w) =>
        w.body.counter === undefined ? [] : [Number(w.body.counter)],
      );
      expect(counters, 'in the order of the device').toEqual([...counters].sort((a, b) => a - b));
      expect(new Set(counters).size, 'each once').toBe(counters.length);

      // The last word on each step is what counts, on the server and on the page.
      const last = new Map<string, unknown>();
      for (const { body } of verdictsOf(server.writes)) last.set(`${body.round}.${body.step}`, body.verdict);
      for (const round of [1, 2]) {
        const told = Array.from({ length: STEPS }, (_, s) => last.get(`${round}.${s + 1}`) ?? 'not_run');
        expect(server.verdicts('a1', round), `round ${round} on the server`).toEqual(told);
      }
      for (const round of [1, 2]) {
        while (!me.text('.rounds').includes(`Round ${round} of 2`)) await me.press(round === 1 ? '{' : '}');
        expect(await shown(me), `round ${round} on the page`).toEqual(server.verdicts('a1', round));
      }
      const tries = server.attempt().rounds.flatMap((r) => r.steps.map((s) => s.tries));
      expect(tries.reduce((a, b) => a + b)).toBe(
        server.writes.filter((w) => w.path.endsWith('/tries')).length,
      );
    },
  );

  it('never says saved while something waits', async () => {
    freshDevice();
    const server = new Server(STEPS);
    me = await Person.open(server);
    const kept = async (): Promise<number> => {
      const { device } = await import('@/offline/device');
      return (await (await device()).getAll('acts')).length;
    };
    const next = random(9);
    for (let n = 0; n < 40; n += 1) {
      server.mood = next() < 0.5 ? 'away' : 'fine';
      await me.press(next() < 0.7 ? '1' : '0', 'k');
      const says = me.text('header');
      // What stands on the device is read after what is said: it can only have become less.
      if (says.includes('Saved')) expect(await kept(), `after ${n}`).toBe(0);
      else expect(says).toMatch(/\d+ waiting|Sending \d+|Server away/);
    }
    server.mood = 'fine';
    me.close();
    me = await Person.open(server);
    await me.saved();
    expect(await kept()).toBe(0);
  });

  it('sets aside what is refused, says so, and goes on with the rest', async () => {
    freshDevice();
    const server = new Server(STEPS);
    server.refuse = (asked) => (asked.body.step === 2 ? 'There is no such step.' : null);
    me = await Person.open(server);
    await me.press('1', '1', '1');
    await me.see('1 refused', 'header');
    expect(server.verdicts()).toEqual(['pass', 'not_run', 'pass', 'not_run']);
    await me.click('.save > button');
    await me.see('There is no such step.', '.save');
    server.refuse = () => null;
    await me.click('.save .link', 'Send it again');
    await me.saved();
    expect(server.verdicts()).toEqual(['pass', 'pass', 'pass', 'not_run']);
  });

  it('waits for the sign-in, and sends then', async () => {
    freshDevice();
    const server = new Server(STEPS);
    me = await Person.open(server);
    server.mood = 'out';
    await me.press('1', '1');
    await me.see('2 waiting: signed out', 'header');
    await me.click('.save > button');
    await me.see('Sign in', '.save');
    server.mood = 'fine';
    me.close();
    me = await Person.open(server);
    await me.saved();
    expect(server.verdicts()).toEqual(['pass', 'pass', 'not_run', 'not_run']);
  });
});
