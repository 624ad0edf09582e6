<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import VerdictMark from '@/kit/VerdictMark.vue';
import { wordOf } from '@/kit/words';

/** Cases by what they show: a mark for each, or numbers where they are many. */
const props = defineProps<{ counts: Api['StateCount'][] }>();
const MOST = 12;
const total = computed(() => props.counts.reduce((sum, c) => sum + c.count, 0));
const words = computed(() =>
  props.counts.map((c) => `${c.count} ${wordOf(c.state).toLowerCase()}`).join(', '),
);
</script>

<template>
  <span v-if="total > 0" class="trail" :title="words"
    ><span class="unseen">{{ words }}</span>
    <span v-for="c in counts" :key="c.state" class="group" aria-hidden="true">
      <template v-if="total <= MOST"
        ><VerdictMark v-for="n in c.count" :key="n" :shown="c.state" :size="9"
      /></template>
      <template v-else><VerdictMark :shown="c.state" :size="9" /> {{ c.count }}</template>
    </span>
  </span>
</template>

<style scoped>
.trail {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: center;
  font-size: 0.87rem;
}
.group {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
</style>
