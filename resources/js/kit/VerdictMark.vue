<script setup lang="ts">
import { computed } from 'vue';
import { wordOf, type Shown } from './words';

const props = withDefaults(
  defineProps<{ shown: Shown; size?: number; word?: boolean; label?: string | null }>(),
  { size: 12, word: false, label: null },
);
const words = computed(() => props.label ?? wordOf(props.shown));
</script>

<template>
  <span class="verdict">
    <svg
      :width="size"
      :height="size"
      viewBox="0 0 12 12"
      :style="{ color: `var(--${shown})` }"
      :role="word ? undefined : 'img'"
      :aria-hidden="word ? 'true' : undefined"
      :aria-label="word ? undefined : words"
    >
      <title v-if="!word">{{ words }}</title>
      <circle v-if="shown === 'pass'" cx="6" cy="6" r="5" fill="currentColor" />
      <path v-else-if="shown === 'fail'" d="M.8 1.6h10.4L6 11z" fill="currentColor" />
      <rect v-else-if="shown === 'blocked'" x=".6" y="3.8" width="10.8" height="4.4" fill="currentColor" />
      <path v-else-if="shown === 'not_applicable'" d="M2 10 10 2" stroke="currentColor" stroke-width="2" />
      <path v-else-if="shown === 'in_progress'" d="M6 1a5 5 0 0 1 0 10z" fill="currentColor" />
      <path
        v-else-if="shown === 'retest'"
        d="M8.2 2.2a4.4 4.4 0 1 0 0 7.6"
        fill="none"
        stroke="currentColor"
        stroke-width="2.3"
      />
      <path v-else-if="shown === 'held'" d="M4 2.5v7M8 2.5v7" stroke="currentColor" stroke-width="1.8" />
      <g v-else-if="shown === 'uncovered'" fill="currentColor">
        <circle cx="1.8" cy="9.4" r="1.2" />
        <circle cx="6" cy="9.4" r="1.2" />
        <circle cx="10.2" cy="9.4" r="1.2" />
      </g>
      <circle v-else cx="6" cy="6" r="4.2" fill="none" stroke="currentColor" stroke-width="1.6" />
    </svg>
    <span v-if="word">{{ words }}</span>
  </span>
</template>

<style scoped>
.verdict {
  display: inline-flex;
  align-items: center;
  gap: 8px;
}
svg {
  flex: none;
}
</style>
