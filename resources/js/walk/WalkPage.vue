<script setup lang="ts">
import Button from 'primevue/button';
import { computed, nextTick, onBeforeUnmount, onMounted, ref, toRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, Problem, take, type Api } from '@/api/client';
import { isTyping, useKeys } from '@/kit/keys';
import MarkdownText from '@/kit/MarkdownText.vue';
import PathTrail from '@/kit/PathTrail.vue';
import { useRead } from '@/kit/read';
import { session } from '@/kit/session';
import StateBox from '@/kit/StateBox.vue';
import { clock as clockWords, entryWords, length, plural, shownOf } from '@/kit/words';
import DefectPanel from './DefectPanel.vue';
import LitStep from './LitStep.vue';
import StepLine from './StepLine.vue';
import { useStart } from './useStart';
import { useWalk } from './useWalk';
import WalkTray from './WalkTray.vue';
import WrapUp from './WrapUp.vue';

const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const id = toRef(() => String(route.params.attempt));
const walk = useWalk(id);
const { view, steps, lit, current, open } = walk;
const { start, problem: startProblem } = useStart(project);

const { data: board } = useRead(
  'entry',
  () => ['board', view.value?.cycle_key ?? ''],
  async () => {
    if (!view.value) throw new Problem(0, 'early', 'The attempt is not there yet.');
    return take(await api.GET('/cycles/{cycle}', { params: { path: { cycle: view.value.cycle_key } } }));
  },
  () => (view.value ? `board:${view.value.cycle_key}` : ''),
);
const mine = computed(() =>
  (board.value?.entries ?? []).filter(
    (e) => e.assignee?.id === session.value?.user.id || e.id === view.value?.entry_id,
  ),
);
const marks = computed(() =>
  mine.value.map((e) => {
    const here = e.id === view.value?.entry_id;
    const shown =
      here && open.value
        ? walk.steps.value.some((s) => s.record.verdict !== 'not_run')
          ? 'in_progress'
          : shownOf(e)
        : shownOf(e);
    return {
      id: e.id,
      shown,
      label: `${e.case_key} ${e.title}: ${entryWords(e)}`,
      group: e.configuration?.name ?? '',
    };
  }),
);
const walked = computed(() => mine.value.filter((e) => e.readiness === 'done').length);
const left = computed(
  () =>
    mine.value
      .filter((e) => e.readiness !== 'done')
      .reduce((sum, e) => sum + (e.estimate_seconds ?? 120), 0) * 1000,
);
const notMine = computed(
  () => open.value && view.value !== null && view.value.attempt.tester.id !== session.value?.user.id,
);
const total = computed(() =>
  view.value
    ? (view.value.attempt.corrected_ms ?? view.value.attempt.active_ms) +
      (open.value ? walk.clock.since.value : 0)
    : 0,
);

const behind = computed(() => steps.value.filter((s) => lit.value === null || s.position < lit.value));
const ahead = computed(() => steps.value.filter((s) => lit.value !== null && s.position > lit.value));
const litStep = ref<InstanceType<typeof LitStep> | null>(null);
const drafting = ref<number | null | undefined>(undefined);
const files = ref<HTMLInputElement | null>(null);
const dropping = ref(false);
const title = ref<HTMLElement | null>(null);
const narrow = window.innerWidth <= 640;

watch(id, () => (drafting.value = undefined));
watch(
  () => view.value?.title,
  (now) => {
    if (now) document.title = `${now} – Lucid Step`;
  },
);

useKeys('On the walk', () => {
  const step = current.value;
  const always = [
    { keys: ['j', 'ArrowDown'], label: 'Next step', run: () => walk.move(1) },
    { keys: ['k', 'ArrowUp'], label: 'Step before', run: () => walk.move(-1) },
  ];
  if (!open.value || notMine.value) return always;
  return [
    ...(step
      ? [
          { keys: ['1'], label: 'Pass', run: () => void walk.judge(step, 'pass') },
          { keys: ['2'], label: 'Fail', run: () => litStep.value?.begin('fail') },
          { keys: ['3'], label: 'Blocked', run: () => litStep.value?.begin('blocked') },
          { keys: ['4'], label: 'Not applicable', run: () => void walk.judge(step, 'not_applicable') },
          { keys: ['n'], label: 'Note', run: () => litStep.value?.begin('note') },
        ]
      : []),
    { keys: ['0'], label: 'Take the verdict back', run: takeBack },
    { keys: ['c'], label: 'Add a picture or file', run: () => choose() },
    {
      keys: ['d'],
      label: 'Draft a defect',
      run: () =>
        (drafting.value =
          step?.position ?? steps.value.findLast((s) => s.record.verdict === 'fail')?.position ?? null),
    },
    { keys: ['f'], label: 'Finish the attempt', run: () => walk.light(null) },
    {
      keys: ['p'],
      label: 'Pause the clock',
      run: () => (walk.clock.paused.value = !walk.clock.paused.value),
    },
    ...always,
  ];
});

