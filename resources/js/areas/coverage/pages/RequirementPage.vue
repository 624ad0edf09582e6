<script setup lang="ts">
import Button from 'primevue/button';
import { computed, nextTick, ref } from 'vue';
import { useRoute } from 'vue-router';
import { errorMessage } from '@/api/client';
import LinkCases from '@/areas/coverage/parts/LinkCases.vue';
import RequirementHistory from '@/areas/coverage/parts/RequirementHistory.vue';
import {
  confirmCases,
  dropRequirement,
  linkCases,
  readRequirement,
  restoreRequirement,
  saveRequirement,
  undoLinks,
} from '@/areas/coverage/queries';
import { lensOf } from '@/areas/coverage/tree';
import { may } from '@/areas/people/session';
import KeyCap from '@/kit/KeyCap.vue';
import MarkdownText from '@/kit/MarkdownText.vue';
import StateBox from '@/kit/StateBox.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { useKeys } from '@/kit/keys';
import { toast } from '@/kit/notices';
import { ago, day, exact, plural } from '@/kit/words';
import { useLocalDraft } from '@/offline/useLocalDraft';
import { useRead } from '@/offline/useRead';

/** A requirement: what must hold, which cases prove it and what they show, and what became of it. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const key = computed(() => String(route.params.requirement));
const lens = computed(() => lensOf(route.query));
const { data, error, isPending, refetch, set } = useRead(
  'requirement',
  () => ['one', key.value, lens.value],
  () => readRequirement(key.value, lens.value),
  () => `requirement:${key.value}`,
);
// What is past is looked at alone.
const mayWrite = computed(() => may(project.value, 'write_cases') && lens.value.as_of === undefined);
const problem = ref('');
/** What is being written stays on the device; `revision` is the one it began from. */
const { draft, clear } = useLocalDraft(
  computed(() => `requirement:${key.value}`),
  () => ({ title: '', text: '', external_id: '', revision: 0 }),
);
const writing = computed(() => draft.value.revision > 0);
const field = ref<HTMLInputElement | null>(null);
async function edit(): Promise<void> {
  const d = data.value;
  if (!d || !mayWrite.value) return;
  if (!writing.value)
    draft.value = { title: d.title, text: d.text, external_id: d.external_id ?? '', revision: d.revision };
  await nextTick();
  field.value?.focus();
}
/** What the server says of a write is shown through the lens that is chosen. */
async function act(work: () => Promise<unknown>): Promise<boolean> {
  problem.value = '';
  try {
    await work();
    await set(undefined);
    return true;
  } catch (e) {
    problem.value = errorMessage(e);
    return false;
  }
}
async function save(): Promise<void> {
  const { title, text, external_id, revision } = draft.value;
  if (await act(() => saveRequirement(key.value, { title, text, external_id, revision }))) await clear();
}
async function takeTheirs(): Promise<void> {
  await refetch();
  if (data.value) draft.value = { ...draft.value, revision: data.value.revision };
  problem.value = '';
}
const stale = computed(() => writing.value && data.value && data.value.revision > draft.value.revision);
async function link(cases: string[], part = false): Promise<void> {
  const d = data.value;
  if (!d) return;
  await act(async () => {
    const done = await linkCases(project.value, d.id, cases, part);
    const refused = done.refused[0];
    if (refused) throw new Error(`${refused.key}: ${refused.why}`);
    const undo = done.act_id;
    toast(
      part ? 'Parted.' : `${plural(cases.length, 'case')} linked.`,
      undo ? async () => void (await act(() => undoLinks(undo))) : undefined,
    );
  });
}
const toLookAt = computed(() => data.value?.cases.filter((c) => c.to_look_at) ?? []);
const walked = computed(
  () => data.value?.cases.filter((c) => !c.retired && c.cells > 0 && c.walked === c.cells).length ?? 0,
);
const counted = computed(() => data.value?.cases.filter((c) => !c.retired).length ?? 0);
useKeys('Requirement', () =>
  mayWrite.value
    ? [
        { keys: ['e'], label: 'Change its words', run: () => void edit() },
        ...(toLookAt.value.length > 0
          ? [{ keys: ['y'], label: 'All cases fit', run: () => void act(() => confirmCases(key.value)) }]
          : []),
      ]
    : [],
);
</script>

