<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import CountBar from '@/kit/CountBar.vue';
import { durationText } from '@/kit/duration';
import { useKeys } from '@/kit/keys';
import type { Column } from '@/kit/list';
import ListTable from '@/kit/ListTable.vue';
import ListView from '@/kit/ListView.vue';
import PathTrail from '@/kit/PathTrail.vue';
import StateBox from '@/kit/StateBox.vue';
import { useListState } from '@/kit/useListState';
import { useSelection } from '@/kit/useSelection';
import VerdictMark from '@/kit/VerdictMark.vue';
import { ago, entryWords, exact, reasonWords, shownOf, wordOf } from '@/kit/words';
import { useRead } from '@/offline/useRead';
import { may, mayRecord } from '@/areas/people/session';
import ListVerdicts from '@/areas/walk/parts/ListVerdicts.vue';
import { useStart } from '@/areas/walk/useStart';
import CycleDefects from '@/areas/defects/parts/CycleDefects.vue';
import CycleHead from '@/areas/cycles/parts/CycleHead.vue';
import { type Line, entryCriteria, readChoices, readCycle, useEntries } from '@/areas/cycles/queries';
import KeyCap from '@/kit/KeyCap.vue';

/** Where a cycle stands: what each entry shows, whose it is, and who walks now. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const key = computed(() => String(route.params.cycle));
const { start, problem, busy } = useStart(project);
const { data, error, isPending, refetch } = useRead(
  'entry',
  () => ['board', key.value],
  () => readCycle(key.value),
  () => `board:${key.value}`,
);
const state = useListState();
const list = useEntries(key, state.filter, state.sort);
const criteria = computed(() =>
  entryCriteria(data.value?.assignees ?? [], data.value?.configurations ?? [], data.value?.outdated ?? 0),
);
const columns: Column<Line>[] = [
  { name: 'position', word: '#', width: '44px', sorted: true, soft: true, text: (e) => String(e.position) },
  { name: 'title', word: 'Entry', width: 'minmax(220px, 1fr)', sorted: true },
  { name: 'shows', word: 'Shows', width: '150px', sorted: true },
  { name: 'who', word: 'Assigned to', width: '150px', sorted: true },
  {
    name: 'time',
    word: 'Time',
    width: '64px',
    sorted: true,
    number: true,
    wide: true,
    text: (e) => (e.active_ms > 0 ? durationText(e.active_ms) : ''),
  },
  {
    name: 'defects',
    word: 'Defects',
    width: '64px',
    sorted: true,
    number: true,
    wide: true,
    text: (e) => (e.defects > 0 ? String(e.defects) : ''),
  },
];
const marks = computed(() =>
  (data.value?.trail ?? []).map((t) => ({
    id: t.entry_id,
    shown: t.shown,
    count: t.count,
    group: t.group,
    label: t.name ? `${t.name}: ${wordOf(t.shown)}` : wordOf(t.shown),
  })),
);

/** Entries chosen to be judged from the list. */
const { selected, select, clear } = useSelection(() => list.lines.value.map((e) => e.id));
const choosing = ref(false);
/** Which of all are walked already, as far as they were chosen all together. */
const walkedIds = ref(new Set<string>());
const mayJudge = computed(() => mayRecord(project.value) && data.value?.cycle.state === 'released');
const isWalked = (id: string): boolean =>
  walkedIds.value.has(id) || list.lines.value.some((e) => e.id === id && e.readiness === 'done');
const chosen = computed(() => [...selected.value]);
async function all(on: boolean): Promise<void> {
  if (!on) return clear();
  const choices = await readChoices(key.value, state.filter.value);
  walkedIds.value = new Set(choices.filter((c) => c.done).map((c) => c.id));
  selected.value = new Set(choices.map((c) => c.id));
}
function stopChoosing(): void {
  choosing.value = false;
  clear();
}
watch(key, stopChoosing);
// What is no longer in sight is not judged with the rest.
watch(() => JSON.stringify(state.filter.value), clear);
useKeys('On the board', () =>
  mayJudge.value && !choosing.value
    ? [{ keys: ['x'], label: 'Choose entries to judge from the list', run: () => (choosing.value = true) }]
    : choosing.value
      ? [{ keys: ['Escape'], label: 'Choose no more', run: stopChoosing }]
      : [],
);
const open = (id: string): void => void router.push(`/${project.value}/entries/${id}`);
</script>

