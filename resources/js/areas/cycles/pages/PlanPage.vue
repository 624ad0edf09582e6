<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { useRoute } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import { useKeys } from '@/kit/keys';
import { toast } from '@/kit/notices';
import StateBox from '@/kit/StateBox.vue';
import { useSelection } from '@/kit/useSelection';
import { plural, shownOf } from '@/kit/words';
import AddPanel from '@/areas/cycles/parts/AddPanel.vue';
import ClonePanel from '@/areas/cycles/parts/ClonePanel.vue';
import AssignPanel from '@/areas/cycles/parts/AssignPanel.vue';
import CycleHead from '@/areas/cycles/parts/CycleHead.vue';
import NewVersionPanel from '@/areas/walk/parts/NewVersionPanel.vue';
import EntryTray from '@/areas/walk/parts/EntryTray.vue';
import FactsPanel from '@/areas/cycles/parts/FactsPanel.vue';
import LoadList from '@/areas/cycles/parts/LoadList.vue';
import PlanFilters from '@/areas/cycles/parts/PlanFilters.vue';
import PlanTable from '@/areas/cycles/parts/PlanTable.vue';
import ShortTime from '@/areas/cycles/parts/ShortTime.vue';
import { undoPlanAct, useCycles, useMilestones, usePlan } from '@/areas/cycles/usePlan';
import { usePlanningSetup } from '@/areas/setup/queries';

