<script setup lang="ts">
import { computed, ref } from 'vue';
import SmallWindow from '@/kit/SmallWindow.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { clock as clockWords } from '@/kit/words';
import ActiveStep from './ActiveStep.vue';
import SaveState from '@/offline/SaveState.vue';
import type { EvidenceTools } from '@/areas/evidence/useEvidence';
import type { Walk } from '@/areas/walk/useWalk';

/** The walk in a small window over the application under test: the lit step, its verdicts, and capture. */
const props = defineProps<{
  walk: Walk;
  project: string;
  locked: boolean;
  tools: EvidenceTools;
  time: number;
}>();
const emit = defineEmits<{ draft: []; ask: [] }>();
const small = ref<InstanceType<typeof SmallWindow> | null>(null);
const lit = ref<InstanceType<typeof ActiveStep> | null>(null);
const step = computed(() => props.walk.current.value);
const here = computed(
  () => props.walk.view.value?.evidence.filter((e) => e.step === props.walk.lit.value).length ?? 0,
);
defineExpose({
  open: async () => small.value?.open(),
  lit,
  isOpen: computed(() => small.value?.isOpen ?? false),
});
</script>

<template>
  <SmallWindow ref="small" :of="walk.view.value?.case_key ?? ''" :title="walk.view.value?.title ?? ''">
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
      class="small-step"
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
    <p v-if="here > 0" class="small soft">{{ here }} captured on this step.</p>
  </SmallWindow>
</template>

<style scoped>
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
.small-step {
  margin-top: 0;
}
.small-step :deep(.parts) {
  grid-template-columns: minmax(0, 1fr);
}
</style>
