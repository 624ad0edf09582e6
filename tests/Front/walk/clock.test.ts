// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { defineComponent, h, ref, type Ref } from 'vue';

type Clock = ReturnType<(typeof import('@/areas/walk/useClock'))['useClock']>;
interface Tab {
  clock: Clock;
  attempt: Ref<string>;
  open: Ref<boolean>;
  page: VueWrapper;
}
const MINUTE = 60_000;
const tabs: Tab[] = [];

/** A tab that shows an attempt, with a module of its own as each tab has. */
async function tab(of = 'a'): Promise<Tab> {
  vi.resetModules();
  const { useClock } = await import('@/areas/walk/useClock');
  const attempt = ref(of);
  const open = ref(true);
  let clock: Clock | null = null;
  const page = mount(
    defineComponent({
      setup() {
        clock = useClock(attempt, open);
        return () => h('p');
      },
    }),
  );
  const made = { clock: clock!, attempt, open, page };
  tabs.push(made);
  return made;
}
/** Time goes by while the tester does something every few seconds. */
async function busy(ms: number, at: Tab): Promise<void> {
  for (let gone = 0; gone < ms; gone += 5000) {
    at.clock.seen();
    await vi.advanceTimersByTimeAsync(Math.min(5000, ms - gone));
  }
}

beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers({ now: new Date('2026-11-25T09:00:00Z') });
});
afterEach(() => {
  for (const { page } of tabs.splice(0)) page.unmount();
  vi.useRealTimers();
});

describe('the clock of an attempt', () => {
  it('counts from one act to the next, and begins again from zero', async () => {
    const me = await tab();
    await busy(90_000, me);
    expect(me.clock.take()).toBe(90_000);
    expect(me.clock.since.value).toBe(0);
    await busy(5_000, me);
    expect(me.clock.take()).toBe(5_000);
  });

  it('stands still while it is paused, and once the attempt is finished', async () => {
    const me = await tab();
    await busy(10_000, me);
    me.clock.paused.value = true;
    await busy(5 * MINUTE, me);
    expect(me.clock.since.value).toBe(10_000);
    me.clock.paused.value = false;
    await busy(10_000, me);
    me.open.value = false;
    await busy(MINUTE, me);
    expect(me.clock.since.value).toBe(20_000);
    expect(me.clock.away.value).toBeNull();
  });

  it('never counts a long time without a sign, but asks about it', async () => {
    const me = await tab();
    await busy(MINUTE, me);
    await vi.advanceTimersByTimeAsync(25 * MINUTE);
    expect(me.clock.since.value, 'no more than the longest gap').toBeLessThanOrEqual(11 * MINUTE);
    me.clock.seen();
    expect(Math.round((me.clock.away.value?.ms ?? 0) / MINUTE)).toBe(25);
    expect(me.clock.since.value, 'what was counted meanwhile is asked about as well').toBeLessThanOrEqual(
      MINUTE,
    );
    me.clock.decided();
    expect(me.clock.away.value).toBeNull();
  });

  it('asks again after a reload, and keeps what it had counted', async () => {
    const me = await tab();
    await busy(30_000, me);
    await vi.advanceTimersByTimeAsync(15 * MINUTE);
    me.clock.seen();
    const asked = me.clock.away.value?.ms;
    const had = me.clock.since.value;
    me.page.unmount();
    const again = await tab();
    expect(again.clock.away.value?.ms).toBe(asked);
    expect(again.clock.since.value).toBe(had);
  });

  it('counts once where two tabs show the same attempt, whichever of them the tester is in', async () => {
    const one = await tab();
    const two = await tab();
    await busy(30_000, two);
    await busy(30_000, one);
    await busy(60_000, two);
    // Each change of tab may cost the second that was running.
    expect(two.clock.since.value).toBeGreaterThanOrEqual(115_000);
    expect(two.clock.since.value).toBeLessThanOrEqual(122_000);
    await vi.advanceTimersByTimeAsync(1000);
    expect(
      Math.abs(one.clock.since.value - two.clock.since.value),
      'the other shows the same',
    ).toBeLessThanOrEqual(1000);
    expect(one.clock.take() + two.clock.take()).toBeLessThanOrEqual(123_000);
  });

  it('goes on in the tab that is left when the other is closed', async () => {
    const one = await tab();
    const two = await tab();
    await busy(20_000, two);
    two.page.unmount();
    await busy(20_000, one);
    expect(one.clock.since.value).toBeGreaterThanOrEqual(39_000);
  });

  it('keeps the time of each attempt apart', async () => {
    const me = await tab('a');
    await busy(10_000, me);
    me.attempt.value = 'b';
    await busy(20_000, me);
    expect(me.clock.since.value).toBeGreaterThanOrEqual(19_000);
    expect(me.clock.since.value).toBeLessThanOrEqual(20_000);
    me.attempt.value = 'a';
    await vi.advanceTimersByTimeAsync(0);
    expect(me.clock.since.value).toBe(10_000);
  });

  it('is never ahead of the time that went by, whatever one does', async () => {
    let seed = 5;
    const next = (): number => {
      seed = (seed * 1664525 + 1013904223) % 4294967296;
      return seed / 4294967296;
    };
    for (let n = 0; n < 15; n += 1) {
      localStorage.clear();
      const all = [await tab(), await tab()];
      const began = Date.now();
      let taken = 0;
      for (let m = 0; m < 30; m += 1) {
        const at = all[Math.floor(next() * 2)]!;
        const what = next();
        if (what < 0.4) at.clock.seen();
        else if (what < 0.5) at.clock.paused.value = !at.clock.paused.value;
        else if (what < 0.6) taken += at.clock.take();
        else await vi.advanceTimersByTimeAsync(next() * 4 * MINUTE);
      }
      taken += all[0]!.clock.take();
      await vi.advanceTimersByTimeAsync(1000);
      taken += all[1]!.clock.take();
      expect(taken).toBeLessThanOrEqual(Date.now() - began);
      for (const { page } of tabs.splice(0)) page.unmount();
    }
  });
});
