import { ref, type Ref } from 'vue';
import { useRouter } from 'vue-router';
import { api, Problem, take } from '@/api/client';
import { keep } from './device';

/** Starts or goes on with an entry, and opens its walk. */
export function useStart(project: Ref<string>) {
  const router = useRouter();
  const problem = ref<Problem | null>(null);
  const busy = ref(false);
  async function start(entry: string, options: { again?: boolean; word?: string } = {}): Promise<boolean> {
    if (busy.value) return false;
    busy.value = true;
    problem.value = null;
    try {
      const detail = take(
        await api.POST('/entries/{entry}/attempts', {
          params: { path: { entry } },
          body: {
            again: options.again ?? false,
            word: options.word ?? null,
            device_time: new Date().toISOString(),
            sent_at: new Date().toISOString(),
          },
        }),
      );
      await keep(`attempt:${detail.attempt.id}`, detail);
      await router.push(`/${project.value}/walk/${detail.attempt.id}`);
      return true;
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      problem.value = error;
      // A warned entry asks for a word of why, on its own page.
      if (error.errors.word && options.word === undefined)
        await router.push(`/${project.value}/entries/${entry}`);
      return false;
    } finally {
      busy.value = false;
    }
  }
  return { start, problem, busy };
}
