import { ref, watch, type Ref } from 'vue';
import { removeLocal, saveLocal, loadLocal } from './device';

/** What is being typed, by key; it counts where the device has no room for it. */
const typed = new Map<string, object>();

/** A text that survives reload, crash and leaving: kept on the device while it is typed. */
export function useLocalDraft<T extends object>(
  key: Ref<string>,
  empty: () => T,
): { draft: Ref<T>; clear: () => Promise<void> } {
  const draft = ref(empty()) as Ref<T>;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let timed = '';
  let loading = false;
  watch(
    key,
    async (now) => {
      loading = true;
      draft.value = empty();
      const before = empty();
      const stored = (typed.get(now) as T | undefined) ?? (await loadLocal<T>(`draft:${now}`));
      if (key.value !== now) return;
      loading = false;
      // What was typed before it was there counts, field by field; the rest is as it was kept.
      const said = (of: T, field: keyof T): string => JSON.stringify(of[field]);
      const fields = Object.keys(draft.value) as (keyof T)[];
      const typedNow = fields.filter((f) => said(draft.value, f) !== said(before, f));
      draft.value = {
        ...empty(),
        ...stored,
        ...Object.fromEntries(typedNow.map((f) => [f, draft.value[f]])),
      };
    },
    { immediate: true },
  );
  // Only what differs from what stands there anyway is kept: else it would hide what another device changes later.
  watch(
    () => [key.value, JSON.stringify(draft.value), JSON.stringify(empty())] as const,
    ([at, now, none]) => {
      if (loading) return;
      if (timed === at) clearTimeout(timer);
      timed = at;
      if (now === none) {
        typed.delete(at);
        timer = setTimeout(() => void removeLocal(`draft:${at}`), 150);
        return;
      }
      const value = JSON.parse(now) as T;
      typed.set(at, value);
      timer = setTimeout(() => void saveLocal(`draft:${at}`, value), 150);
    },
  );
  return {
    draft,
    async clear() {
      clearTimeout(timer);
      draft.value = empty();
      typed.delete(key.value);
      await removeLocal(`draft:${key.value}`);
      clearTimeout(timer);
      typed.delete(key.value);
    },
  };
}
