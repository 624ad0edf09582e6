<script setup lang="ts">
import { durationText } from '@/kit/duration';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, unwrap, type Api } from '@/api/client';
import CountBar from '@/kit/CountBar.vue';
import PathTrail from '@/kit/PathTrail.vue';
import { useRead } from '@/offline/useRead';
import { mayRecord } from '@/areas/people/session';
import StateBox from '@/kit/StateBox.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { ago, entryWords, exact, reasonWords, shownOf, wordOf, type Shown } from '@/kit/words';
import { useStart } from '@/areas/walk/useStart';
import { useKeys } from '@/kit/keys';
import ListVerdicts from '@/areas/walk/parts/ListVerdicts.vue';
import CycleHead from '@/areas/cycles/parts/CycleHead.vue';

const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const key = computed(() => String(route.params.cycle));
const { start, problem, busy } = useStart(project);
const { data, error, isPending, refetch } = useRead(
  'entry',
  () => ['board', key.value],
  async () => unwrap(await api.GET('/cycles/{cycle}', { params: { path: { cycle: key.value } } })),
  () => `board:${key.value}`,
);

// Filters and order stand in the address, so that a link shows the same.
const query = computed(() => ({
  q: String(route.query.q ?? ''),
  shows: String(route.query.shows ?? ''),
  who: String(route.query.who ?? ''),
  sort: String(route.query.sort ?? 'position'),
}));
function set(name: string, value: string): void {
  void router.replace({ query: { ...route.query, [name]: value || undefined } });
}
const people = computed(() => {
  const names = new Map(
    (data.value?.entries ?? []).map((e) => [e.assignee?.id ?? 'nobody', e.assignee?.name ?? 'Nobody']),
  );
  return [...[...names].map(([value, label]) => ({ value, label }))];
});
const states = [
  ...(
    ['pass', 'fail', 'blocked', 'retest', 'in_progress', 'not_run', 'held', 'not_applicable'] as Shown[]
  ).map((s) => ({ value: s, label: wordOf(s) })),
];
const orders: Record<string, (e: Api['EntryLine']) => string | number> = {
  position: (e) => e.position,
  title: (e) => e.title.toLowerCase(),
  shows: (e) =>
    ['fail', 'blocked', 'retest', 'in_progress', 'not_run', 'not_applicable', 'pass'].indexOf(
      e.display_state,
    ),
  who: (e) => e.assignee?.name ?? '~',
  time: (e) => -e.active_ms,
  defects: (e) => -e.defects,
};
const lines = computed(() => {
  const { q, shows, who, sort } = query.value;
  const words = q.toLowerCase().split(/\s+/).filter(Boolean);
  const by = orders[sort] ?? orders.position!;
  return (data.value?.entries ?? [])
    .filter((e) => words.every((w) => `${e.case_key} ${e.title}`.toLowerCase().includes(w)))
    .filter((e) => shows === '' || shownOf(e) === shows)
    .filter((e) => who === '' || (e.assignee?.id ?? 'nobody') === who)
    .sort((a, b) => (by(a) < by(b) ? -1 : by(a) > by(b) ? 1 : a.position - b.position));
});
/** Thousands of rows are drawn as one comes to them. */
const most = ref(200);
const drawn = computed(() => lines.value.slice(0, most.value));
const end = ref<HTMLElement | null>(null);
const sight = new IntersectionObserver((seen) => {
  if (seen.some((s) => s.isIntersecting)) most.value += 200;
});
watch(end, (now, before) => {
  if (before) sight.unobserve(before);
  if (now) sight.observe(now);
});
onBeforeUnmount(() => sight.disconnect());
const columns = [
  ['position', '#'],
  ['title', 'Entry'],
  ['shows', 'Shows'],
  ['who', 'Assigned to'],
  ['time', 'Time'],
  ['defects', 'Defects'],
] as const;
const walkers = computed(() => (data.value?.entries ?? []).filter((e) => e.walking));
const spent = computed(() => (data.value?.entries ?? []).reduce((s, e) => s + e.active_ms, 0));
const held = computed(() => (data.value?.entries ?? []).filter((e) => e.readiness === 'held').length);
/** Entries chosen to be judged from the list. */
const chosen = ref<string[]>([]);
const choosing = ref(false);
const mayJudge = computed(() => mayRecord(project.value) && data.value?.cycle.state === 'released');
function turn(id: string): void {
  chosen.value = chosen.value.includes(id) ? chosen.value.filter((x) => x !== id) : [...chosen.value, id];
}
function stopChoosing(): void {
  choosing.value = false;
  chosen.value = [];
}
useKeys('On the board', () =>
  mayJudge.value
    ? [
        {
          keys: ['x'],
          label: 'Choose entries to judge from the list',
          run: () => (choosing.value ? stopChoosing() : (choosing.value = true)),
        },
      ]
    : [],
);
const open = (id: string): void => void router.push(`/${project.value}/entries/${id}`);
</script>

