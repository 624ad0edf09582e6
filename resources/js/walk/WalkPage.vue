<script setup lang="ts">
import Button from 'primevue/button';
import { computed, defineAsyncComponent, nextTick, onMounted, ref, toRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, Problem, take, type Api } from '@/api/client';
import { isTyping, useKeys } from '@/kit/keys';
import MarkdownText from '@/kit/MarkdownText.vue';
import PathTrail from '@/kit/PathTrail.vue';
import { useRead } from '@/kit/read';
import { mayRecord, session } from '@/kit/session';
import StateBox from '@/kit/StateBox.vue';
import { clock as clockWords, entryWords, length, shownOf } from '@/kit/words';
import { keep, kept } from './device';
import LitStep from './LitStep.vue';
import { outbox } from './outbox';
import StepLine from './StepLine.vue';
import { useEvidence } from './useEvidence';
import { packed } from './usePack';
import { useStart } from './useStart';
import { useWalk } from './useWalk';
import WalkBands from './WalkBands.vue';
import WalkTray from './WalkTray.vue';
import WrapUp from './WrapUp.vue';

const AskPanel = defineAsyncComponent(() => import('./AskPanel.vue'));
const DefectPanel = defineAsyncComponent(() => import('./DefectPanel.vue'));
const RoundTrail = defineAsyncComponent(() => import('./RoundTrail.vue'));
const SheetView = defineAsyncComponent(() => import('./SheetView.vue'));
const PickPart = defineAsyncComponent(() => import('./PickPart.vue'));
const CompanionWindow = defineAsyncComponent(() => import('./CompanionWindow.vue'));

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
const notMine = computed(
  () => open.value && view.value !== null && view.value.attempt.tester.id !== session.value?.user.id,
);
const locked = computed(() => !open.value || notMine.value);
const total = computed(() =>
  view.value
    ? (view.value.attempt.corrected_ms ?? view.value.attempt.active_ms) +
      (open.value ? walk.clock.since.value : 0)
    : 0,
);

const behind = computed(() => steps.value.filter((s) => lit.value === null || s.position < lit.value));
const ahead = computed(() => steps.value.filter((s) => lit.value !== null && s.position > lit.value));
const litStep = ref<InstanceType<typeof LitStep> | null>(null);
const companion = ref<{
  open: () => Promise<void>;
  lit: InstanceType<typeof LitStep> | null;
  isOpen: boolean;
} | null>(null);
/** The form of a verdict opens where the tester looks: in the small window while that is there. */
const active = computed(() => (companion.value?.isOpen && companion.value.lit) || litStep.value);
const withCompanion = ref(false);
const drafting = ref<number | null | undefined>(undefined);
const asking = ref(false);
const files = ref<HTMLInputElement | null>(null);
const dropping = ref(false);
const title = ref<HTMLElement | null>(null);
const narrow = window.innerWidth <= 640;
const tools = useEvidence(
  walk,
  computed(() => !locked.value && view.value !== null),
  () => drafting.value ?? lit.value,
);
/** One lit step, or all of them as a sheet; remembered on this device. */
const sheet = ref(false);
onMounted(async () => (sheet.value = (await kept<boolean>('walk-sheet')) ?? false));
function turnSheet(): void {
  sheet.value = !sheet.value;
  void keep('walk-sheet', sheet.value);
  if (sheet.value && lit.value === null && steps.value[0]) walk.light(steps.value[0].position);
}

watch(id, () => {
  drafting.value = undefined;
  asking.value = false;
});
watch(
  () => view.value?.title,
  (now) => {
    if (now) document.title = `${now} – Lucid Step`;
  },
);

