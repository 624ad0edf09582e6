<script setup lang="ts">
import { durationText } from '@/kit/duration';
import { computed, ref, watch } from 'vue';
import type { Api } from '@/api/client';
import { countSelection } from '@/areas/cycles/queries';
import { useFrame } from '@/areas/casebook/frame';
import { criteria } from '@/areas/casebook/filter';
import type { Filter } from '@/kit/criteria';
import FilterBar from '@/kit/FilterBar.vue';
import PickMany from '@/kit/PickMany.vue';
import PickOne from '@/kit/PickOne.vue';
import { useAnswer } from '@/kit/useAnswer';
import { plural } from '@/kit/words';
import { type Picks } from '@/areas/cycles/usePlan';

/** What entries show that are taken out of an earlier cycle. */
type Shows = NonNullable<NonNullable<Picks['earlier']>['display_state']>;
/** What is to be walked: out of folders, suites, a filter, an earlier cycle or a selection, × configurations × rows. */
const props = defineProps<{
  project: string;
  setup: Api['PlanningSetup'];
  cycles: Api['CycleSummary'][];
  /** Ids of cases, or a filter of the casebook, that were chosen there. */
  given: Picks;
  /** The cycle that they are added to, by key. */
  cycle?: string | undefined;
  /** When it is walked and by whom: how much time there is is told with the count. */
  when?: { starts_on: string; ends_on: string; testers: string[] };
}>();
const picks = defineModel<Picks>({ required: true });
const emit = defineEmits<{ count: [now: Api['SelectionCount'] | null] }>();
const { frame, pathOf } = useFrame(computed(() => props.project));
const folders = ref<string[]>([]);
const suites = ref<string[]>([]);
/** A filter of the casebook: what it finds is walked. */
const rule = ref<Filter>({});
const ruleCriteria = computed(() => (frame.value ? criteria(frame.value) : []));
function setRule(name: string, value: string | undefined): void {
  const { [name]: _, ...others } = rule.value;
  rule.value = value === undefined ? others : { ...others, [name]: value };
}
const earlier = ref<string | null>(null);
const shows = ref<Shows>(['fail', 'blocked', 'retest']);
const configurations = ref<string[]>([]);
const usual = ref(true);
const rows = ref<Record<string, string[]>>({});
const wholeCasebook = ref(false);
const asOptions = (all: { id: string; name: string }[]) => all.map((x) => ({ value: x.id, label: x.name }));
const SHOWS: { value: Shows[number]; label: string }[] = [
  { value: 'fail', label: 'Fail' },
  { value: 'blocked', label: 'Blocked' },
  { value: 'retest', label: 'Retest' },
  { value: 'not_run', label: 'Not run' },
  { value: 'in_progress', label: 'In progress' },
  { value: 'pass', label: 'Pass' },
];
const built = computed<Picks>(() => {
  const out: Picks = { ...props.given };
  if (folders.value.length > 0) out.folders = folders.value;
  if (suites.value.length > 0) out.suites = suites.value;
  if (wholeCasebook.value || Object.keys(rule.value).length > 0)
    out.filter = { state: 'draft,in_review,approved', ...rule.value };
  if (earlier.value) out.earlier = { cycle: earlier.value, display_state: shows.value };
  out.configurations = configurations.value;
  out.usual = usual.value;
  if (Object.keys(rows.value).length > 0) out.rows = rows.value;
  return out;
});
const anything = computed(() =>
  Object.keys(built.value).some((k) => !['configurations', 'usual', 'rows'].includes(k)),
);
watch(built, (now) => (picks.value = anything.value ? now : {}), { immediate: true });
/** Dates that are half typed are none. */
const dated = computed(() => {
  const day = (text: string): string | null => (/^\d{4}-\d\d-\d\d$/.test(text) ? text : null);
  return props.when
    ? { starts_on: day(props.when.starts_on), ends_on: day(props.when.ends_on), testers: props.when.testers }
    : {};
});
const asked = computed(() => ({ picks: built.value, cycle: props.cycle ?? null, ...dated.value }));
const {
  answer: count,
  refusal,
  asking,
} = useAnswer(
  'pick-counts',
  asked,
  () => countSelection(props.project, asked.value),
  () => anything.value || props.when !== undefined,
);
watch(count, (now) => emit('count', now), { immediate: true });
const showRefused = ref(false);
const rowsOf = (table: string): { id: string; name: string }[] =>
  (count.value?.rows as Record<string, { id: string; name: string }[]> | undefined)?.[table] ?? [];
