import { useQueryClient } from '@tanstack/vue-query';
import { computed, onBeforeUnmount, ref, watch, type ComputedRef, type Ref } from 'vue';
import { v7 as uuid7 } from 'uuid';
import { api, take, type Api } from '@/api/client';
import { useRead } from '@/kit/read';
import { applyActs, type Act, type Deed, type StepVerdict, type WalkView } from './acts';
import { keep, kept } from './device';
import { outbox } from './outbox';
import { useClock } from './useClock';

/** A step of the attempt: its text and what was recorded of it. */
export type WalkStep = Api['StepText'] & { record: Api['StepRecord'] };

/** The state of one walk: what the server knows, what waits here, and which step is lit. */
export function useWalk(id: Ref<string>) {
  const queries = useQueryClient();
  const {
    data: detail,
    error,
    refetch,
  } = useRead(
    'entry',
    () => ['attempt', id.value],
    async () => take(await api.GET('/attempts/{attempt}', { params: { path: { attempt: id.value } } })),
    () => `attempt:${id.value}`,
  );
  const view: ComputedRef<WalkView | null> = computed(() =>
    detail.value && detail.value.attempt.id === id.value
      ? applyActs(
          detail.value,
          outbox.acts.filter((a) => a.attempt === id.value),
        )
      : null,
  );
  const round = computed(() => view.value?.rounds[0] ?? null);
  const steps: ComputedRef<WalkStep[]> = computed(() => {
    const records = new Map(round.value?.steps.map((s) => [s.position, s]));
    return (view.value?.steps ?? []).flatMap((s) => {
      const record = records.get(s.position);
      return record ? [{ ...s, record }] : [];
    });
  });
  const open = computed(() => view.value?.attempt.state === 'open');
  const clock = useClock(id, open);

  // The lit step: where this device left it, else the first not run.
  const lit = ref<number | null>(null);
  const firstOpen = (): number | null =>
    steps.value.find((s) => s.record.verdict === 'not_run')?.position ?? null;
  watch(
    [id, () => view.value === null],
    async () => {
      if (!view.value) return;
      const stored = await kept<number>(`lit:${id.value}`);
      const storedStep = steps.value.find((s) => s.position === stored);
      lit.value = storedStep ? storedStep.position : (firstOpen() ?? null);
    },
    { immediate: true },
  );
  function light(position: number | null): void {
    lit.value = position;
    void keep(`lit:${id.value}`, position ?? -1);
  }
  function move(by: 1 | -1): void {
    const at = steps.value.findIndex((s) => s.position === lit.value);
    const to = lit.value === null ? (by < 0 ? steps.value.at(-1) : undefined) : steps.value[at + by];
    if (to) light(to.position);
    else if (by > 0) light(null);
  }
  const current = computed(() => steps.value.find((s) => s.position === lit.value) ?? null);

  async function act(deed: Deed): Promise<void> {
    await outbox.add(id.value, deed);
  }
  /** Records a verdict; the light moves on to the next step not run, unless it is to stay. */
  async function judge(
    step: WalkStep,
    verdict: StepVerdict,
    words: { happened?: string; reason?: string; waits_on?: string } = {},
    stay = false,
  ): Promise<void> {
    await act({ kind: 'verdict', round: 1, step: step.position, verdict, ...words, active_ms: clock.take() });
    if (verdict === 'not_run' || stay) light(step.position);
    else {
      const next = steps.value.find((s) => s.position > step.position && s.record.verdict === 'not_run');
      light(next?.position ?? firstOpen());
    }
  }
  async function attach(
    file: Blob,
    name: string,
    source: 'paste' | 'drop' | 'file',
    step: number | null,
  ): Promise<void> {
    await act({ kind: 'evidence', id: uuid7(), round: step === null ? null : 1, step, name, source, file });
  }

  // What the server has taken becomes part of what it knows here, before the act leaves the device.
  const stop = outbox.onSettled(async (settled: Act, answer) => {
    if (settled.attempt !== id.value) return;
    const key = ['live', 'entry', 'attempt', id.value];
    await queries.cancelQueries({ queryKey: key });
    const before = queries.getQueryData<Api['AttemptDetail']>(key);
    if (!before) return;
    const after = settle(before, settled, answer);
    queries.setQueryData(key, after);
    await keep(`attempt:${id.value}`, after);
  });
  onBeforeUnmount(stop);

  return { view, steps, round, open, lit, light, move, current, judge, act, attach, clock, error, refetch };
}

function settle(
  before: Api['AttemptDetail'],
  act: Act,
  answer: Record<string, unknown>,
): Api['AttemptDetail'] {
  const { waiting: _, ...applied } = applyActs(before, [act]);
  const evidence = applied.evidence.map(({ local: _local, refused: _refused, ...e }) => e);
  if (act.deed.kind === 'evidence' && answer.evidence) {
    const saved = answer.evidence as Api['EvidenceItem'];
    return { ...applied, evidence: evidence.map((e) => (e.id === saved.id ? saved : e)) };
  }
  if (act.deed.kind === 'defect' && answer.defect) {
    const filed = answer.defect as Api['DefectLine'];
    return {
      ...applied,
      evidence,
      defects: applied.defects.map((d) =>
        d.id === filed.id ? { ...d, key: filed.key, state: filed.state } : d,
      ),
    };
  }
  return { ...applied, evidence };
}
export type Walk = ReturnType<typeof useWalk>;
