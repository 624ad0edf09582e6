import { ref, type Ref } from 'vue';
import { errorMessage } from '@/api/client';
import { useLocalDraft } from './useLocalDraft';

/** What became of a line that was sent: it was taken, or why not. */
interface SentLine {
  line: number;
  text: string;
  problem: string | null;
}

/**
 * Many lines that are sent at once, kept on the device while they are written. Those that cannot be taken stay, each with why.
 *
 * @param send what the server makes of them, a line each
 */
export function useLines<F extends { text: string }>(
  key: Ref<string>,
  empty: () => F,
  send: (form: F) => Promise<SentLine[]>,
) {
  const { draft: form, clear } = useLocalDraft(key, empty);
  const refused = ref<SentLine[]>([]);
  const problem = ref('');
  const busy = ref(false);

  /** @returns how many were taken */
  async function go(): Promise<number> {
    problem.value = '';
    refused.value = [];
    busy.value = true;
    try {
      const lines = await send({ ...form.value });
      refused.value = lines.filter((l) => l.problem !== null);
      form.value.text = refused.value.map((l) => l.text).join('\n');
      if (form.value.text === '') await clear();
      return lines.length - refused.value.length;
    } catch (error) {
      problem.value = errorMessage(error);
      return 0;
    } finally {
      busy.value = false;
    }
  }
  return { form, refused, problem, busy, go };
}