<template>
  <div class="page">
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <p class="soft small above">
        <RouterLink :to="{ path: `/${project}/coverage`, query: lens }">Coverage</RouterLink>
        <template v-for="a in data.above" :key="a.id"
          >›
          <RouterLink :to="{ path: `/${project}/coverage/${a.key}`, query: lens }">{{ a.title }}</RouterLink>
        </template>
      </p>
      <div class="title-line">
        <span class="mono soft">{{ data.key }}</span>
        <h1 class="long">{{ data.title }}</h1>
        <div class="actions row">
          <RouterLink :to="`/${project}/trace/requirement/${data.key}`">Trace</RouterLink>
          <Button v-if="mayWrite && !writing" outlined severity="secondary" @click="edit"
            >Change <KeyCap of="e"
          /></Button>
        </div>
      </div>
      <p v-if="lens.as_of" class="soft small" role="note">
        What its cases showed at the end of {{ day(lens.as_of) }}.
        <RouterLink :to="{ query: { ...lens, as_of: undefined } }">Back to now</RouterLink>
      </p>
      <p v-if="data.dropped" class="soft">It need not hold any more, and counts for nothing.</p>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      <form v-if="writing" class="sheet form" @submit.prevent="save" @keydown.ctrl.enter="save">
        <p v-if="stale" role="alert">
          Somebody changed it meanwhile: it now says “{{ data.title }}”.
          <button type="button" class="link" @click="takeTheirs">Mine over theirs</button>
          <button type="button" class="link" @click="clear">Take theirs</button>
        </p>
        <label
          ><span class="label">What must hold</span
          ><input ref="field" v-model="draft.title" class="field" maxlength="300"
        /></label>
        <label
          ><span class="label">In full</span
          ><textarea v-model="draft.text" class="field" rows="6" maxlength="20000"></textarea>
        </label>
        <label class="id"
          ><span class="label">Identifier elsewhere</span
          ><input v-model="draft.external_id" class="field mono" maxlength="200"
        /></label>
        <p class="row">
          <Button type="submit">Save <kbd>Ctrl Enter</kbd></Button>
          <button type="button" class="link soft" @click="clear">Leave it</button>
        </p>
      </form>
      <div class="lanes">
        <div>
          <section v-if="data.text && !writing" class="words"><MarkdownText :text="data.text" /></section>
          <section aria-label="Cases">
            <div class="row">
              <h2>
                Cases
                <span class="soft">{{ counted > 0 ? `${walked} of ${counted} walked` : '' }}</span>
              </h2>
              <button
                v-if="mayWrite && toLookAt.length > 0"
                type="button"
                class="link end"
                @click="act(() => confirmCases(key))"
              >
                All fit the new words <KeyCap of="y" />
              </button>
            </div>
            <p v-if="toLookAt.length > 0" class="small">
              Its words changed: {{ plural(toLookAt.length, 'case') }} to be looked at.
            </p>
            <ul class="cases">
              <li v-for="c in data.cases" :key="c.id" :class="{ soft: c.retired }">
                <VerdictMark :shown="c.state" />
                <span class="mono soft">{{ c.key }}</span>
                <RouterLink class="long title" :to="`/${project}/casebook/${c.key}`">{{
                  c.title
                }}</RouterLink>
                <span class="small soft facts">
                  <template v-if="c.retired">retired</template>
                  <template v-else-if="c.cells > 1">{{ c.walked }} of {{ c.cells }} walked</template>
                  <span v-if="c.unsteady">unsteady</span>
                  <span v-if="c.open_defects > 0">{{ plural(c.open_defects, 'open defect') }}</span>
                  <span v-if="c.last_walked_at" :title="exact(c.last_walked_at)">{{
                    ago(c.last_walked_at)
                  }}</span>
                </span>
                <span v-if="mayWrite" class="small acts">
                  <button
                    v-if="c.to_look_at"
                    type="button"
                    class="link"
                    @click="act(() => confirmCases(key, [c.id]))"
                  >
                    It fits
                  </button>
                  <button
                    type="button"
                    class="link soft"
                    :aria-label="`Part ${c.key}`"
                    @click="link([c.id], true)"
                  >
                    Part
                  </button>
                </span>
              </li>
            </ul>
            <p v-if="data.cases.length === 0" class="soft">No case shows whether it holds.</p>
            <LinkCases
              v-if="mayWrite && !data.dropped"
              :project="project"
              :linked="data.cases.map((c) => c.id)"
              @link="link"
            />
            <p v-if="mayWrite && !data.dropped">
              <RouterLink :to="`/${project}/casebook/new?requirement=${data.id}`"
                >Write a new case</RouterLink
              >
            </p>
          </section>
        </div>
        <aside>
          <dl v-if="data.external_id || Object.keys(data.details).length > 0" class="small">
            <template v-if="data.external_id"
              ><dt class="soft">Identifier</dt>
              <dd class="mono long">{{ data.external_id }}</dd></template
            >
            <template v-for="(value, name) in data.details" :key="name"
              ><dt class="soft">{{ name }}</dt>
              <dd class="long">{{ value }}</dd></template
            >
          </dl>
          <RequirementHistory :history="data.history" />
          <p v-if="mayWrite">
            <button
              type="button"
              class="link soft"
              @click="act(() => (data?.dropped ? restoreRequirement(key) : dropRequirement(key)))"
            >
              {{ data.dropped ? 'It must hold again' : 'It need not hold any more' }}
            </button>
          </p>
        </aside>
      </div>
    </template>
  </div>
</template>

<style scoped>
.above {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.form {
  padding: 16px 20px;
  display: grid;
  gap: 12px;
  margin-bottom: 16px;
}
.form .field {
  width: 100%;
}
.id {
  max-width: 20rem;
}
.lanes {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(15rem, 22rem);
  gap: 32px;
}
.words {
  margin-bottom: 20px;
  max-width: 70ch;
}
.cases li {
  display: grid;
  grid-template-columns: 14px auto minmax(0, 1fr) auto auto;
  gap: 10px;
  align-items: baseline;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
.facts,
.acts {
  display: flex;
  gap: 12px;
}
.end {
  margin-left: auto;
}
dl {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 6px 14px;
  margin-bottom: 20px;
}
@media (max-width: 900px) {
  .lanes {
    grid-template-columns: minmax(0, 1fr);
  }
  .cases li {
    grid-template-columns: 14px minmax(0, 1fr) auto;
  }
  .cases .mono {
    display: none;
  }
  .cases .facts {
    grid-column: 2;
  }
  .cases .acts {
    grid-row: 1;
    grid-column: 3;
  }
}
</style>
