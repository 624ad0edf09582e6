import { ref, watch, type Ref } from 'vue';
import { forget, keep, kept } from './device';

/** A text that survives reload, crash and leaving: kept on the device while it is typed. */
export function useDraft<T extends object>(
  key: Ref<string>,
  empty: () => T,
): { draft: Ref<T>; clear: () => Promise<void> } {
  const draft = ref(empty()) as Ref<T>;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let loading = false;
  watch(
    key,
    async (now) => {
      loading = true;
      const stored = await kept<T>(`draft:${now}`);
      if (key.value === now) draft.value = { ...empty(), ...stored };
      loading = false;
    },
    { immediate: true },
  );
  watch(
    draft,
    (now) => {
      if (loading) return;
      clearTimeout(timer);
      const at = `draft:${key.value}`;
      const value = JSON.parse(JSON.stringify(now)) as T;
      timer = setTimeout(() => void keep(at, value), 150);
    },
    { deep: true },
  );
  return {
    draft,
    async clear() {
      clearTimeout(timer);
      draft.value = empty();
      await forget(`draft:${key.value}`);
      clearTimeout(timer);
    },
  };
}
