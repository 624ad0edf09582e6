<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Api } from '@/api/client';
import CountBar from '@/kit/CountBar.vue';
import { tip, useKeys } from '@/kit/keys';
import { useWhole, type Column } from '@/kit/list';
import ListTable from '@/kit/ListTable.vue';
import ListView from '@/kit/ListView.vue';
import { useListState } from '@/kit/useListState';
import { useRead } from '@/offline/useRead';
import { mayLead } from '@/areas/people/session';
import { useSelection } from '@/kit/useSelection';
import { day, due, plainWords } from '@/kit/words';
import ChosenCycles from '@/areas/cycles/parts/ChosenCycles.vue';
import ClonePanel from '@/areas/cycles/parts/ClonePanel.vue';
import MilestoneForm from '@/areas/cycles/parts/MilestoneForm.vue';
import { cycleCriteria, fitsCycle } from '@/areas/cycles/queries';
import { useCycles, useMilestones } from '@/areas/cycles/usePlan';
import { readQueue } from '@/areas/walk/queries';
import { usePlanningSetup } from '@/areas/setup/queries';

/** The cycles of a project under their milestones, or by folder. */
type Line = Api['CycleSummary'];
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { data, error, refetch } = useCycles(project);
const { data: milestones, refetch: refetchMilestones } = useMilestones(project);
const { data: setup } = usePlanningSetup(project);
const { data: queue } = useRead(
  'entry',
  () => ['queue', project.value],
  async () =>
    mayLead(project.value) ? await readQueue(project.value) : ({ items: [], counts: {} } as Api['LeadQueue']),
);
const state = useListState(['by']);
const list = useWhole<Line>(
  computed(() => data.value?.filter((c) => fitsCycle(c, state.filter.value))),
  { words: computed(() => state.filter.value.q ?? ''), sort: state.sort },
  {
    words: (c) => `${c.key} ${c.name} ${c.description} ${c.folder} ${c.build?.name ?? ''}`,
    order: {
      name: (c) => c.name.toLowerCase(),
      state: (c) => c.state,
      build: (c) => c.build?.name.toLowerCase() ?? '',
      days: (c) => c.starts_on,
    },
  },
  { error, refetch },
);
const columns: Column<Line>[] = [
  { name: 'name', word: 'Cycle', width: 'minmax(220px, 1fr)', sorted: true },
  { name: 'state', word: 'State', width: '104px', sorted: true, text: (c) => plainWords(c.state) },
  {
    name: 'build',
    word: 'Build',
    width: '104px',
    sorted: true,
    wide: true,
    text: (c) => c.build?.name ?? '',
  },
  { name: 'days', word: 'Days', width: '148px', sorted: true, soft: true },
  { name: 'counts', word: 'Entries', width: 'minmax(200px, 0.9fr)' },
];
const to = (c: Line): string => `/${project.value}/cycles/${c.key}`;

const byFolder = computed(() => route.query.by === 'folder');
const groupOf = (c: Line): string => (byFolder.value ? c.folder : (c.milestone_id ?? ''));
const milestone = (id: string): Api['MilestoneLine'] | undefined =>
  milestones.value?.find((m) => m.id === id);
/** All milestones, those without a cycle too, but not where one looks for something. */
const groups = computed(() => {
  const used = new Set(list.lines.value.map(groupOf));
  if (byFolder.value)
    return [...used].sort((a, b) => Number(a === '') - Number(b === '') || a.localeCompare(b));
  const all = [...(milestones.value ?? [])].reverse().map((m) => m.id);
  return [...all.filter((id) => used.has(id) || !state.narrowed.value), ...(used.has('') ? [''] : [])];
});
const title = (id: string): string =>
  byFolder.value ? id || 'In no folder' : (milestone(id)?.name ?? 'Without a milestone');
const typeOf = (m: Api['MilestoneLine']): string =>
  m.type ? `${setup.value?.milestone_types.find((t) => t.value === m.type)?.name ?? m.type}, ` : '';
const criteria = computed(() => cycleCriteria(data.value ?? [], milestones.value ?? []));

