import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Command, QueuedCommand } from '@/offline/commands';

/** The device as a map: what is in it outlives the page. */
const device = { acts: new Map<number, QueuedCommand>(), next: 1, full: false };
const queued = (): QueuedCommand[] => [...device.acts.values()].sort((a, b) => a.counter - b.counter);
vi.mock('@/offline/device', () => ({
  queuedOnDevice: () => Promise.resolve(queued()),
  isNoRoom: (e: unknown) => e instanceof DOMException && e.name !== 'DataCloneError',
  device: () =>
    Promise.resolve({
      add: (_: string, act: QueuedCommand) => {
        if (device.full) return Promise.reject(new DOMException('full', 'QuotaExceededError'));
        const counter = device.next++;
        device.acts.set(counter, { ...act, counter });
        return Promise.resolve(counter);
      },
      put: (_: string, act: QueuedCommand) => Promise.resolve(void device.acts.set(act.counter, act)),
      delete: (_: string, counter: number) => Promise.resolve(void device.acts.delete(counter)),
    }),
}));

type Mood = 'fine' | 'away' | 'lost' | 'faulty' | 'refusing' | 'late' | 'out' | 'dumb';
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
        case 'dumb':
          // It takes the request and never says a word; only the device's own patience ends that.
          take();
          return new Promise((_, reject) =>
            init.signal?.addEventListener('abort', () => reject(new real.Problem(0, 'away', 'no word'))),
          );
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

/** Tabs hear of each other a little later, never of themselves. */
const tabs = new Set<{ onmessage: ((event: { data: unknown }) => void) | null }>();
vi.stubGlobal(
  'BroadcastChannel',
  class {
    onmessage: ((event: { data: unknown }) => void) | null = null;
    constructor() {
      tabs.add(this);
    }
    postMessage(data: unknown): void {
      for (const tab of tabs) if (tab !== this) setTimeout(() => tab.onmessage?.({ data }), 1);
    }
  },
);
vi.stubGlobal('AbortSignal', {
  timeout: (ms: number) => {
    const end = new EventTarget();
    setTimeout(() => end.dispatchEvent(new Event('abort')), ms);
    return end;
  },
});