function setRows(c: Api['SelectedCase'], chosen: string[]): void {
  const next = { ...rows.value };
  if (chosen.length === rowsOf(c.table_id).length) delete next[c.id];
  else next[c.id] = chosen;
  rows.value = next;
}
</script>

<template>
  <div class="picks">
    <p v-if="given.cases || given.filter" class="given">
      <strong>{{
        given.cases
          ? `${plural((given.cases as string[]).length, 'case')} from the casebook`
          : 'What the casebook’s filter finds'
      }}</strong>
      <span class="soft">, and whatever you add:</span>
    </p>
    <div class="fields">
      <PickMany
        v-model="folders"
        label="Folders, with those below"
        none="None"
        :options="(frame?.folders ?? []).map((f) => ({ value: f.id, label: pathOf(f.id) }))"
      />
      <PickMany
        v-model="suites"
        label="Suites"
        none="None"
        :options="(frame?.suites ?? []).map((s) => ({ value: s.id, label: `${s.name} (${s.cases})` }))"
      />
      <PickOne
        v-model="earlier"
        label="From an earlier cycle"
        none="None"
        clearable
        :options="cycles.map((c) => ({ value: c.key, label: c.name }))"
      />
      <PickMany v-if="earlier" v-model="shows" label="… those that show" :options="SHOWS" />
      <PickMany
        v-model="configurations"
        label="On these configurations"
        none="None in particular"
        :options="asOptions(setup.configurations)"
      />
    </div>
    <div role="group" aria-label="By rule">
      <span class="label">By rule: every case that fits</span>
      <FilterBar what="cases" :criteria="ruleCriteria" :filter="rule" @set="setRule" @clear="rule = {}" />
    </div>
    <p class="row">
      <label class="tick"><input v-model="wholeCasebook" type="checkbox" /> The whole casebook</label>
      <label class="tick"
        ><input v-model="usual" type="checkbox" /> With the cases’ usual conditions<span
          v-if="count && count.usual > 0"
          class="soft"
        >
          ({{ count.usual }})</span
        ></label
      >
    </p>
    <p v-if="refusal" class="p-invalid-words" role="alert">{{ refusal.message }}</p>
    <p class="sum" role="status" :class="{ busy: asking }">
      <template v-if="count && anything">
        <strong>{{ plural(count.entries, 'entry', 'entries') }}</strong> of {{ plural(count.cases, 'case') }},
        about <strong>{{ durationText(1000 * count.seconds) }}</strong>
        <span v-if="count.there > 0" class="soft"> · {{ count.there }} in the cycle already</span>
        <button
          v-if="count.refused_count > 0"
          type="button"
          class="link"
          :aria-expanded="showRefused"
          @click="showRefused = !showRefused"
        >
          {{ count.refused_count }} cannot be walked
        </button>
      </template>
      <span v-else class="soft">Nothing picked yet.</span>
    </p>
    <ul v-if="showRefused && count" class="refused small">
      <li v-for="r in count.refused" :key="r.key">
        <span class="mono soft">{{ r.key }}</span> {{ r.title }}: <span class="soft">{{ r.why }}</span>
      </li>
    </ul>
    <details v-if="count && count.with_tables.length > 0">
      <summary>
        {{ plural(count.with_tables.length, 'case') }} with data rows: all rows, one round each
      </summary>
      <div v-for="c in count.with_tables" :key="c.id" class="rows">
        <span class="long"
          ><span class="mono soft">{{ c.key }}</span> {{ c.title }}</span
        >
        <PickMany
          :model-value="rows[c.id] ?? rowsOf(c.table_id).map((r) => r.id)"
          :options="asOptions(rowsOf(c.table_id))"
          :label="`Rows of ${c.key}`"
          hide-label
          small
          :named="1"
          @update:model-value="setRows(c, $event)"
        />
      </div>
    </details>
  </div>
</template>

<style scoped>
.picks {
  display: grid;
  gap: 10px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 12px 16px;
}
.tick {
  display: flex;
  gap: 6px;
  align-items: center;
}
.sum {
  font-size: 1.07rem;
  min-height: 28px;
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  align-items: baseline;
}
.refused {
  max-height: 160px;
  overflow: auto;
  display: grid;
  gap: 2px;
}
summary {
  cursor: pointer;
  min-height: 24px;
}
.rows {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 200px;
  gap: 12px;
  align-items: center;
  padding: 4px 0;
}
</style>
