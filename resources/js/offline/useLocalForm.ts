import { computed, ref, watch, type Ref } from 'vue';
import { removeLocal, saveLocal, loadLocal } from './device';

/** What is kept on the device while one writes: the form, and what it began from. */
interface Draft<F, B> {
  form: F;
  began: B;
  at: string;
}
const PAUSE_MS = 250;

/**
 * A form kept on the device at every pause and given back after a reload or a closed tab.
 *
 * @param place   the name it is kept under
 * @param content what a form says; two that say the same are the same
 * @param nothing what a form begins from before there is one
 */
export function useLocalForm<F extends object, B>(
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
  let timer: ReturnType<typeof setTimeout> | undefined;

  /** Shows what the server has, or the draft of this device when it says something else. */
  async function begin(server: F, from: B): Promise<void> {
    const draft = await loadLocal<Draft<F, B>>(place.value);
    clean.value = content(server);
    const mine = draft !== null && content(draft.form) !== clean.value;
    form.value = mine ? draft.form : server;
    began.value = mine ? draft.began : from;
    returned.value = mine ? draft.at : null;
    if (draft && !mine) await removeLocal(place.value);
  }
  async function saveNow(): Promise<void> {
    clearTimeout(timer);
    if (!form.value) return;
    if (!dirty.value) return removeLocal(place.value);
    const plain = JSON.parse(JSON.stringify({ form: form.value, began: began.value })) as Draft<F, B>;
    await saveLocal(place.value, { ...plain, at: new Date().toISOString() } satisfies Draft<F, B>);
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
    clearTimeout(timer);
    returned.value = null;
    await removeLocal(place.value);
  }
  /** What was sent is on the server now; what was typed since stays a draft. */
  async function saved(sent: string, from: B): Promise<void> {
    clean.value = sent;
    began.value = from;
    returned.value = null;
    if (!dirty.value) await discard();
  }
  return { form, began, dirty, returned, begin, saveNow, discard, saved };
}