/** A cycle's plan: the order, who does what, what waits for what, and whether there is time for it. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const key = computed(() => String(route.params.cycle));
const { data, error, isPending, refetch, byId, act, tell } = usePlan(key);
const { data: setup } = usePlanningSetup(project);
const { data: milestones } = useMilestones(project);
const { data: cycles } = useCycles(project);
const people = computed(() => new Map((setup.value?.people ?? []).map((p) => [p.id, p.name])));
const names = computed(() => {
  const all = new Map(people.value);
  for (const l of data.value?.loads ?? []) all.set(l.id, l.name);
  return all;
});
const recorders = computed(() =>
  (setup.value?.people ?? []).filter((p) => ['admin', 'lead', 'tester'].includes(p.role)),
);
const configurations = computed(
  () => new Map((setup.value?.configurations ?? []).map((c) => [c.id, c.name])),
);

// Filters stand in the address.
const q = computed(() => String(route.query.q ?? ''));
const shows = computed(() => String(route.query.shows ?? ''));
const who = computed(() => String(route.query.who ?? ''));
const lines = computed(() => {
  const words = q.value.toLowerCase().split(/\s+/).filter(Boolean);
  return (data.value?.entries ?? []).filter(
    (e) =>
      words.every((w) => `${e.case_key} ${e.title}`.toLowerCase().includes(w)) &&
      (shows.value === '' || shownOf(e) === shows.value || (shows.value === 'behind' && e.outdated)) &&
      (who.value === '' || (e.assignee_id ?? 'nobody') === who.value),
  );
});
const filtered = computed(() => q.value !== '' || shows.value !== '' || who.value !== '');

// Choosing.
const { selected, select, all, clear, chosen: chosenIds } = useSelection(() => lines.value.map((l) => l.id));
const current = ref(String(route.query.entry ?? ''));
const table = ref<InstanceType<typeof PlanTable> | null>(null);
const chosen = computed(() => {
  const ids = selected.value.size > 0 ? chosenIds.value : current.value ? [current.value] : [];
  return ids.map((id) => byId.value.get(id)).filter((e) => e !== undefined);
});
const at = computed(() => lines.value.findIndex((l) => l.id === current.value));
function step(by: number): void {
  const next = lines.value[Math.max(0, Math.min(lines.value.length - 1, at.value + by))];
  if (!next) return;
  current.value = next.id;
  table.value?.show(next.id);
}
useKeys('Plan', () => [
  { keys: ['j', 'ArrowDown'], label: 'Next entry', run: () => step(1) },
  { keys: ['k', 'ArrowUp'], label: 'Entry before', run: () => step(-1) },
  { keys: ['x'], label: 'Choose the entry', run: () => current.value && select(current.value, false) },
  { keys: ['a'], label: 'Add entries', run: () => (panel.value = panel.value === 'add' ? '' : 'add') },
  { keys: ['h'], label: 'Hand out what is nobody’s', run: () => (panel.value = 'assign') },
  { keys: ['s'], label: 'Short of time', run: () => (panel.value = 'short') },
]);
/** Alt and an arrow move the chosen entries. */
function onKey(event: KeyboardEvent): void {
  if (!event.altKey || !mayMove.value || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
  const ids = chosen.value.map((e) => e.id);
  if (ids.length === 0) return;
  event.preventDefault();
  const order = (data.value?.entries ?? []).map((e) => e.id);
  const rest = order.filter((id) => !ids.includes(id));
  const first = Math.min(...ids.map((id) => order.indexOf(id)));
  const place =
    order.slice(0, first).filter((id) => !ids.includes(id)).length + (event.key === 'ArrowUp' ? -1 : 1);
  if (place < 0 || place > rest.length) return;
  void move(ids, rest[place] ?? null);
}
onMounted(() => window.addEventListener('keydown', onKey));
onBeforeUnmount(() => window.removeEventListener('keydown', onKey));
async function move(ids: string[], before: string | null): Promise<void> {
  try {
    await act('move', ids, before ? { before_id: before } : {});
  } catch (e) {
    toast(errorMessage(e));
  }
}
const open = computed(() => !['closed', 'abandoned'].includes(data.value?.cycle.cycle.state ?? ''));
const mayMove = computed(() => (data.value?.may_plan ?? false) && open.value && !filtered.value);

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
  void refetch();
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
      <CycleHead :project="project" :cycle="data.cycle.cycle" :next="data.cycle.next" @moved="refetch()" />
      <div class="row tools">
        <template v-if="open">
          <button
            type="button"
            class="link"
            :aria-expanded="panel === 'add'"
            title="Add entries (a)"
            @click="panel = panel === 'add' ? '' : 'add'"
          >
            Add entries
          </button>
          <button
            type="button"
            class="link"
            :aria-expanded="panel === 'assign'"
            title="Hand out what is nobody’s (h)"
            @click="panel = panel === 'assign' ? '' : 'assign'"
          >
            Hand out
          </button>
          <button
            type="button"
            class="link"
            :aria-expanded="panel === 'short'"
            title="Short of time (s)"
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
        @done="refetch()"
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
        @taken="refetch()"
        @close="drift = ''"
      />
      <p v-if="data.faults.length > 0" class="fault" role="status">
        <span class="p-invalid-words"
          >{{ plural(data.faults.length, 'entry stands', 'entries stand') }} before what
          {{ data.faults.length === 1 ? 'it depends' : 'they depend' }} on:
          {{
            data.faults
              .slice(0, 3)
              .map((f) => `${byId.get(f.entry_id)?.case_key} before ${byId.get(f.needs_id)?.case_key}`)
              .join(', ')
          }}<template v-if="data.faults.length > 3"> …</template></span
        >
        <button v-if="data.may_plan && open" type="button" class="link" @click="mend">Put them behind</button>
      </p>
      <div class="columns">
        <div class="main">
          <PlanFilters :plan="data" :shown="lines.length" />
          <StateBox
            v-if="data.entries.length === 0"
            empty="There is nothing to be walked in this cycle yet. Add entries out of folders, suites, a rule or an earlier cycle."
          >
            <button type="button" class="link" @click="panel = 'add'">Add entries</button>
          </StateBox>
          <StateBox v-else-if="lines.length === 0" empty="No entry fits these filters." />
          <PlanTable
            v-else
            ref="table"
            :lines="lines"
            :by-id="byId"
            :people="names"
            :configurations="configurations"
            :faults="data.faults"
            :selected="selected"
            :current="current"
            :may-move="mayMove"
            @select="select"
            @focus="current = $event"
            @all="all"
            @drop="move"
          />
        </div>
        <aside>
          <EntryTray
            v-if="chosen.length > 0 && open && data.may_plan"
            :project="project"
            :plan="data"
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
