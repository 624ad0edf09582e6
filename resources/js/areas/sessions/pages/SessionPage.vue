<script setup lang="ts">
import Button from 'primevue/button';
import { computed, onBeforeUnmount, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage } from '@/api/client';
import { mayLead, mayRecord, session as me } from '@/areas/people/session';
import { beginSession } from '@/areas/sessions/begin';
import SessionRun from '@/areas/sessions/parts/SessionRun.vue';
import { dropCharter, readCharter, restoreCharter } from '@/areas/sessions/queries';
import { useKeys } from '@/kit/keys';
import StateBox from '@/kit/StateBox.vue';
import { projectDay } from '@/kit/zone';
import { day, plainWords, plural, when } from '@/kit/words';
import { outbox } from '@/offline/outbox';
import { useRead } from '@/offline/useRead';

/** A charter: what is to be explored before it runs, and the session that runs or ran. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const key = computed(() => String(route.params.charter));
const { data, error, isPending, refetch, set } = useRead(
  'session',
  () => ['charter', key.value],
  () => readCharter(key.value),
  () => `charter:${key.value}`,
);
const charter = computed(() => data.value?.charter);
/** A session that was begun here and is on its way to the server. */
const begun = computed(() =>
  outbox.commands.find(
    (q) => q.command.kind === 'session_start' && q.command.charter === key.value && q.refused === undefined,
  ),
);
const wanted = computed(() => Number(route.query.run) || 0);
const shown = computed(() => {
  const all = data.value?.sessions ?? [];
  return (wanted.value ? all.find((s) => s.number === wanted.value) : all.at(-1)) ?? null;
});
const id = computed(() => (wanted.value ? undefined : begun.value?.attempt) ?? shown.value?.id ?? null);
const problem = ref('');
const isOver = computed(() => shown.value?.state === 'stopped' || shown.value?.state === 'debriefed');
const mayStart = computed(
  () => mayRecord(project.value) && charter.value !== undefined && charter.value.state !== 'dropped',
);
const mayDrop = computed(() => mayLead(project.value) || charter.value?.author.id === me.value?.user.id);
/** It is planned for a day that is still to come, in the time zone of the project. */
const early = computed(() => (charter.value?.not_before ?? '') > projectDay());
async function start(): Promise<void> {
  const c = charter.value;
  if (!c || !mayStart.value) return;
  problem.value = '';
  try {
    await beginSession(c);
    if (wanted.value) await router.replace({ query: {} });
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
async function drop(): Promise<void> {
  const c = charter.value;
  if (!c) return;
  try {
    await set(await (c.state === 'dropped' ? restoreCharter(c.key) : dropCharter(c.key)));
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
onBeforeUnmount(
  outbox.onSettled((queued) => {
    if (queued.command.kind === 'session_start' && queued.command.charter === key.value) void refetch();
  }),
);
useKeys('Session', () =>
  id.value === null ? [{ keys: ['Enter'], label: 'Start it', run: () => void start() }] : [],
);
</script>

<template>
  <SessionRun
    v-if="id && charter"
    :id="id"
    :key="id"
    :project="project"
    :charter="charter"
    :sessions="data?.sessions ?? []"
    :begun="begun !== undefined && begun.attempt === id"
    :may-again="isOver && mayStart"
    @again="start"
  />
  <div v-else class="page">
    <StateBox v-if="!charter" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <p class="soft small"><RouterLink :to="`/${project}/sessions`">Sessions</RouterLink></p>
      <div class="title-line">
        <span class="mono soft">{{ charter.key }}</span>
        <h1 class="long">{{ charter.title }}</h1>
        <div v-if="mayStart" class="actions">
          <Button :outlined="early" @click="start"
            >{{ early ? 'Start all the same' : 'Start' }} <kbd>Enter</kbd></Button
          >
        </div>
      </div>
      <p v-if="early && mayStart" class="soft">
        It is planned for later: not before {{ day(charter.not_before ?? '') }}.
      </p>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      <section class="sheet told">
        <div v-if="charter.with_what"><span class="label">With</span>{{ charter.with_what }}</div>
        <div v-if="charter.to_find"><span class="label">To find</span>{{ charter.to_find }}</div>
        <div v-if="charter.area"><span class="label">Area</span>{{ charter.area }}</div>
        <div v-if="charter.risk"><span class="label">Risk</span>{{ charter.risk }}</div>
        <div><span class="label">Time box</span>{{ plural(charter.box_minutes, 'minute') }}</div>
        <div><span class="label">Priority</span>{{ plainWords(charter.priority) }}</div>
        <div v-if="charter.build"><span class="label">Build</span>{{ charter.build.name }}</div>
        <div v-if="charter.configuration">
          <span class="label">Configuration</span>{{ charter.configuration.name }}
        </div>
        <div v-if="charter.not_before">
          <span class="label">Not before</span>{{ day(charter.not_before) }}
        </div>
        <div><span class="label">For</span>{{ charter.assignee?.name ?? 'whoever takes it' }}</div>
        <div>
          <span class="label">Written by</span>{{ charter.author.name }}, {{ when(charter.created_at) }}
        </div>
      </section>
      <p v-if="charter.state === 'dropped'" class="soft">Nobody is to run it any more.</p>
      <p v-if="mayDrop">
        <button type="button" class="link soft" @click="drop">
          {{ charter.state === 'dropped' ? 'Let it be run again' : 'Drop it' }}
        </button>
      </p>
    </template>
  </div>
</template>

<style scoped>
.told {
  padding: 16px 20px;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
  gap: 16px 24px;
  margin-bottom: 16px;
}
</style>
