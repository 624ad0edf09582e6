<script setup lang="ts">
import { useTimeoutPoll } from '@vueuse/core';
import { computed, defineAsyncComponent, watch } from 'vue';
import { readCoverageTrend } from '@/areas/coverage/queries';
import { provenOf, type Lens } from '@/areas/coverage/tree';
import { countOn, statesOf, trendChart, trendWords } from '@/areas/coverage/trend';
import SegmentedWords from '@/kit/SegmentedWords.vue';
import StateBox from '@/kit/StateBox.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { day, plural, wordOf } from '@/kit/words';
import { useRead } from '@/offline/useRead';

/** What was proven day by day, as a chart and as the table it is drawn from. */
const PlotChart = defineAsyncComponent(() => import('@/kit/PlotChart.vue'));
const props = defineProps<{ project: string; lens: Lens; days: number }>();
const emit = defineEmits<{ days: [days: number] }>();
const BACK = [
  { value: '30', word: '30 days' },
  { value: '90', word: '90 days' },
  { value: '365', word: 'A year' },
];
const { data, error, isPending, refetch } = useRead(
  ['requirement', 'entry'],
  () => [props.project, 'coverage trend', props.days, props.lens],
  () => readCoverageTrend(props.project, props.days, props.lens),
  () => `coverage-trend:${props.project}:${props.days}:${JSON.stringify(props.lens)}`,
);
const points = computed(() => data.value?.points ?? []);
const states = computed(() => statesOf(points.value));
/** The last one first, as one reads it. */
const newest = computed(() => [...points.value].reverse());
// Of a long time some days are counted with each answer, until all are.
const { pause, resume } = useTimeoutPoll(async () => void (await refetch()), 150, { immediate: false });
watch(
  () => (data.value?.missing ?? 0) > 0,
  (some) => (some ? resume() : pause()),
  { immediate: true },
);
</script>

<template>
  <div class="row tools">
    <SegmentedWords
      label="As far back"
      :options="BACK"
      :chosen="String(days)"
      @choose="(d) => emit('days', Number(d))"
    />
    <span v-if="data && data.missing > 0" class="soft small" role="status"
      >{{ plural(data.missing, 'day') }} still to be counted</span
    >
  </div>
  <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
  <StateBox v-else-if="states.length === 0" empty="Nothing was required in this time." />
  <div v-else class="trend">
    <p class="answer">{{ trendWords(points) || 'The line begins with the second day.' }}</p>
    <PlotChart v-if="points.length > 1" :label="trendWords(points)" :options="(w) => trendChart(points, w)" />
    <div class="scroll" tabindex="0" role="region" aria-label="Day by day">
      <table>
        <thead>
          <tr class="soft small">
            <th scope="col">At the end of</th>
            <th scope="col" class="n">Proven</th>
            <th v-for="s in states" :key="s" scope="col" class="n">
              <VerdictMark :shown="s" :size="9" word />
            </th>
            <th scope="col" class="n">Cases walked</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(p, i) in newest" :key="p.day">
            <th scope="row">{{ i === 0 && !lens.as_of ? 'Today, by now' : day(p.day) }}</th>
            <td class="n">{{ provenOf(p.counts).proven }} of {{ provenOf(p.counts).all }}</td>
            <td v-for="s in states" :key="s" class="n" :aria-label="wordOf(s)">{{ countOn(p, s) || '–' }}</td>
            <td class="n">{{ p.cases > 0 ? `${p.walked} of ${p.cases}` : '–' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.tools {
  margin-bottom: 10px;
}
.trend {
  overflow: auto;
  min-height: 0;
  flex: 1;
}
.answer {
  font-size: 1.1rem;
  font-weight: 600;
}
.scroll {
  overflow-x: auto;
  margin-top: 12px;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: 6px 12px 6px 0;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
}
.n {
  text-align: right;
}
</style>
