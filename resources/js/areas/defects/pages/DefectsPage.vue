<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Api } from '@/api/client';
import { useDefectChoices } from '@/areas/defects/choices';
import * as shown from '@/areas/defects/columns';
import DefectBoard from '@/areas/defects/parts/DefectBoard.vue';
import DefectBulk from '@/areas/defects/parts/DefectBulk.vue';
import TakeOut from '@/areas/defects/parts/TakeOut.vue';
import { dropFilter, keepFilter, useDefects } from '@/areas/defects/queries';
import { may, mayWorkOnDefects } from '@/areas/people/session';
import type { Filter } from '@/kit/criteria';
import FilterBar from '@/kit/FilterBar.vue';
import KeyCap from '@/kit/KeyCap.vue';
import { useKeys } from '@/kit/keys';
import ListTable from '@/kit/ListTable.vue';
import ListView from '@/kit/ListView.vue';
import { toast } from '@/kit/notices';
import { useListState } from '@/kit/useListState';
import { useSelection } from '@/kit/useSelection';
import ViewMenu from '@/kit/ViewMenu.vue';

type Line = Api['DefectLine'];
/** Every defect of the project: narrowed, grouped, many changed at once, or as a board by state. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { choices, components, renew: renewChoices } = useDefectChoices(project);
const state = useListState(shown.VIEW);
const { filter, sort, set } = state;
const group = computed(() => String(route.query.group ?? ''));
const isBoard = computed(() => route.query.as === 'board');
const columns = computed(() =>
  route.query.columns ? String(route.query.columns).split(',').filter(Boolean) : shown.USUAL,
);
const { list, groups } = useDefects(project, filter, sort, group);
const mayFile = computed(() => may(project.value, 'file_defects'));
const mayWork = computed(() => mayWorkOnDefects(project.value));

const { selected, select: choose, clear: none } = useSelection(() => list.lines.value.map((l) => l.id));
const everything = ref(false);
function clear(): void {
  none();
  everything.value = false;
}
watch([() => JSON.stringify(filter.value), project], clear);
function select(id: string, range: boolean): void {
  everything.value = false;
  choose(id, range);
}
const count = computed(() => (everything.value ? list.total.value : selected.value.size));
const chosen = computed<Filter>(() =>
  everything.value
    ? filter.value
    : {
        ids: list.lines.value
          .filter((l) => selected.value.has(l.id))
          .map((l) => l.key)
          .join(','),
      },
);
const to = (d: Line): string => `/${project.value}/defects/${d.key}`;
const create = (): void => void (mayFile.value && router.push(`/${project.value}/defects/new`));
const ways = computed(() => [
  { value: 'mine', label: 'For me' },
  ...(mayFile.value ? [{ value: 'shared', label: 'For everybody' }] : []),
]);
async function keep(way: string, name: string): Promise<void> {
  const view = Object.fromEntries(Object.entries(route.query).map(([k, v]) => [k, String(v ?? '')]));
  await keepFilter(project.value, { name, shared: way === 'shared', filter: { ...view, ...filter.value } });
  toast(`Kept as "${name}".`);
  renewChoices();
}
async function drop(id: string): Promise<void> {
  await dropFilter(id);
  renewChoices();
}
useKeys('Defects', () => [
  ...(mayFile.value ? [{ keys: ['n'], label: 'New defect', run: create }] : []),
  {
    keys: ['b'],
    label: 'As a board, or as a list',
    run: () => set('as', isBoard.value ? undefined : 'board'),
  },
]);
const criteria = computed(() => [
  ...shown.defectCriteria(choices.value, components.value),
  ...shown.linkedCriteria(filter.value),
]);
</script>

<template>
  <div class="page wide">
    <div class="title-line">
      <h1>Defects</h1>
      <div class="actions">
        <span class="row kept">
          <RouterLink
            v-for="f in choices.filters"
            :key="f.id"
            :to="{ query: f.filter as Filter }"
            class="small"
            >{{ f.name }}</RouterLink
          >
        </span>
        <button type="button" class="link" @click="set('as', isBoard ? undefined : 'board')">
          {{ isBoard ? 'As a list' : 'As a board' }} <KeyCap of="b" />
        </button>
        <Button v-if="mayFile" title="n" label="New defect" @click="create" />
      </div>
    </div>
    <template v-if="isBoard">
      <FilterBar what="defects" :criteria="criteria" :filter="filter" @set="set" @clear="state.clear" />
      <DefectBoard :project="project" :filter="filter" :builds="choices.builds" :may-work="mayWork" />
    </template>
    <ListView
      v-else
      one="defect"
      many="defects"
      :criteria="criteria"
      :state="state"
      :list="list"
      empty="Defects are filed from a failed step on the walk, or here. There is none yet."
    >
      <template #tools
        ><TakeOut :project="project" :filter="filter" :count="list.total.value" /><ViewMenu
          :choices="shown.columnChoices(choices, components)"
          :columns="columns"
          :groups="shown.GROUPS"
          :group="group"
          :ways="ways"
          :kept="choices.filters.filter((f) => f.mine)"
          :keep="keep"
          :drop="drop"
          @set="set"
      /></template>
      <template #above
        ><DefectBulk
          v-if="count > 0 && mayWork"
          :project="project"
          :filter="chosen"
          :count="count"
          :total="list.total.value"
          :choices="choices"
          :components="components"
          @done="list.refetch()"
          @clear="clear"
          @everything="everything = true"
          ><template #out
            ><TakeOut :project="project" :filter="chosen" :count="count" /></template></DefectBulk
      ></template>
      <template #empty><Button v-if="mayFile" label="File the first" @click="create" /></template>
      <ListTable
        what="defect"
        label="Defects"
        :rows="list.lines.value"
        :total="list.total.value"
        :columns="shown.defectColumns(columns, choices, components)"
        :sort="sort"
        :selected="everything ? new Set(list.lines.value.map((l) => l.id)) : selected"
        :group-of="group ? (d: Line) => shown.groupOf(group, d) : null"
        :group-label="
          (key: string) => ({
            label: shown.groupWords(group, key, choices, components),
            count: groups.get(key),
          })
        "
        :name-of="(d: Line) => d.key"
        @sort="state.sortBy"
        @more="list.more"
        @select="select"
        @all="(on: boolean) => (on ? (selected = new Set(list.lines.value.map((l) => l.id))) : clear())"
        @open="(d: Line) => router.push(to(d))"
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

<style scoped>
.wide {
  max-width: 1720px;
}
.kept {
  gap: 12px;
}
</style>
