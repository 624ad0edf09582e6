// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { defineComponent, nextTick, shallowRef, type Ref } from 'vue';
import { useFramedPage, type Network } from '@/areas/evidence/useFramedPage';

const ORIGIN = 'https://staging.example';
/** The page under test: what it was told, and where that was meant to go. */
const told: [unknown, string][] = [];
const page = { postMessage: (what: unknown, to: string) => told.push([what, to]) } as unknown as Window;
const origin = shallowRef(ORIGIN);
const pressed: string[] = [];
let frame: { network: Ref<Network>; takesPart: Ref<boolean>; tell: () => Promise<void> };
let host: VueWrapper;

function says(data: unknown, from: string = ORIGIN, source: unknown = page): void {
  const event = new MessageEvent('message', { data, origin: from });
  Object.defineProperty(event, 'source', { value: source });
  window.dispatchEvent(event);
}
beforeEach(() => {
  vi.useFakeTimers();
  told.length = pressed.length = 0;
  origin.value = ORIGIN;
  host = mount(
    defineComponent(() => {
      frame = useFramedPage(
        () => page,
        () => origin.value,
        (key) => pressed.push(key),
      );
      return () => null;
    }),
  );
});
afterEach(() => {
  host.unmount();
  vi.useRealTimers();
});

describe('a page in the handset', () => {
  it('is told its network when it comes, every few seconds, and at the end that it has all of it again', async () => {
    frame.network.value = 'slow';
    says({ handset: 'ready' });
    expect(told).toEqual([[{ handset: 'network', network: 'slow' }, ORIGIN]]);
    await vi.advanceTimersByTimeAsync(8500);
    expect(told).toHaveLength(3);
    host.unmount();
    expect(told.at(-1)).toEqual([{ handset: 'network', network: 'full' }, ORIGIN]);
    await vi.advanceTimersByTimeAsync(9000);
    expect(told).toHaveLength(4);
  });

  it('takes part once it said that it heard; one that says nothing is waited for a second', async () => {
    let done = 0;
    frame.network.value = 'none';
    void frame.tell().then(() => done++);
    await vi.advanceTimersByTimeAsync(900);
    expect([done, frame.takesPart.value]).toEqual([0, false]);
    // An answer to what was said before is none to this.
    says({ handset: 'network', network: 'full' });
    await nextTick();
    expect(done).toBe(0);
    says({ handset: 'network', network: 'none' });
    await vi.advanceTimersByTimeAsync(1);
    expect([done, frame.takesPart.value]).toEqual([1, true]);
    void frame.tell().then(() => done++);
    await vi.advanceTimersByTimeAsync(1001);
    expect(done).toBe(2);
  });

  it('hands on its keys, and nobody else does', () => {
    says({ handset: 'key', key: 'h' });
    says({ handset: 'key', key: 'h' }, 'https://elsewhere.example');
    says({ handset: 'key', key: 'h' }, ORIGIN, {});
    says('h');
    says(null);
    expect(pressed).toEqual(['h']);
  });

  it('is told nothing while it is nowhere', () => {
    origin.value = '';
    says({ handset: 'ready' }, '');
    expect(told).toEqual([]);
  });
});
