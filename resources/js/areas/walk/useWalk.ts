import { useQueryClient } from '@tanstack/vue-query';
import { computed, onBeforeUnmount, ref, watch, type ComputedRef, type Ref } from 'vue';
import { v7 as uuid7 } from 'uuid';
import { Problem, type Api } from '@/api/client';
import { useRead } from '@/offline/useRead';
import type { Source } from '@/areas/evidence/types';
import type { Command, QueuedCommand } from '@/offline/commands';
import { applyCommands, settleCommand } from './commands';
import { countedRounds } from './rollUp';
import type { StepVerdict, WalkView } from './types';
import { saveLocal, loadLocal } from '@/offline/device';
import { outbox } from '@/offline/outbox';
import { useClock } from './useClock';
import { readAttempt } from '@/areas/walk/queries';

/** A step of a round: its text, values filled in, and what was recorded of it. */
export type WalkStep = Api['StepText'] & { record: Api['StepRecord'] };

/** Whether a verdict was given to an older version of the case in which the step was the same. */
export const isCarried = (step: WalkStep): boolean =>
  step.record.verdict !== 'not_run' &&
  !!step.carried_at &&
  !!step.record.judged_at &&
  step.record.judged_at < step.carried_at;
/** What stands behind a verdict, beside the verdict itself. */
export interface Words {
  happened?: string;
  reason?: string;
  waits_on?: string;
}

