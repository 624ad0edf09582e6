<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import VerdictMark from './VerdictMark.vue';
import { wordOf, type Shown } from './words';

const props = defineProps<{ counts: Api['Counts']; total: number }>();
const order: Exclude<Shown, 'held' | 'uncovered'>[] = [
  'pass',
  'not_applicable',
  'fail',
  'blocked',
  'retest',
  'in_progress',
  'not_run',
];
const parts = computed(() =>
  order.map((shown) => ({ shown, count: props.counts[shown] })).filter((p) => p.count > 0),
);
</script>

<template>
  <div class="counts">
    <div class="bar" aria-hidden="true">
      <span
        v-for="p in parts"
        :key="p.shown"
        :class="p.shown"
        :style="{
          flexGrow: p.count,
          background: p.shown === 'not_run' ? 'transparent' : `var(--${p.shown})`,
        }"
      />
    </div>
    <ul aria-label="Entries by what they show">
      <li v-for="p in parts" :key="p.shown">
        <VerdictMark
          :shown="p.shown"
          word
          :label="`${p.count} ${wordOf(p.shown).toLowerCase()}`"
          :size="10"
        />
      </li>
    </ul>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 1px;
  height: 8px;
}
.bar span {
  min-width: 3px;
}
.bar .not_run {
  border: 1px solid var(--not_run);
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  font-size: 0.87rem;
  margin-top: 5px;
}
</style>
