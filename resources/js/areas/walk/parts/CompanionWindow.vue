<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, ref, shallowRef } from 'vue';
import { forwardKeys } from '@/kit/keys';
import VerdictMark from '@/kit/VerdictMark.vue';
import { clock as clockWords } from '@/kit/words';
import ActiveStep from './ActiveStep.vue';
import SaveState from '@/offline/SaveState.vue';
import type { EvidenceTools } from '@/areas/evidence/useEvidence';
import type { Walk } from '@/areas/walk/useWalk';

/**
 * The walk in a small window over the application under test: always on top where the browser can do that, else a small
 * window of its own. It is drawn by the same page, so it is never out of step with it.
 */
const props = defineProps<{
  walk: Walk;
  project: string;
  locked: boolean;
  tools: EvidenceTools;
  time: number;
}>();
const emit = defineEmits<{ closed: []; draft: []; ask: [] }>();
interface PictureInPicture {
  requestWindow(options: { width: number; height: number }): Promise<Window>;
}
const home = shallowRef<HTMLElement | null>(null);
const onTop = ref(false);
const problem = ref('');
const lit = ref<InstanceType<typeof ActiveStep> | null>(null);
let small: Window | null = null;
let release: (() => void) | null = null;

/** Must be called by a click or a key: browsers open windows for nothing else. */
async function open(): Promise<void> {
  problem.value = '';
  if (small && !small.closed) return small.focus();
  const pip = (window as { documentPictureInPicture?: PictureInPicture }).documentPictureInPicture;
  const size = { width: 420, height: 620 };
  try {
    if (pip) {
      small = await pip.requestWindow(size);
      onTop.value = true;
    } else {
      small = window.open('', 'lucid-step-companion', `popup,width=${size.width},height=${size.height}`);
      onTop.value = false;
    }
  } catch {
    small = window.open('', 'lucid-step-companion', `popup,width=${size.width},height=${size.height}`);
    onTop.value = false;
  }
  if (!small) {
    problem.value = 'The browser did not open the small window. Allow windows for this page and try again.';
    return;
  }
  const { document: inside } = small;
  inside.title = 'Lucid Step, companion';
  inside.documentElement.lang = 'en';
  Object.assign(inside.documentElement.dataset, document.documentElement.dataset);
  for (const sheet of document.querySelectorAll('style, link[rel=stylesheet]'))
    inside.head.append(sheet.cloneNode(true));
  inside.body.replaceChildren();
  const main = inside.createElement('main');
  inside.body.append(main);
  home.value = main;
  release = forwardKeys(small);
  small.addEventListener('pagehide', gone);
  await nextTick();
  small.focus();
}
function gone(): void {
  release?.();
  release = null;
  home.value = null;
  small = null;
  emit('closed');
}
function close(): void {
  small?.close();
  gone();
}
onBeforeUnmount(() => {
  if (small) close();
});
const step = computed(() => props.walk.current.value);
const here = computed(
  () => props.walk.view.value?.evidence.filter((e) => e.step === props.walk.lit.value).length ?? 0,
);
defineExpose({ open, close, lit, isOpen: computed(() => home.value !== null), problem });
</script>

<template>
  <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  <Teleport v-if="home" :to="home">
    <div class="small-walk">
      <div class="row top">
        <span class="mono soft">{{ walk.view.value?.case_key }}</span>
        <h1 v-if="walk.view.value" class="long">{{ walk.view.value.title }}</h1>
      </div>
      <p class="row soft small">
        <span
          v-for="s in walk.steps.value"
          :key="s.position"
          class="dot"
          :class="{ now: s.position === walk.lit.value }"
          ><VerdictMark :shown="s.record.verdict" :size="s.position === walk.lit.value ? 13 : 9"
        /></span>
        <span class="mono end">{{ clockWords(time) }}</span>
        <SaveState />
      </p>
      <ActiveStep
        v-if="step"
        :key="`small.${walk.roundAt.value}.${step.position}`"
        ref="lit"
        :walk="walk"
        :step="step"
        :count="walk.steps.value.length"
        :locked="locked"
        :project="project"
        @draft="emit('draft')"
        @capture="tools.screen()"
        @ask="emit('ask')"
      />
      <p v-else>Every step of this round is judged. Finish in the main window.</p>
      <p v-if="tools.fault.value" class="p-invalid-words" role="alert">{{ tools.fault.value }}</p>
      <p class="small soft">
        {{ here > 0 ? `${here} captured on this step.` : '' }}
        {{ onTop ? '' : 'This browser cannot keep the window on top; put it beside the application.' }}
      </p>
    </div>
  </Teleport>
</template>

<style scoped>
h1 {
  font: inherit;
  font-weight: 700;
}
.small-walk {
  padding: 10px 14px 14px;
  display: grid;
  gap: 6px;
}
.top {
  align-items: baseline;
  flex-wrap: nowrap;
}
.dot {
  display: inline-flex;
  padding-bottom: 3px;
}
.dot.now {
  border-bottom: 3px solid var(--lantern);
}
.end {
  margin-left: auto;
}
.small-walk :deep(.parts) {
  grid-template-columns: minmax(0, 1fr);
}
.small-walk :deep(.lit) {
  margin-top: 0;
}
</style>
