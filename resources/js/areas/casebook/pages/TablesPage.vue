<script setup lang="ts">
import Button from 'primevue/button';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Api } from '@/api/client';
import { useWhole, type Column } from '@/kit/list';
import ListTable from '@/kit/ListTable.vue';
import ListView from '@/kit/ListView.vue';
import { useListState } from '@/kit/useListState';
import { useKeys } from '@/kit/keys';
import { ago, exact, plural } from '@/kit/words';
import CasebookTabs from '@/areas/casebook/parts/CasebookTabs.vue';
import { useFrame } from '@/areas/casebook/frame';

type Line = Api['TableLine'];
const EMPTY =
  'A case bound to a data table is walked once for each row, with the row’s values filled in. ' +
  'Type one, or paste it from a spreadsheet.';
/** So many columns of a table are named. */
const NAMED = 10;
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { frame, frameError, refetchFrame } = useFrame(project);
const state = useListState();
const list = useWhole<Line>(
  computed(() => frame.value?.tables),
  { words: computed(() => state.filter.value.q ?? ''), sort: state.sort },
  {
    words: (t) => `${t.name} ${t.columns.map((c) => c.name).join(' ')}`,
    order: {
      name: (t) => t.name.toLowerCase(),
      rows: (t) => t.rows,
      uses: (t) => t.uses,
      changed: (t) => t.updated_at,
    },
  },
  { error: frameError, refetch: refetchFrame },
);
const columns: Column<Line>[] = [
  { name: 'name', word: 'Data table', width: 'minmax(180px, 0.6fr)', sorted: true },
  { name: 'columns', word: 'Columns', width: 'minmax(200px, 1fr)', wide: true },
  { name: 'rows', word: 'Rows', width: '64px', sorted: true, number: true, text: (t) => String(t.rows) },
  { name: 'uses', word: 'Used in', width: '92px', sorted: true, number: true },
  {
    name: 'changed',
    word: 'Changed',
    width: '110px',
    sorted: true,
    soft: true,
    text: (t) => ago(t.updated_at),
    tip: (t) => exact(t.updated_at),
  },
];
const to = (id: string): string => `/${project.value}/casebook/tables/${id}`;
const create = (): void => void (frame.value?.may_write && router.push(to('new')));
useKeys('Data tables', () => [{ keys: ['n'], label: 'New data table', run: create }]);
</script>

<template>
  <div class="page">
    <CasebookTabs :waiting="frame?.waiting"
      ><Button v-if="frame?.may_write" label="New data table" title="n" @click="create"
    /></CasebookTabs>
    <ListView one="data table" many="data tables" :criteria="[]" :state="state" :list="list" :empty="EMPTY">
      <ListTable
        what="data table"
        label="Data tables"
        :rows="list.lines.value"
        :columns="columns"
        :sort="state.sort.value"
        :name-of="(t) => t.name"
        @sort="state.sortBy"
        @open="(t) => router.push(to(t.id))"
      >
        <template #name="{ row: t }"
          ><RouterLink class="plain" :to="to(t.id)"
            ><strong>{{ t.name }}</strong></RouterLink
          ></template
        >
        <template #columns="{ row: t }"
          ><span v-for="c in t.columns.slice(0, NAMED)" :key="c.name" class="chip"
            >{{ c.name }}<span v-if="c.secret" class="soft"> secret</span></span
          ><span v-if="t.columns.length > NAMED" class="soft">
            and {{ t.columns.length - NAMED }} more</span
          ></template
        >
        <template #uses="{ row: t }"
          ><RouterLink v-if="t.uses" :to="`/${project}/casebook?table=${t.id}`">{{
            plural(t.uses, 'case')
          }}</RouterLink
          ><span v-else class="soft">no case</span></template
        >
      </ListTable>
    </ListView>
  </div>
</template>

<style scoped>
.chip {
  margin-right: 6px;
}
</style>