/** A page of the application, with what the device kept; the one before is gone, with whatever it meant to do later. */
async function page() {
  vi.clearAllTimers();
  tabs.clear();
  busy = false;
  return tab();
}
/** One more tab beside those that are open. */
async function tab() {
  vi.resetModules();
  await import('@/areas/walk/commands');
  const { outbox } = await import('@/offline/outbox');
  await outbox.begin('u');
  await vi.advanceTimersByTimeAsync(0);
  return outbox;
}
const note = (text: string): Command => ({ kind: 'note', round: 1, step: 1, note: text });
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
        if (what < 0.5) recorded.push((await here.add('a', note(`n${n}`))).key);
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
    const first = await here.add('a', note('one'));
    await settle();
    server.mood = 'fine';
    await here.add('a', note('two'));
    await settle();
    expect(here.refused.value.map((a) => a.refused)).toEqual(['There is no such step.']);
    expect(server.taken).toHaveLength(1);
    await here.again(here.refused.value[0] as QueuedCommand);
    await settle();
    expect(server.taken[1]).toBe(first.key);
    expect(here.commands).toHaveLength(0);
  });

  it('takes no fault of the server for a refusal: its attempt waits in order, the others go on', async () => {
    const here = await page();
    server.mood = 'faulty';
    const poison = await here.add('a', note('poison'));
    await vi.advanceTimersByTimeAsync(60_000);
    expect(here.refused.value).toEqual([]);
    expect(here.state.failsSince).not.toBeNull();
    const behind = await here.add('a', note('behind it'));
    server.mood = 'fine';
    const other = await here.add('b', note('of another attempt'));
    await vi.advanceTimersByTimeAsync(5_000);
    expect(server.taken).toEqual([other.key]);
    expect(here.waiting.value.map((q) => q.key)).toEqual([poison.key, behind.key]);
    // Mended, it goes by itself, in order.
    await vi.advanceTimersByTimeAsync(130_000);
    expect(server.taken).toEqual([other.key, poison.key, behind.key]);
    expect(here.state.failsSince).toBeNull();
    expect(here.commands).toHaveLength(0);
  });

  it('waits for the sign-in, and for the right person', async () => {
    const here = await page();
    server.mood = 'out';
    await here.add('a', note('mine'));
    await settle();
    expect(here.state.stopped).toContain('Sign in again');
    server.mood = 'fine';
    await here.begin('somebody else');
    await settle();
    expect(server.taken).toEqual([]);
    expect(here.commands).toEqual([]);
    await here.begin('u');
    await settle();
    expect(server.taken).toHaveLength(1);
  });

  it('sends at once what a full device has no room for, unless something waits before it', async () => {
    const here = await page();
    device.full = true;
    await here.add('a', note('straight through'));
    expect(server.taken).toHaveLength(1);
    expect(device.acts.size).toBe(0);
    device.full = false;
    server.mood = 'away';
    await here.add('a', note('waits'));
    await settle();
    device.full = true;
    server.mood = 'fine';
    await expect(here.add('a', note('would overtake'))).rejects.toMatchObject({ kind: 'device-full' });
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
    await here.add('a', note('not about it'));
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
    await here.add('new', note('in it'));
    await here.add('other', note('elsewhere'));
    server.mood = 'refusing';
    await vi.advanceTimersByTimeAsync(1);
    here.kick();
    // Only the beginning is refused by the server itself.
    await vi.advanceTimersByTimeAsync(0);
    server.mood = 'fine';
    await settle();
    expect(here.refused.value.map((a) => a.attempt)).toContain('new');
    expect(
      here.refused.value.filter((a) => a.attempt === 'new' && a.command.kind === 'note')[0]?.refused,
    ).toContain('Its attempt could not begin');
  });

  it('is in step in several tabs: what one sends the others settle too, once, and count it no longer', async () => {
    for (let seed = 1; seed <= 8; seed += 1) {
      device.acts.clear();
      server.taken = [];
      server.mood = 'fine';
      const next = random(seed);
      const first = await page();
      const all = [first, await tab(), await tab()];
      const settled = all.map(() => [] as string[]);
      all.forEach((one, i) => one.onSettled((act) => void settled[i]?.push(act.key)));
      const recorded: string[] = [];
      for (let n = 0; n < 25; n += 1) {
        const what = next();
        const one = all[Math.floor(next() * all.length)]!;
        if (what < 0.6) recorded.push((await one.add('a', note(`n${n}`))).key);
        else if (what < 0.8) server.mood = next() < 0.5 ? 'away' : 'fine';
        else await vi.advanceTimersByTimeAsync(next() * 3000);
        // Whatever waits stands in each tab's list as soon as word of it came round.
        await vi.advanceTimersByTimeAsync(2);
        const waits = [...device.acts.values()].map((a) => a.key);
        for (const other of all) expect(other.commands.map((a) => a.key).sort()).toEqual(waits.sort());
      }
      server.mood = 'fine';
      await settle();
      expect(server.taken, `seed ${seed}`).toEqual(recorded);
      for (const [i, one] of all.entries()) {
        expect(one.commands, `tab ${i}, seed ${seed}`).toEqual([]);
        expect([...(settled[i] ?? [])].sort(), `tab ${i}, seed ${seed}`).toEqual([...recorded].sort());
      }
    }
  }, 30_000);

  it('keeps its list right when it is read anew while something is on its way', async () => {
    const here = await page();
    const other = await tab();
    server.mood = 'away';
    for (const text of ['one', 'two', 'three']) await here.add('a', note(text));
    server.mood = 'fine';
    here.kick();
    // Each word from the other tab reads the list anew, with other objects for the same acts.
    for (let n = 0; n < 4; n += 1) {
      await other.add('b', note(`meanwhile ${n}`));
      await vi.advanceTimersByTimeAsync(1);
    }
    await settle();
    expect(server.taken).toHaveLength(7);
    expect(here.commands).toEqual([]);
    expect(other.commands).toEqual([]);
  });

  it('counts a server that says nothing as away after half a minute, and sends again with the same key', async () => {
    const here = await page();
    server.mood = 'dumb';
    const act = await here.add('a', note('into the void'));
    await vi.advanceTimersByTimeAsync(29_000);
    expect(here.state.awaySince).toBeNull();
    expect(here.state.sending).toBe(true);
    await vi.advanceTimersByTimeAsync(1_500);
    expect(here.state.awaySince).not.toBeNull();
    server.mood = 'fine';
    await settle();
    expect(server.taken).toEqual([act.key]);
    expect(here.commands).toEqual([]);
  });

  it('gives a large file its time to travel', async () => {
    const here = await page();
    server.mood = 'dumb';
    const file = new Blob([new Uint8Array(2_000_000)], { type: 'text/plain' });
    await here.add('a', { kind: 'evidence', id: 'e', round: 1, step: 1, name: 'a.log', source: 'log', file });
    await vi.advanceTimersByTimeAsync(129_000);
    expect(here.state.awaySince).toBeNull();
    await vi.advanceTimersByTimeAsync(2_000);
    expect(here.state.awaySince).not.toBeNull();
  });

  it('sends with a refused file what was refused because of it, and drops both together', async () => {
    const here = await page();
    const file = new Blob(['x'], { type: 'text/plain' });
    const evidence = (id: string): Command => ({
      kind: 'evidence',
      id,
      round: 1,
      step: 1,
      name: 'a.txt',
      source: 'file',
      file,
    });
    server.mood = 'refusing';
    await here.add('a', evidence('e'));
    await here.add('a', { kind: 'caption', id: 'e', caption: 'What I saw' });
    await here.add('a', evidence('f'));
    await here.add('a', { kind: 'caption', id: 'f', caption: 'Something else' });
    await settle();
    expect(here.refused.value).toHaveLength(4);
    server.mood = 'fine';
    await here.again(here.refused.value[0] as QueuedCommand);
    await settle();
    expect(server.taken).toHaveLength(2);
    expect(here.refused.value.map((a) => ('id' in a.command ? a.command.id : ''))).toEqual(['f', 'f']);
    await here.drop(here.refused.value[0] as QueuedCommand);
    await settle();
    expect(here.commands).toEqual([]);
    expect(device.acts.size).toBe(0);
    expect(server.taken).toHaveLength(2);
  });

  it('sends everything of an attempt again when its beginning is sent again', async () => {
    const here = await page();
    server.mood = 'refusing';
    await here.add('new', { kind: 'start', entry: 'x', version: 'v' });
    await here.add('new', note('in it'));
    await here.add('other', note('elsewhere'));
    await settle();
    expect(here.refused.value).toHaveLength(3);
    server.mood = 'fine';
    await here.again(here.refused.value[0] as QueuedCommand);
    await settle();
    expect(server.taken).toHaveLength(2);
    expect(here.refused.value.map((a) => a.attempt)).toEqual(['other']);
  });
});
