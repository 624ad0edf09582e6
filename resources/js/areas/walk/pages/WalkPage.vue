<script setup lang="ts">
import Button from 'primevue/button';
import { computed, defineAsyncComponent, nextTick, onMounted, ref, toRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import type { Api } from '@/api/client';
import { isTyping } from '@/kit/keys';
import MarkdownText from '@/kit/MarkdownText.vue';
import { session } from '@/areas/people/session';
import StateBox from '@/kit/StateBox.vue';
import { saveLocal, loadLocal } from '@/offline/device';
import ActiveStep from '@/areas/walk/parts/ActiveStep.vue';
import StepLine from '@/areas/walk/parts/StepLine.vue';
import { useEvidence } from '@/areas/evidence/useEvidence';
import { targetOf } from '@/areas/walk/target';
import { useTrail } from '@/areas/walk/useTrail';
import { useWalk } from '@/areas/walk/useWalk';
import { useWalkKeys } from '@/areas/walk/useWalkKeys';
import WalkBands from '@/areas/walk/parts/WalkBands.vue';
import WalkTop from '@/areas/walk/parts/WalkTop.vue';
import StepsBehind from '@/areas/walk/parts/StepsBehind.vue';
import WalkTray from '@/areas/walk/parts/WalkTray.vue';
import KeyCap from '@/kit/KeyCap.vue';

const WrapUp = defineAsyncComponent(() => import('@/areas/walk/parts/WrapUp.vue'));
const AskPanel = defineAsyncComponent(() => import('@/areas/walk/parts/AskPanel.vue'));
const DefectPanel = defineAsyncComponent(() => import('@/areas/defects/parts/DefectPanel.vue'));
const SheetView = defineAsyncComponent(() => import('@/areas/walk/parts/SheetView.vue'));
const CameraPanel = defineAsyncComponent(() => import('@/areas/evidence/parts/CameraPanel.vue'));
const PickPart = defineAsyncComponent(() => import('@/areas/evidence/parts/PickPart.vue'));
const CompanionWindow = defineAsyncComponent(() => import('@/areas/walk/parts/CompanionWindow.vue'));

const route = useRoute();
const project = computed(() => String(route.params.project));
const id = toRef(() => String(route.params.attempt));
const walk = useWalk(id);
const { view, steps, lit, current, open } = walk;
const trail = useTrail(walk, project);
const { problem: startProblem } = trail;

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

/** On a phone what is behind stands in one line, until one asks for it. */
const unfolded = ref(false);
const folded = computed(() => narrow && !unfolded.value && lit.value !== null && behind.value.length > 0);
const behind = computed(() => steps.value.filter((s) => lit.value === null || s.position < lit.value));
const ahead = computed(() => steps.value.filter((s) => lit.value !== null && s.position > lit.value));
const litStep = ref<InstanceType<typeof ActiveStep> | null>(null);
const companion = ref<{
  open: () => Promise<void>;
  lit: InstanceType<typeof ActiveStep> | null;
  isOpen: boolean;
} | null>(null);
/** The form of a verdict opens where the tester looks: in the small window while that is there. */
const active = computed(() => (companion.value?.isOpen && companion.value.lit) || litStep.value);
const withCompanion = ref(false);
const drafting = ref<number | null | undefined>(undefined);
const asking = ref(false);
const files = ref<HTMLInputElement | null>(null);
const dropping = ref(false);
const head = ref<InstanceType<typeof WalkTop> | null>(null);
const bands = ref<InstanceType<typeof WalkBands> | null>(null);
const narrow = window.innerWidth <= 640;
const tools = useEvidence(
  targetOf(walk, () => drafting.value ?? lit.value),
  computed(() => !locked.value && view.value !== null),
);
/** One lit step, or all of them as a sheet; remembered on this device. */
const sheet = ref(false);
onMounted(async () => (sheet.value = (await loadLocal<boolean>('walk-sheet')) ?? false));
function turnSheet(): void {
  sheet.value = !sheet.value;
  void saveLocal('walk-sheet', sheet.value);
  if (sheet.value && lit.value === null && steps.value[0]) walk.light(steps.value[0].position);
}

watch(lit, async () => {
  unfolded.value = false;
  if (!narrow) return;
  await nextTick();
  const step = document.querySelector('.walk .lit');
  if (step && step.getBoundingClientRect().top < 0) step.scrollIntoView({ block: 'start' });
});
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

/** On a phone the picture comes from its camera; any other file is chosen. */
const byCamera = ref(false);
async function choose(camera = false): Promise<void> {
  byCamera.value = camera;
  await nextTick();
  files.value?.click();
}
async function openCompanion(): Promise<void> {
  withCompanion.value = true;
  // Its chunk may still have to come: a click stays good for a few seconds.
  for (let n = 0; n < 40 && !companion.value; n += 1) await new Promise((r) => setTimeout(r, 50));
  await companion.value?.open();
}
useWalkKeys(walk, {
  locked,
  sheet,
  tools,
  active: () => active.value,
  jumpBy: trail.jumpBy,
  turnSheet,
  choose: () => void choose(),
  ask: () => (asking.value = true),
  draft: (step) => (drafting.value = step),
  companion: openCompanion,
  surroundings: () => bands.value?.change(),
});
async function finished(after: Api['PolicySet']['after_finishing']): Promise<void> {
  if (after === 'stay') return;
  await trail.finished(after);
  await nextTick();
  head.value?.focus();
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

// A clean pass needs no wrap-up where the project says so.
watch(lit, async (now, before) => {
  const detail = view.value;
  if (now !== null || before === null || !detail || locked.value || walk.unlooked.value > 0) return;
  const { policies, attempt } = detail;
  if (policies.skip_wrap_up_on_pass && policies.pass_sets_verdict && attempt.roll_up === 'pass') {
    await walk.record({ kind: 'finish', verdict: null, note: '', active_ms: walk.clock.take(), time: null });
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
    <WalkTop
      ref="head"
      :walk="walk"
      :trail="trail"
      :project="project"
      :locked="locked"
      :sheet="sheet"
      :narrow="narrow"
      :time="total"
      @sheet="turnSheet"
      @companion="openCompanion"
      @pause="walk.clock.paused.value = !walk.clock.paused.value"
      @surroundings="bands?.change()"
    />
    <p v-if="startProblem" class="band" role="alert">{{ startProblem.message }}</p>
    <WalkBands
      ref="bands"
      :walk="walk"
      :project="project"
      :not-mine="notMine"
      :fault="tools.fault.value"
      @dismiss="tools.fault.value = ''"
    />
    <div class="columns">
      <div class="lane">
        <details v-if="view.preconditions && narrow" class="before small">
          <summary>
            Before you begin <span class="soft">{{ view.preconditions.replaceAll(/[*`_#]/g, '') }}</span>
          </summary>
          <MarkdownText :text="view.preconditions" />
        </details>
        <div v-else-if="view.preconditions" class="before small">
          <span class="label">Before you begin</span><MarkdownText :text="view.preconditions" />
        </div>
        <SheetView v-if="sheet && steps.length > 0" :walk="walk" :project="project" :locked="locked" />
        <ol v-else>
          <StepsBehind v-if="folded" :steps="behind" @unfold="unfolded = true" />
          <StepLine
            v-for="s in folded ? [] : behind"
            :key="s.position"
            :step="s"
            :defects="view.defects"
            :waiting="view.waiting.has(`${walk.roundAt.value}.${s.position}`)"
            @light="walk.light(s.position)"
          />
          <li v-if="current">
            <ActiveStep
              :key="`${id}.${walk.roundAt.value}.${current.position}`"
              ref="litStep"
              :walk="walk"
              :step="current"
              :count="steps.length"
              :locked="locked"
              :project="project"
              @draft="drafting = current.position"
              @capture="narrow ? choose(true) : tools.screen()"
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
          v-if="lit === null && walk.placed.value === id"
          :walk="walk"
          :locked="notMine"
          @finished="finished"
          @next="finished('next_open')"
        />
        <Button v-else-if="!locked" class="finish" text severity="secondary" @click="walk.light(null)"
          >Finish the attempt <KeyCap of="f"
        /></Button>
      </div>
      <WalkTray :walk="walk" :project="project" :locked="locked" :tools="tools" @choose="choose()" />
    </div>
    <input
      ref="files"
      class="unseen"
      type="file"
      multiple
      tabindex="-1"
      aria-label="A file as evidence"
      :accept="byCamera ? 'image/*' : undefined"
      :capture="byCamera ? 'environment' : undefined"
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
    <Teleport v-if="tools.filming.value" to="body"
      ><CameraPanel :tools="tools" @leave="tools.filming.value = false"
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
summary {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  padding: 4px 0;
}
details[open] summary .soft {
  display: none;
}
@media (max-width: 640px) {
  .before {
    padding-left: 0;
  }
  .finish kbd {
    display: none;
  }
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr) 300px;
  }
}
@media (max-width: 760px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .lane {
    padding-left: 14px;
    padding-right: 14px;
  }
}
</style>
