// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query';
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { defineComponent, h } from 'vue';
import { Problem } from '@/api/client';
import { loadLocal, saveLocal } from '@/offline/device';
import { useRead } from '@/offline/useRead';

interface State {
  revision: number;
}

describe('what is read and kept current', () => {
  let reading: ReturnType<typeof useRead<State>>;
  let queries: QueryClient;
  let mounted: VueWrapper;
  /** The readings that wait for their answer, the oldest first. */
  let waiting: { give: (state: State) => void; fail: (error: Error) => void }[] = [];
  const read = vi.fn(() => new Promise<State>((give, fail) => waiting.push({ give, fail })));
  const seen: (number | undefined)[] = [];

  const open = (keepAs?: string): void => {
    queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
    mounted = mount(
      defineComponent({
        setup() {
          reading = useRead('entry', ['thing'], read, keepAs);
          return () => {
            seen.push(reading.data.value?.revision);
            return h('p', String(reading.data.value?.revision ?? 'none'));
          };
        },
      }),
      { global: { plugins: [[VueQueryPlugin, { queryClient: queries }]] } },
    );
  };
  const settle = async (): Promise<void> => {
    await flushPromises();
    await flushPromises();
  };

  beforeEach(() => {
    waiting = [];
    seen.length = 0;
    read.mockClear();
  });
  afterEach(() => {
    mounted.unmount();
    queries.clear();
  });

  it('takes the answer to a write at once', async () => {
    open();
    waiting[0]?.give({ revision: 1 });
    await settle();
    void reading.set({ revision: 2 });
    expect(reading.data.value?.revision).toBe(2);
    await settle();
    expect(mounted.text()).toBe('2');
    expect(read).toHaveBeenCalledTimes(1);
  });

  it('never shows what was read before a write, whenever its answer comes', async () => {
    for (const late of ['before', 'between', 'after'] as const) {
      open();
      waiting.shift()?.give({ revision: 1 });
      await settle();
      void reading.refetch();
      await settle();
      const old = waiting.shift();
      if (late === 'before') old?.give({ revision: 1 });
      const writing = reading.set({ revision: 2 });
      if (late === 'between') old?.give({ revision: 1 });
      await writing;
      if (late === 'after') old?.give({ revision: 1 });
      await settle();
      expect(reading.data.value?.revision, late).toBe(2);
      expect(mounted.text(), late).toBe('2');
      mounted.unmount();
      queries.clear();
    }
    open();
  });

  it('takes what is read after a write', async () => {
    open();
    waiting.shift()?.give({ revision: 1 });
    await settle();
    await reading.set({ revision: 2 });
    void reading.refetch();
    await settle();
    waiting.shift()?.give({ revision: 3 });
    await settle();
    expect(mounted.text()).toBe('3');
  });

  it('reads anew after a write that says nothing of the new state', async () => {
    open();
    waiting.shift()?.give({ revision: 1 });
    await settle();
    const writing = reading.set(undefined);
    await settle();
    expect(read).toHaveBeenCalledTimes(2);
    waiting.shift()?.give({ revision: 2 });
    await writing;
    await settle();
    expect(mounted.text()).toBe('2');
  });

  it('is kept on the device, and shown from there while the server is away', async () => {
    open('kept:thing');
    waiting.shift()?.give({ revision: 4 });
    await vi.waitFor(async () => expect(await loadLocal('kept:thing')).toEqual({ revision: 4 }));
    mounted.unmount();
    queries.clear();
    open('kept:thing');
    waiting.shift()?.fail(new Problem(0, 'away', 'The server cannot be reached.'));
    await vi.waitFor(() => expect(mounted.text()).toBe('4'));
    expect(reading.error.value).toBeNull();
  });

  it('says what went wrong where nothing was kept, or where the server answered', async () => {
    open('kept:nothing');
    waiting.shift()?.fail(new Problem(503, 'away', 'The server cannot be reached.'));
    await vi.waitFor(() => expect(reading.error.value?.message).toBe('The server cannot be reached.'));
    mounted.unmount();
    queries.clear();
    await saveLocal('kept:other', { revision: 9 });
    open('kept:other');
    waiting.shift()?.fail(new Problem(404, 'not-found', 'There is no such entry.'));
    await vi.waitFor(() => expect(reading.error.value?.message).toBe('There is no such entry.'));
    expect(mounted.text()).toBe('none');
  });
});
