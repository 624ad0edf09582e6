<script setup lang="ts">
import Button from 'primevue/button';
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import { useKeys } from '@/kit/keys';
import { toast } from '@/kit/notices';
import { mayLead } from '@/areas/people/session';
import StateBox from '@/kit/StateBox.vue';
import { useSelection } from '@/kit/useSelection';
import BulkBar from '@/areas/casebook/parts/BulkBar.vue';
import CasebookTabs from '@/areas/casebook/parts/CasebookTabs.vue';
import CaseTable from '@/areas/casebook/parts/CaseTable.vue';
import ExportPanel from '@/areas/casebook/parts/ExportPanel.vue';
import { fromQuery, planOf, stateWord, withValue, type Filter } from '@/areas/casebook/filter';
import FilterBar from '@/areas/casebook/parts/FilterBar.vue';
import FolderTree from '@/areas/casebook/parts/FolderTree.vue';
import { actOn, undoAct, useFrame } from '@/areas/casebook/frame';
import { useCaseList } from '@/areas/casebook/useCaseList';
import KeepView from '@/areas/casebook/parts/KeepView.vue';
import PeekPanel from '@/areas/casebook/parts/PeekPanel.vue';
import SuiteNotice from '@/areas/casebook/parts/SuiteNotice.vue';

const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { frame, frameError, refetchFrame, nameOf, pathOf } = useFrame(project);
const filter = computed<Filter>(() => fromQuery(route.query));
const sort = computed(() => String(route.query.sort ?? ''));
const group = computed(() => String(route.query.group ?? ''));
const DEFAULT = ['state', 'priority', 'estimate', 'owner', 'walked'];
const columns = computed(() =>
  route.query.columns ? String(route.query.columns).split(',').filter(Boolean) : DEFAULT,
);
const set = (name: string, value: string | undefined): void =>
  void router.replace({ query: withValue(route.query, name, value) });

