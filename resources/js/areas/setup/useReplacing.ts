import { ref, type Ref } from 'vue';
import { Problem } from '@/api/client';
import { toast } from '@/kit/notices';
import { useSeen } from '@/kit/useSeen';

/**
 * Replaces a part of the setup whole: with the state that was seen, and what is refused stays in `problem`.
 *
 * @param seen the state as the page knows it
 * @param dirty whether something is typed
 * @param follow takes what the server has once the page knows it
 * @param saved takes the new state
 */
export function useReplacing<T>(
  seen: () => string,
  dirty: Ref<boolean>,
  follow: () => Promise<void>,
  saved: (now: T) => void,
): {
  problem: Ref<Problem | null>;
  replace: (write: (seen: string) => Promise<T>, words: string) => Promise<void>;
} {
  const send = useSeen(seen, dirty);
  const problem = ref<Problem | null>(null);
  return {
    problem,
    async replace(write, words) {
      problem.value = null;
      try {
        saved(await send(write));
        await follow();
        toast(words);
      } catch (error) {
        if (!(error instanceof Problem)) throw error;
        problem.value = error;
      }
    },
  };
}
