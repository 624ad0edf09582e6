<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { durationText } from '@/kit/duration';
import type { Column, Pages } from '@/kit/list';
import ListTable from '@/kit/ListTable.vue';
import ListView from '@/kit/ListView.vue';
import type { ListState } from '@/kit/useListState';
import VerdictMark from '@/kit/VerdictMark.vue';
import { entryWords, reasonWords, shownOf } from '@/kit/words';
import { type Line, entryCriteria } from '@/areas/cycles/queries';
import { conditionWords, type Plan } from '@/areas/cycles/usePlan';

/** The entries of a plan in their order: moved by drag or keys, several chosen at once. */
const props = defineProps<{
  project: string;
  plan: Plan;
  state: ListState;
  list: Pages<Line>;
  selected: ReadonlySet<string>;
  mayMove: boolean;
}>();
const current = defineModel<string>('current', { required: true });
const emit = defineEmits<{
  select: [id: string, range: boolean];
  all: [on: boolean];
  move: [ids: string[], before: string | null];
}>();
const router = useRouter();
const criteria = computed(() =>
  entryCriteria(props.plan.loads, props.plan.configurations, props.plan.outdated),
);
const columns: Column<Line>[] = [
  { name: 'position', word: '#', width: '40px', sorted: true, soft: true, text: (e) => String(e.position) },
  { name: 'title', word: 'Entry', width: 'minmax(200px, 1fr)', sorted: true },
  {
    name: 'on',
    word: 'Configuration',
    width: '136px',
    soft: true,
    wide: true,
    text: (e) => e.configuration?.name ?? '',
  },
  { name: 'shows', word: 'Shows', width: '136px', sorted: true },
  { name: 'who', word: 'Assigned to', width: '124px', sorted: true },
  {
    name: 'seconds',
    word: 'Time',
    width: '56px',
    number: true,
    wide: true,
    text: (e) => durationText(1000 * e.estimate_seconds),
  },
];
/** What is to be known of an entry beside its title. */
function notes(e: Line): string {
  const waits = e.needs.map((n) => conditionWords(n.kind, `#${n.position} ${n.case_key}`));
  const others = e.reasons.filter((r) => ['stopped', 'too_early', 'too_late'].includes(r.kind));
  const window = (e.not_before ?? e.not_after) && !others.some((r) => r.kind !== 'stopped');
  return [
    ...waits,
    ...others.map(reasonWords),
    window ? 'has a window' : '',
    e.rounds > 1 ? `${e.rounds} rounds` : '',
  ]
    .filter(Boolean)
    .join(' · ');
}
/** What an entry waits for and stands before. */
const misplaced = (e: Line) => e.needs.find((n) => n.position > e.position);
const table = ref<{ show: (id: string) => void } | null>(null);
defineExpose({ show: (id: string) => table.value?.show(id) });
</script>

<template>
  <ListView
    one="entry"
    many="entries"
    :criteria="criteria"
    :state="state"
    :list="list"
    :all="plan.cycle.cycle.total"
    empty="There is nothing to be walked in this cycle yet. Add entries out of folders, suites, a rule or an earlier cycle."
  >
    <template #empty><slot name="empty" /></template>
    <ListTable
      ref="table"
      v-model:current="current"
      what="entry"
      label="Entries in order"
      :rows="list.lines.value"
      :total="list.total.value"
      :columns="columns"
      :sort="state.sort.value"
      :selected="selected"
      :movable="mayMove"
      :name-of="(e) => `#${e.position} ${e.case_key}`"
      @sort="state.sortBy"
      @more="list.more"
      @select="(id, range) => emit('select', id, range)"
      @all="(on) => emit('all', on)"
      @move="(ids, before) => emit('move', ids, before)"
      @open="(e) => router.push(`/${project}/entries/${e.id}`)"
    >
      <template #title="{ row: e }">
        <span class="mono soft key">{{ e.case_key }}</span> {{ e.title }}
        <span v-if="e.outdated" class="flag" title="Its case was changed since">changed</span>
        <span v-if="e.case_gone" class="flag">{{ e.case_gone }}</span>
        <span
          v-if="misplaced(e)"
          class="flag"
          :title="`It stands before #${misplaced(e)!.position} ${misplaced(e)!.case_key}, which it depends on`"
          >too early</span
        >
        <span v-if="notes(e)" class="soft small notes">{{ notes(e) }}</span>
      </template>
      <template #shows="{ row: e }"><VerdictMark :shown="shownOf(e)" word :label="entryWords(e)" /></template>
      <template #who="{ row: e }"
        ><span :class="{ soft: !e.assignee }">{{ e.assignee?.name ?? 'nobody' }}</span
        ><span v-if="e.walking" class="soft small"> · walking</span></template
      >
    </ListTable>
  </ListView>
</template>

<style scoped>
.notes {
  display: block;
}
.flag {
  font-size: 0.8rem;
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 0 5px;
  white-space: nowrap;
}
</style>
