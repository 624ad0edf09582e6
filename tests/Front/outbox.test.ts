import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Act, Deed } from '@/walk/acts';

/** The device as a map: what is in it outlives the page. */
const device = { acts: new Map<number, Act>(), next: 1, full: false };
vi.mock('@/walk/device', () => ({
  isNoRoom: (e: unknown) => e instanceof DOMException && e.name !== 'DataCloneError',
  device: () =>
    Promise.resolve({
      add: (_: string, act: Act) => {
        if (device.full) return Promise.reject(new DOMException('full', 'QuotaExceededError'));
        const counter = device.next++;
        device.acts.set(counter, { ...act, counter });
        return Promise.resolve(counter);
      },
      put: (_: string, act: Act) => Promise.resolve(void device.acts.set(act.counter, act)),
      delete: (_: string, counter: number) => Promise.resolve(void device.acts.delete(counter)),
      getAll: () => Promise.resolve([...device.acts.values()].sort((a, b) => a.counter - b.counter)),
    }),
}));

type Mood = 'fine' | 'away' | 'lost' | 'faulty' | 'refusing' | 'late' | 'out';
/** A server that keeps each key once, as ours does, and has its moods. */
const server = { mood: 'fine' as Mood, taken: [] as string[], refused: new Set<string>() };
vi.mock('@/api/client', async (original) => {
  const real = await original<typeof import('@/api/client')>();
  return {
    ...real,
    send: async (_: string, init: RequestInit): Promise<Response> => {
      const key = new Headers(init.headers).get('Idempotency-Key') ?? '';
      const take = (): void => void (server.taken.includes(key) || server.taken.push(key));
      switch (server.mood) {
        case 'away':
          throw new real.Problem(0, 'away', 'away');
        case 'lost':
          take();
          throw new real.Problem(0, 'away', 'its answer was lost');
        case 'faulty':
          throw new real.Problem(500, 'fault', 'fault');
        case 'refusing':
          // What was taken once is answered the same again.
          if (server.taken.includes(key)) break;
          server.refused.add(key);
          throw new real.Problem(422, 'invalid', 'no', { step: ['There is no such step.'] });
        case 'late':
          if (server.taken.includes(key)) break;
          server.refused.add(key);
          return Response.json({ applied: false, held_because: 'The cycle is closed.' }, { status: 202 });
        case 'out':
          throw new real.Problem(401, 'signed-out', 'out');
        case 'fine':
          take();
      }
      return Response.json({ applied: true });
    },
  };
});

/** One tab sends at a time. */
let busy = false;
vi.stubGlobal('navigator', {
  locks: {
    request: async (_: string, __: unknown, work: (lock: object | null) => Promise<void>) => {
      if (busy) return work(null);
      busy = true;
      try {
        await work({});
      } finally {
        busy = false;
      }
    },
  },
});

/** A page of the application, with what the device kept; the one before is gone, with whatever it meant to do later. */
async function page() {
  vi.clearAllTimers();
  vi.resetModules();
  const { outbox } = await import('@/walk/outbox');
  await outbox.begin('u');
  await vi.advanceTimersByTimeAsync(0);
  return outbox;
}
const deed = (note: string): Deed => ({ kind: 'note', round: 1, step: 1, note });
const settle = (): Promise<unknown> => vi.advanceTimersByTimeAsync(60_000);
const random = (seed: number) => () => {
  seed = (seed * 1664525 + 1013904223) % 4294967296;
  return seed / 4294967296;
};

beforeEach(() => {
  vi.useFakeTimers();
  device.acts.clear();
  device.full = false;
  server.mood = 'fine';
  server.taken = [];
  server.refused.clear();
});
afterEach(() => vi.useRealTimers());

