<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import { mayManagePeople } from '@/areas/people/session';
import TermWord from '@/kit/TermWord.vue';
import { plural } from '@/kit/words';

/** What comes first in a project that has not released a cycle yet: what is done, and the one that is next. */
const props = defineProps<{ project: string; steps: Api['FirstSteps'] }>();
const steps = computed(() => {
  const s = props.steps;
  const at = (path: string): string => `/${props.project}/${path}`;
  const people = s.people > 1 || s.invited > 0;
  return [
    {
      word: 'Cases',
      what: 'Write one, or bring in what you have in a file.',
      done: s.cases > 0 ? plural(s.cases, 'case') : '',
      acts: [
        { word: 'Bring cases in', to: at('casebook/import') },
        { word: 'Write one', to: at('casebook/new') },
      ],
    },
    {
      word: 'A build',
      what: 'What is tested has a name, and where it runs an address.',
      done: s.builds > 0 ? plural(s.builds, 'build') : '',
      acts: [{ word: 'Name it', to: at('setup/planning') }],
    },
    {
      word: 'People',
      what: mayManagePeople(props.project)
        ? 'Who walks, who mends, who reads.'
        : 'An admin of the project invites them.',
      done: people
        ? `${plural(s.people, 'person', 'people')}${s.invited > 0 ? `, ${s.invited} invited` : ''}`
        : '',
      acts: mayManagePeople(props.project) ? [{ word: 'Invite them', to: at('setup/people') }] : [],
    },
    {
      word: 'A cycle',
      what: 'What is walked, within which days and by whom.',
      done: s.entries > 0 ? `${plural(s.cycles, 'cycle')}, ${plural(s.entries, 'entry', 'entries')}` : '',
      acts: [{ word: 'Plan one', to: at('cycles/new') }],
    },
    {
      word: 'Release',
      what: 'Then its testers see it, and walk.',
      done: '',
      acts: s.cycles > 0 ? [{ word: 'To the cycles', to: at('cycles') }] : [],
    },
  ];
});
const next = computed(() => steps.value.findIndex((s) => s.done === '' && s.acts.length > 0));
</script>

<template>
  <section class="first" aria-label="First steps">
    <h2>First steps</h2>
    <ol>
      <li v-for="(s, at) in steps" :key="s.word" :class="{ lit: at === next }">
        <span class="number" aria-hidden="true">{{ at + 1 }}</span>
        <div>
          <p>
            <strong>{{ s.word }}</strong> <span class="soft">{{ s.done || s.what }}</span>
            <span v-if="s.done" class="unseen">, done</span>
          </p>
          <p v-if="at === next" class="row">
            <RouterLink v-for="a in s.acts" :key="a.to" :to="a.to">{{ a.word }}</RouterLink>
          </p>
        </div>
        <RouterLink v-if="at !== next && s.acts[0]" class="soft" :to="s.acts[0].to">{{
          s.done ? 'More' : s.acts[0].word
        }}</RouterLink>
      </li>
    </ol>
    <p class="soft small">
      An <TermWord of="entry">entry</TermWord>, a <TermWord of="round">round</TermWord>,
      <TermWord of="held">held</TermWord>: what such words mean stands on
      <RouterLink to="/words">a page of words</RouterLink>, and how it all works in the
      <RouterLink to="/docs">documentation</RouterLink>.
    </p>
  </section>
</template>

<style scoped>
.first {
  display: grid;
  gap: 12px;
  margin-bottom: 28px;
}
li {
  display: grid;
  grid-template-columns: 28px minmax(0, 1fr) auto;
  gap: 4px 12px;
  align-items: baseline;
  padding: 12px 14px;
  border-top: 1px solid var(--rule);
}
.lit {
  background: var(--sheet);
  border-top: 0;
  border-left: 4px solid var(--lantern);
  box-shadow: inset 1px 0 0 var(--ink);
  border-radius: 6px;
}
.lit .row {
  margin-top: 6px;
}
.number {
  font-family: var(--mono);
  color: var(--ink-soft);
}
</style>
