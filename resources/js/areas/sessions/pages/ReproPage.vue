<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import { v7 as uuid7 } from 'uuid';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { errorMessage, Problem, type Api } from '@/api/client';
import { SEVERITIES } from '@/areas/defects/choices';
import LikelyDefects from '@/areas/defects/parts/LikelyDefects.vue';
import { fileDefect, linkDefect } from '@/areas/defects/queries';
import { mayRecord } from '@/areas/people/session';
import CaptureTicks from '@/areas/sessions/parts/CaptureTicks.vue';
import ReproSteps from '@/areas/sessions/parts/ReproSteps.vue';
import WalkAgain from '@/areas/sessions/parts/WalkAgain.vue';
import { makeCaseOf, readStretch, saveRepro, tryRepro } from '@/areas/sessions/queries';
import { emptyRepro, fromSaved, rowsOf, seenWords, stepsOf } from '@/areas/sessions/repro';
import KeyCap from '@/kit/KeyCap.vue';
import MarkdownText from '@/kit/MarkdownText.vue';
import SelectField from '@/kit/SelectField.vue';
import StateBox from '@/kit/StateBox.vue';
import { useKeys } from '@/kit/keys';
import { toast } from '@/kit/notices';
import { clock, plural, upperFirst } from '@/kit/words';
import { useLocalDraft } from '@/offline/useLocalDraft';
import { useRead } from '@/offline/useRead';

/** What led to a line of a session: trimmed, walked again, and made a defect, a case, or both. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const line = computed(() => String(route.params.line));
const from = ref('');
const before = ref(0);
const { data, error, isPending, refetch } = useRead(
  'session',
  () => ['stretch', line.value, from.value, before.value],
  () => readStretch(line.value, from.value, before.value),
  () => `stretch:${line.value}`,
);
const repro = computed(() => data.value?.repro ?? null);
const base = computed(() => (data.value ? fromSaved(data.value.lines, repro.value) : emptyRepro()));
const { draft: kept, clear } = useLocalDraft(
  computed(() => `repro:${line.value}`),
  () => ({
    steps: null as ReturnType<typeof emptyRepro> | null,
    id: '',
    title: null as string | null,
    expected: '',
    actual: null as string | null,
    severity: 'major' as Api['DefectLine']['severity'],
    captures: null as string[] | null,
  }),
);
const steps = computed({
  get: () => kept.value.steps ?? base.value,
  set: (now) => void (kept.value = { ...kept.value, steps: now }),
});
const title = computed({
  get: () => kept.value.title ?? data.value?.title ?? '',
  set: (now) => void (kept.value = { ...kept.value, title: now }),
});
const actual = computed({
  get: () => kept.value.actual ?? data.value?.actual ?? '',
  set: (now) => void (kept.value = { ...kept.value, actual: now }),
});
const captures = computed({
  get: () => kept.value.captures ?? data.value?.captures.map((c) => c.id) ?? [],
  set: (now) => void (kept.value = { ...kept.value, captures: now }),
});
const rows = computed(() => (data.value ? rowsOf(data.value.lines, steps.value) : []));
const stay = computed(() => stepsOf(rows.value));
const acts = computed(() => rows.value.filter((r) => !r.line || r.line.is_step).length);
const mayChange = computed(() => mayRecord(project.value));
const on = computed(() =>
  [
    data.value?.build ? `build ${data.value.build.name}` : '',
    data.value?.configuration?.name,
    data.value?.environment,
    seenWords(repro.value),
  ]
    .filter(Boolean)
    .join(' · '),
);
/** Somebody else saved another meanwhile. */
const theirs = computed(() =>
  repro.value && kept.value.steps && repro.value.version > kept.value.steps.version ? repro.value : null,
);
const again = ref(false);
const busy = ref(false);
const problem = ref('');
const wrong = ref<Record<string, string[]>>({});

