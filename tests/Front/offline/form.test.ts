// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { h, ref, type Ref } from 'vue';
import { freshDevice } from '../support/person';

interface Text {
  title: string;
}
interface Began {
  revision: number;
}
interface Desk {
  place: Ref<string>;
  form: Ref<Text | null>;
  began: Ref<Began>;
  dirty: Ref<boolean>;
  returned: Ref<string | null>;
  arrived: (server: Text, from: Began) => Promise<void>;
  saved: (sent: string, from: Began, now?: string) => Promise<void>;
  discard: () => Promise<void>;
}
const pages: VueWrapper[] = [];
const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const says = (title: string): string => JSON.stringify({ title });

/** A page with a form that begins anew; the device keeps what it has. */
async function desk(of: string): Promise<Desk> {
  vi.resetModules();
  const { useLocalForm } = await import('@/offline/useLocalForm');
  const place = ref(of);
  let made: Omit<Desk, 'place'> | null = null;
  pages.push(
    mount({
      setup() {
        made = useLocalForm<Text, Began>(place, (f) => JSON.stringify(f), { revision: 0 });
        return () => h('p');
      },
    }),
  );
  return { ...made!, place };
}
async function kept(place: string): Promise<string | null> {
  const { loadLocal } = await import('@/offline/device');
  return (await loadLocal<{ form: Text }>(place))?.form.title ?? null;
}
const write = (d: Desk, title: string): void => void (d.form.value!.title = title);

beforeEach(() => freshDevice());
afterEach(() => pages.splice(0).forEach((p) => p.unmount()));

describe('a document being written', () => {
  it('takes what is newer, and nothing that was answered before the last save', async () => {
    const d = await desk('draft:case:A');
    await d.arrived({ title: 'one' }, { revision: 1 });
    write(d, 'two');
    await d.saved(says('two'), { revision: 2 });
    await d.arrived({ title: 'one' }, { revision: 1 });
    expect([d.form.value?.title, d.began.value.revision]).toEqual(['two', 2]);
    await d.arrived({ title: 'three' }, { revision: 3 });
    expect([d.form.value?.title, d.began.value.revision]).toEqual(['three', 3]);
  });

  it('is not drawn anew by an answer that says the same, so that the caret stays', async () => {
    const d = await desk('draft:case:A');
    await d.arrived({ title: 'one' }, { revision: 1 });
    const there = d.form.value;
    await d.arrived({ title: 'one' }, { revision: 2 });
    expect(d.form.value).toBe(there);
    expect(d.began.value.revision).toBe(2);
  });

  it('is never written over while one writes', async () => {
    const d = await desk('draft:case:A');
    await d.arrived({ title: 'one' }, { revision: 1 });
    write(d, 'mine');
    await d.arrived({ title: 'theirs' }, { revision: 2 });
    expect([d.form.value?.title, d.began.value.revision]).toEqual(['mine', 1]);
  });

  it('keeps what was typed while it was made, under the name it got', async () => {
    const d = await desk('draft:case:new');
    await d.arrived({ title: '' }, { revision: 0 });
    write(d, 'Dogs');
    await wait(300);
    write(d, 'Dogs travel free');
    await d.saved(says('Dogs'), { revision: 1 }, 'draft:case:A');
    d.place.value = 'draft:case:A';
    await d.arrived({ title: 'Dogs' }, { revision: 1 });
    expect([d.form.value?.title, d.dirty.value]).toEqual(['Dogs travel free', true]);
    expect([await kept('draft:case:new'), await kept('draft:case:A')]).toEqual([null, 'Dogs travel free']);
  });

  it('keeps what was typed since it was sent, through a reload', async () => {
    const d = await desk('draft:case:A');
    await d.arrived({ title: 'one' }, { revision: 1 });
    write(d, 'two and more');
    await d.saved(says('two'), { revision: 2 });
    const again = await desk('draft:case:A');
    await again.arrived({ title: 'two' }, { revision: 2 });
    expect([again.form.value?.title, again.began.value.revision]).toEqual(['two and more', 2]);
    expect(again.returned.value).not.toBeNull();
  });

  it('is kept under its own name when one goes on to another at once', async () => {
    const d = await desk('draft:case:A');
    await d.arrived({ title: 'one' }, { revision: 1 });
    write(d, 'half a thought');
    d.place.value = 'draft:case:B';
    await wait(0);
    await d.arrived({ title: 'other' }, { revision: 7 });
    expect(d.form.value?.title).toBe('other');
    await wait(300);
    expect([await kept('draft:case:A'), await kept('draft:case:B')]).toEqual(['half a thought', null]);
  });

  it('leaves nothing behind once it was dropped', async () => {
    const d = await desk('draft:case:A');
    await d.arrived({ title: 'one' }, { revision: 1 });
    write(d, 'mistake');
    await wait(0);
    await d.discard();
    d.place.value = 'draft:case:B';
    await d.arrived({ title: 'other' }, { revision: 7 });
    await wait(300);
    expect(await kept('draft:case:A')).toBeNull();
  });
});
