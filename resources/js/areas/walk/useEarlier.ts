import { computed, type ComputedRef, type Ref } from 'vue';
import type { Api } from '@/api/client';
import { useRead } from '@/offline/useRead';
import { loadLocal } from '@/offline/device';
import { readEarlier } from '@/areas/walk/queries';

/** What an earlier attempt recorded of one step. */
export interface Earlier {
  attempt: Api['AttemptSummary'];
  /** None where it recorded nothing here. */
  step: Api['EarlierStep'] | null;
  /** Steps it judged that stand here no more. */
  gone: number;
}

/**
 * The ended attempts of an entry, laid beside a newer one.
 *
 * @param id     the newer attempt
 * @param number its number; the first of an entry has none before it, and nothing is asked
 * @returns what each of them, the newest first, recorded of a step of a round
 */
export function useEarlier(
  id: Ref<string>,
  number: () => number,
): ComputedRef<(round: number, step: number) => Earlier[]> {
  const { data } = useRead(
    'entry',
    () => ['earlier', id.value, number() > 1],
    async () => {
      const attempt = id.value;
      if (number() < 2) return [];
      try {
        return await readEarlier(attempt);
      } catch (error) {
        // Begun on this device and not sent yet: they came with the entry.
        const here = await loadLocal<Api['EarlierAttempt'][]>(`earlier:${attempt}`);
        if (here) return here;
        throw error;
      }
    },
    () => `earlier:${id.value}`,
  );
  return computed(() => {
    const all = (data.value ?? []).map(({ attempt, gone, steps }) => ({
      attempt,
      gone,
      steps: new Map(steps.map((s) => [`${s.round}.${s.step}`, s])),
    }));
    return (round: number, step: number): Earlier[] =>
      all.map(({ attempt, gone, steps }) => ({
        attempt,
        gone,
        step: steps.get(`${round}.${step}`) ?? null,
      }));
  });
}
