// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { h, ref, type Ref } from 'vue';
import { freshDevice } from '../support/person';

interface Text {
  note: string;
  verdict: string;
}
interface Form {
  draft: Ref<Text>;
  clear: () => Promise<void>;
  key: Ref<string>;
  stands: Ref<Text>;
  page: VueWrapper;
}
const forms: Form[] = [];
const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** A form on a page that begins anew; the device keeps what it has. */
async function form(of = 'a.1', stands: Text = { note: '', verdict: '' }, fresh = true): Promise<Form> {
  if (fresh) vi.resetModules();
  const { useLocalDraft } = await import('@/offline/useLocalDraft');
  const key = ref(of);
  const there = ref(stands);
  let made: { draft: Ref<Text>; clear: () => Promise<void> } | null = null;
  const page = mount({
    setup() {
      made = useLocalDraft<Text>(key, () => ({ ...there.value }));
      return () => h('p');
    },
  });
  const all = { ...made!, key, stands: there, page };
  forms.push(all);
  await wait(20);
  return all;
}
async function onDevice(): Promise<string[]> {
  const { device } = await import('@/offline/device');
  return (await (await device()).getAllKeys('kept')).filter((k) => k.startsWith('draft:'));
}

beforeEach(() => freshDevice());
afterEach(() => {
  for (const { page } of forms.splice(0)) page.unmount();
});

describe('what is being typed', () => {
  it('is there again after a crash, a moment after it was typed', async () => {
    const before = await form();
    before.draft.value.note = 'The total is wr';
    await wait(200);
    const after = await form();
    expect(after.draft.value).toEqual({ note: 'The total is wr', verdict: '' });
  });

  it('is kept for each form apart', async () => {
    const one = await form('a.1');
    one.draft.value.note = 'first';
    await wait(200);
    const two = await form('a.2');
    expect(two.draft.value.note).toBe('');
    two.draft.value.note = 'second';
    await wait(200);
    expect((await form('a.1')).draft.value.note).toBe('first');
    expect((await form('a.2')).draft.value.note).toBe('second');
  });

  it('follows the form to another step and back', async () => {
    const here = await form('a.1');
    here.draft.value.note = 'first';
    await wait(200);
    here.key.value = 'a.2';
    await wait(40);
    expect(here.draft.value.note).toBe('');
    here.key.value = 'a.1';
    await wait(40);
    expect(here.draft.value.note).toBe('first');
  });

  it('is forgotten once it was recorded', async () => {
    const here = await form();
    here.draft.value.note = 'done with it';
    await wait(200);
    expect(await onDevice()).toEqual(['draft:a.1']);
    await here.clear();
    await wait(200);
    expect(await onDevice()).toEqual([]);
    expect((await form()).draft.value.note).toBe('');
  });

  it('is not kept where it says what stands there anyway', async () => {
    const here = await form('a.1', { note: 'Seen twice', verdict: 'pass' });
    expect(here.draft.value.note).toBe('Seen twice');
    here.draft.value.note = 'Seen thrice';
    await wait(200);
    expect(await onDevice()).toHaveLength(1);
    here.draft.value.note = 'Seen twice';
    await wait(200);
    expect(await onDevice()).toHaveLength(0);
  });

  it('counts before what the device kept, when it was typed before that was read', async () => {
    const before = await form();
    before.draft.value.note = 'older';
    before.draft.value.verdict = 'fail';
    await wait(200);
    vi.resetModules();
    const { useLocalDraft } = await import('@/offline/useLocalDraft');
    let quick: Ref<Text> | null = null;
    const page = mount({
      setup() {
        const made = useLocalDraft<Text>(ref('a.1'), () => ({ note: '', verdict: '' }));
        quick = made.draft;
        // The first key comes before the device has answered.
        made.draft.value.note = 'n';
        return () => h('p');
      },
    });
    await wait(60);
    expect(quick!.value, 'the fields that were not typed in are as they were kept').toEqual({
      note: 'n',
      verdict: 'fail',
    });
    quick!.value.note = 'newer';
    await wait(200);
    page.unmount();
    expect((await form()).draft.value.note).toBe('newer');
  });

  it('is never another form’s, however quickly one moves', async () => {
    const here = await form('s.0');
    let seed = 3;
    const typed: Record<string, string> = {};
    for (let n = 0; n < 30; n += 1) {
      seed = (seed * 1664525 + 1013904223) % 4294967296;
      const key = `s.${seed % 4}`;
      here.key.value = key;
      await wait(seed % 3 === 0 ? 30 : 12);
      if (here.draft.value.note !== (typed[key] ?? '')) {
        expect(here.draft.value.note, `of ${key} after ${n}`).toBe(typed[key] ?? '');
      }
      here.draft.value.note = typed[key] = `${key} ${n}`;
      await wait(seed % 2 === 0 ? 4 : 170);
    }
    await wait(250);
    for (const [key, text] of Object.entries(typed)) {
      const again = await form(key);
      expect(again.draft.value.note, key).toBe(text);
    }
  });
});
