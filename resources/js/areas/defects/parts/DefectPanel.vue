<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import { computed, nextTick, onMounted, ref, watch } from 'vue';
import { v7 as uuid7 } from 'uuid';
import { Problem, type Api } from '@/api/client';
import { draftDefect, findDefects } from '@/areas/defects/queries';
import LikelyDefects from '@/areas/defects/parts/LikelyDefects.vue';
import SelectField from '@/kit/SelectField.vue';
import { plainWords } from '@/kit/words';
import { useLocalDraft } from '@/offline/useLocalDraft';
import type { Walk } from '@/areas/walk/useWalk';
import { outbox } from '@/offline/outbox';

const props = defineProps<{ walk: Walk; project: string; step: number | null }>();
const emit = defineEmits<{ close: [] }>();
const attempt = computed(() => props.walk.view.value?.attempt.id ?? '');
const { draft, clear } = useLocalDraft(
  computed(() => `${attempt.value}.defect.${props.step}`),
  () => ({
    made: false,
    title: '',
    body: '',
    expected: '',
    actual: '',
    severity: 'major' as Api['DefectLine']['severity'],
  }),
);
const problem = ref<string | null>(null);
const missing = ref('');
const words = ref('');
const found = ref<Api['DefectLine'][]>([]);
const panel = ref<HTMLElement | null>(null);
const severities = ['critical', 'major', 'minor', 'trivial'].map((s) => ({ value: s, label: plainWords(s) }));

/** The draft is made by the server from what it knows: what still waits here is sent first. */
async function make(): Promise<void> {
  problem.value = null;
  for (
    let n = 0;
    n < 40 && outbox.waiting.value.some((a) => a.attempt === attempt.value) && !outbox.state.awaySince;
    n += 1
  )
    await new Promise((r) => setTimeout(r, 100));
  try {
    const query: Record<string, string> =
      props.step === null
        ? {}
        : {
            round: String(props.walk.roundAt.value),
            step: String(props.step),
          };
    const happened = props.walk.steps.value.find((s) => s.position === props.step)?.record.happened;
    if (happened) query.happened = happened;
    const made = await draftDefect(attempt.value, query);
    draft.value = {
      ...draft.value,
      made: true,
      title: made.title,
      body: made.body,
      expected: made.expected,
      actual: made.actual,
    };
  } catch (error) {
    problem.value =
      error instanceof Problem
        ? `${error.message} The draft can be made as soon as the server answers; the fail is recorded.`
        : String(error);
  }
  await nextTick();
  // Whoever types in another field of it already stays there.
  if (!panel.value?.contains(document.activeElement)) document.getElementById('defect-title')?.focus();
}
onMounted(async () => {
  await new Promise((r) => setTimeout(r, 60));
  if (!draft.value.made) await make();
  panel.value?.scrollIntoView({ block: 'nearest' });
});

let timer: ReturnType<typeof setTimeout> | undefined;
watch(words, (now) => {
  clearTimeout(timer);
  timer = setTimeout(async () => {
    const q = now.trim();
    if (q === '') found.value = [];
    else {
      try {
        found.value = (await findDefects(props.project, { q })).items.slice(0, 6);
      } catch (error) {
        problem.value = error instanceof Problem ? error.message : String(error);
      }
    }
  }, 200);
});

async function file(): Promise<void> {
  if (draft.value.title.trim() === '') {
    missing.value = 'A defect needs a title.';
    document.getElementById('defect-title')?.focus();
    return;
  }
  const { title, body, expected, actual, severity } = draft.value;
  await props.walk.record({
    kind: 'defect',
    id: uuid7(),
    project: props.project,
    round: props.step === null ? null : props.walk.roundAt.value,
    step: props.step,
    title: title.trim(),
    body,
    expected,
    actual,
    severity,
  });
  await clear();
  emit('close');
}
async function link(d: Api['DefectLine']): Promise<void> {
  await props.walk.record({
    kind: 'link',
    defect: d.id,
    key: d.key,
    title: d.title,
    round: props.step === null ? null : props.walk.roundAt.value,
    step: props.step,
  });
  emit('close');
}
</script>

<template>
  <section ref="panel" class="panel sheet" aria-label="Defect draft" @keydown.ctrl.enter.prevent="file">
    <h2>Defect from {{ step === null ? 'this attempt' : `step ${step}` }}</h2>
    <p v-if="problem" role="alert">
      {{ problem }} <Button size="small" text label="Try again" @click="make" />
    </p>
    <p v-else-if="!draft.made" class="soft" role="status">Filling in …</p>
    <form v-if="draft.made || problem" @submit.prevent="file">
      <div>
        <label class="label" for="defect-title">Title</label>
        <InputText id="defect-title" v-model="draft.title" fluid maxlength="300" :invalid="missing !== ''" />
        <p v-if="missing" class="p-invalid-words" role="alert">{{ missing }}</p>
      </div>
      <LikelyDefects
        v-if="draft.made"
        :project="project"
        :title="draft.title"
        :actual="draft.actual"
        :attempt="attempt"
        :step="step"
        @link="link"
      />
      <div class="two">
        <div>
          <label class="label" for="defect-body">Report (Markdown)</label
          ><Textarea id="defect-body" v-model="draft.body" fluid rows="11" class="mono" />
        </div>
        <div class="side">
          <label class="label" for="defect-severity">Severity</label>
          <SelectField v-model="draft.severity" hide-label label="Severity" :options="severities" />
          <label class="label gap" for="defect-expected">Expected</label
          ><Textarea id="defect-expected" v-model="draft.expected" fluid rows="3" />
          <label class="label gap" for="defect-actual">Actual</label
          ><Textarea id="defect-actual" v-model="draft.actual" fluid rows="3" />
        </div>
      </div>
      <div class="row">
        <Button type="submit">File the defect <kbd>Ctrl Enter</kbd></Button>
        <Button text severity="secondary" label="Not now" @click="emit('close')" />
        <span class="soft small">The draft is kept on this device.</span>
      </div>
    </form>
    <div class="known">
      <label class="label" for="defect-words">Another one? Link it by key or words</label>
      <InputText id="defect-words" v-model="words" fluid autocomplete="off" />
      <ul>
        <li v-for="d in found" :key="d.id" class="row">
          <span class="mono">{{ d.key }}</span><span class="name">{{ d.title }}</span
          ><span class="soft small">{{ plainWords(d.state) }}</span
          ><Button size="small" outlined severity="secondary" label="Link it" @click="link(d)" />
        </li>
      </ul>
      <p v-if="words && found.length === 0" class="soft small">No defect has these words.</p>
    </div>
  </section>
</template>

<style scoped>
.panel {
  margin: 10px 0 10px 7px;
  padding: 16px 20px;
  display: grid;
  gap: 14px;
}
form {
  display: grid;
  gap: 12px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
  gap: 16px;
}
.gap {
  margin-top: 10px;
}
.known {
  border-top: 1px solid var(--rule);
  padding-top: 12px;
}
.known li {
  padding-top: 8px;
  flex-wrap: nowrap;
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 640px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
