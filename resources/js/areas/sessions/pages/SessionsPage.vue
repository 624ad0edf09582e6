<script setup lang="ts">
import Button from 'primevue/button';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Api } from '@/api/client';
import { mayRecord, session as me } from '@/areas/people/session';
import { missionOf } from '@/areas/sessions/begin';
import { readCharters } from '@/areas/sessions/queries';
import { tip, useKeys } from '@/kit/keys';
import { useWhole, type Column } from '@/kit/list';
import ListTable from '@/kit/ListTable.vue';
import ListView from '@/kit/ListView.vue';
import { useListState } from '@/kit/useListState';
import { day, plainWords, plural, when } from '@/kit/words';
import { useRead } from '@/offline/useRead';

/** What runs, what waits to be explored, and what was. */
type Line = Api['CharterLine'];
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { data, error, refetch } = useRead(
  'session',
  () => ['charters', project.value],
  () => readCharters(project.value),
  () => `charters:${project.value}`,
);
const state = useListState();
const has = (wanted: string | undefined, is: string): boolean => !wanted || wanted.split(',').includes(is);
const list = useWhole<Line>(
  computed(() =>
    data.value?.filter((c) => {
      const f = state.filter.value;
      const mine = me.value?.user.id;
      return (
        has(f.state, c.state) &&
        has(f.priority, c.priority) &&
        (!f.who || (f.who === 'me' ? c.assignee?.id === mine : c.assignee === null))
      );
    }),
  ),
  { words: computed(() => state.filter.value.q ?? ''), sort: state.sort },
  {
    words: (c) =>
      `${c.key} ${c.title} ${c.with_what} ${c.to_find} ${c.area} ${c.risk} ${c.assignee?.name ?? ''} ${c.build?.name ?? ''}`,
    order: {
      title: (c) => c.title.toLowerCase(),
      who: (c) => c.assignee?.name.toLowerCase() ?? '',
      build: (c) => c.build?.name ?? '',
      priority: (c) => ['critical', 'high', 'medium', 'low'].indexOf(c.priority),
    },
  },
  { error, refetch },
);
const columns: Column<Line>[] = [
  { name: 'title', word: 'Explore', width: 'minmax(240px, 1fr)', sorted: true },
  { name: 'area', word: 'Area', width: '150px', wide: true, soft: true, text: (c) => c.area },
  {
    name: 'priority',
    word: 'Priority',
    width: '92px',
    sorted: true,
    wide: true,
    text: (c) => plainWords(c.priority),
  },
  {
    name: 'who',
    word: 'Who',
    width: '140px',
    sorted: true,
    text: (c) => c.last?.tester.name ?? c.assignee?.name ?? '',
  },
  {
    name: 'build',
    word: 'Build',
    width: '92px',
    sorted: true,
    wide: true,
    soft: true,
    text: (c) => c.build?.name ?? '',
  },
  { name: 'last', word: 'Session', width: '200px', soft: true },
];
const WORDS: Record<string, string> = {
  running: 'Running',
  waiting: 'Waiting',
  done: 'Done, not read yet',
  debriefed: 'Debriefed',
  dropped: 'Dropped',
};
const groups = computed(() => Object.keys(WORDS).filter((s) => list.lines.value.some((c) => c.state === s)));
const criteria = computed(() => [
  {
    name: 'state',
    label: 'State',
    many: true,
    choices: Object.entries(WORDS).map(([value, label]) => ({ value, label })),
  },
  {
    name: 'priority',
    label: 'Priority',
    many: true,
    choices: ['critical', 'high', 'medium', 'low'].map((value) => ({ value, label: plainWords(value) })),
  },
  {
    name: 'who',
    label: 'For',
    many: false,
    choices: [
      { value: 'me', label: 'Me' },
      { value: 'nobody', label: 'Nobody yet' },
    ],
  },
]);
const to = (c: Line): string => `/${project.value}/sessions/${c.key}`;
useKeys('Sessions', () =>
  mayRecord(project.value)
    ? [{ keys: ['n'], label: 'New session', run: () => void router.push(`/${project.value}/sessions/new`) }]
    : [],
);
</script>

<template>
  <div class="page">
    <div class="title-line">
      <h1>Sessions</h1>
      <div class="actions">
        <RouterLink :to="`/${project}/sessions/figures`">Figures</RouterLink>
        <Button
          v-if="mayRecord(project)"
          label="New session"
          :title="tip('New session', 'n')"
          @click="router.push(`/${project}/sessions/new`)"
        />
      </div>
    </div>
    <ListView
      one="charter"
      many="charters"
      :criteria="criteria"
      :state="state"
      :list="list"
      empty="A charter says what to explore, with what, to find what. There is none in this project yet."
    >
      <ListTable
        what="charter"
        label="Charters"
        :rows="list.lines.value"
        :columns="columns"
        :sort="state.sort.value"
        :selected="null"
        :group-of="(c) => c.state"
        :groups="groups"
        :name-of="(c) => c.title"
        @sort="state.sortBy"
        @open="(c) => router.push(to(c))"
      >
        <template #group="{ id }"
          ><h2>{{ WORDS[id] }}</h2></template
        >
        <template #title="{ row: c }">
          <span class="names"
            ><RouterLink class="plain name long" :to="to(c)">{{ c.title }}</RouterLink
            ><span class="soft small long"
              ><span class="mono">{{ c.key }}</span
              ><template v-if="missionOf(c)"> · {{ missionOf(c) }}</template></span
            ></span
          >
        </template>
        <template #last="{ row: c }">
          <span v-if="c.last" class="small"
            >{{ c.last.state === 'paused' ? 'Paused · ' : '' }}{{ when(c.last.started_at) }},
            {{ plural(c.last.issues, 'issue') }}</span
          >
          <span v-else class="small"
            >{{ plural(c.box_minutes, 'minute')
            }}{{ c.not_before ? `, not before ${day(c.not_before)}` : '' }}</span
          >
        </template>
      </ListTable>
    </ListView>
  </div>
</template>

<style scoped>
.names {
  display: grid;
}
</style>
