<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import { tip, useKeys } from '@/kit/keys';
import { toast } from '@/kit/notices';
import StateBox from '@/kit/StateBox.vue';
import { useSelection } from '@/kit/useSelection';
import { plural } from '@/kit/words';
import { useListState } from '@/kit/useListState';
import { useRead } from '@/offline/useRead';
import AddPanel from '@/areas/cycles/parts/AddPanel.vue';
import ClonePanel from '@/areas/cycles/parts/ClonePanel.vue';
import AssignPanel from '@/areas/cycles/parts/AssignPanel.vue';
import CycleHead from '@/areas/cycles/parts/CycleHead.vue';
import NewVersionPanel from '@/areas/walk/parts/NewVersionPanel.vue';
import EntryTray, { type Chosen } from '@/areas/cycles/parts/EntryTray.vue';
import FactsPanel from '@/areas/cycles/parts/FactsPanel.vue';
import LoadList from '@/areas/cycles/parts/LoadList.vue';
import PlanList from '@/areas/cycles/parts/PlanList.vue';
import ShortTime from '@/areas/cycles/parts/ShortTime.vue';
import { readChoices, readEntries, useEntries } from '@/areas/cycles/queries';
import { undoPlanAct, useCycles, useMilestones, usePlan } from '@/areas/cycles/usePlan';
import { usePlanningSetup } from '@/areas/setup/queries';

/** A cycle's plan: the order, who does what, what waits for what, and whether there is time for it. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const key = computed(() => String(route.params.cycle));
const { data, error, isPending, refetch, act, tell, renew } = usePlan(key);
const { data: setup } = usePlanningSetup(project);
const { data: milestones } = useMilestones(project);
const { data: cycles } = useCycles(project);
const recorders = computed(() =>
  (setup.value?.people ?? []).filter((p) => ['admin', 'lead', 'tester'].includes(p.role)),
);
const state = useListState(['entry']);
const list = useEntries(key, state.filter, state.sort);

// Choosing.
const { selected, select, clear, chosen: chosenIds } = useSelection(() => list.lines.value.map((l) => l.id));
const current = ref(String(route.query.entry ?? ''));
/** What is known of entries that were chosen all together, beside those that were read. */
const choices = ref(new Map<string, Api['EntryChoice']>());
async function all(on: boolean): Promise<void> {
  if (!on) return clear();
  const found = await readChoices(key.value, state.filter.value);
  choices.value = new Map(found.map((c) => [c.id, c]));
  selected.value = new Set(found.map((c) => c.id));
}
watch([() => JSON.stringify(state.filter.value), key], clear);
/** An entry of the address that is not among those that were read yet. */
const { data: named } = useRead(
  'entry',
  () => ['entry-line', key.value, current.value],
  async () =>
    current.value && !list.lines.value.some((e) => e.id === current.value)
      ? ((await readEntries(key.value, { ids: current.value })).items[0] ?? null)
      : null,
);
const byId = computed(
  () => new Map([...(named.value ? [named.value] : []), ...list.lines.value].map((e) => [e.id, e])),
);
const ids = computed(() =>
  selected.value.size > 0 ? chosenIds.value : current.value ? [current.value] : [],
);
const chosen = computed<Chosen>(() => {
  const known = ids.value.flatMap((id) => byId.value.get(id) ?? choices.value.get(id) ?? []);
  return {
    ids: ids.value,
    one: ids.value.length === 1 ? (byId.value.get(ids.value[0]!) ?? null) : null,
    seconds: known.reduce((s, e) => s + ('seconds' in e ? e.seconds : e.estimate_seconds), 0),
    walking: known.filter((e) => e.walking).length,
  };
});
useKeys('Plan', () => [
  { keys: ['a'], label: 'Add entries', run: () => (panel.value = panel.value === 'add' ? '' : 'add') },
  { keys: ['h'], label: 'Hand out what is nobody’s', run: () => (panel.value = 'assign') },
  { keys: ['s'], label: 'Short of time', run: () => (panel.value = 'short') },
]);
async function move(moved: string[], before: string | null): Promise<void> {
  try {
    await act('move', moved, before ? { before_id: before } : {});
  } catch (e) {
    toast(errorMessage(e));
  }
}
const open = computed(() => !['closed', 'abandoned'].includes(data.value?.cycle.cycle.state ?? ''));
const mayMove = computed(
  () => (data.value?.may_plan ?? false) && open.value && !state.narrowed.value && state.sort.value === '',
);

const panel = ref<'' | 'add' | 'assign' | 'short' | 'again' | 'facts'>('');
const drift = ref('');
async function undoLast(): Promise<void> {
  const last = data.value?.last_act;
  if (!last) return;
  try {
    toast(await undoPlanAct(last.id));
  } catch (e) {
    toast(errorMessage(e));
  }
  renew();
}
async function mend(): Promise<void> {
  try {
    await act('sort_by_dependencies', []);
  } catch (e) {
    toast(errorMessage(e));
  }
}