describe('the outbox', () => {
  it('delivers everything exactly once and in order, whatever the server did meanwhile', async () => {
    for (let seed = 1; seed <= 12; seed += 1) {
      device.acts.clear();
      server.taken = [];
      server.refused.clear();
      server.mood = 'fine';
      const next = random(seed);
      const of = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)] as T;
      let here = await page();
      const recorded: string[] = [];
      for (let n = 0; n < 30; n += 1) {
        const what = next();
        if (what < 0.5) recorded.push((await here.add('a', deed(`n${n}`))).key);
        else if (what < 0.75)
          server.mood = of(['fine', 'away', 'lost', 'faulty', 'refusing', 'late', 'out'] as const);
        else if (what < 0.85) here = await page();
        else await vi.advanceTimersByTimeAsync(next() * 4000);
      }
      server.mood = 'fine';
      here = await page();
      await settle();
      const aside = new Set(here.refused.value.map((a) => a.key));
      expect(here.waiting.value).toEqual([]);
      expect(server.taken, `seed ${seed}`).toEqual(recorded.filter((k) => !aside.has(k)));
      for (const key of aside) expect(server.taken).not.toContain(key);
      // Nothing is on the device but what was set aside, with why.
      expect([...device.acts.values()].every((a) => a.refused !== undefined)).toBe(true);
    }
  }, 30_000);

  it('keeps what was refused with the words of the server, sends it again on request, and goes on', async () => {
    const here = await page();
    server.mood = 'refusing';
    const first = await here.add('a', deed('one'));
    await settle();
    server.mood = 'fine';
    await here.add('a', deed('two'));
    await settle();
    expect(here.refused.value.map((a) => a.refused)).toEqual(['There is no such step.']);
    expect(server.taken).toHaveLength(1);
    await here.again(here.refused.value[0] as Act);
    await settle();
    expect(server.taken[1]).toBe(first.key);
    expect(here.acts).toHaveLength(0);
  });

  it('sets aside what the server cannot digest, after eight faults, and holds nothing up for ever', async () => {
    const here = await page();
    server.mood = 'faulty';
    await here.add('a', deed('poison'));
    await vi.advanceTimersByTimeAsync(300_000);
    expect(here.refused.value).toHaveLength(1);
    server.mood = 'fine';
    await here.add('a', deed('fine'));
    await settle();
    expect(server.taken).toHaveLength(1);
  });

  it('waits for the sign-in, and for the right person', async () => {
    const here = await page();
    server.mood = 'out';
    await here.add('a', deed('mine'));
    await settle();
    expect(here.state.stopped).toContain('Sign in again');
    server.mood = 'fine';
    await here.begin('somebody else');
    await settle();
    expect(server.taken).toEqual([]);
    expect(here.acts).toEqual([]);
    await here.begin('u');
    await settle();
    expect(server.taken).toHaveLength(1);
  });

  it('sends at once what a full device has no room for, unless something waits before it', async () => {
    const here = await page();
    device.full = true;
    await here.add('a', deed('straight through'));
    expect(server.taken).toHaveLength(1);
    expect(device.acts.size).toBe(0);
    device.full = false;
    server.mood = 'away';
    await here.add('a', deed('waits'));
    await settle();
    device.full = true;
    server.mood = 'fine';
    await expect(here.add('a', deed('would overtake'))).rejects.toMatchObject({ kind: 'device-full' });
    expect(here.state.full).toContain('its storage is full');
    await settle();
    expect(server.taken).toHaveLength(2);
  });

  it('holds a picture, and what belongs to it, until it was looked over; the rest goes on', async () => {
    const here = await page();
    const picture = new Blob(['seen'], { type: 'text/plain' });
    await here.add(
      'a',
      { kind: 'evidence', id: 'e', round: 1, step: 1, name: 'a.txt', source: 'paste', file: picture },
      undefined,
      true,
    );
    await here.add('a', { kind: 'caption', id: 'e', caption: 'What I saw' });
    await here.add('a', deed('not about it'));
    await settle();
    expect(server.taken).toHaveLength(1);
    expect(await here.release('e', new Blob(['painted over'], { type: 'text/plain' }))).toBe(true);
    await settle();
    expect(server.taken).toHaveLength(3);
    expect(await here.release('e')).toBe(false);
  });

  it('lets what was recorded in an attempt that could not begin stay with it', async () => {
    const here = await page();
    server.mood = 'away';
    await here.add('new', { kind: 'start', entry: 'x', version: 'v' });
    await here.add('new', deed('in it'));
    await here.add('other', deed('elsewhere'));
    server.mood = 'refusing';
    await vi.advanceTimersByTimeAsync(1);
    here.kick();
    // Only the beginning is refused by the server itself.
    await vi.advanceTimersByTimeAsync(0);
    server.mood = 'fine';
    await settle();
    expect(here.refused.value.map((a) => a.attempt)).toContain('new');
    expect(
      here.refused.value.filter((a) => a.attempt === 'new' && a.deed.kind === 'note')[0]?.refused,
    ).toContain('Its attempt could not begin');
  });
});