const { data, lines, counts, total, countWords, more, error, isPending, refetch } = useCaseList(
  project,
  filter,
  sort,
  group,
);
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
const table = ref<InstanceType<typeof CaseTable> | null>(null);
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
const at = computed(() => lines.value.findIndex((l) => l.key === current.value));
function step(by: number): void {
  const next = lines.value[Math.max(0, Math.min(lines.value.length - 1, at.value + by))];
  if (!next) return;
  current.value = next.key;
  if (route.query.peek) set('peek', next.key);
  table.value?.show(next.key);
}
const here = computed(() => lines.value[at.value]);
useKeys('Casebook', () => [
  { keys: ['j', 'ArrowDown'], label: 'Next case', run: () => step(1) },
  { keys: ['k', 'ArrowUp'], label: 'Case before', run: () => step(-1) },
  { keys: ['x'], label: 'Choose the case', run: () => here.value && select(here.value.id, false) },
  {
    keys: ['Enter'],
    label: 'Open the case',
    run: () => here.value && void router.push(`/${project.value}/casebook/${here.value.key}`),
  },
  {
    keys: ['l'],
    label: 'Last results beside the list',
    run: () => set('peek', route.query.peek ? undefined : current.value || lines.value[0]?.key),
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
  { keys: ['/'], label: 'Find', run: () => document.querySelector<HTMLInputElement>('#find-cases')?.focus() },
]);
/** Moves the current case among its neighbours, where the folder's own order is shown. */
function onKey(event: KeyboardEvent): void {
  if (!event.altKey || !listed.value || !here.value || !frame.value?.may_write) return;
  const to = event.key === 'ArrowUp' ? at.value - 1 : event.key === 'ArrowDown' ? at.value + 2 : -1;
  if (to < 0 || (event.key === 'ArrowDown' && at.value >= lines.value.length - 1)) return;
  event.preventDefault();
  void moveCases([here.value.id], filter.value.folder ?? '', lines.value[to]?.id);
}
onMounted(() => window.addEventListener('keydown', onKey));
onBeforeUnmount(() => window.removeEventListener('keydown', onKey));
function create(): void {
  if (!frame.value?.may_write) return;
  const folder = filter.value.folder;
  void router.push({
    path: `/${project.value}/casebook/new`,
    query: folder && folder !== 'none' ? { folder } : {},
  });
}
function sortBy(name: string): void {
  set('sort', sort.value === name ? `-${name}` : sort.value === `-${name}` ? undefined : name);
}
async function moveCases(ids: string[], folder: string, before?: string): Promise<void> {
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
  void refetch();
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
        <section v-if="frame.suites.length > 0" aria-label="Suites">
          <h2 class="label">Suites</h2>
          <button
            v-for="s in frame.suites"
            :key="s.id"
            type="button"
            class="named"
            :aria-current="filter.suite === s.id ? 'true' : undefined"
            @click="router.replace({ query: { suite: s.id } })"
          >
            <span class="long">{{ s.name }}</span><span class="soft"
              >{{ s.cases
              }}<span v-if="s.gained + s.lost > 0" :title="`${s.gained} gained, ${s.lost} lost`">
                +{{ s.gained }} −{{ s.lost }}</span
              ></span
            >
          </button>
        </section>
        <section v-if="frame.filters.length > 0" aria-label="Kept filters">
          <h2 class="label">Kept filters</h2>
          <RouterLink
            v-for="f in frame.filters"
            :key="f.id"
            class="named plain"
            :to="{ query: f.filter as Filter }"
            ><span class="long">{{ f.name }}</span
            ><span v-if="f.shared" class="soft small">{{ f.mine ? 'shared' : f.by }}</span></RouterLink
          >
        </section>
      </div>
      <div class="main">
        <FilterBar :frame="frame" :filter="filter" @set="set" @clear="router.replace({ query: {} })">
          <span class="spread" />
          <label v-if="filter.folder && filter.folder !== 'none'" class="soft"
            ><input
              type="checkbox"
              :checked="filter.deep === 'yes'"
              @change="set('deep', filter.deep === 'yes' ? undefined : 'yes')"
            />
            and below</label
          >
          <span class="soft" role="status">{{ data ? countWords : '' }}</span>
          <KeepView
            :project="project"
            :frame="frame"
            :filter="filter"
            :sort="sort"
            :group="group"
            :columns="columns"
            @set="set"
            @changed="renew"
          />
        </FilterBar>
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
        <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
        <StateBox
          v-else-if="lines.length === 0"
          :empty="
            Object.keys(filter).length > 0
              ? 'No case fits this. Take a filter away, or look with other words.'
              : 'The casebook holds all cases of the project. There is none here yet.'
          "
          ><Button
            v-if="frame.may_write && Object.keys(filter).length === 0"
            label="Write the first case"
            @click="create"
        /></StateBox>
        <div v-else class="with-peek" :class="{ peeking: route.query.peek }">
          <CaseTable
            ref="table"
            :project="project"
            :lines="lines"
            :columns="route.query.peek ? columns.slice(0, 2) : columns"
            :fields="frame.fields"
            :sort="sort"
            :group="group"
            :groups="groups"
            :group-of="groupOf"
            :selected="everything ? new Set(lines.map((l) => l.id)) : selected"
            :current="current"
            :name-of="nameOf"
            :path-of="pathOf"
            :may-write="frame.may_write"
            :ordered="listed"
            @sort="sortBy"
            @more="more"
            @select="select"
            @all="(on) => (on ? (selected = new Set(lines.map((l) => l.id))) : clear())"
            @focus="(key) => (current = key)"
            @drop="(ids, before) => moveCases(ids, filter.folder ?? '', before)"
          />
          <PeekPanel
            v-if="route.query.peek"
            :project="project"
            :case-key="String(route.query.peek)"
            @close="set('peek', undefined)"
          />
        </div>
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
  padding-bottom: 0;
}
.columns {
  display: grid;
  grid-template-columns: 230px minmax(0, 1fr);
  gap: 28px;
}
.side {
  display: grid;
  gap: 18px;
  align-content: start;
  max-height: calc(100vh - 120px);
  overflow-y: auto;
  padding-bottom: 20px;
}
.side section {
  display: grid;
  gap: 1px;
}
.named {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 4px 8px 4px 26px;
  border: 0;
  border-radius: 4px;
  background: none;
  font: inherit;
  color: var(--ink);
  text-align: left;
  cursor: pointer;
}
.named:hover {
  background: var(--well);
}
.named[aria-current='true'] {
  background: var(--sheet);
  box-shadow: inset 3px 0 0 var(--ink);
}
h2.label {
  font-weight: 400;
  padding-left: 26px;
}
.spread {
  flex: 1;
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
    max-height: 220px;
  }
}
</style>
