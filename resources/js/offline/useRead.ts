import { useQuery, useQueryClient, type UseQueryReturnType } from '@tanstack/vue-query';
import { computed, type MaybeRefOrGetter, toValue } from 'vue';
import { Problem } from '@/api/client';
import { saveLocal, loadLocal } from './device';

export type Topic = 'entry' | 'defect' | 'case' | 'cycle' | 'notice' | 'session' | 'observed' | 'requirement';

/**
 * Reads something from the server and keeps it current: it is read again when the change feed names one of
 * its topics. With `keepAs` the last answer is kept on the device and shown while the server is away.
 */
export function useRead<T>(
  topic: Topic | readonly Topic[],
  key: MaybeRefOrGetter<unknown[]>,
  read: () => Promise<T>,
  keepAs?: MaybeRefOrGetter<string>,
): UseQueryReturnType<T, Error> & { set: (fresh: T | undefined) => Promise<void> } {
  const queries = useQueryClient();
  const queryKey = computed(() => ['live', [topic].flat().join(' '), ...toValue(key)]);
  const query = useQuery<T, Error>({
    queryKey,
    queryFn: async ({ signal }) => {
      const name = toValue(keepAs);
      try {
        const fresh = await read();
        // An answer that nobody waits for any more is older than what is known.
        if (name && !signal.aborted) await saveLocal(name, fresh);
        return fresh;
      } catch (error) {
        const old = name && error instanceof Problem && error.isAway ? await loadLocal<T>(name) : null;
        if (old !== null) return old;
        throw error;
      }
    },
    placeholderData: (before) => before,
  });
  return Object.assign(query, {
    /** Takes the answer to a write, which carries the new state; without one the state is read anew. */
    async set(fresh: T | undefined) {
      const at = queryKey.value;
      const take = (): void => void (fresh !== undefined && queries.setQueryData(at, fresh));
      take();
      // What is being read right now is as it was before the write; breaking it off brings back what was known before it.
      await queries.cancelQueries({ queryKey: at });
      take();
      if (fresh === undefined) await query.refetch();
    },
  });
}
