<script setup lang="ts">
import { durationText } from '@/kit/duration';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Api } from '@/api/client';
import { useKeys } from '@/kit/keys';
import EntryRow from '@/areas/cycles/parts/EntryRow.vue';
import TermWord from '@/kit/TermWord.vue';
import PathTrail from '@/kit/PathTrail.vue';
import { useRead } from '@/offline/useRead';
import { may, mayLead, mayRecord, projectOf, session } from '@/areas/people/session';
import StateBox from '@/kit/StateBox.vue';
import { due, entryWords, exact, plural, shownOf, when } from '@/kit/words';
import { outbox } from '@/offline/outbox';
import AskedOfMe from '@/areas/today/parts/AskedOfMe.vue';
import LeadAside from '@/areas/today/parts/LeadAside.vue';
import NewsList from '@/areas/today/parts/NewsList.vue';
import FirstSteps from '@/areas/today/parts/FirstSteps.vue';
import OpenDefects from '@/areas/today/parts/OpenDefects.vue';
import RunningCycles from '@/areas/today/parts/RunningCycles.vue';
import ScratchPad from '@/areas/today/parts/ScratchPad.vue';
import TurnedList from '@/areas/today/parts/TurnedList.vue';
import ToExplore from '@/areas/sessions/parts/ToExplore.vue';
import { packed } from '@/areas/walk/usePack';
import { nextEntry } from '@/areas/walk/nextEntry';
import { useStart } from '@/areas/walk/useStart';
import { markSeen, readOverview, readToday } from '@/areas/today/queries';
import KeyCap from '@/kit/KeyCap.vue';

const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { start, problem, busy } = useStart(project);
const { data, error, isPending, refetch } = useRead(
  'entry',
  () => ['today', project.value],
  () => readToday(project.value),
  () => `today:${project.value}`,
);
const role = computed(() => projectOf(project.value)?.role ?? 'tester');
const leads = computed(() => mayLead(project.value));
const overview = useRead(
  'entry',
  () => ['overview', project.value, role.value],
  async () => (role.value === 'tester' ? null : await readOverview(project.value)),
  () => `overview:${project.value}`,
);
/** What the day is about, beside its title. */
const dayWords = computed(() => {
  const o = overview.data.value;
  if (!o || all.value.length > 0) return '';
  const run = o.cycles.length + o.more_cycles;
  const words = [run === 1 ? '1 cycle runs' : `${run} cycles run`];
  const walk = new Set(o.walking.map((w) => w.person.id)).size;
  if (leads.value) words.push(walk === 1 ? '1 person walks now' : `${walk} people walk now`);
  return words.join(' · ');
});
const free = computed(() => {
  const d = data.value;
  if (!d || d.free_entries === 0) return '';
  return `${plural(d.free_entries, 'entry', 'entries')} in ${plural(d.free_cycles, 'cycle')} can be taken`;
});
/** What was walked here and waits to be sent: it shows at once, before the server knows. */
const walkedHere = computed(
  () =>
    new Map(
      outbox.waiting.value
        .filter((a) => a.entry !== undefined && (a.command.kind === 'finish' || a.command.kind === 'start'))
        .map((a) => [a.entry ?? '', a.command.kind]),
    ),
);
const cycles = computed(() =>
  (data.value?.cycles ?? []).map((c) => ({
    ...c,
    entries: c.entries.map((e): Api['EntryLine'] => {
      const here = walkedHere.value.get(e.id);
      return here === 'finish'
        ? { ...e, readiness: 'done' }
        : here === 'start'
          ? { ...e, display_state: 'in_progress' }
          : e;
    }),
  })),
);
const all = computed(() => cycles.value.flatMap((c) => c.entries));
const open = computed(() => all.value.filter((e) => e.readiness !== 'done'));
const ready = computed(() => open.value.filter((e) => e.readiness === 'ready'));
const held = computed(() => open.value.filter((e) => e.readiness === 'held').length);
const spent = (list: Api['EntryLine'][]): number =>
  list.reduce((s, e) => s + Math.max(30, e.estimate_seconds - e.active_ms / 1000), 0) * 1000;
