import { ref, type Ref } from 'vue';
import { errorMessage } from '@/api/client';
import { toast } from '@/kit/notices';

/**
 * Sends writes whose answer is the new state: it is handed on, and what was refused is said in `problem`.
 *
 * @param saved takes the new state
 */
export function useSaving<T>(saved: (now: T) => void): {
  problem: Ref<string>;
  /** Whether it was written; `words` are said then. */
  run: (work: () => Promise<T>, words: string) => Promise<boolean>;
} {
  const problem = ref('');
  return {
    problem,
    async run(work, words) {
      problem.value = '';
      try {
        saved(await work());
      } catch (error) {
        problem.value = errorMessage(error);
        return false;
      }
      toast(words);
      return true;
    },
  };
}
