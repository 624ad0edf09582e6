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

type Line = Api['RoutineLine'];
const EMPTY =
  'A routine is a run of steps that many cases use, written once and changed in one place. ' +
  'Write one, or choose steps in a case and make a routine of them.';
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { frame, frameError, refetchFrame } = useFrame(project);
const state = useListState();
const list = useWhole<Line>(
  computed(() => frame.value?.routines),
  { words: computed(() => state.filter.value.q ?? ''), sort: state.sort },
  {
    words: (r) => `${r.name} ${r.description}`,
    order: {
      name: (r) => r.name.toLowerCase(),
      steps: (r) => r.steps,
      uses: (r) => r.uses,
      changed: (r) => r.updated_at,
    },
  },
  { error: frameError, refetch: refetchFrame },
);
const columns: Column<Line>[] = [
  { name: 'name', word: 'Routine', width: 'minmax(240px, 1fr)', sorted: true },
  { name: 'parameters', word: 'Parameters', width: 'minmax(140px, 0.4fr)', wide: true },
  { name: 'steps', word: 'Steps', width: '64px', sorted: true, number: true, text: (r) => String(r.steps) },
  { name: 'uses', word: 'Used in', width: '92px', sorted: true, number: true },
  {
    name: 'changed',
    word: 'Changed',
    width: '110px',
    sorted: true,
    soft: true,
    text: (r) => ago(r.updated_at),
    tip: (r) => exact(r.updated_at),
  },
];
const to = (id: string): string => `/${project.value}/casebook/routines/${id}`;
const create = (): void => void (frame.value?.may_write && router.push(to('new')));
useKeys('Routines', () => [{ keys: ['n'], label: 'New routine', run: create }]);
</script>

<template>
  <div class="page">
    <CasebookTabs :waiting="frame?.waiting"
      ><Button v-if="frame?.may_write" label="New routine" title="n" @click="create"
    /></CasebookTabs>
    <ListView one="routine" many="routines" :criteria="[]" :state="state" :list="list" :empty="EMPTY">
      <ListTable
        what="routine"
        label="Routines"
        :rows="list.lines.value"
        :columns="columns"
        :sort="state.sort.value"
        :name-of="(r) => r.name"
        @sort="state.sortBy"
        @open="(r) => router.push(to(r.id))"
      >
        <template #name="{ row: r }"
          ><RouterLink class="plain" :to="to(r.id)"
            ><strong>{{ r.name }}</strong></RouterLink
          ><span class="soft small second">{{ r.description }}</span></template
        >
        <template #parameters="{ row: r }"
          ><span v-for="p in r.parameters" :key="p.name" class="chip" :title="p.default || undefined">{{
            p.name
          }}</span></template
        >
        <template #uses="{ row: r }"
          ><RouterLink v-if="r.uses" :to="`/${project}/casebook?routine=${r.id}`">{{
            plural(r.uses, 'case')
          }}</RouterLink
          ><span v-else class="soft">no case</span></template
        >
      </ListTable>
    </ListView>
  </div>
</template>

<style scoped>
.second {
  display: block;
}
.chip {
  margin-right: 6px;
}
</style>
