import { ref, type Ref } from 'vue';
import { useRouter } from 'vue-router';
import { v7 as uuid7 } from 'uuid';
import { Problem, type Api } from '@/api/client';
import { saveLocal, loadLocal } from '@/offline/device';
import { outbox } from '@/offline/outbox';
import { startAttempt } from '@/areas/walk/queries';

/** Starts or goes on with an entry, and opens its walk; while the server is away, with what was fetched beforehand. */
export function useStart(project: Ref<string>) {
  const router = useRouter();
  const problem = ref<Problem | null>(null);
  const busy = ref(false);

  /** Begins an attempt on the device alone; null when the entry was not fetched beforehand. */
  async function alone(entry: string): Promise<string | null> {
    const begun = outbox.commands.find((a) => a.command.kind === 'start' && a.command.entry === entry);
    if (begun) return begun.attempt;
    const pack = await loadLocal<Api['WalkPack']>(`pack:${project.value}`);
    const packed = pack?.entries.find((e) => e.entry_id === entry);
    if (!packed) {
      const open = await loadLocal<string>(`open:${entry}`);
      return open && (await loadLocal(`attempt:${open}`)) ? open : null;
    }
    const id = uuid7();
    const detail: Api['AttemptDetail'] = {
      ...packed.walk,
      attempt: { ...packed.walk.attempt, id, started_at: new Date().toISOString() },
    };
    if (!(await saveLocal(`attempt:${id}`, detail)))
      throw new Problem(
        507,
        'device-full',
        'The storage of this device is full, and the server does not answer. Free some space, then start again.',
      );
    await saveLocal(`earlier:${id}`, packed.earlier);
    await outbox.add(id, { kind: 'start', entry, version: packed.case_version_id }, entry);
    return id;
  }

  async function start(entry: string, options: { again?: boolean; word?: string } = {}): Promise<boolean> {
    if (busy.value) return false;
    busy.value = true;
    problem.value = null;
    try {
      const detail = await startAttempt(entry, options.again ?? false, options.word ?? null);
      await saveLocal(`attempt:${detail.attempt.id}`, detail);
      await saveLocal(`open:${entry}`, detail.attempt.id);
      await router.push(`/${project.value}/walk/${detail.attempt.id}`);
      return true;
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      let here: string | null;
      try {
        here = error.isAway && !options.again ? await alone(entry) : null;
      } catch (full) {
        if (!(full instanceof Problem)) throw full;
        problem.value = full;
        return false;
      }
      if (here) {
        outbox.sawServer(true);
        await router.push(`/${project.value}/walk/${here}`);
        return true;
      }
      problem.value = error.isAway
        ? new Problem(
            0,
            'away',
            'The server cannot be reached, and this entry was not fetched beforehand. Those marked as being on this device can be walked.',
          )
        : error;
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
