import { useInfiniteQuery } from '@tanstack/vue-query';
import { computed, toValue, type ComputedRef, type MaybeRefOrGetter } from 'vue';
import { Problem } from '@/api/client';
import type { Pages } from '@/kit/list';
import { loadLocal, saveLocal } from './device';
import type { Topic } from './useRead';

interface Page<T> {
  items: T[];
  next?: string | null | undefined;
  total?: number;
}

/**
 * Reads a list by the server's windows, and what is shown of it again when the change feed names its topic. With `keepAs`
 * the first window is kept on the device and shown while the server is away.
 *
 * @param read asks for the window that begins after the one before; empty: the first
 */
export function usePages<T, P extends Page<T> = Page<T>>(
  topic: Topic,
  key: MaybeRefOrGetter<unknown[]>,
  read: (after: string) => Promise<P & { items: T[] }>,
  keepAs?: MaybeRefOrGetter<string>,
): Pages<T> & { first: ComputedRef<P | undefined> } {
  const query = useInfiniteQuery<
    P & { items: T[] },
    Error,
    { pages: (P & { items: T[] })[] },
    unknown[],
    string
  >({
    queryKey: computed(() => ['live', topic, ...toValue(key)]),
    queryFn: async ({ pageParam, signal }) => {
      const name = pageParam === '' ? toValue(keepAs) : undefined;
      try {
        const fresh = await read(pageParam);
        if (name && !signal.aborted) await saveLocal(name, fresh);
        return fresh;
      } catch (error) {
        const away = error instanceof Problem && error.isAway;
        const old = name && away ? await loadLocal<P & { items: T[] }>(name) : null;
        // No more than the first window is kept.
        if (old !== null) return { ...old, next: null };
        throw error;
      }
    },
    initialPageParam: '',
    getNextPageParam: (last) => last.next ?? undefined,
    placeholderData: (before) => before,
  });
  const lines = computed<T[]>(() => query.data.value?.pages.flatMap((p) => p.items) ?? []);
  return {
    first: computed(() => query.data.value?.pages[0]),
    lines,
    total: computed(() => query.data.value?.pages[0]?.total ?? lines.value.length),
    more: () => {
      if (query.hasNextPage.value && !query.isFetchingNextPage.value) void query.fetchNextPage();
    },
    further: computed(() => query.hasNextPage.value),
    there: computed(() => query.data.value !== undefined),
    loading: computed(() => query.isPending.value),
    error: computed(() => query.error.value),
    refetch: () => void query.refetch(),
  };
}
