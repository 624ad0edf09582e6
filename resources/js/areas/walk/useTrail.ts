import { computed, type Ref } from 'vue';
import { useRouter } from 'vue-router';
import { Problem, type Api } from '@/api/client';
import { useRead } from '@/offline/useRead';
import { mayRecord, session } from '@/areas/people/session';
import { entryWords, shownOf } from '@/kit/words';
import { outbox } from '@/offline/outbox';
import { packed } from '@/areas/walk/usePack';
import { nextEntry } from './nextEntry';
import { useStart } from './useStart';
import type { Walk } from './useWalk';
import { readTrail } from '@/areas/walk/queries';

/** The trail of my entries in the cycle of a walk, and the ways along it. */
export function useTrail(walk: Walk, project: Ref<string>) {
  const router = useRouter();
  const { start, problem } = useStart(project);
  const { view, open } = walk;
  const { data: trail } = useRead(
    'entry',
    () => ['trail', view.value?.cycle_key ?? '', view.value?.entry_id ?? ''],
    async () => {
      if (!view.value) throw new Problem(0, 'early', 'The attempt is not there yet.');
      return readTrail(view.value.cycle_key, view.value.entry_id);
    },
    () => (view.value ? `trail:${view.value.cycle_key}` : ''),
  );
  const mine = computed(() =>
    (trail.value ?? []).filter(
      (e) => e.assignee?.id === session.value?.user.id || e.id === view.value?.entry_id,
    ),
  );
  const marks = computed(() =>
    mine.value.map((e) => {
      const here = e.id === view.value?.entry_id && open.value;
      return {
        id: e.id,
        shown: here && view.value?.attempt.roll_up !== 'not_run' ? ('in_progress' as const) : shownOf(e),
        label: `${e.case_key} ${e.title}: ${entryWords(e)}`,
        group: e.configuration?.name ?? '',
      };
    }),
  );
  const walked = computed(() => mine.value.filter((e) => e.readiness === 'done').length);
  const left = computed(
    () =>
      mine.value.filter((e) => e.readiness !== 'done').reduce((sum, e) => sum + e.estimate_seconds, 0) * 1000,
  );
  async function jump(entryId: string): Promise<void> {
    if (entryId === view.value?.entry_id) return;
    const entry = trail.value?.find((e) => e.id === entryId);
    if (entry && entry.readiness === 'ready' && mayRecord(project.value)) await start(entry.id);
    else await router.push(`/${project.value}/entries/${entryId}`);
  }
  /** What was finished on this device and has not arrived yet: a trail read before still calls it ready. */
  const walkedHere = (): Set<string | undefined> =>
    new Set(outbox.commands.filter((a) => a.command.kind === 'finish').map((a) => a.entry));
  function nextReady(): Api['EntryLine'] | null {
    const walked = walkedHere();
    const here = view.value?.entry_id ?? null;
    return nextEntry(
      (trail.value ?? []).filter((e) => e.id === here || !walked.has(e.id)),
      session.value?.user.id ?? '',
      here,
      view.value?.policies.opening_takes ?? false,
    );
  }
  /** The next entry that was fetched beforehand and not walked here yet. */
  function nextPacked(): string | null {
    if (outbox.state.awaySince === null) return null;
    const walked = walkedHere();
    return (packed[project.value] ?? []).find((e) => e !== view.value?.entry_id && !walked.has(e)) ?? null;
  }
  /** On to the next: the next in order whatever it shows, or the next that can be walked. */
  async function finished(after: Api['PolicySet']['after_finishing']): Promise<void> {
    if (after === 'stay') return;
    const at = mine.value.findIndex((e) => e.id === view.value?.entry_id);
    const to = after === 'next_in_order' ? mine.value[at + 1] : nextReady();
    // Without the server the cycle may not be known here: on with what was fetched beforehand.
    const alone = to ? null : nextPacked();
    if (to) await jump(to.id);
    else if (alone !== null) await start(alone);
    else await router.push(`/${project.value}/today`);
  }
  function jumpBy(by: 1 | -1): void {
    const at = mine.value.findIndex((e) => e.id === view.value?.entry_id);
    const to = mine.value[at + by];
    if (to) void jump(to.id);
  }
  return { mine, marks, walked, left, jump, jumpBy, finished, problem };
}
