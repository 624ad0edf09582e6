<script setup lang="ts">
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Api } from '@/api/client';
import type { Column } from '@/kit/list';
import ListTable from '@/kit/ListTable.vue';
import ListView from '@/kit/ListView.vue';
import { useListState } from '@/kit/useListState';
import { ago, exact, plainWords } from '@/kit/words';
import { defectCriteria, useDefects } from '@/areas/defects/queries';

type Line = Api['DefectLine'];
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const state = useListState();
const list = useDefects(project, state.filter, state.sort);
const columns: Column<Line>[] = [
  { name: 'title', word: 'Defect', width: 'minmax(240px, 1fr)', sorted: true },
  { name: 'state', word: 'State', width: '140px', sorted: true, text: (d) => plainWords(d.state) },
  { name: 'severity', word: 'Severity', width: '84px', sorted: true, text: (d) => plainWords(d.severity) },
  {
    name: 'with',
    word: 'With',
    width: '130px',
    soft: true,
    wide: true,
    text: (d) => d.assignee?.name ?? 'nobody',
  },
  { name: 'case', word: 'Case', width: '90px', wide: true },
  { name: 'build', word: 'Build', width: '120px', soft: true, wide: true, text: (d) => d.build?.name ?? '' },
  {
    name: 'reported',
    word: 'Reported',
    width: '190px',
    soft: true,
    text: (d) => `${d.reporter.name}, ${ago(d.created_at)}`,
    tip: (d) => exact(d.created_at),
  },
];
const to = (d: Line): string => `/${project.value}/defects/${d.key}`;
</script>

<template>
  <div class="page">
    <div class="title-line"><h1>Defects</h1></div>
    <ListView
      one="defect"
      many="defects"
      :criteria="defectCriteria"
      :state="state"
      :list="list"
      empty="Defects are filed from a failed step on the walk. There is none yet."
    >
      <ListTable
        what="defect"
        label="Defects"
        :rows="list.lines.value"
        :total="list.total.value"
        :columns="columns"
        :sort="state.sort.value"
        :name-of="(d) => d.key"
        @sort="state.sortBy"
        @more="list.more"
        @open="(d) => router.push(to(d))"
      >
        <template #title="{ row: d }">
          <span class="keyed"
            ><span class="mono soft">{{ d.key }}</span
            ><RouterLink class="plain" :to="to(d)">{{ d.title }}</RouterLink></span
          >
        </template>
        <template #case="{ row: d }"
          ><RouterLink v-if="d.case_key" class="mono" :to="`/${project}/casebook/${d.case_key}`">{{
            d.case_key
          }}</RouterLink></template
        >
      </ListTable>
    </ListView>
  </div>
</template>