function done(d: Api['PlanActResult']): void {
  tell(d);
  clear();
}
</script>

<template>
  <div class="page">
    <StateBox v-if="!data || !setup" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <CycleHead :project="project" :cycle="data.cycle.cycle" :next="data.cycle.next" @moved="renew()" />
      <div class="row tools">
        <template v-if="open">
          <button
            type="button"
            class="link"
            :aria-expanded="panel === 'add'"
            :title="tip('Add entries', 'a')"
            @click="panel = panel === 'add' ? '' : 'add'"
          >
            Add entries
          </button>
          <button
            type="button"
            class="link"
            :aria-expanded="panel === 'assign'"
            :title="tip('Hand out what is nobody’s', 'h')"
            @click="panel = panel === 'assign' ? '' : 'assign'"
          >
            Hand out
          </button>
          <button
            type="button"
            class="link"
            :aria-expanded="panel === 'short'"
            :title="tip('Short of time', 's')"
            @click="panel = panel === 'short' ? '' : 'short'"
          >
            Short of time
          </button>
          <button
            type="button"
            class="link"
            :aria-expanded="panel === 'facts'"
            @click="panel = panel === 'facts' ? '' : 'facts'"
          >
            Dates, build, people
          </button>
        </template>
        <button
          type="button"
          class="link"
          :aria-expanded="panel === 'again'"
          @click="panel = panel === 'again' ? '' : 'again'"
        >
          Again
        </button>
        <span class="gap" />
        <button
          v-if="data.last_act && open"
          type="button"
          class="link soft"
          :title="`${data.last_act.title}, ${data.last_act.by.name}`"
          @click="undoLast"
        >
          Undo “{{ data.last_act.title }}”
        </button>
      </div>
      <AddPanel
        v-if="panel === 'add'"
        :project="project"
        :setup="setup"
        :cycles="cycles ?? []"
        :cycle="key"
        @done="renew()"
        @close="panel = ''"
      />
      <AssignPanel
        v-if="panel === 'assign'"
        :plan="data"
        :people="recorders"
        :chosen="chosenIds"
        @done="done"
        @close="panel = ''"
      />
      <ShortTime v-if="panel === 'short'" :plan="data" @done="done" @close="panel = ''" />
      <ClonePanel
        v-if="panel === 'again'"
        :project="project"
        :setup="setup"
        :cycle="data.cycle.cycle"
        @close="panel = ''"
      />
      <FactsPanel
        v-if="panel === 'facts'"
        :cycle="data.cycle"
        :setup="setup"
        :milestones="milestones ?? []"
        :folders="[...new Set((cycles ?? []).map((c) => c.folder).filter(Boolean))]"
        @saved="refetch()"
        @stale="refetch()"
        @close="panel = ''"
      />
      <NewVersionPanel
        v-if="drift"
        :entry="drift"
        :may-take="data.may_plan"
        @taken="renew()"
        @close="drift = ''"
      />
      <p v-if="data.faults_count > 0" class="fault" role="status">
        <span class="p-invalid-words"
          >{{ plural(data.faults_count, 'entry stands', 'entries stand') }} before what
          {{ data.faults_count === 1 ? 'it depends' : 'they depend' }} on:
          {{ data.faults.map((f) => `${f.case_key} before ${f.needs_case_key}`).join(', ')
          }}<template v-if="data.faults_count > data.faults.length"> …</template></span
        >
        <button v-if="data.may_plan && open" type="button" class="link" @click="mend">Put them behind</button>
      </p>
      <div class="columns">
        <div class="main">
          <PlanList
            v-model:current="current"
            :project="project"
            :plan="data"
            :state="state"
            :list="list"
            :selected="selected"
            :may-move="mayMove"
            @select="select"
            @all="all"
            @move="move"
          >
            <template #empty
              ><button type="button" class="link" @click="panel = 'add'">Add entries</button></template
            >
          </PlanList>
        </div>
        <aside>
          <EntryTray
            v-if="chosen.ids.length > 0 && open && data.may_plan"
            :project="project"
            :cycle="key"
            :chosen="chosen"
            :people="recorders"
            :act="act"
            @drift="drift = $event"
          />
          <LoadList
            :loads="data.loads"
            :left="data.seconds_left"
            :unassigned="data.seconds_unassigned"
            :capacity="data.capacity_seconds"
          />
          <p class="soft small">
            Capacity and days off are set in
            <RouterLink :to="`/${project}/setup/planning`">Setup</RouterLink>.
          </p>
        </aside>
      </div>
    </template>
  </div>
</template>

<style scoped>
.tools {
  margin-bottom: 10px;
  gap: 18px;
}
.gap {
  flex: 1;
}
.fault {
  display: flex;
  gap: 12px;
  align-items: baseline;
  margin-bottom: 8px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 28px;
  align-items: start;
}
aside {
  display: grid;
  gap: 18px;
}
section.sheet {
  margin-bottom: 12px;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
