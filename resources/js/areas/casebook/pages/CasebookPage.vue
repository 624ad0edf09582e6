<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import { useKeys } from '@/kit/keys';
import { toast } from '@/kit/notices';
import { mayLead } from '@/areas/people/session';
import StateBox from '@/kit/StateBox.vue';
import { withValue, type Filter } from '@/kit/criteria';
import ListTable from '@/kit/ListTable.vue';
import ListView from '@/kit/ListView.vue';
import { useListState } from '@/kit/useListState';
import { useSelection } from '@/kit/useSelection';
import BulkBar from '@/areas/casebook/parts/BulkBar.vue';
import CasebookTabs from '@/areas/casebook/parts/CasebookTabs.vue';
import ExportPanel from '@/areas/casebook/parts/ExportPanel.vue';
import { criteria, planOf, stateWord, VIEW } from '@/areas/casebook/filter';
import { caseColumns } from '@/areas/casebook/columns';
import FolderTree from '@/areas/casebook/parts/FolderTree.vue';
import { actOn, undoAct, useFrame } from '@/areas/casebook/frame';
import { useCases } from '@/areas/casebook/queries';
import KeptLists from '@/areas/casebook/parts/KeptLists.vue';
import KeepView from '@/areas/casebook/parts/KeepView.vue';
import PeekPanel from '@/areas/casebook/parts/PeekPanel.vue';
import SuiteNotice from '@/areas/casebook/parts/SuiteNotice.vue';

const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { frame, frameError, refetchFrame, nameOf, pathOf } = useFrame(project);
const state = useListState(VIEW);
const { filter, sort, set } = state;
const group = computed(() => String(route.query.group ?? ''));
const DEFAULT = ['state', 'priority', 'estimate', 'owner', 'walked'];
const columns = computed(() =>
  route.query.columns ? String(route.query.columns).split(',').filter(Boolean) : DEFAULT,
);
const list = useCases(project, filter, sort, group);
const { lines, counts, total } = list;
const groupOf = (c: Api['CaseLine']): string =>
  ({ state: c.state, type: c.type, priority: c.priority, owner: c.owner?.id ?? '' })[group.value] ?? '';
const groups = computed(() => {
  const label = (value: string): string =>
    group.value === 'state'
      ? stateWord(value)
      : group.value === 'owner'
        ? (frame.value?.people.find((p) => p.id === value)?.name ?? 'Nobody')
        : nameOf.value(group.value as 'type' | 'priority', value);
  return new Map(
    (counts.value?.groups ?? []).map((g) => [g.value, { label: label(g.value), cases: g.cases }]),
  );
});

// Choosing and looking.
const { selected, select: choose, clear: none } = useSelection(() => lines.value.map((l) => l.id));
const everything = ref(false);
const current = ref('');
watch([() => JSON.stringify(filter.value), project], () => clear());
function clear(): void {
  none();
  everything.value = false;
}
function select(id: string, range: boolean): void {
  everything.value = false;
  choose(id, range);
}
const chosenFilter = computed<Filter>(() =>
  everything.value ? filter.value : { ids: [...selected.value].join(',') },
);
const chosenCount = computed(() => (everything.value ? total.value : selected.value.size));
watch(current, (id) => {
  const now = lines.value.find((l) => l.id === id);
  if (now && route.query.peek) set('peek', now.key);
});
useKeys('Casebook', () => [
  {
    keys: ['l'],
    label: 'Last results beside the list',
    run: () =>
      set(
        'peek',
        route.query.peek
          ? undefined
          : (lines.value.find((l) => l.id === current.value) ?? lines.value[0])?.key,
      ),
  },
  { keys: ['n'], label: 'New case', run: () => void create() },
  {
    keys: ['p'],
    label: 'Plan a cycle of the chosen cases',
    run: () =>
      chosenCount.value > 0 &&
      mayLead(project.value) &&
      void router.push(planOf(project.value, chosenFilter.value)),
  },
]);
function create(): void {
  if (!frame.value?.may_write) return;
  const folder = filter.value.folder;
  void router.push({
    path: `/${project.value}/casebook/new`,
    query: folder && folder !== 'none' ? { folder } : {},
  });
}
async function moveCases(ids: string[], folder: string, before?: string | null): Promise<void> {
  try {
    const done = await actOn(
      project.value,
      'move',
      { ids: ids.join(',') },
      { folder_id: folder || null, ...(before ? { before } : {}) },
    );
    const act = done.act_id;
    toast(
      `${done.title} to ${pathOf(folder) || 'no folder'}.`,
      act
        ? async () => {
            const said = await undoAct(act);
            renew();
            return said;
          }
        : undefined,
    );
    renew();
  } catch (problem) {
    toast(errorMessage(problem));
  }
}
function renew(): void {
  list.refetch();
  void refetchFrame();
}
const exporting = ref<null | { filter: Filter; count: number }>(null);
const listed = computed(
  () => filter.value.folder !== undefined && filter.value.deep !== 'yes' && !sort.value,
);
</script>

