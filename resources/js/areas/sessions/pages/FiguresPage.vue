<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed, defineAsyncComponent } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { mayRecord } from '@/areas/people/session';
import { BY, rateChart, rateWords, sinceWords, timeChart } from '@/areas/sessions/figures';
import SegmentedWords from '@/kit/SegmentedWords.vue';
import { readFigures, readUnexplored } from '@/areas/sessions/queries';
import DateField from '@/kit/DateField.vue';
import KeyCap from '@/kit/KeyCap.vue';
import StateBox from '@/kit/StateBox.vue';
import { useKeys } from '@/kit/keys';
import { clock, plural } from '@/kit/words';

/** What sessions come to, by area, build, person or month, as a table and as charts; and what nobody explored since a build. */
const PlotChart = defineAsyncComponent(() => import('@/kit/PlotChart.vue'));
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const asked = (name: string): string => String(route.query[name] ?? '');
const set = (name: string, value: string): void =>
  void router.replace({ query: { ...route.query, [name]: value || undefined } });
const by = computed(() => BY.find((b) => b.value === asked('by'))?.value ?? 'folder');
const chart = computed(() => asked('as') === 'charts');
// Read when one looks, not with each line that somebody writes: they go through all sessions, and all cases.
const { data, error, isPending, refetch } = useQuery({
  queryKey: computed(() => ['session-figures', project.value, by.value, asked('from'), asked('until')]),
  queryFn: () => readFigures(project.value, by.value, asked('from'), asked('until')),
  placeholderData: (before) => before,
});
const { data: unexplored } = useQuery({
  queryKey: computed(() => ['unexplored', project.value]),
  queryFn: () => readUnexplored(project.value),
});
const areal = computed(() => ['folder', 'label', 'requirement'].includes(by.value));
const said = computed(() => {
  const all = data.value?.all;
  if (!all || all.sessions === 0) return '';
  const much = `${plural(all.sessions, 'session')}, ${clock(all.active_ms)} active`;
  return `${much}, ${plural(all.issues, 'issue')}: ${rateWords(all)} an hour of testing.`;
});
const percent = (of: number | null): string => (of === null ? '–' : `${Math.round(of * 100)} %`);
const explore = (u: { area_kind: string; area_id: string; area: string }): string =>
  `/${project.value}/sessions/new?${new URLSearchParams({ [u.area_kind]: u.area_id, title: u.area })}`;
useKeys('Figures', () => [
  { keys: ['v'], label: 'As a table, or as charts', run: () => set('as', chart.value ? '' : 'charts') },
]);
</script>

<template>
  <div class="page">
    <p class="soft small"><RouterLink :to="`/${project}/sessions`">Sessions</RouterLink></p>
    <div class="title-line">
      <h1>What sessions come to</h1>
      <div class="actions row">
        <SegmentedWords
          label="As a table or as charts"
          :options="[
            { value: 'table', word: 'Table' },
            { value: 'charts', word: 'Charts' },
          ]"
          :chosen="chart ? 'charts' : 'table'"
          @choose="(v) => set('as', v === 'charts' ? v : '')"
        />
        <KeyCap of="v" />
      </div>
    </div>
    <div class="row lens">
      <SegmentedWords label="By" :options="BY" :chosen="by" @choose="(v) => set('by', v)" />
      <span class="soft small">begun from</span>
      <DateField
        class="day"
        :model-value="asked('from')"
        label="Begun from"
        @update:model-value="(v: string) => set('from', v)"
      />
      <span class="soft small">until</span>
      <DateField
        class="day"
        :model-value="asked('until')"
        label="Begun until"
        @update:model-value="(v: string) => set('until', v)"
      />
    </div>
    <template v-if="data">
      <p v-if="said" class="answer">{{ said }}</p>
      <StateBox v-else empty="No session is over yet. What comes of one stands here." />
      <template v-if="data.rows.length > 0 && chart">
        <section aria-label="Issues an hour">
          <h2>Issues an hour</h2>
          <PlotChart
            :label="`Issues an hour by ${by}: ${data.rows
              .filter((r) => r.per_hour !== null)
              .map((r) => `${r.name} ${rateWords(r)}`)
              .join('; ')}`"
            :options="(w) => rateChart(data!.rows, w)"
          />
          <p class="soft small">
            The line is where the true rate lies nine times of ten (exact Poisson interval, 5 % at each end).
          </p>
        </section>
        <section aria-label="Time">
          <h2>Time</h2>
          <PlotChart
            :label="`Active time by ${by}: ${data.rows
              .filter((r) => r.active_ms > 0)
              .map((r) => `${r.name} ${clock(r.active_ms)}`)
              .join('; ')}`"
            :options="(w) => timeChart(data!.rows, w)"
          />
        </section>
      </template>
      <div v-else-if="data.rows.length > 0" class="scroll" tabindex="0" role="region" aria-label="Figures">
        <table class="sheet">
          <thead>
            <tr>
              <th scope="col">{{ BY.find((b) => b.value === by)!.word }}</th>
              <th scope="col" class="n">Sessions</th>
              <th scope="col" class="n">Active</th>
              <th scope="col" class="n">On charter</th>
              <th scope="col" class="n">Issues</th>
              <th scope="col" class="n">Questions</th>
              <th scope="col" class="n">Issues an hour</th>
              <th v-if="areal" scope="col" class="n">Days since</th>
              <th v-if="areal" scope="col">Newest build</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in data.rows" :key="r.id" :class="{ soft: r.sessions === 0 }">
              <th scope="row" class="long">{{ r.name }}</th>
              <td class="n">{{ r.sessions }}</td>
              <td class="n mono">{{ clock(r.active_ms) }}</td>
              <td class="n">{{ percent(r.on_charter) }}</td>
              <td class="n">{{ r.issues }}</td>
              <td class="n">{{ r.questions }}</td>
              <td class="n">{{ rateWords(r) }}</td>
              <td v-if="areal" class="n">{{ r.days_since ?? '–' }}</td>
              <td v-if="areal">{{ sinceWords(r) || r.newest_build }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
    <StateBox v-else :loading="isPending" :error="error" @again="refetch()" />
    <section v-if="unexplored && unexplored.length > 0" aria-label="Not explored">
      <h2>Not explored on {{ data?.newest_build?.name ?? 'the newest build' }}</h2>
      <ul>
        <li v-for="u in unexplored" :key="`${u.area_kind}${u.area_id}`">
          <span class="long"
            ><strong>{{ u.area }}</strong>
            <span class="soft small"
              >{{ u.area_kind === 'label' ? 'label, ' : ''
              }}{{ u.since ? `not since ${u.since}` : 'never explored' }} · {{ u.walked }} of
              {{ plural(u.cases, 'case') }} walked<template v-if="u.open_defects > 0"
                >, {{ plural(u.open_defects, 'open defect') }}</template
              ></span
            ></span
          >
          <RouterLink v-if="mayRecord(project)" :to="explore(u)">Explore it</RouterLink>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.lens {
  margin: 12px 0;
  align-items: center;
}
.day {
  width: 10rem;
}
.answer {
  font-size: 1.1rem;
  font-weight: 600;
  margin-bottom: 14px;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  padding: 8px 12px;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
}
th.long {
  white-space: normal;
  min-width: 10rem;
  font-weight: 600;
}
thead th {
  font-size: 0.8rem;
  color: var(--ink-soft);
  font-weight: 400;
}
.n {
  text-align: right;
}
section {
  margin-top: 26px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
</style>
