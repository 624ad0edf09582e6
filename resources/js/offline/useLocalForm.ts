import { computed, ref, watch, type Ref } from 'vue';
import { removeLocal, saveLocal, loadLocal } from './device';

/** What is kept on the device while one writes: the form, and what it began from. */
interface Draft<F, B> {
  form: F;
  began: B;
  at: string;
}
const PAUSE_MS = 250;

/** What a form began from: the revision the server had then. */
interface Began {
  revision: number;
}

/**
 * A form kept on the device at every pause and given back after a reload or a closed tab.
 *
 * @param place   the name it is kept under
 * @param content what a form says; two that say the same are the same
 * @param nothing what a form begins from before there is one
 */
export function useLocalForm<F extends object, B extends Began>(
  place: Ref<string>,
  content: (form: F) => string,
  nothing: B,
) {
  const form = ref<F | null>(null) as Ref<F | null>;
  const began = ref(nothing) as Ref<B>;
  const clean = ref('');
  /** Since when a draft waits that was given back. */
  const returned = ref<string | null>(null);
  const dirty = computed(() => form.value !== null && content(form.value) !== clean.value);
  /** The name that what is on the page is kept under: the page's, once what belongs there is on it. */
  let under = '';
  let timer: ReturnType<typeof setTimeout> | undefined;

  /** Shows what the server has, or the draft of this device when it says something else. */
  async function begin(server: F, from: B): Promise<void> {
    const at = place.value;
    if (timer) await saveNow();
    const draft = await loadLocal<Draft<F, B>>(at);
    if (at !== place.value) return;
    stop();
    under = at;
    clean.value = content(server);
    const mine = draft !== null && content(draft.form) !== clean.value;
    // What says the same stays as it is, with the caret in it.
    if (mine) form.value = draft.form;
    else if (!form.value || dirty.value) form.value = server;
    began.value = mine ? draft.began : from;
    returned.value = mine ? draft.at : null;
    if (draft && !mine) await removeLocal(at);
  }
  /** The server answered: what is newer is shown, unless one is writing. An answer from before the last save changes nothing. */
  async function arrived(server: F, from: B): Promise<void> {
    if (under !== place.value) await begin(server, from);
    else if (!dirty.value && from.revision > began.value.revision) await begin(server, from);
  }
  function stop(): void {
    clearTimeout(timer);
    timer = undefined;
  }
  async function saveNow(): Promise<void> {
    stop();
    if (!form.value) return;
    if (!dirty.value) return removeLocal(under);
    const plain = JSON.parse(JSON.stringify({ form: form.value, began: began.value })) as Draft<F, B>;
    await saveLocal(under, { ...plain, at: new Date().toISOString() } satisfies Draft<F, B>);
  }
  watch(
    form,
    () => {
      clearTimeout(timer);
      timer = setTimeout(() => void saveNow(), PAUSE_MS);
    },
    { deep: true },
  );
  /** Forgets the draft; what is on the page stays. */
  async function discard(): Promise<void> {
    stop();
    returned.value = null;
    await removeLocal(under);
  }
  /**
   * What was sent is on the server now; what was typed since stays a draft.
   *
   * @param now the name it is kept under from here on, where saving gave it another
   */
  async function saved(sent: string, from: B, now = under): Promise<void> {
    const before = under;
    under = now;
    clean.value = sent;
    began.value = from;
    returned.value = null;
    if (before !== now) await removeLocal(before);
    if (dirty.value) await saveNow();
    else await discard();
  }
  return { form, began, dirty, returned, begin, arrived, saveNow, discard, saved };
}
