import { onBeforeUnmount, onMounted, ref, watch, type Ref } from 'vue';
import type { Api } from '@/api/client';
import { sayPresence } from '@/areas/casebook/queries';

const EVERY_MS = 15_000;

/**
 * Tells the others that one writes in a case, and who else does.
 *
 * @param key of the case; null while it is not made yet
 */
export function usePresence(
  key: Ref<string | null>,
  writing: Ref<boolean>,
  detail: Ref<Api['CaseDetail'] | null | undefined>,
): Ref<Api['Person'][]> {
  const others = ref<Api['Person'][]>([]);
  let timer: ReturnType<typeof setInterval> | undefined;
  async function here(): Promise<void> {
    if (!key.value || !writing.value || document.hidden) return;
    try {
      others.value = (await sayPresence(key.value)).others;
    } catch {
      // Nothing depends on it.
    }
  }
  watch(writing, (now) => now && void here());
  watch(detail, (now) => (others.value = now?.others ?? []));
  onMounted(() => (timer = setInterval(() => void here(), EVERY_MS)));
  onBeforeUnmount(() => clearInterval(timer));
  return others;
}
