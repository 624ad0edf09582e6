<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import { api, take, type Api } from '@/api/client';
import { useKeys } from '@/kit/keys';
import EntryRow from '@/kit/EntryRow.vue';
import PathTrail from '@/kit/PathTrail.vue';
import { useRead } from '@/kit/read';
import { mayRecord, session } from '@/kit/session';
import StateBox from '@/kit/StateBox.vue';
import { due, entryWords, length, plural, shownOf } from '@/kit/words';
import { useStart } from '@/walk/useStart';
import { useRouter } from 'vue-router';

const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { start, problem, busy } = useStart(project);
const { data, error, isPending, refetch } = useRead(
  'entry',
  () => ['today', project.value],
  async () =>
    take(await api.GET('/projects/{project}/today', { params: { path: { project: project.value } } })),
  () => `today:${project.value}`,
);
const cycles = computed(() => data.value?.cycles ?? []);
const all = computed(() => cycles.value.flatMap((c) => c.entries));
const open = computed(() => all.value.filter((e) => e.readiness !== 'done'));
const minutes = computed(() => open.value.reduce((s, e) => s + (e.estimate_seconds ?? 120), 0) * 1000);
const next = computed(() => data.value?.next_entry_id ?? null);
const nextEntry = computed(() => all.value.find((e) => e.id === next.value) ?? null);
const retests = computed(() => open.value.filter((e) => e.shows === 'retest'));
const shownDone = ref(false);

function goTo(entry: Api['EntryLine']): void {
  if (entry.readiness === 'ready' && mayRecord(project.value)) void start(entry.id);
  else void router.push(`/${project.value}/entries/${entry.id}`);
}
useKeys('Today', () => [
  { keys: ['Enter', 's'], label: 'Start the next entry', run: () => next.value && void start(next.value) },
  { keys: ['w'], label: 'Show what is walked', run: () => (shownDone.value = !shownDone.value) },
]);
const marksOf = (entries: Api['EntryLine'][]) =>
  entries.map((e) => ({
    id: e.id,
    shown: shownOf(e),
    label: `${e.case_key} ${e.title}: ${entryWords(e)}`,
    group: e.configuration?.name ?? '',
  }));
</script>

<template>
  <div class="page">
    <div class="title-line">
      <h1>Today</h1>
      <span v-if="data" class="soft"
        >{{ session?.user.name }}, {{ plural(open.length, 'entry', 'entries') }} to walk<template
          v-if="minutes > 0"
          >, about {{ length(minutes) }}</template
        ></span
      >
      <div class="actions">
        <Button v-if="next && mayRecord(project)" :disabled="busy" @click="start(next)"
          >{{
            nextEntry
              ? `${nextEntry.shows === 'in_progress' ? 'Go on with' : 'Start'} ${nextEntry.case_key}`
              : 'Take the next entry'
          }}
          <kbd>Enter</kbd></Button
        >
      </div>
    </div>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem.message }}</p>
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <StateBox
      v-else-if="cycles.length === 0"
      empty="Nothing is assigned to you. When a lead gives you entries of a released cycle, they stand here in order."
    >
      <RouterLink :to="`/${project}/cycles`">Look at the cycles</RouterLink>
    </StateBox>
    <section v-if="retests.length > 0" class="asked" aria-label="Retests asked of you">
      <h2>Retests asked of you</h2>
      <ul>
        <li v-for="e in retests" :key="e.id">
          <span class="long"
            ><strong>{{ e.retest_by?.name }}:</strong> {{ e.retest_reason }}</span
          >
          <button type="button" class="go" @click="goTo(e)">
            <span class="mono">{{ e.case_key }}</span> {{ e.title }}
          </button>
        </li>
      </ul>
    </section>
    <section v-for="c in cycles" :key="c.cycle.id" class="cycle">
      <div class="head">
        <h2>
          <RouterLink class="plain" :to="`/${project}/cycles/${c.cycle.key}`">{{ c.cycle.name }}</RouterLink>
        </h2>
        <span class="soft">{{ due(c.cycle.ends_on) }} · build {{ c.cycle.build?.name }}</span>
        <span class="soft right"
          >{{ c.entries.filter((e) => e.readiness === 'done').length }} of {{ c.entries.length }} walked</span
        >
      </div>
      <PathTrail
        :marks="marksOf(c.entries)"
        :current="c.next_entry_id"
        :label="`My entries in ${c.cycle.name}`"
        @choose="(id) => goTo(c.entries.find((e) => e.id === id)!)"
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
        <kbd>w</kbd>
      </button>
      <p v-if="c.entries.length === 0" class="soft">
        Nothing here is yours yet; unassigned entries can be taken.
      </p>
    </section>
  </div>
</template>

<style scoped>
.asked {
  margin-bottom: 28px;
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
.go {
  font: inherit;
  color: var(--dusk);
  background: none;
  border: 0;
  padding: 0;
  text-align: left;
  cursor: pointer;
  text-decoration: underline;
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