const minutes = computed(() => spent(ready.value));
/** When it would be done if one walked on without a break. */
const doneAt = computed(() => when(new Date(Date.now() + minutes.value).toISOString()));
const onDevice = computed(() => new Set(packed[project.value] ?? []));
const next = computed(() => {
  const of = data.value?.next_entry_id ?? null;
  if (of === null || !walkedHere.value.has(of)) return of;
  const me = session.value?.user.id ?? '';
  const here = all.value.filter((e) => !outbox.state.awaySince || onDevice.value.has(e.id));
  return (nextEntry(here, me, null, false) ?? nextEntry(all.value, me, null, false))?.id ?? null;
});
/** Whoever leads takes nobody's entries by pressing Enter on this page: only those of theirs are offered. */
const offered = computed(() =>
  mayRecord(project.value) && (!leads.value || all.value.length > 0) ? next.value : null,
);
const nextLine = computed(() => all.value.find((e) => e.id === next.value) ?? null);
const retests = computed(() => open.value.filter((e) => e.display_state === 'retest'));
const news = computed(() => data.value?.news ?? []);
const shownDone = ref(false);

function goTo(entry: Api['EntryLine'] | undefined): void {
  if (!entry) return;
  if (entry.readiness === 'ready' && mayRecord(project.value)) void start(entry.id);
  else void router.push(`/${project.value}/entries/${entry.id}`);
}
async function seen(): Promise<void> {
  const as_of = data.value?.as_of;
  if (!as_of) return;
  await markSeen(project.value, as_of);
  await refetch();
}
useKeys('Today', () => [
  {
    keys: ['Enter', 's'],
    label: 'Start the next entry',
    run: () => offered.value && void start(offered.value),
  },
  ...(leads.value
    ? [{ keys: ['w'], label: 'What waits for you', run: () => void router.push(`/${project.value}/queue`) }]
    : []),
  {
    keys: [leads.value ? 'h' : 'w'],
    label: 'Show what is walked',
    run: () => (shownDone.value = !shownDone.value),
  },
  { keys: ['x'], label: 'I have seen what changed', run: () => void seen() },
]);
const marksOf = (entries: Api['EntryLine'][]) =>
  entries.map((e) => ({
    id: e.id,
    shown: shownOf(e),
    label: `${e.case_key} ${e.title}: ${entryWords(e)}`,
    group: e.configuration?.name ?? '',
  }));
/** The first window that closes before the last day of the cycle. */
const windowOf = (c: Api['TodayCycle']): string =>
  c.due_at.slice(0, 10) < c.cycle.ends_on ? `first window closes ${when(c.due_at)}` : '';
</script>

