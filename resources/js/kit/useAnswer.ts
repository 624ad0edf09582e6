import { useQuery } from '@tanstack/vue-query';
import { computed, toValue, type ComputedRef, type MaybeRefOrGetter } from 'vue';
import { Problem } from '@/api/client';

/** What the server says to something that is being typed: always to its newest state, whichever answer comes last. */
export function useAnswer<T>(
  name: string,
  question: MaybeRefOrGetter<unknown>,
  ask: () => Promise<T>,
  enabled: () => boolean = () => true,
): { answer: ComputedRef<T | null>; refusal: ComputedRef<Problem | null>; asking: ComputedRef<boolean> } {
  const { data, error, isFetching } = useQuery<T, Error>({
    queryKey: computed(() => [name, toValue(question)]),
    queryFn: ask,
    enabled: computed(enabled),
    placeholderData: (before) => before,
    retry: false,
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });
  return {
    answer: computed(() => (enabled() && !error.value ? (data.value ?? null) : null)),
    refusal: computed(() => (error.value instanceof Problem ? error.value : null)),
    asking: computed(() => isFetching.value),
  };
}
