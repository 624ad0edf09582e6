<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import type { Api } from '@/api/client';
import BesidePass from '@/areas/defects/parts/BesidePass.vue';
import DefectEdit from '@/areas/defects/parts/DefectEdit.vue';
import DefectFamily from '@/areas/defects/parts/DefectFamily.vue';
import DefectFacts from '@/areas/defects/parts/DefectFacts.vue';
import DefectFiles from '@/areas/defects/parts/DefectFiles.vue';
import DefectHistory from '@/areas/defects/parts/DefectHistory.vue';
import DefectMove from '@/areas/defects/parts/DefectMove.vue';
import DefectOutside from '@/areas/defects/parts/DefectOutside.vue';
import DefectRetests from '@/areas/defects/parts/DefectRetests.vue';
import DefectTalk from '@/areas/defects/parts/DefectTalk.vue';
import FixProof from '@/areas/defects/parts/FixProof.vue';
import SeenInSession from '@/areas/defects/parts/SeenInSession.vue';
import WayThere from '@/areas/defects/parts/WayThere.vue';
import { useDefectChoices } from '@/areas/defects/choices';
import { copiesPictures, copyWithPictures, picturesOf } from '@/areas/defects/copyWithPictures';
import { movesOf, type Move } from '@/areas/defects/life';
import { readDefect, readReproduction } from '@/areas/defects/queries';
import EvidenceCard from '@/areas/evidence/parts/EvidenceCard.vue';
import { may, mayLead, mayRemoveContent, mayWorkOnDefects } from '@/areas/people/session';
import KeyCap from '@/kit/KeyCap.vue';
import { useKeys } from '@/kit/keys';
import MarkdownText from '@/kit/MarkdownText.vue';
import { toast } from '@/kit/notices';
import VerdictMark from '@/kit/VerdictMark.vue';
import StateBox from '@/kit/StateBox.vue';
import { ago, exact, plainWords, span, when } from '@/kit/words';
import { useRead } from '@/offline/useRead';

/** A defect: what happened and how to get there first, then where it passed; who has it and what is said of it beside. */
const route = useRoute();
const queries = useQueryClient();
const project = computed(() => String(route.params.project));
const key = computed(() => String(route.params.defect));
const { data, error, isPending, refetch } = useRead(
  'defect',
  () => ['defect', key.value],
  () => readDefect(key.value),
);
const { data: found } = useRead(
  'defect',
  () => ['reproduction', key.value],
  async () => ({ way: await readReproduction(key.value) }),
);
const way = computed(() => found.value?.way ?? null);
/** How to get there is told by the walk, step by step. */
const isWalked = computed(() => (way.value?.steps.length ?? 0) > 0);
const defect = computed(() => data.value?.defect);
const { choices, components } = useDefectChoices(project);
const mayWork = computed(() => mayWorkOnDefects(project.value));
const mayFile = computed(() => may(project.value, 'file_defects'));
const moves = computed(() => (data.value && mayWork.value ? movesOf(data.value) : null));
const moving = ref<Move | null>(null);
const editing = ref(false);

