<script setup lang="ts">
import type { Api } from '@/api/client';
import CountBar from '@/kit/CountBar.vue';
import { due, plural } from '@/kit/words';

/** Each running cycle as one line: where it stands, and its pace against the one it needs. */
defineProps<{ project: string; overview: Api['OverviewPage'] }>();

const perDay = (n: number): string => (Number.isInteger(n) ? String(n) : n.toFixed(1));
function paceWords(c: Api['OverviewCycle']): string {
  if (c.pace === 'done') return 'Everything has a verdict.';
  const left = plural(c.left, 'entry', 'entries');
  if (c.pace === 'late') return `${left} left, and its time is over.`;
  const days = c.days_left === 1 ? 'today' : `${c.days_left} working days`;
  const lately =
    c.walked_per_day === 0 ? 'none walked this week' : `${perDay(c.walked_per_day)} walked a day`;
  return `${left} left in ${days}: ${lately}, ${perDay(c.needed_per_day)} needed.`;
}
const WORDS: Record<Api['OverviewCycle']['pace'], string> = {
  done: 'Walked',
  late: 'Late',
  behind: 'Behind',
  in_time: 'In time',
};
</script>

<template>
  <section aria-label="Running cycles">
    <p v-if="overview.cycles.length === 0" class="soft">
      No cycle runs. What is released stands here.
      <RouterLink :to="`/${project}/cycles`">All cycles</RouterLink>
    </p>
    <div v-for="c in overview.cycles" :key="c.cycle.id" class="cycle">
      <div>
        <h2>
          <RouterLink class="plain" :to="`/${project}/cycles/${c.cycle.key}`">{{ c.cycle.name }}</RouterLink>
        </h2>
        <p class="soft small">
          <template v-if="c.cycle.build">build {{ c.cycle.build.name }} · </template
          >{{ due(c.cycle.ends_on) }}
        </p>
        <CountBar :counts="c.cycle.counts" :total="c.cycle.total" />
      </div>
      <p class="small">
        <strong>{{ WORDS[c.pace] }}.</strong> {{ paceWords(c) }}
        <template v-if="c.held > 0">
          <RouterLink :to="`/${project}/cycles/${c.cycle.key}?shows=held`">{{ c.held }} held</RouterLink>
        </template>
      </p>
    </div>
    <p v-if="overview.more_cycles > 0">
      <RouterLink :to="`/${project}/cycles`">{{ plural(overview.more_cycles, 'more cycle') }}</RouterLink>
    </p>
  </section>
</template>

<style scoped>
.cycle {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 19rem);
  gap: 6px 32px;
  padding: 14px 0;
  border-bottom: 1px solid var(--rule);
}
.cycle:first-of-type {
  padding-top: 0;
}
.cycle .soft {
  margin-bottom: 6px;
}
@media (max-width: 760px) {
  .cycle {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
