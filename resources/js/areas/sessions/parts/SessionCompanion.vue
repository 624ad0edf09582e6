<script setup lang="ts">
import { computed, ref } from 'vue';
import type { Api } from '@/api/client';
import SegmentedWords from '@/kit/SegmentedWords.vue';
import { isObserved, KINDS, WORK } from '@/areas/sessions/types';
import type { RunningSession } from '@/areas/sessions/useTestSession';
import SmallWindow from '@/kit/SmallWindow.vue';
import { clock } from '@/kit/words';
import SaveState from '@/offline/SaveState.vue';

/** The session in a small window over the application under test; the composer of the page moves into it meanwhile. */
const props = defineProps<{ charter: Api['CharterLine']; session: RunningSession }>();
const small = ref<InstanceType<typeof SmallWindow> | null>(null);
const place = ref<HTMLElement | null>(null);
const left = computed(() => (props.session.view.value?.box_ms ?? 0) - props.session.active.value);
const running = computed(() => props.session.view.value?.state === 'running');
/** What was written last; observed acts as one number. */
const newest = computed(() => props.session.lines.value.filter((l) => !isObserved(l)).slice(-4));
const acts = computed(() => props.session.lines.value.filter(isObserved).length);
const letterOf = (kind: string): string => KINDS.find((k) => k.kind === kind)?.letter ?? '';
defineExpose({
  open: async () => small.value?.open(),
  isOpen: computed(() => small.value?.isOpen ?? false),
  /** Where the composer goes while it is open. */
  place,
});
</script>

<template>
  <SmallWindow ref="small" :of="charter.key" :title="charter.title">
    <p class="row small">
      <span class="mono" role="timer">{{ left >= 0 ? `${clock(left)} left` : `${clock(-left)} over` }}</span>
      <button type="button" class="link" @click="session.move(running ? 'paused' : 'running')">
        {{ running ? 'Pause' : 'Go on' }}
      </button>
      <span class="end"><SaveState /></span>
    </p>
    <SegmentedWords
      v-if="session.view.value"
      label="What the time goes to"
      :options="WORK"
      :chosen="session.view.value.work"
      :locked="false"
      @choose="session.switchTo"
    />
    <div ref="place"></div>
    <ol aria-label="Written last" class="small">
      <li v-for="l in newest" :key="l.id">
        <span class="mono soft">{{ clock(l.at_ms) }}</span>
        <kbd v-if="letterOf(l.kind)">{{ letterOf(l.kind) }}</kbd>
        <span class="long">{{ l.words || l.name }}</span>
      </li>
    </ol>
    <p v-if="acts > 0" class="small soft">{{ acts }} acts observed.</p>
    <p v-if="session.problem.value" class="p-invalid-words" role="alert">{{ session.problem.value }}</p>
  </SmallWindow>
</template>

<style scoped>
.end {
  margin-left: auto;
}
li {
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 2px 0;
}
</style>