/** The lit step's verdict, else that of the step judged last. */
function takeBack(): void {
  const lits = current.value;
  const judged =
    lits && lits.record.verdict !== 'not_run'
      ? lits
      : (lits ? steps.value.filter((s) => s.position < lits.position) : steps.value).findLast(
          (s) => s.record.verdict !== 'not_run',
        );
  if (judged) void walk.judge(judged, 'not_run');
}
function choose(): void {
  files.value?.click();
}
async function addAll(
  list: FileList | File[] | null | undefined,
  source: 'paste' | 'drop' | 'file',
  step: number | null,
): Promise<void> {
  for (const file of list ?? []) await walk.attach(file, file.name || 'pasted.png', source, step);
}
async function onChosen(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  await addAll(input.files, 'file', lit.value);
  input.value = '';
}
function onPaste(event: ClipboardEvent): void {
  const found = [...(event.clipboardData?.files ?? [])];
  if (found.length === 0 || !open.value || notMine.value) return;
  event.preventDefault();
  const at = new Date().toTimeString().slice(0, 8).replaceAll(':', '');
  void addAll(
    found.map(
      (f) =>
        new File(
          [f],
          f.name && f.name !== 'image.png' ? f.name : `pasted-${at}.${f.type.split('/')[1] ?? 'png'}`,
          { type: f.type },
        ),
    ),
    'paste',
    drafting.value ?? lit.value,
  );
}
function onDrop(event: DragEvent): void {
  dropping.value = false;
  if (open.value && !notMine.value) void addAll(event.dataTransfer?.files, 'drop', lit.value);
}
onMounted(() => window.addEventListener('paste', onPaste));
onBeforeUnmount(() => window.removeEventListener('paste', onPaste));

async function jump(entryId: string): Promise<void> {
  if (entryId === view.value?.entry_id) return;
  const entry = mine.value.find((e) => e.id === entryId);
  if (entry && entry.readiness === 'ready') await start(entry.id);
  else await router.push(`/${project.value}/entries/${entryId}`);
}
/** On to the next: the next in order whatever it shows, or the next that can be walked. */
async function finished(after: Api['PolicySet']['after_finishing']): Promise<void> {
  if (after === 'stay') return;
  const at = mine.value.findIndex((e) => e.id === view.value?.entry_id);
  const inOrder = mine.value[at + 1];
  const order = [...mine.value.slice(at + 1), ...mine.value.slice(0, Math.max(at, 0))];
  const to = after === 'next_in_order' ? inOrder : order.find((e) => e.readiness === 'ready');
  if (to) await jump(to.id);
  else await router.push(`/${project.value}/today`);
  await nextTick();
  title.value?.focus();
}
// A clean pass needs no wrap-up where the project says so.
watch(lit, async (now, before) => {
  const detail = view.value;
  if (now !== null || before === null || !detail || !open.value || notMine.value) return;
  const { policies, attempt } = detail;
  if (policies.skip_wrap_up_on_pass && policies.pass_sets_verdict && attempt.roll_up === 'pass') {
    await walk.act({ kind: 'finish', verdict: null, note: '', active_ms: walk.clock.take(), time: null });
    await finished(policies.after_finishing);
  }
});
async function takeOver(): Promise<void> {
  await api.POST('/attempts/{attempt}/take-over', { params: { path: { attempt: id.value } }, body: {} });
  await walk.refetch();
}
function escape(event: KeyboardEvent): void {
  if (isTyping(event.target)) (event.target as HTMLElement).blur();
}
</script>

