<script setup lang="ts">
import Button from 'primevue/button';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { missionOf } from '@/areas/sessions/begin';
import { readCharter, readSheet } from '@/areas/sessions/queries';
import { FOCUS, WORK } from '@/areas/sessions/types';
import KeyCap from '@/kit/KeyCap.vue';
import MarkdownText from '@/kit/MarkdownText.vue';
import StateBox from '@/kit/StateBox.vue';
import { useKeys } from '@/kit/keys';
import { clock, day, exact, plainWords, plural } from '@/kit/words';
import { useRead } from '@/offline/useRead';

/** A session on one sheet: to be read, printed, and carried elsewhere. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const { data, error, isPending, refetch } = useRead(
  'session',
  () => ['sheet', route.params.charter, route.query.run],
  async () => {
    const { sessions } = await readCharter(String(route.params.charter));
    const run = Number(route.query.run) || sessions.at(-1)?.number;
    const found = sessions.find((s) => s.number === run);
    return found ? readSheet(found.id) : null;
  },
);
const s = computed(() => data.value?.session);
const lists = computed(() =>
  (
    [
      ['issue', 'Issues'],
      ['question', 'Questions'],
      ['risk', 'Risks'],
      ['idea', 'Ideas for the next'],
    ] as const
  )
    .map(([kind, word]) => ({ word, lines: data.value?.lines.filter((l) => l.kind === kind) ?? [] }))
    .filter((l) => l.lines.length > 0),
);
const linksOf = (line: string): { key: string; at: string }[] => {
  const of = s.value?.repros.find((r) => r.line_id === line);
  return [
    ...(of?.defect ? [{ key: of.defect.key, at: `/${project.value}/defects/${of.defect.key}` }] : []),
    ...(of?.case_key ? [{ key: of.case_key, at: `/${project.value}/casebook/${of.case_key}` }] : []),
  ];
};
const facts = computed(() =>
  s.value
    ? [
        ['Tester', s.value.tester.name],
        ['Begun', exact(s.value.started_at)],
        ['Build', s.value.build?.name],
        ['Configuration', s.value.configuration?.name],
        ['Environment', s.value.environment],
        ['Area', s.value.charter.area],
        ['Risk', s.value.charter.risk],
        ['Active', `${clock(s.value.active_ms)} of ${clock(s.value.box_ms)}`],
      ].filter(([, v]) => v)
    : [],
);
function save(text: string, type: string, ending: string): void {
  const a = document.createElement('a');
  a.href = URL.createObjectURL(new Blob([text], { type }));
  a.download = `${s.value!.charter.key}-${s.value!.number}.${ending}`;
  a.click();
  URL.revokeObjectURL(a.href);
}
const markdown = (): void => save(data.value!.markdown, 'text/markdown', 'md');
const json = (): void => save(JSON.stringify(data.value, null, 2), 'application/json', 'json');
const print = (): void => window.print();
useKeys('Sheet', () =>
  data.value
    ? [
        { keys: ['p'], label: 'Print it', run: print },
        { keys: ['y'], label: 'Save as Markdown', run: markdown },
      ]
    : [],
);
</script>

<template>
  <article v-if="data && s" class="page paper">
    <p class="row no-print">
      <RouterLink :to="`/${project}/sessions/${s.charter.key}?run=${s.number}`"
        >Back to the session</RouterLink
      >
      <span class="grow" />
      <Button size="small" outlined severity="secondary" @click="markdown">Markdown <KeyCap of="y" /></Button>
      <Button size="small" outlined severity="secondary" label="JSON" @click="json" />
      <Button size="small" @click="print">Print <KeyCap of="p" /></Button>
    </p>
    <p class="soft small">
      <span class="mono">{{ s.charter.key }}</span> · session {{ s.number }} ·
      {{ plainWords(s.state).toLowerCase() }}
    </p>
    <h1 class="long">{{ s.charter.title }}</h1>
    <p v-if="missionOf(s.charter)" class="long">Explore {{ missionOf(s.charter) }}.</p>
    <dl class="facts">
      <div v-for="[name, value] in facts" :key="name!">
        <dt class="label">{{ name }}</dt>
        <dd class="long">{{ value }}</dd>
      </div>
    </dl>
    <dl class="facts">
      <div v-for="o in [...FOCUS, ...WORK]" :key="o.value">
        <dt class="label">{{ o.word }}</dt>
        <dd class="mono">{{ clock(s.shares[o.value]) }}</dd>
      </div>
    </dl>
    <section v-if="s.covered">
      <h2>Covered</h2>
      <MarkdownText :text="s.covered" />
    </section>
    <section v-if="s.remarks">
      <h2>Remarks</h2>
      <MarkdownText :text="s.remarks" />
    </section>
    <section v-for="l in lists" :key="l.word">
      <h2>
        {{ l.word }} <span class="soft">{{ l.lines.length }}</span>
      </h2>
      <ul>
        <li v-for="line in l.lines" :key="line.id">
          <span class="mono soft">{{ clock(line.at_ms) }}</span>
          <div>
            <MarkdownText :text="line.words" />
            <RouterLink v-for="k in linksOf(line.id)" :key="k.key" class="mono" :to="k.at">{{
              k.key
            }}</RouterLink>
          </div>
        </li>
      </ul>
    </section>
    <section>
      <h2>What happened</h2>
      <ul>
        <li v-for="line in data.lines" :key="line.id">
          <span class="mono soft">{{ clock(line.at_ms) }}</span>
          <div>
            <span class="label">{{ plainWords(line.kind) }}</span>
            <MarkdownText v-if="line.words" :text="line.words" />
            <img v-if="line.thumbnail_url" :src="line.thumbnail_url" :alt="line.name" />
            <span v-else-if="line.name" class="mono small">{{ line.name }}</span>
          </div>
        </li>
      </ul>
      <p class="soft small">{{ plural(data.observed, 'act') }} observed beside.</p>
    </section>
    <p v-if="s.signed_by" class="signed">
      Read and signed off by {{ s.signed_by.name }}, {{ day(s.signed_at!.slice(0, 10)) }}. {{ s.sign_note }}
    </p>
  </article>
  <div v-else class="page">
    <StateBox :loading="isPending" :error="error" empty="There is no such session." @again="refetch()" />
  </div>
</template>

<style scoped>
.paper {
  max-width: 820px;
}
h1 {
  margin: 2px 0 6px;
}
.grow {
  flex: 1;
}
.facts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(8rem, 1fr));
  gap: 10px 20px;
  margin: 14px 0;
}
dd {
  margin: 0;
}
section {
  margin-top: 20px;
}
li {
  display: grid;
  grid-template-columns: 62px minmax(0, 1fr);
  gap: 12px;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
  break-inside: avoid;
}
img {
  display: block;
  max-height: 140px;
  max-width: 100%;
  border: 1px solid var(--edge);
}
.signed {
  margin-top: 20px;
  border-top: 2px solid var(--ink);
  padding-top: 10px;
}
@media print {
  .no-print {
    display: none;
  }
}
</style>