<template>
  <div class="page">
    <div class="title-line">
      <h1>Today</h1>
      <span v-if="dayWords" class="soft">{{ dayWords }}</span>
      <span v-else-if="data && mayRecord(project)" class="soft"
        >{{ session?.user.name }}, {{ plural(ready.length, 'entry', 'entries') }} to walk<template
          v-if="minutes > 0"
          >, about {{ durationText(minutes) }}: done at {{ doneAt }} without a break</template
        ><template v-if="held > 0">; {{ held }} <TermWord of="held">held</TermWord></template></span
      >
      <div class="actions">
        <Button v-if="offered" :disabled="busy" @click="start(offered)"
          >{{
            nextLine
              ? `${nextLine.display_state === 'in_progress' ? 'Go on with' : 'Start'} ${nextLine.case_key}`
              : 'Take the next entry'
          }}
          <kbd>Enter</kbd></Button
        >
      </div>
    </div>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem.message }}</p>
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <div v-else class="columns">
      <div>
        <AskedOfMe v-if="may(project, 'file_defects')" :project="project" />
        <template v-if="overview.data.value">
          <OpenDefects
            v-if="role === 'developer'"
            :project="project"
            :defects="overview.data.value.defects"
          />
          <FirstSteps
            v-if="overview.data.value.first_steps"
            :project="project"
            :steps="overview.data.value.first_steps"
          />
          <RunningCycles v-else :project="project" :overview="overview.data.value" />
          <TurnedList
            v-if="leads && !overview.data.value.first_steps"
            :project="project"
            :turned="overview.data.value.turned"
          />
        </template>
        <StateBox
          v-else-if="role !== 'tester'"
          :loading="overview.isPending.value"
          :error="overview.error.value"
          @again="overview.refetch()"
        />
        <StateBox
          v-else-if="cycles.length === 0"
          empty="Nothing is assigned to you. When a lead gives you entries of a released cycle, they stand here in order."
        >
          <RouterLink :to="`/${project}/cycles`">{{ free || 'Look at the cycles' }}</RouterLink>
        </StateBox>
        <h2 v-if="leads && cycles.length > 0" class="mine">Yours to walk</h2>
        <ToExplore v-if="mayRecord(project)" :project="project" />
        <section v-if="retests.length > 0" class="asked" aria-label="Retests asked of you">
          <h2><TermWord of="retest">Retests</TermWord> asked of you</h2>
          <ul>
            <li v-for="e in retests" :key="e.id">
              <span class="long"
                ><strong>{{ e.retest_by?.name }}:</strong> {{ e.retest_reason }}</span
              >
              <button type="button" class="link wraps" @click="goTo(e)">
                <span class="mono">{{ e.case_key }}</span> {{ e.title }}
              </button>
            </li>
          </ul>
        </section>
        <section v-for="c in cycles" :key="c.cycle.id" class="cycle">
          <div class="head">
            <h2>
              <RouterLink class="plain" :to="`/${project}/cycles/${c.cycle.key}`">{{
                c.cycle.name
              }}</RouterLink>
            </h2>
            <span class="soft" :title="exact(c.due_at)"
              >{{ due(c.cycle.ends_on) }}<template v-if="windowOf(c)">, {{ windowOf(c) }}</template> · build
              {{ c.cycle.build?.name }}</span
            >
            <span class="soft right"
              >{{ c.entries.filter((e) => e.readiness === 'done').length }} of {{ c.entries.length }} walked ·
              about {{ durationText(spent(c.entries.filter((e) => e.readiness === 'ready'))) }} left</span
            >
          </div>
          <PathTrail
            :marks="marksOf(c.entries)"
            :current="c.next_entry_id"
            :label="`My entries in ${c.cycle.name}`"
            @choose="(id) => goTo(c.entries.find((e) => e.id === id))"
          />
          <table class="lines">
            <thead class="unseen">
              <tr>
                <th>Entry</th>
                <th>Shows</th>
                <th>Configuration</th>
                <th>Estimate</th>
              </tr>
            </thead>
            <tbody>
              <EntryRow
                v-for="e in c.entries.filter((x) => shownDone || x.readiness !== 'done')"
                :key="e.id"
                :entry="e"
                :here="e.id === next"
                :on-device="onDevice.has(e.id)"
                @open="goTo(e)"
              />
            </tbody>
          </table>
          <button
            v-if="c.entries.some((e) => e.readiness === 'done')"
            type="button"
            class="more"
            @click="shownDone = !shownDone"
          >
            {{
              shownDone
                ? 'Hide what is walked'
                : `Show ${c.entries.filter((e) => e.readiness === 'done').length} walked`
            }}
            <KeyCap :of="leads ? 'h' : 'w'" />
          </button>
        </section>
        <p v-if="free && (cycles.length > 0 || role !== 'tester')" class="free">
          <RouterLink :to="`/${project}/cycles`">{{ free }}</RouterLink>
        </p>
      </div>
      <aside aria-label="What waits, what changed, and notes">
        <LeadAside v-if="leads && overview.data.value" :project="project" :overview="overview.data.value" />
        <NewsList
          v-if="news.length > 0"
          :project="project"
          :news="news"
          @seen="seen"
          @open="(id) => goTo(all.find((e) => e.id === id))"
        />
        <p v-else-if="data.seen_at === null" class="soft small">
          From now on, what changes between two visits stands here.
          <button type="button" class="link" @click="seen">All right</button>
        </p>
        <p v-if="onDevice.size > 0" class="soft small">
          {{ plural(onDevice.size, 'entry is', 'entries are') }} on this device and can be walked while the
          server is away.
        </p>
        <ScratchPad :project="project" />
      </aside>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 40px;
}
aside {
  display: grid;
  gap: 24px;
  align-content: start;
}
aside h2 {
  font-size: 0.93rem;
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
.asked {
  margin-bottom: 28px;
}
.mine {
  margin: 32px 0 12px;
}
.free {
  margin-top: 20px;
}
.asked ul {
  display: grid;
  gap: 8px;
  margin-top: 8px;
}
.asked li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 24px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.cycle {
  margin-bottom: 36px;
}
.head {
  display: flex;
  gap: 14px;
  align-items: baseline;
  flex-wrap: wrap;
  margin-bottom: 6px;
}
.right {
  margin-left: auto;
}
table {
  margin-top: 8px;
}
.more {
  font: inherit;
  color: var(--ink-soft);
  background: none;
  border: 0;
  padding: 10px 0;
  cursor: pointer;
}
@media (max-width: 640px) {
  .asked li {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
}
</style>
