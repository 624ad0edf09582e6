<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import { mayLead, session as me } from '@/areas/people/session';
import { readCharters } from '@/areas/sessions/queries';
import { plural } from '@/kit/words';
import { projectDay } from '@/kit/zone';
import { useRead } from '@/offline/useRead';

/** What one runs, or is to explore, and what a lead has to read. */
const props = defineProps<{ project: string }>();
const { data } = useRead(
  'session',
  () => ['charters', props.project],
  () => readCharters(props.project),
  () => `charters:${props.project}`,
);
const mine = computed(() => {
  const id = me.value?.user.id;
  const today = projectDay();
  return (data.value ?? []).filter((c) =>
    c.state === 'running'
      ? c.last?.tester.id === id
      : c.state === 'waiting' && c.assignee?.id === id && (c.not_before ?? '') <= today,
  );
});
const toRead = computed(() =>
  mayLead(props.project)
    ? (data.value ?? []).filter((c) => c.state === 'done' && c.last?.tester.id !== me.value?.user.id)
    : [],
);
const words = (c: Api['CharterLine']): string =>
  c.state === 'running'
    ? c.last?.state === 'paused'
      ? 'paused'
      : 'running'
    : plural(c.box_minutes, 'minute');
</script>

<template>
  <section v-if="mine.length > 0" aria-label="Yours to explore">
    <h2>Yours to explore</h2>
    <ul class="ruled">
      <li v-for="c in mine" :key="c.id">
        <RouterLink :to="`/${project}/sessions/${c.key}`"
          ><span class="mono">{{ c.key }}</span> {{ c.title }}</RouterLink
        >
        <span class="soft small"> {{ words(c) }}</span>
      </li>
    </ul>
  </section>
  <section v-if="toRead.length > 0" aria-label="Sessions to read">
    <h2>Sessions to read</h2>
    <ul class="ruled">
      <li v-for="c in toRead" :key="c.id">
        <RouterLink :to="`/${project}/sessions/${c.key}`"
          ><span class="mono">{{ c.key }}</span> {{ c.title }}</RouterLink
        >
        <span class="soft small"> {{ c.last?.tester.name }}, {{ plural(c.last?.issues ?? 0, 'issue') }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  margin: 6px 0 22px;
}
</style>