<template>
  <StateBox
    v-if="!view"
    class="page"
    :loading="!walk.error.value"
    :error="walk.error.value"
    @again="walk.refetch()"
  />
  <div
    v-else
    class="walk"
    :class="{ dropping }"
    @dragover.prevent="dropping = true"
    @dragleave.self="dropping = false"
    @drop.prevent="onDrop"
    @keydown.esc="escape"
  >
    <div class="top">
      <div class="line">
        <RouterLink class="mono soft plain" :to="`/${project}/casebook/${view.case_key}`">{{
          view.case_key
        }}</RouterLink>
        <h1 ref="title" tabindex="-1" class="long">{{ view.title }}</h1>
        <span class="soft about"
          >{{ view.attempt.configuration?.name }} · build {{ view.attempt.build?.name }} · attempt
          {{ view.attempt.number }}</span
        >
        <span
          class="time mono"
          :title="walk.clock.paused.value ? 'The clock is paused (p)' : 'Time on this attempt (p pauses)'"
          >{{ walk.clock.paused.value ? 'paused ' : '' }}{{ clockWords(total) }}</span
        >
      </div>
      <div class="line">
        <PathTrail
          :marks="marks"
          :current="view.entry_id"
          :label="`My entries in ${view.cycle_name}`"
          :longest="narrow ? 11 : 48"
          @choose="jump"
        />
        <span class="soft about end"
          >{{ walked }} of {{ mine.length }} walked<template v-if="left > 0">
            · about {{ length(left) }} left</template
          ></span
        >
      </div>
    </div>
    <p v-if="startProblem" class="band" role="alert">{{ startProblem.message }}</p>
    <p v-if="notMine" class="band" role="alert">
      {{ view.attempt.tester.name }} is walking this attempt. What you recorded before is kept.
      <Button size="small" label="Take it over" severity="secondary" outlined @click="takeOver" />
    </p>
    <p v-if="view.retest_reason && open" class="band"><strong>Retest:</strong> {{ view.retest_reason }}</p>
    <p v-if="view.late.length > 0" class="band">
      {{ plural(view.late.length, 'entry', 'entries') }} arrived too late and wait for a lead:
      {{ view.late[0]?.why }}
    </p>
    <div class="columns">
      <div class="lane">
        <div v-if="view.preconditions" class="before small">
          <span class="label">Before you begin</span><MarkdownText :text="view.preconditions" />
        </div>
        <ol>
          <StepLine
            v-for="s in behind"
            :key="s.position"
            :step="s"
            :defects="view.defects"
            :waiting="view.waiting.has(`1.${s.position}`)"
            @light="walk.light(s.position)"
          />
          <li v-if="current">
            <LitStep
              :key="`${id}.${current.position}`"
              ref="litStep"
              :walk="walk"
              :step="current"
              :count="steps.length"
              :locked="!open || notMine"
              @draft="drafting = current.position"
              @capture="choose()"
            />
            <DefectPanel
              v-if="drafting === current.position"
              :walk="walk"
              :project="project"
              :step="current.position"
              @close="drafting = undefined"
            />
          </li>
          <StepLine
            v-for="s in ahead"
            :key="s.position"
            :step="s"
            :defects="view.defects"
            :waiting="false"
            ahead
            @light="walk.light(s.position)"
          />
        </ol>
        <p v-if="steps.length === 0" class="soft">This case has no steps. Judge it as a whole below.</p>
        <DefectPanel
          v-if="drafting !== undefined && drafting !== current?.position"
          :walk="walk"
          :project="project"
          :step="drafting"
          @close="drafting = undefined"
        />
        <WrapUp
          v-if="lit === null"
          :walk="walk"
          :locked="notMine"
          @finished="finished"
          @next="finished('next_open')"
        />
        <Button
          v-else-if="open && !notMine"
          class="finish"
          text
          severity="secondary"
          @click="walk.light(null)"
          >Finish the attempt <kbd>f</kbd></Button
        >
      </div>
      <WalkTray :walk="walk" :project="project" :locked="!open || notMine" @choose="choose()" />
    </div>
    <input
      ref="files"
      class="unseen"
      type="file"
      multiple
      tabindex="-1"
      aria-label="A picture, text or log file"
      accept="image/png,image/jpeg,image/webp,.txt,.log,text/plain"
      @change="onChosen"
    />
  </div>
</template>

<style scoped>
.walk {
  min-height: calc(100vh - 48px);
  display: flex;
  flex-direction: column;
}
.top {
  padding: 14px 24px 8px;
  border-bottom: 1px solid var(--rule);
  display: grid;
  gap: 8px;
}
.line {
  display: flex;
  align-items: baseline;
  gap: 12px;
  min-width: 0;
}
.line h1 {
  outline: none;
  min-width: 0;
}
.about {
  white-space: nowrap;
}
.time {
  margin-left: auto;
  font-size: 1.07rem;
}
.end {
  margin-left: auto;
}
.band {
  padding: 8px 24px;
  background: var(--well);
  border-bottom: 1px solid var(--rule);
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 392px;
  flex: 1;
}
.lane {
  padding: 14px 28px 60px 24px;
  min-width: 0;
}
.before {
  padding: 0 0 10px 24px;
}
.finish {
  margin-top: 18px;
}
.dropping .lane {
  outline: 2px dashed var(--edge);
  outline-offset: -8px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr) 300px;
  }
  .line {
    flex-wrap: wrap;
  }
}
@media (max-width: 760px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .top,
  .lane {
    padding-left: 14px;
    padding-right: 14px;
  }
  .about {
    white-space: normal;
  }
  .line h1 {
    font-size: 1.2rem;
    flex: 1;
  }
  .line {
    row-gap: 2px;
  }
  .line .about {
    order: 1;
    width: 100%;
    margin-left: 0;
    font-size: 0.87rem;
  }
}
</style>
