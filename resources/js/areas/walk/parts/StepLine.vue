<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import VerdictMark from '@/kit/VerdictMark.vue';
import { clock } from '@/kit/words';
import { isCarried, type WalkStep } from '@/areas/walk/useWalk';

const props = defineProps<{
  step: WalkStep;
  defects: Api['LinkedDefect'][];
  waiting: boolean;
  ahead?: boolean;
}>();
const emit = defineEmits<{ light: [] }>();
const keys = computed(() => props.defects.filter((d) => d.step === props.step.position));
const first = computed(() => props.step.action.replaceAll(/[*`_]/g, '').split('\n')[0] ?? '');
</script>

<template>
  <li>
    <button
      type="button"
      :class="{ ahead }"
      :title="waiting ? 'Waiting to be sent' : undefined"
      @click="emit('light')"
    >
      <span class="mono number">{{ step.position }}</span>
      <VerdictMark :shown="step.record.verdict" />
      <span class="action"
        >{{ first
        }}<span v-if="step.record.happened || step.record.reason || step.record.note" class="soft small">
          {{ step.record.happened || step.record.reason || step.record.note }}</span
        ></span
      >
      <span
        v-if="isCarried(step)"
        class="soft small"
        title="Given to an older version of the case, in which this step was the same"
        >carried</span
      >
      <span v-for="d in keys" :key="d.id" class="mono key">{{
        d.key === 'waiting' ? 'defect waiting' : d.key
      }}</span>
      <span class="soft time">{{ step.record.active_ms > 0 ? clock(step.record.active_ms) : '' }}</span>
    </button>
  </li>
</template>

<style scoped>
button {
  width: 100%;
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 5px 0 5px 22px;
  font: inherit;
  color: var(--ink);
  background: none;
  border: 0;
  border-radius: 4px;
  text-align: left;
  cursor: pointer;
}
button:hover {
  background: var(--well);
}
.ahead {
  color: var(--ink-soft);
}
.number {
  width: 1.4rem;
  text-align: right;
  color: var(--ink-soft);
}
.action {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.action .soft {
  margin-left: 10px;
}
.key {
  color: var(--ink);
}
.time {
  font-variant-numeric: tabular-nums;
}
</style>