<template>
  <div class="page">
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <CycleHead :project="project" :cycle="data.cycle">
        <Button
          v-if="data.next_entry_id && mayRecord(project)"
          outlined
          :disabled="busy"
          label="Walk my next entry"
          @click="start(data.next_entry_id)"
        />
      </CycleHead>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem.message }}</p>
      <p v-if="data.cycle.description" class="soft about">{{ data.cycle.description }}</p>
      <div class="sum">
        <CountBar :counts="data.cycle.counts" :total="data.cycle.total" />
        <p class="small">
          {{ durationText(data.active_ms) }} spent<template v-if="data.held > 0">
            · {{ data.held }} held</template
          ><template v-if="data.walkers.length > 0">
            · {{ data.walkers.map((w) => `${w.person.name} on ${w.case_key}`).join(', ') }}</template
          >
        </p>
        <CycleDefects v-if="may(project, 'see_evidence')" :project="project" :cycle="data.cycle.key" />
      </div>
      <PathTrail
        class="trail"
        :marks="marks"
        :label="`All entries of ${data.cycle.name}`"
        :longest="64"
        @choose="open"
        @run="(mark) => state.set('shows', mark.shown)"
      />
      <ListView
        one="entry"
        many="entries"
        :criteria="criteria"
        :state="state"
        :list="list"
        :all="data.cycle.total"
        empty="There is nothing to be walked in this cycle yet."
      >
        <template #tools>
          <button
            v-if="mayJudge"
            type="button"
            class="link"
            @click="choosing ? stopChoosing() : (choosing = true)"
          >
            {{ choosing ? 'Choose no more' : 'Judge from the list' }} <kbd v-if="choosing">Esc</kbd
            ><KeyCap v-else of="x" />
          </button>
        </template>
        <template #above>
          <ListVerdicts
            v-if="choosing"
            :project="project"
            :cycle="data.cycle.key"
            :ids="chosen"
            :walked="chosen.filter(isWalked).length"
            @all="all(true)"
            @done="
              selected = new Set($event);
              refetch();
              list.refetch();
            "
          />
        </template>
        <ListTable
          what="entry"
          label="Entries"
          :rows="list.lines.value"
          :total="list.total.value"
          :columns="columns"
          :sort="state.sort.value"
          :selected="choosing ? selected : null"
          :name-of="(e) => `${e.case_key} ${e.title}`"
          @sort="state.sortBy"
          @more="list.more"
          @select="select"
          @all="all"
          @open="(e) => open(e.id)"
        >
          <template #title="{ row: e }">
            <span class="keyed"
              ><span class="mono soft">{{ e.case_key }}</span
              ><span
                ><RouterLink class="plain" :to="`/${project}/entries/${e.id}`">{{ e.title }}</RouterLink
                ><span v-if="e.configuration || e.reasons.length > 0" class="soft small second">{{
                  [e.configuration?.name, ...e.reasons.map(reasonWords)].filter(Boolean).join('; ')
                }}</span></span
              ></span
            >
          </template>
          <template #shows="{ row: e }"
            ><VerdictMark :shown="shownOf(e)" word :label="entryWords(e)" /><span
              v-if="e.display_state_at"
              class="soft small second"
              :title="exact(e.display_state_at)"
              >{{ ago(e.display_state_at) }}</span
            ></template
          >
          <template #who="{ row: e }"
            ><span :class="{ soft: !e.assignee }">{{ e.assignee?.name ?? 'nobody' }}</span
            ><span v-if="e.walking" class="soft small second">{{
              e.walking.id === e.assignee?.id ? 'walking now' : `${e.walking.name} walks it`
            }}</span></template
          >
        </ListTable>
      </ListView>
    </template>
  </div>
</template>

<style scoped>
.about {
  max-width: 80ch;
  margin-bottom: 14px;
}
.sum {
  display: grid;
  gap: 6px;
  margin-bottom: 10px;
}
.trail {
  margin-bottom: 14px;
}
.second {
  display: block;
}
</style>