function set(now: Api['DefectDetail']): void {
  queries.setQueryData(['live', 'defect', 'defect', key.value], now);
}
function moved(now: Api['DefectDetail']): void {
  moving.value = null;
  set(now);
  toast(`${now.defect.key}: ${plainWords(now.defect.state).toLowerCase()}.`);
}
/** What is to be known, while it waits for an answer. */
const asked = computed(() =>
  defect.value?.state === 'needs_information'
    ? (data.value?.history.findLast((m) => m.to === 'needs_information' && m.from !== m.to) ?? null)
    : null,
);
const copied = ref('');
async function copy(as: 'markdown' | 'plain' | 'pictures'): Promise<void> {
  const d = data.value;
  if (!d) return;
  try {
    if (as === 'pictures') await copyWithPictures(d);
    else await navigator.clipboard.writeText(d[as]);
    copied.value = {
      markdown: 'Copied as Markdown',
      plain: 'Copied as plain text',
      pictures: 'Copied with its pictures',
    }[as];
  } catch {
    copied.value = 'The browser did not let it be copied.';
  }
  setTimeout(() => (copied.value = ''), 3000);
}
const withPictures = computed(
  () => copiesPictures() && data.value !== undefined && picturesOf(data.value).length > 0,
);
/** The report's headings, shown as words in bold: the page has its own. */
const body = computed(() => (data.value?.body ?? '').replaceAll(/^#+ (.*)$/gm, '**$1**'));
/** Pictures of the failing step stand with it. */
const evidence = computed(() => {
  const there = new Set(way.value?.evidence.slice(0, 1).map((e) => e.id));
  return (data.value?.evidence ?? []).filter((e) => !there.has(e.id));
});
const facts = computed(() => {
  const d = defect.value;
  if (!d) return [];
  return [
    plainWords(d.severity).toLowerCase(),
    d.build ? `build ${d.build.name}` : '',
    d.configuration?.name ?? '',
    data.value?.environment ?? '',
    data.value?.fixed_build ? `fixed in ${data.value.fixed_build.name}` : '',
    `${d.reporter.name}, ${when(d.created_at)}`,
    d.assignee ? `with ${d.assignee.name}` : 'with nobody',
    `${d.closed ? 'was open' : 'open'} for ${span(d.open_ms)}`,
  ].filter(Boolean);
});
useKeys('Defect', () => [
  ...(moves.value?.first
    ? [{ keys: ['Enter'], label: moves.value.first.word, run: () => (moving.value = moves.value!.first) }]
    : []),
  ...(moves.value?.ask
    ? [{ keys: ['a'], label: moves.value.ask.word, run: () => (moving.value = moves.value!.ask) }]
    : []),
  ...(mayFile.value
    ? [{ keys: ['e'], label: 'Change what it says', run: () => (editing.value = true) }]
    : []),
  { keys: ['y'], label: 'Copy it as Markdown', run: () => void copy('markdown') },
]);
</script>

<template>
  <div class="page">
    <StateBox v-if="!data || !defect" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <p class="soft small crumb"><RouterLink :to="`/${project}/defects`">Defects</RouterLink></p>
      <div class="title-line">
        <span class="mono soft">{{ defect.key }}</span>
        <h1 class="long">{{ defect.title }}</h1>
        <div class="actions">
          <RouterLink :to="`/${project}/trace/defect/${defect.key}`">Trace</RouterLink>
          <Button v-if="moves?.ask" outlined @click="moving = moves.ask"
            >{{ moves.ask.word }} <KeyCap of="a"
          /></Button>
          <Button v-if="moves?.first" @click="moving = moves.first"
            >{{ moves.first.word }} <kbd>Enter</kbd></Button
          >
        </div>
      </div>
      <p class="facts long">
        <strong>{{ plainWords(defect.state) }}</strong>
        <template v-if="data.duplicate_of">
          of
          <RouterLink class="mono" :to="`/${project}/defects/${data.duplicate_of.key}`">{{
            data.duplicate_of.key
          }}</RouterLink>
        </template>
        <span class="soft" :title="exact(defect.created_at)"> · {{ facts.join(' · ') }}</span>
      </p>
      <p v-if="asked" class="asked long">
        <strong>{{ asked.actor.name }} asks:</strong> {{ asked.note }}
        <span class="soft small" :title="exact(asked.at)">{{ ago(asked.at) }}</span>
      </p>
      <DefectMove
        v-if="moving"
        :key="moving.to"
        :detail="data"
        :builds="choices.builds"
        :move="moving"
        @moved="moved"
        @leave="moving = null"
        @stale="refetch()"
      />
      <div class="columns">
        <div class="text">
          <DefectEdit
            v-if="editing"
            :detail="data"
            @saved="(now) => (set(now), (editing = false))"
            @leave="editing = false"
          />
          <template v-else>
            <WayThere
              v-if="way && isWalked"
              :project="project"
              :way="way"
              :expected="data.expected"
              :actual="data.actual"
            />
            <section v-else-if="data.expected || data.actual" class="sheet told">
              <div v-if="data.expected">
                <span class="label">Expected</span><MarkdownText :text="data.expected" />
              </div>
              <div v-if="data.actual">
                <span class="label">Happened instead</span><MarkdownText :text="data.actual" />
              </div>
            </section>
            <section v-if="!isWalked && (data.steps || data.preconditions)" aria-label="How to get there">
              <h2>How to get there</h2>
              <MarkdownText v-if="data.preconditions" class="soft" :text="data.preconditions" />
              <MarkdownText :text="data.steps" />
              <SeenInSession v-if="data.session" :project="project" :seen="data.session" />
            </section>
            <SeenInSession v-else-if="data.session" :project="project" :seen="data.session" />
            <FixProof
              v-if="data.progress"
              :project="project"
              :progress="data.progress"
              :fixed="defect.state === 'fixed'"
            />
            <DefectRetests
              v-if="defect.state === 'fixed' || data.duplicate_of"
              :key="`${defect.key}${data.version}`"
              :project="project"
              :defect="defect.key"
              :may-ask="mayLead(project)"
            />
            <BesidePass v-if="way" :project="project" :way="way" />
            <section v-if="evidence.length > 0" aria-label="Evidence">
              <h2>Evidence</h2>
              <div class="cards"><EvidenceCard v-for="e in evidence" :key="e.id" :item="e" locked /></div>
            </section>
            <DefectFiles
              :detail="data"
              :may-add="mayWork"
              :may-remove="mayRemoveContent(project)"
              @changed="set"
            />
            <details v-if="body || (isWalked && data.steps)" class="report" :open="!way">
              <summary>The report as it was filed</summary>
              <template v-if="isWalked">
                <MarkdownText v-if="data.preconditions" :text="data.preconditions" />
                <MarkdownText :text="data.steps" />
              </template>
              <MarkdownText :text="body" />
            </details>
            <p class="row">
              <button v-if="mayFile" type="button" class="link" @click="editing = true">
                Change what it says <KeyCap of="e" />
              </button>
              <button type="button" class="link" @click="copy('markdown')">
                Copy as Markdown <KeyCap of="y" />
              </button>
              <button type="button" class="link" @click="copy('plain')">Copy as text</button>
              <button v-if="withPictures" type="button" class="link" @click="copy('pictures')">
                Copy with pictures
              </button>
              <span class="soft" role="status">{{ copied }}</span>
            </p>
          </template>
        </div>
        <aside aria-label="About this defect">
          <DefectFacts
            :project="project"
            :detail="data"
            :choices="choices"
            :components="components"
            :may-work="mayWork"
            @changed="set"
            @stale="refetch()"
          />
          <p v-if="moves && moves.rest.length > 0" class="row">
            <button v-for="m in moves.rest" :key="m.to" type="button" class="link soft" @click="moving = m">
              {{ m.word }}
            </button>
          </p>
          <DefectTalk
            :detail="data"
            :people="choices.people"
            :may-say="mayWork"
            :may-remove="mayRemoveContent(project)"
            @changed="set"
          />
          <section aria-label="Met in">
            <h2>Met in</h2>
            <ul>
              <li v-for="o in data.origins" :key="`${o.attempt_id}${o.step}`">
                <VerdictMark :shown="o.verdict" />
                <RouterLink :to="`/${project}/entries/${o.entry_id}?attempt=${o.attempt_id}`"
                  ><span class="mono">{{ o.case_key }}</span
                  >{{ o.step ? ` step ${o.step}` : '' }}</RouterLink
                >, attempt {{ o.attempt_number }}
                <span class="soft small long">{{
                  [o.cycle_name, o.build, o.configuration, when(o.created_at)].filter(Boolean).join(', ')
                }}</span>
              </li>
              <li v-if="data.origins.length === 0" class="soft">On no walk yet.</li>
              <li v-for="d in data.duplicates" :key="d.id">
                <RouterLink :to="`/${project}/defects/${d.key}`"
                  ><span class="mono">{{ d.key }}</span> {{ d.title }}</RouterLink
                >
                <span class="soft small"> is the same</span>
              </li>
            </ul>
          </section>
          <DefectOutside
            v-if="data.outside"
            :defect="defect.key"
            :outside="data.outside"
            :may-send="mayFile"
            @changed="set"
          />
          <DefectFamily :project="project" :detail="data" :may-work="mayWork" @changed="set" />
          <DefectHistory
            :project="project"
            :defect="defect.key"
            :history="data.history"
            :may-remove="mayRemoveContent(project)"
            @changed="set"
          />
        </aside>
      </div>
    </template>
  </div>
</template>

<style scoped>
.crumb {
  margin-bottom: 2px;
}
.title-line {
  margin-bottom: 4px;
  flex-wrap: nowrap;
}
h1 {
  flex: 1;
  min-width: 0;
}
section > h2 {
  margin-bottom: 8px;
}
.facts {
  margin-bottom: 16px;
}
.asked {
  padding: 10px 14px;
  margin-bottom: 16px;
  background: var(--well);
  border-left: 3px solid var(--ink);
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(18rem, 25rem);
  gap: 20px 36px;
}
.text,
aside {
  display: grid;
  gap: 22px;
  align-content: start;
  min-width: 0;
}
.told {
  padding: 16px 20px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
  gap: 16px 24px;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
  gap: 14px;
}
ul {
  display: grid;
  gap: 8px;
}
summary {
  cursor: pointer;
  color: var(--ink-soft);
}
@media (max-width: 960px) {
  .title-line {
    flex-wrap: wrap;
  }
  /* Its key above, what one does below. */
  h1 {
    flex-basis: 100%;
  }
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