async function run(work: () => Promise<void>): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  problem.value = '';
  wrong.value = {};
  try {
    await work();
    await refetch();
  } catch (e) {
    if (e instanceof Problem && Object.keys(e.errors).length > 0) {
      wrong.value = e.errors;
      problem.value = wrong.value.title ? '' : Object.values(e.errors).flat().join(' ');
    } else problem.value = `${errorMessage(e)} What you have is kept on this device.`;
    if (e instanceof Problem && e.status === 412) await refetch();
  }
  busy.value = false;
}
/** What stays is kept before anything is made of it. */
async function save(): Promise<void> {
  const saved = await saveRepro(line.value, { steps: stay.value, version: steps.value.version });
  // From here on the saved one is what one changes.
  kept.value = { ...kept.value, steps: { ...steps.value, version: saved.version } };
}
const seen = (shown: boolean): Promise<void> =>
  run(async () => {
    await save();
    const now = await tryRepro(line.value, shown);
    again.value = false;
    toast(`${upperFirst(seenWords(now))}.`);
  });
async function makeCase(): Promise<void> {
  await save();
  const made = await makeCaseOf(line.value);
  toast(`${made.case_key} is made, as a draft: what is expected is left to write.`);
}
async function file(): Promise<void> {
  await save();
  if (kept.value.id === '') kept.value = { ...kept.value, id: uuid7() };
  const { defect } = await fileDefect(project.value, {
    id: kept.value.id,
    title: title.value.trim(),
    actual: actual.value,
    expected: kept.value.expected,
    environment: data.value?.environment ?? '',
    body: data.value?.body ?? '',
    severity: kept.value.severity,
    line_id: line.value,
    captures: captures.value,
  });
  toast(`${defect.key} filed.`);
}
const both = (): Promise<void> =>
  run(async () => {
    if (!repro.value?.case_key) await makeCase();
    await file();
    await clear();
  });
const fileIt = (): Promise<void> =>
  run(async () => {
    await file();
    await clear();
  });
/** It is known: what leads there is kept, and stands with the one that there is. */
const link = (known: Api['DefectLine']): Promise<void> =>
  run(async () => {
    await save();
    const { defect } = await linkDefect(known.key, { line_id: line.value, captures: captures.value });
    toast(`${defect.key} linked.`);
    await clear();
  });
const isFiled = computed(() => repro.value?.defect !== null && repro.value !== null);
const where = computed(
  () => `/${project.value}/sessions/${data.value?.charter_key}?run=${data.value?.number}`,
);
watch(line, () => {
  from.value = '';
  before.value = 0;
  again.value = false;
});
useKeys('A fault', () =>
  mayChange.value && !again.value
    ? [
        { keys: ['w'], label: 'Walk it again', run: () => void (again.value = stay.value.length > 0) },
        ...(repro.value?.case_key
          ? []
          : [{ keys: ['c'], label: 'Make a case of it', run: () => void run(makeCase) }]),
      ]
    : [],
);
function onKey(event: KeyboardEvent): void {
  if (event.key === 'Enter' && event.ctrlKey && mayChange.value && !isFiled.value) void fileIt();
}
</script>