<template>
  <div class="page">
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <CycleHead :project="project" :cycle="data.cycle">
        <Button
          v-if="data.next_entry_id && mayRecord(project)"
          outlined
          :disabled="busy"
          label="Walk my next entry"
          @click="start(data.next_entry_id)"
        />
      </CycleHead>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem.message }}</p>
      <p v-if="data.cycle.description" class="soft about">{{ data.cycle.description }}</p>
      <div class="sum">
        <CountBar :counts="data.cycle.counts" :total="data.cycle.total" />
        <p class="small">
          {{ durationText(spent) }} spent<template v-if="held > 0"> · {{ held }} held</template
          ><template v-if="walkers.length > 0">
            · {{ walkers.map((e) => `${e.walking?.name} on ${e.case_key}`).join(', ') }}</template
          >
        </p>
      </div>
      <PathTrail
        :marks="
          data.entries.map((e) => ({
            id: e.id,
            shown: shownOf(e),
            label: `${e.position}. ${e.case_key} ${e.title}: ${entryWords(e)}`,
            group: e.configuration?.name ?? '',
          }))
        "
        :label="`All entries of ${data.cycle.name}`"
        :longest="64"
        @choose="open"
      />
      <div class="filters">
        <InputText
          :model-value="query.q"
          placeholder="Words or a key"
          aria-label="Filter by words or a key"
          @update:model-value="set('q', $event ?? '')"
        />
        <Select
          :model-value="query.shows"
          :options="states"
          option-label="label"
          option-value="value"
          placeholder="Whatever it shows"
          show-clear
          aria-label="Filter by what it shows"
          @update:model-value="set('shows', $event ?? '')"
        />
        <Select
          :model-value="query.who"
          :options="people"
          option-label="label"
          option-value="value"
          placeholder="Everybody"
          show-clear
          aria-label="Filter by assignee"
          @update:model-value="set('who', $event ?? '')"
        />
        <button
          v-if="mayJudge"
          type="button"
          class="link"
          @click="choosing ? stopChoosing() : (choosing = true)"
        >
          {{ choosing ? 'Choose no more' : 'Judge from the list' }} <kbd>x</kbd>
        </button>
        <span class="soft">{{
          lines.length === data.entries.length
            ? `${lines.length} entries`
            : `${lines.length} of ${data.entries.length} entries`
        }}</span>
      </div>
      <ListVerdicts
        v-if="choosing"
        :project="project"
        :cycle="data.cycle.key"
        :entries="data.entries.filter((e) => chosen.includes(e.id))"
        @all="chosen = lines.map((e) => e.id)"
        @done="
          chosen = $event;
          refetch();
        "
      />
      <div class="scroll">
        <table class="lines">
          <thead>
            <tr>
              <th v-if="choosing"><span class="unseen">Chosen</span></th>
              <th
                v-for="[name, word] in columns"
                :key="name"
                :class="{ number: name === 'time' || name === 'defects' }"
                :aria-sort="query.sort === name ? 'ascending' : undefined"
              >
                <button
                  type="button"
                  :title="`Order by ${word}`"
                  @click="set('sort', name === 'position' ? '' : name)"
                >
                  {{ word }}<span v-if="query.sort === name" aria-hidden="true"> ↓</span>
                </button>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="e in drawn" :key="e.id">
              <td v-if="choosing">
                <input
                  type="checkbox"
                  :checked="chosen.includes(e.id)"
                  :aria-label="`Choose ${e.case_key} ${e.title}`"
                  @change="turn(e.id)"
                />
              </td>
              <td class="soft">{{ e.position }}</td>
              <td>
                <span class="mono soft key">{{ e.case_key }}</span>
                <RouterLink class="plain long" :to="`/${project}/entries/${e.id}`">{{ e.title }}</RouterLink>
                <span class="soft small second"
                  >{{ e.configuration?.name
                  }}<template v-if="e.reasons.length > 0"
                    >; {{ e.reasons.map(reasonWords).join('; ') }}</template
                  ></span
                >
              </td>
              <td class="nowrap">
                <VerdictMark :shown="shownOf(e)" word :label="entryWords(e)" /><span
                  v-if="e.display_state_at"
                  class="soft small second none"
                  :title="exact(e.display_state_at)"
                  >{{ ago(e.display_state_at) }}</span
                >
              </td>
              <td>
                {{ e.assignee?.name ?? '–'
                }}<span v-if="e.walking" class="soft small second none">walking now</span>
              </td>
              <td class="number">{{ e.active_ms > 0 ? durationText(e.active_ms) : '' }}</td>
              <td class="number">{{ e.defects || '' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="drawn.length < lines.length" ref="end" class="soft small">
        {{ drawn.length }} of {{ lines.length }} drawn.
        <button type="button" class="link" @click="most += 200">Draw more</button>
      </p>
      <StateBox v-if="lines.length === 0" empty="No entry fits these filters."
        ><button type="button" class="clear" @click="router.replace({ query: {} })">
          Show all
        </button></StateBox
      >
    </template>
  </div>
</template>

<style scoped>
.about {
  max-width: 80ch;
  margin-bottom: 14px;
}
.sum {
  display: grid;
  gap: 6px;
  margin-bottom: 10px;
}
.filters {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
  margin: 16px 0 6px;
}
.scroll {
  overflow-x: auto;
}
th button {
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  padding: 0;
  cursor: pointer;
}
.key {
  display: inline-block;
  min-width: 5.2rem;
}
.second {
  display: block;
  padding-left: calc(5.2rem + 4px);
}
.second.none {
  padding-left: 0;
}
.nowrap {
  white-space: nowrap;
}
.clear {
  font: inherit;
  color: var(--dusk);
  background: none;
  border: 0;
  padding: 0;
  text-decoration: underline;
  cursor: pointer;
}
@media (max-width: 640px) {
  .second {
    padding-left: 0;
  }
}
</style>