<template>
  <div class="page wide">
    <CasebookTabs :waiting="frame?.waiting">
      <template v-if="frame?.may_write">
        <RouterLink :to="`/${project}/casebook/import`">Bring in</RouterLink>
        <button type="button" class="link" @click="exporting = { filter, count: total }">Take out</button>
        <Button label="New case" title="n" @click="create" />
      </template>
    </CasebookTabs>
    <StateBox v-if="!frame" :error="frameError" loading @again="refetchFrame()" />
    <div v-else class="columns">
      <div class="side">
        <FolderTree
          :project="project"
          :folders="frame.folders"
          :folder="filter.folder ?? ''"
          :cases="frame.cases"
          :may-write="frame.may_write"
          @choose="
            (id) =>
              router.replace({
                query: id
                  ? { ...route.query, folder: id, suite: undefined }
                  : withValue(route.query, 'folder', undefined),
              })
          "
          @changed="renew"
          @cases="(ids, folder) => moveCases(ids, folder)"
        />
        <KeptLists :frame="frame" :suite="filter.suite" />
      </div>
      <div class="main">
        <ListView
          one="case"
          many="cases"
          :criteria="criteria(frame)"
          :state="state"
          :list="list"
          :count="list.there.value ? list.countWords.value : ''"
          empty="The casebook holds all cases of the project. There is none here yet."
        >
          <template #beside
            ><label v-if="filter.folder && filter.folder !== 'none'" class="soft"
              ><input
                type="checkbox"
                :checked="filter.deep === 'yes'"
                @change="set('deep', filter.deep === 'yes' ? undefined : 'yes')"
              />
              and below</label
            ></template
          >
          <template #tools
            ><KeepView
              :project="project"
              :frame="frame"
              :filter="filter"
              :sort="sort"
              :group="group"
              :columns="columns"
              @set="set"
              @changed="renew"
          /></template>
          <template #above>
            <SuiteNotice
              v-if="filter.suite"
              :project="project"
              :suite="filter.suite"
              @changed="renew"
              @gone="
                set('suite', undefined);
                renew();
              "
            />
            <BulkBar
              v-if="chosenCount > 0 && frame.may_write"
              :project="project"
              :frame="frame"
              :filter="chosenFilter"
              :count="chosenCount"
              :total="total"
              :path-of="pathOf"
              @done="renew"
              @clear="clear"
              @everything="everything = true"
              ><template #export
                ><button
                  type="button"
                  class="link"
                  @click="exporting = { filter: chosenFilter, count: chosenCount }"
                >
                  Take out
                </button></template
              ></BulkBar
            >
          </template>
          <template #empty
            ><Button v-if="frame.may_write" label="Write the first case" @click="create"
          /></template>
          <div class="with-peek" :class="{ peeking: route.query.peek }">
            <ListTable
              v-model:current="current"
              what="case"
              label="Cases"
              :rows="lines"
              :total="total"
              :columns="
                caseColumns(route.query.peek ? columns.slice(0, 2) : columns, {
                  fields: frame.fields,
                  nameOf,
                  pathOf,
                })
              "
              :sort="sort"
              :selected="everything ? new Set(lines.map((l) => l.id)) : selected"
              :movable="listed && frame.may_write"
              :drag-as="frame.may_write ? 'application/x-cases' : ''"
              :group-of="group ? groupOf : null"
              :group-label="
                (key) => ({ label: groups.get(key)?.label ?? key, count: groups.get(key)?.cases })
              "
              :name-of="(c) => c.key"
              @sort="state.sortBy"
              @more="list.more"
              @select="select"
              @all="(on) => (on ? (selected = new Set(lines.map((l) => l.id))) : clear())"
              @open="(c) => router.push(`/${project}/casebook/${c.key}`)"
              @move="(ids, before) => moveCases(ids, filter.folder ?? '', before)"
            >
              <template #key="{ row: c }"
                ><span class="mono soft">{{ c.key }}</span></template
              >
              <template #title="{ row: c }">
                <RouterLink class="plain" :to="`/${project}/casebook/${c.key}`"
                  ><template v-if="c.title_parts.length > 0"
                    ><component :is="p.hit ? 'mark' : 'span'" v-for="(p, i) in c.title_parts" :key="i">{{
                      p.text
                    }}</component></template
                  ><template v-else>{{ c.title }}</template></RouterLink
                >
                <span v-if="c.is_template" class="soft small"> template</span>
                <span v-if="c.errors.length > 0" class="p-invalid-words small words"
                  >Cannot be walked. {{ c.errors[0]
                  }}{{ c.errors.length > 1 ? ` And ${c.errors.length - 1} more.` : '' }}</span
                >
                <span v-if="c.words.length > 0" class="soft small words"
                  ><component :is="p.hit ? 'mark' : 'span'" v-for="(p, i) in c.words" :key="i">{{
                    p.text
                  }}</component></span
                >
              </template>
            </ListTable>
            <PeekPanel
              v-if="route.query.peek"
              :project="project"
              :case-key="String(route.query.peek)"
              @close="set('peek', undefined)"
            />
          </div>
        </ListView>
      </div>
    </div>
    <ExportPanel
      v-if="exporting"
      :project="project"
      :filter="exporting.filter"
      :count="exporting.count"
      @close="exporting = null"
    />
  </div>
</template>

<style scoped>
.wide {
  max-width: 1720px;
}
.columns {
  display: grid;
  grid-template-columns: 230px minmax(0, 1fr);
  gap: 28px;
}
.side {
  position: sticky;
  top: 0;
  display: grid;
  gap: 18px;
  align-content: start;
  max-height: 100vh;
  padding-top: 4px;
  overflow-y: auto;
  padding-bottom: 20px;
}
.words {
  display: block;
}
.with-peek.peeking {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 16px;
}
.main {
  min-width: 0;
}
@media (max-width: 900px) {
  .columns,
  .with-peek.peeking {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    position: static;
    max-height: 220px;
  }
}
</style>
