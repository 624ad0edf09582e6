import { computed, type ComputedRef } from 'vue';
import { api, take, type Api } from '@/api/client';
import { useRead } from '@/kit/read';
import { kept } from './device';
import type { Walk } from './useWalk';

/** What an earlier attempt recorded of one step. */
export interface Earlier {
  attempt: Api['AttemptSummary'];
  /** None where it recorded nothing here. */
  step: Api['EarlierStep'] | null;
  /** Steps it judged that stand here no more. */
  gone: number;
}

/**
 * The ended attempts of the entry, laid beside this one.
 *
 * @returns what each of them, the newest first, recorded of a step in the round that is shown
 */
export function useEarlier(walk: Walk): ComputedRef<(step: number) => Earlier[]> {
  const { data } = useRead(
    'entry',
    () => ['earlier', walk.id.value],
    async () => {
      const id = walk.id.value;
      if ((walk.view.value?.attempt.number ?? 1) < 2) return [];
      try {
        return take(await api.GET('/attempts/{attempt}/earlier', { params: { path: { attempt: id } } }));
      } catch (error) {
        // Begun on this device and not sent yet: they came with the entry.
        const here = await kept<Api['EarlierAttempt'][]>(`earlier:${id}`);
        if (here) return here;
        throw error;
      }
    },
    () => `earlier:${walk.id.value}`,
  );
  return computed(() => {
    const round = walk.roundAt.value;
    const all = (data.value ?? []).map((a) => ({
      attempt: a.attempt,
      gone: a.gone,
      steps: new Map(a.steps.filter((s) => s.round === round).map((s) => [s.step, s])),
    }));
    return (step: number): Earlier[] =>
      all.map(({ attempt, gone, steps }) => ({ attempt, gone, step: steps.get(step) ?? null }));
  });
}
