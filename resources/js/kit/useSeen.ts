import { ref, watch, type Ref } from 'vue';
import { Problem } from '@/api/client';

/** The state as it is now, where a refusal told it. */
export function seenNow(error: unknown): string | undefined {
  return error instanceof Problem && typeof error.facts.seen === 'string' ? error.facts.seen : undefined;
}

/**
 * Sends what replaces something whole together with the state that the form began from, so that nobody's change is
 * overwritten unseen. A refusal tells the state as it is now: whoever saves again after that has been told.
 *
 * @param now the fingerprint of the server's state, as the page knows it
 * @param dirty whether something is typed: the state stays that from which it was
 * @returns sends a write with the state, and throws what it throws
 */
export function useSeen(
  now: () => string,
  dirty: Ref<boolean>,
): <T>(write: (seen: string) => Promise<T>) => Promise<T> {
  const seen = ref(now());
  watch([now, dirty], () => {
    if (!dirty.value) seen.value = now();
  });
  return async (write) => {
    try {
      return await write(seen.value);
    } catch (error) {
      seen.value = seenNow(error) ?? seen.value;
      throw error;
    }
  };
}