<template>
  <div v-if="data" class="repro" @keydown="onKey">
    <header>
      <p class="small">
        <RouterLink :to="where">{{ data.charter_key }} {{ data.charter_title }}</RouterLink>
      </p>
      <div class="title-line">
        <h1>What led to {{ clock(data.marked.at_ms) }}</h1>
        <span class="soft">{{ plural(acts, 'act') }}, {{ stay.length }} stay</span>
        <div v-if="mayChange" class="actions">
          <Button
            outlined
            severity="secondary"
            :disabled="stay.length === 0"
            :aria-pressed="again"
            @click="again = !again"
            >Walk it again <KeyCap of="w"
          /></Button>
          <Button
            v-if="!repro?.case_key"
            outlined
            severity="secondary"
            :disabled="busy"
            @click="run(makeCase)"
            >Case from it <KeyCap of="c"
          /></Button>
          <template v-if="!isFiled">
            <Button
              v-if="!repro?.case_key"
              outlined
              severity="secondary"
              label="Both"
              title="A case and a defect, linked with each other"
              :disabled="busy"
              @click="both"
            />
            <Button :disabled="busy" @click="fileIt">File the defect <kbd>Ctrl Enter</kbd></Button>
          </template>
        </div>
      </div>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      <p v-if="theirs" class="small" role="status">
        {{ theirs.saved_by.name }} kept {{ plural(theirs.steps.length, 'step') }} meanwhile.
        <button type="button" class="link" @click="kept = { ...kept, steps: null }">Take theirs</button>
        or
        <button type="button" class="link" @click="steps = { ...steps, version: theirs.version }">
          go on with mine
        </button>
      </p>
    </header>
    <div class="sides">
      <div class="left">
        <WalkAgain
          v-if="again"
          :steps="stay"
          :seen="data.marked.words"
          :busy="busy"
          @seen="seen"
          @leave="again = false"
        />
        <ReproSteps
          v-else
          v-model="steps"
          :stretch="data"
          :may-change="mayChange"
          @begin-at="from = $event"
          @before="before += 50"
        />
      </div>
      <aside aria-label="What the developer gets">
        <template v-if="repro && (repro.defect || repro.case_key)">
          <h2>What came of it</h2>
          <ul>
            <li v-if="repro.defect">
              <RouterLink class="mono" :to="`/${project}/defects/${repro.defect.key}`">{{
                repro.defect.key
              }}</RouterLink>
              {{ repro.defect.title }}
            </li>
            <li v-if="repro.case_key">
              <RouterLink class="mono" :to="`/${project}/casebook/${repro.case_key}`">{{
                repro.case_key
              }}</RouterLink>
              {{ repro.case_title }}
            </li>
          </ul>
        </template>
        <template v-if="!isFiled">
          <p class="label">What the developer gets</p>
          <div>
            <label class="unseen" for="repro-title">Title</label>
            <InputText
              id="repro-title"
              v-model="title"
              fluid
              class="title"
              maxlength="300"
              :disabled="!mayChange"
              :invalid="!!wrong.title"
            />
            <p v-if="wrong.title" class="p-invalid-words" role="alert">{{ wrong.title[0] }}</p>
          </div>
          <div class="two">
            <div>
              <label class="label" for="repro-expected">Expected</label>
              <Textarea
                id="repro-expected"
                v-model="kept.expected"
                rows="2"
                auto-resize
                fluid
                maxlength="10000"
                :disabled="!mayChange"
              />
            </div>
            <div>
              <label class="label" for="repro-actual">Happened instead</label>
              <Textarea
                id="repro-actual"
                v-model="actual"
                rows="2"
                auto-resize
                fluid
                maxlength="10000"
                :disabled="!mayChange"
              />
            </div>
          </div>
        </template>
        <p v-else-if="seenWords(repro)" class="soft">{{ upperFirst(seenWords(repro)) }}</p>
        <ol v-if="stay.length > 0" class="steps small">
          <li v-for="(s, i) in stay" :key="i" :class="{ last: i === stay.length - 1 }">{{ s.words }}</li>
        </ol>
        <p v-else class="soft">Nothing is left that leads there: keep at least one line, or put one in.</p>
        <template v-if="!isFiled">
          <p v-if="on" class="soft small">{{ on }}</p>
          <MarkdownText v-if="data.body" class="small" :text="data.body.replace(/^## (.*)$/gm, '**$1**')" />
          <CaptureTicks v-model="captures" :captures="data.captures" :locked="!mayChange" />
          <SelectField v-if="mayChange" v-model="kept.severity" form label="Severity" :options="SEVERITIES" />
          <LikelyDefects :project="project" :title="title" :actual="actual" @link="link" />
        </template>
      </aside>
    </div>
  </div>
  <div v-else class="page"><StateBox :loading="isPending" :error="error" @again="refetch()" /></div>
</template>

<style scoped>
header {
  padding: 16px 24px 12px;
  border-bottom: 1px solid var(--rule);
}
.sides {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
}
.left {
  padding: 16px 24px 40px;
  min-width: 0;
}
aside {
  border-left: 1px solid var(--rule);
  padding: 16px 24px 40px;
  display: grid;
  gap: 14px;
  align-content: start;
  min-width: 0;
}
.title {
  font-weight: 700;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(12rem, 1fr));
  gap: 14px;
}
.steps {
  list-style: decimal;
  padding-left: 1.6rem;
  display: grid;
  gap: 4px;
}
.last {
  font-weight: 700;
}
@media (max-width: 900px) {
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
  header,
  .left,
  aside {
    padding-inline: 14px;
  }
  aside {
    border-left: 0;
    border-top: 1px solid var(--rule);
  }
}
</style>