async function openCompanion(): Promise<void> {
  withCompanion.value = true;
  // Its chunk may still have to come: a click stays good for a few seconds.
  for (let n = 0; n < 40 && !companion.value; n += 1) await new Promise((r) => setTimeout(r, 50));
  await companion.value?.open();
}
function jumpBy(by: 1 | -1): void {
  const at = mine.value.findIndex((e) => e.id === view.value?.entry_id);
  const to = mine.value[at + by];
  if (to) void jump(to.id);
}
useKeys('On the walk', () => {
  const step = current.value;
  const always = [
    { keys: ['j', 'ArrowDown'], label: 'Next step', run: () => walk.move(1) },
    { keys: ['k', 'ArrowUp'], label: 'Step before', run: () => walk.move(-1) },
    { keys: [']'], label: 'Next entry on the trail', run: () => jumpBy(1) },
    { keys: ['['], label: 'Entry before', run: () => jumpBy(-1) },
    { keys: ['.'], label: 'One lit step, or all as a sheet', run: turnSheet },
    {
      keys: ['v'],
      label: 'Copy the values of the step, one after another',
      run: () => active.value?.copyNext(),
    },
  ];
  if (locked.value) return always;
  return [
    ...(step && !sheet.value
      ? [
          { keys: ['1'], label: 'Pass', run: () => void walk.judge(step, 'pass') },
          { keys: ['2'], label: 'Fail', run: () => void active.value?.begin('fail') },
          { keys: ['3'], label: 'Blocked', run: () => void active.value?.begin('blocked') },
          { keys: ['4'], label: 'Not applicable', run: () => void walk.judge(step, 'not_applicable') },
          { keys: ['n'], label: 'Note', run: () => void active.value?.begin('note') },
          { keys: ['t'], label: 'Count a try that failed', run: () => active.value?.tried(true) },
          { keys: ['T'], label: 'Count a try that went well', run: () => active.value?.tried(false) },
          { keys: ['a'], label: 'Ask, or suggest a wording', run: () => (asking.value = true) },
        ]
      : []),
    ...(sheet.value ? [] : [{ keys: ['0'], label: 'Take the verdict back', run: takeBack }]),
    { keys: ['c'], label: 'Capture the screen', run: () => void tools.screen() },
    { keys: ['C'], label: 'Capture a part of it', run: () => void tools.part() },
    { keys: ['r'], label: 'Record, and stop', run: () => void tools.record() },
    { keys: ['u'], label: 'Choose a file', run: () => files.value?.click() },
    {
      keys: ['d'],
      label: 'Draft a defect',
      run: () =>
        (drafting.value =
          step?.position ?? steps.value.findLast((s) => s.record.verdict === 'fail')?.position ?? null),
    },
    { keys: ['f'], label: 'Finish the attempt', run: () => walk.light(null) },
    { keys: ['m'], label: 'Companion window', run: () => void openCompanion() },
    {
      keys: ['p'],
      label: 'Pause the clock',
      run: () => (walk.clock.paused.value = !walk.clock.paused.value),
    },
    ...(walk.rounds.value.length > 1
      ? [
          { keys: ['}'], label: 'Next round', run: () => walk.toRound(walk.roundAt.value + 1) },
          { keys: ['{'], label: 'Round before', run: () => walk.toRound(walk.roundAt.value - 1) },
        ]
      : []),
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
async function onChosen(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  await tools.addAll(input.files, narrow ? 'camera' : 'file');
  input.value = '';
}
function onDrop(event: DragEvent): void {
  dropping.value = false;
  if (!locked.value) void tools.addAll(event.dataTransfer?.files, 'drop');
}

async function jump(entryId: string): Promise<void> {
  if (entryId === view.value?.entry_id) return;
  const entry = mine.value.find((e) => e.id === entryId);
  if (entry && entry.readiness === 'ready' && mayRecord(project.value)) await start(entry.id);
  else await router.push(`/${project.value}/entries/${entryId}`);
}
/** The next entry that was fetched beforehand and not walked here yet. */
function nextPacked(): string | null {
  if (outbox.state.awaySince === null) return null;
  const walkedHere = new Set(outbox.acts.filter((a) => a.deed.kind === 'finish').map((a) => a.entry));
  return (packed[project.value] ?? []).find((e) => e !== view.value?.entry_id && !walkedHere.has(e)) ?? null;
}
/** On to the next: the next in order whatever it shows, or the next that can be walked. */
async function finished(after: Api['PolicySet']['after_finishing']): Promise<void> {
  if (after === 'stay') return;
  const at = mine.value.findIndex((e) => e.id === view.value?.entry_id);
  const inOrder = mine.value[at + 1];
  const order = [...mine.value.slice(at + 1), ...mine.value.slice(0, Math.max(at, 0))];
  const to =
    after === 'next_in_order' ? inOrder : order.find((e) => e.readiness === 'ready' && e.walking === null);
  // Without the server the cycle may not be known here: on with what was fetched beforehand.
  const alone = to ? null : nextPacked();
  if (to) await jump(to.id);
  else if (alone !== null) await start(alone);
  else await router.push(`/${project.value}/today`);
  await nextTick();
  title.value?.focus();
}
// A clean pass needs no wrap-up where the project says so.
watch(lit, async (now, before) => {
  const detail = view.value;
  if (now !== null || before === null || !detail || locked.value) return;
  const { policies, attempt } = detail;
  if (policies.skip_wrap_up_on_pass && policies.pass_sets_verdict && attempt.roll_up === 'pass') {
    await walk.act({ kind: 'finish', verdict: null, note: '', active_ms: walk.clock.take(), time: null });
    await finished(policies.after_finishing);
  }
});
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
        <RouterLink class="mono soft plain key" :to="`/${project}/casebook/${view.case_key}`">{{
          view.case_key
        }}</RouterLink>
        <h1 ref="title" tabindex="-1" class="long">{{ view.title }}</h1>
        <span class="soft about"
          >{{ view.attempt.configuration?.name }} · build {{ view.attempt.build?.name }} · attempt
          {{ view.attempt.number }}</span
        >
        <button
          type="button"
          class="time mono"
          :title="
            walk.clock.paused.value ? 'The clock is paused; p goes on' : 'Time on this attempt; p pauses it'
          "
          :disabled="locked"
          @click="walk.clock.paused.value = !walk.clock.paused.value"
        >
          {{ walk.clock.paused.value ? 'paused ' : '' }}{{ clockWords(total) }}
        </button>
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
        <span class="ways">
          <button type="button" class="link" :aria-pressed="sheet" @click="turnSheet">
            {{ sheet ? 'One step' : 'As a sheet' }} <kbd>.</kbd>
          </button>
          <button v-if="!locked && !narrow" type="button" class="link" @click="openCompanion">
            Companion <kbd>m</kbd>
          </button>
        </span>
      </div>
      <RoundTrail
        v-if="walk.rounds.value.length > 1 || (walk.round.value?.values.length ?? 0) > 0"
        :walk="walk"
        :locked="locked"
      />
    </div>
    <p v-if="startProblem" class="band" role="alert">{{ startProblem.message }}</p>
    <WalkBands
      :walk="walk"
      :project="project"
      :not-mine="notMine"
      :fault="tools.fault.value"
      @dismiss="tools.fault.value = ''"
    />
    <div class="columns">
      <div class="lane">
        <div v-if="view.preconditions" class="before small">
          <span class="label">Before you begin</span><MarkdownText :text="view.preconditions" />
        </div>
        <SheetView v-if="sheet && steps.length > 0" :walk="walk" :project="project" :locked="locked" />
        <ol v-else>
          <StepLine
            v-for="s in behind"
            :key="s.position"
            :step="s"
            :defects="view.defects"
            :waiting="view.waiting.has(`${walk.roundAt.value}.${s.position}`)"
            @light="walk.light(s.position)"
          />
          <li v-if="current">
            <LitStep
              :key="`${id}.${walk.roundAt.value}.${current.position}`"
              ref="litStep"
              :walk="walk"
              :step="current"
              :count="steps.length"
              :locked="locked"
              :project="project"
              @draft="drafting = current.position"
              @capture="narrow ? files?.click() : tools.screen()"
              @ask="asking = true"
            />
            <AskPanel
              v-if="asking && !locked"
              :key="`ask.${current.position}`"
              :walk="walk"
              :step="current"
              @close="asking = false"
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
          v-if="drafting !== undefined && (sheet || drafting !== current?.position)"
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
        <Button v-else-if="!locked" class="finish" text severity="secondary" @click="walk.light(null)"
          >Finish the attempt <kbd>f</kbd></Button
        >
      </div>
      <WalkTray :walk="walk" :project="project" :locked="locked" :tools="tools" @choose="files?.click()" />
    </div>
    <input
      ref="files"
      class="unseen"
      type="file"
      multiple
      tabindex="-1"
      aria-label="A picture, recording, text or log file"
      :capture="narrow ? 'environment' : undefined"
      accept="image/png,image/jpeg,image/webp,video/webm,video/mp4,.txt,.log,text/plain"
      @change="onChosen"
    />
    <Teleport v-if="tools.choosing.value" to="body"
      ><PickPart
        :picture="tools.choosing.value"
        @leave="tools.choosing.value = null"
        @keep="
          (part: Blob) => {
            tools.choosing.value = null;
            void tools.keepPicture(part, 'capture');
          }
        "
    /></Teleport>
    <CompanionWindow
      v-if="withCompanion"
      ref="companion"
      :walk="walk"
      :project="project"
      :locked="locked"
      :tools="tools"
      :time="total"
      @draft="drafting = lit"
      @ask="asking = true"
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
.key {
  white-space: nowrap;
}
.ways {
  display: flex;
  gap: 16px;
}
.time {
  margin-left: auto;
  font-size: 1.07rem;
  color: var(--ink);
  background: none;
  border: 0;
  padding: 0;
  min-width: 3.4rem;
  text-align: right;
  cursor: pointer;
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
@media (max-width: 640px) {
  .ways kbd {
    display: none;
  }
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