/** The state of one walk: what the server knows, what waits here, and which step of which round is lit. */
export function useWalk(id: Ref<string>) {
  const queries = useQueryClient();
  const {
    data: detail,
    error,
    refetch,
    set,
  } = useRead(
    'entry',
    () => ['attempt', id.value],
    async () => {
      try {
        return await readAttempt(id.value);
      } catch (problem) {
        // Begun on this device and not yet sent: only the device knows it.
        const here = await loadLocal<Api['AttemptDetail']>(`attempt:${id.value}`);
        const begun = outbox.commands.some((a) => a.attempt === id.value && a.command.kind === 'start');
        if (here && begun && problem instanceof Problem) return here;
        throw problem;
      }
    },
    () => `attempt:${id.value}`,
  );
  const view: ComputedRef<WalkView | null> = computed(() =>
    detail.value && detail.value.attempt.id === id.value
      ? applyCommands(
          detail.value,
          outbox.commands.filter((a) => a.attempt === id.value),
        )
      : null,
  );
  const rounds = computed(() => view.value?.rounds ?? []);
  const roundAt = ref(1);
  const round = computed(() => rounds.value.find((r) => r.position === roundAt.value) ?? null);
  /** The steps of a round as the tester reads them. */
  function stepsOf(of: Api['RoundRecord'] | null): WalkStep[] {
    const records = new Map(of?.steps.map((s) => [s.position, s]));
    const own = new Map(of?.texts.map((t) => [t.position, t]));
    return (view.value?.steps ?? []).flatMap((s) => {
      const record = records.get(s.position);
      return record ? [{ ...(own.get(s.position) ?? s), record }] : [];
    });
  }
  const steps: ComputedRef<WalkStep[]> = computed(() => stepsOf(round.value));
  const open = computed(() => view.value?.attempt.state === 'open');
  const clock = useClock(id, open);

  const lit = ref<number | null>(null);
  /** Of which attempt the light has its place: until then it is not known which step is lit. */
  const placed = ref('');
  const isOpen = (r: Api['RoundRecord']): boolean =>
    r.skipped === null && r.steps.some((s) => s.verdict === 'not_run');
  const firstOpen = (): number | null =>
    round.value && isOpen(round.value)
      ? (steps.value.find((s) => s.record.verdict === 'not_run')?.position ?? null)
      : null;
  // The lit step: where this device left it, else the first not run of the first round that has one.
  watch(
    [id, () => view.value === null],
    async () => {
      if (!view.value) return;
      const stored = await loadLocal<{ round: number; step: number } | number>(`lit:${id.value}`);
      const at = typeof stored === 'number' ? { round: 1, step: stored } : stored;
      const there = at && rounds.value.find((r) => r.position === at.round);
      roundAt.value = there
        ? there.position
        : ((countedRounds(rounds.value).find(isOpen) ?? countedRounds(rounds.value).at(-1))?.position ?? 1);
      lit.value = steps.value.find((s) => s.position === at?.step)?.position ?? firstOpen();
      placed.value = id.value;
    },
    { immediate: true },
  );
  function light(position: number | null, inRound: number = roundAt.value): void {
    roundAt.value = inRound;
    lit.value = position;
    void saveLocal(`lit:${id.value}`, { round: inRound, step: position ?? -1 });
  }
  function move(by: 1 | -1): void {
    const at = steps.value.findIndex((s) => s.position === lit.value);
    const to = lit.value === null ? (by < 0 ? steps.value.at(-1) : undefined) : steps.value[at + by];
    if (to) light(to.position);
    else if (by > 0) onwards();
  }
  /** After the last step: the next round that has something to walk, else the wrap-up. */
  function onwards(): void {
    const all = countedRounds(rounds.value);
    const at = all.findIndex((r) => r.position === roundAt.value);
    const next = [...all.slice(at + 1), ...all.slice(0, Math.max(at, 0))].find(isOpen);
    if (next) light(next.steps.find((s) => s.verdict === 'not_run')?.position ?? null, next.position);
    else light(null);
  }
  function toRound(position: number): void {
    const to = rounds.value.find((r) => r.position === position);
    if (to)
      light(
        to.steps.find((s) => s.verdict === 'not_run')?.position ?? to.steps[0]?.position ?? null,
        position,
      );
  }
  /** Pictures of this attempt that nobody looked over yet: they would come too late once it is finished. */
  const unlooked = computed(() => view.value?.evidence.filter((e) => e.held === true).length ?? 0);
  const current = computed(() => steps.value.find((s) => s.position === lit.value) ?? null);

  async function record(command: Command, held = false): Promise<void> {
    await outbox.add(id.value, command, view.value?.entry_id, held);
  }
  /** Records a verdict; the light moves on to the next step not run, unless it is to stay. */
  async function judge(step: WalkStep, verdict: StepVerdict, words: Words = {}, stay = false): Promise<void> {
    const inRound = roundAt.value;
    const writing = record({
      kind: 'verdict',
      round: inRound,
      step: step.position,
      verdict,
      ...words,
      active_ms: clock.take(),
    });
    const next =
      verdict === 'not_run' || stay
        ? step
        : steps.value.find((s) => s.position > step.position && s.record.verdict === 'not_run');
    // The light moves on while the verdict is being written on the device; it comes back if that fails.
    if (next) light(next.position, inRound);
    try {
      await writing;
    } catch (error) {
      light(step.position, inRound);
      throw error;
    }
    if (next) return;
    if (firstOpen() !== null) light(firstOpen());
    else onwards();
  }
  /** Judges several steps of the round at once; one word stands behind all of them. */
  async function judgeAll(positions: number[], verdict: StepVerdict, words: Words = {}): Promise<void> {
    for (const [i, step] of positions.entries())
      await record({
        kind: 'verdict',
        round: roundAt.value,
        step,
        verdict,
        ...words,
        active_ms: i === 0 ? clock.take() : 0,
      });
  }
  /** Attaches a file or a link; where secret values are walked with, a picture waits until it was looked over. */
  async function attach(
    what: Blob | string,
    name: string,
    source: Source,
    step: number | null = lit.value,
    round: number = roundAt.value,
  ): Promise<string> {
    const evidence = uuid7();
    let file = typeof what === 'string' ? null : what;
    let secret = false;
    if (file && view.value?.secret) {
      const { isText, maskFile, secretsOf } = await import('./mask');
      file = await maskFile(file, name, secretsOf(view.value.rounds));
      // What cannot be read through here is looked over by the tester.
      secret = /^(image|video)\//.test(file.type) || !(await isText(file));
    }
    await record(
      {
        kind: 'evidence',
        id: evidence,
        round: step === null ? null : round,
        step,
        name,
        source,
        file,
        ...(typeof what === 'string' ? { link: what } : {}),
      },
      secret,
    );
    return evidence;
  }

  // What the server has taken becomes part of what it knows here, before the act leaves the device.
  const stop = outbox.onSettled(async (settled: QueuedCommand, answer) => {
    if (settled.attempt !== id.value) return;
    const key = ['live', 'entry', 'attempt', id.value];
    // What is being read right now may be as it was before this act.
    await queries.cancelQueries({ queryKey: key });
    const before = queries.getQueryData<Api['AttemptDetail']>(key);
    if (!before) {
      void queries.invalidateQueries({ queryKey: key });
      return;
    }
    const after = settleCommand(before, settled, answer);
    queries.setQueryData(key, after);
    await saveLocal(`attempt:${id.value}`, after);
  });
  onBeforeUnmount(stop);

  return {
    id,
    view,
    steps,
    stepsOf,
    rounds,
    round,
    roundAt,
    toRound,
    open,
    lit,
    placed,
    light,
    move,
    onwards,
    current,
    unlooked,
    judge,
    judgeAll,
    record,
    attach,
    clock,
    error,
    refetch,
    set,
  };
}

export type Walk = ReturnType<typeof useWalk>;