/** The milestone being changed, "new" for one to be made, and the one being made again. */
const editing = ref('');
const again = ref('');
const renew = (): void => {
  void refetch();
  void refetchMilestones();
};
const { selected, select, all, clear, chosen } = useSelection(() => list.lines.value.map((c) => c.id));
const lead = computed(() => mayLead(project.value));
useKeys('Cycles', () =>
  lead.value
    ? [
        { keys: ['n'], label: 'New cycle', run: () => void router.push(`/${project.value}/cycles/new`) },
        {
          keys: ['w'],
          label: 'What waits for a lead',
          run: () => void router.push(`/${project.value}/queue`),
        },
      ]
    : [],
);
</script>

<template>
  <div class="page">
    <div class="title-line">
      <h1>Cycles</h1>
      <div v-if="lead" class="actions">
        <RouterLink :to="`/${project}/queue`" :title="tip('What waits for a lead', 'w')"
          >Waits for a lead: {{ queue?.items.length ?? 0 }}</RouterLink
        >
        <Button outlined severity="secondary" label="New milestone" @click="editing = 'new'" />
        <Button
          label="New cycle"
          :title="tip('New cycle', 'n')"
          @click="router.push(`/${project}/cycles/new`)"
        />
      </div>
    </div>
    <MilestoneForm
      v-if="editing && setup"
      :key="editing"
      :project="project"
      :types="setup.milestone_types"
      :milestone="milestone(editing) ?? null"
      @changed="refetchMilestones()"
      @close="editing = ''"
    />
    <ClonePanel
      v-if="again && milestone(again) && setup"
      :key="again"
      :project="project"
      :setup="setup"
      :milestone="milestone(again)!"
      @made="renew()"
      @close="again = ''"
    />
    <ListView
      one="cycle"
      many="cycles"
      :criteria="criteria"
      :state="state"
      :list="list"
      empty="A cycle is a dated set of entries to be walked for a build. There is none in this project yet."
    >
      <template #tools
        ><button type="button" class="link soft" @click="state.set('by', byFolder ? undefined : 'folder')">
          {{ byFolder ? 'By milestone' : 'By folder' }}
        </button></template
      >
      <template #above
        ><ChosenCycles
          v-if="selected.size > 0"
          :project="project"
          :ids="chosen"
          :builds="setup?.builds ?? []"
          @changed="refetch()"
          @clear="clear()"
      /></template>
      <ListTable
        what="cycle"
        label="Cycles"
        :rows="list.lines.value"
        :columns="columns"
        :sort="state.sort.value"
        :selected="lead ? selected : null"
        :group-of="groupOf"
        :groups="groups"
        :name-of="(c) => c.name"
        @sort="state.sortBy"
        @select="select"
        @all="all"
        @open="(c) => router.push(to(c))"
      >
        <template #group="{ id }">
          <div class="row milestone">
            <h2>{{ title(id) }}</h2>
            <template v-if="milestone(id)">
              <span class="soft">{{ typeOf(milestone(id)!) }}{{ due(milestone(id)!.due_on) }}</span>
              <span class="soft small long">{{ milestone(id)!.description }}</span>
              <span class="gap" />
              <span v-if="lead" class="row"
                ><button
                  type="button"
                  class="link soft"
                  :aria-label="`Edit ${title(id)}`"
                  @click="editing = id"
                >
                  Edit</button
                ><button
                  type="button"
                  class="link soft"
                  :aria-label="`${title(id)} again`"
                  @click="again = again === id ? '' : id"
                >
                  Again
                </button></span
              >
            </template>
          </div>
        </template>
        <template #name="{ row: c }">
          <span class="names"
            ><RouterLink class="plain name long" :to="to(c)">{{ c.name }}</RouterLink
            ><span class="soft small"
              ><span class="mono">{{ c.key }}</span
              ><template v-if="c.phase"> · {{ plainWords(c.phase).toLowerCase() }}</template></span
            ></span
          >
        </template>
        <template #days="{ row: c }">
          <span class="names"
            ><span>{{ day(c.starts_on) }} to {{ day(c.ends_on) }}</span
            ><span v-if="c.state === 'released'" class="small">{{ due(c.ends_on) }}</span></span
          >
        </template>
        <template #counts="{ row: c }"><CountBar :counts="c.counts" :total="c.total" /></template>
      </ListTable>
    </ListView>
  </div>
</template>

<style scoped>
.milestone {
  align-items: baseline;
  gap: 4px 12px;
  font-weight: 400;
}
.gap {
  flex: 1;
}
.names {
  display: grid;
  gap: 2px;
}
.name {
  font-weight: 700;
}
</style>
