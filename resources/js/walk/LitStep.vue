<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import { computed, nextTick, ref, watch } from 'vue';
import MarkdownText from '@/kit/MarkdownText.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import type { StepVerdict } from './acts';
import { useDraft } from './useDraft';
import type { Walk, WalkStep } from './useWalk';

const props = defineProps<{ walk: Walk; step: WalkStep; count: number; locked: boolean }>();
const emit = defineEmits<{ draft: []; capture: [] }>();
const { draft, clear } = useDraft(
  computed(() => `${props.walk.view.value?.attempt.id}.${props.step.position}`),
  () => ({
    happened: props.step.record.happened,
    reason: props.step.record.reason,
    waits_on: props.step.record.waits_on,
    note: props.step.record.note,
    form: '' as '' | 'fail' | 'blocked',
  }),
);
const form = computed({ get: () => draft.value.form, set: (now) => (draft.value.form = now) });
const missing = ref('');
const happened = ref<{ $el: HTMLTextAreaElement } | null>(null);
const reason = ref<{ $el: HTMLInputElement } | null>(null);
const note = ref<{ $el: HTMLTextAreaElement } | null>(null);
const reasons = ['Environment down', 'Data missing', 'Waits for a fix', 'No access'];
const chips = computed(() => props.step.data.split('\n').filter((d) => d.trim() !== ''));
const copied = ref('');
const verdicts: {
  verdict: StepVerdict & ('pass' | 'fail' | 'blocked' | 'not_applicable');
  word: string;
  key: string;
}[] = [
  { verdict: 'pass', word: 'Pass', key: '1' },
  { verdict: 'fail', word: 'Fail', key: '2' },
  { verdict: 'blocked', word: 'Blocked', key: '3' },
  { verdict: 'not_applicable', word: 'Not applicable', key: '4' },
];

async function begin(what: 'fail' | 'blocked' | 'note'): Promise<void> {
  if (props.locked) return;
  missing.value = '';
  if (what !== 'note') form.value = what;
  await nextTick();
  ({ fail: happened, blocked: reason, note })[what].value?.$el.focus();
}
function choose(verdict: StepVerdict): void {
  if (verdict === 'fail' || verdict === 'blocked') void begin(verdict);
  else void props.walk.judge(props.step, verdict);
}
/** Records the fail or block; false when a word is missing. */
async function record(stay = false): Promise<boolean> {
  const fail = form.value === 'fail';
  const word = (fail ? draft.value.happened : draft.value.reason).trim();
  if (word === '') {
    await begin(fail ? 'fail' : 'blocked');
    missing.value = fail ? 'Say what happened instead.' : 'Say why it is blocked.';
    return false;
  }
  const { step, walk } = props;
  const words = fail ? { happened: word } : { reason: word, waits_on: draft.value.waits_on.trim() };
  await walk.judge(step, fail ? 'fail' : 'blocked', words, stay);
  await clear();
  return true;
}
async function recordAndDraft(): Promise<void> {
  if (await record(true)) emit('draft');
}
async function saveNote(): Promise<void> {
  const now = draft.value.note.trim();
  if (now !== props.step.record.note)
    await props.walk.act({ kind: 'note', round: 1, step: props.step.position, note: now });
}
async function copy(text: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    copied.value = text;
    setTimeout(() => (copied.value = ''), 1500);
  } catch {
    copied.value = '';
  }
}
watch(
  () => [draft.value.happened, draft.value.reason],
  () => (missing.value = ''),
);
watch(
  () => props.step.record.note,
  (now) => (draft.value.note = now),
);
defineExpose({ begin });
</script>

<template>
  <section class="lit" :aria-label="`Step ${step.position} of ${count}`">
    <p class="soft small where">
      Step {{ step.position }} of {{ count }}
      <span v-if="step.record.verdict !== 'not_run'">
        · <VerdictMark :shown="step.record.verdict" word :size="11" /><Button
          v-if="!locked"
          text
          size="small"
          severity="secondary"
          @click="walk.judge(step, 'not_run')"
          >Take back <kbd>0</kbd></Button
        ></span
      >
    </p>
    <p v-if="(step.routines ?? []).length > 0" class="soft small">{{ step.routines.join(' › ') }}</p>
    <div class="action"><MarkdownText :text="step.action" /></div>
    <div class="parts">
      <div v-if="chips.length > 0" class="wide">
        <span class="label">Data</span>
        <div class="chips">
          <button
            v-for="chip in chips"
            :key="chip"
            type="button"
            class="chip mono"
            :title="`Copy ${chip}`"
            @click="copy(chip)"
          >
            {{ chip }}
          </button>
          <span class="soft small" role="status">{{ copied ? 'Copied' : '' }}</span>
        </div>
      </div>
      <div>
        <span class="label">Expected</span>
        <MarkdownText :text="step.expected || '–'" />
        <p v-if="(step.files ?? []).length > 0" class="references">
          <a
            v-for="f in step.files"
            :key="f.sha256"
            :href="`/api/v1/projects/${walk.view.value?.project_code}/files/${f.sha256}`"
            target="_blank"
            rel="noopener"
            ><img
              :src="`/api/v1/projects/${walk.view.value?.project_code}/files/${f.sha256}/thumbnail`"
              :alt="`How it should look: ${f.name}`"
          /></a>
        </p>
      </div>
      <div>
        <label class="label" :for="`note-${step.position}`">Note <kbd>n</kbd></label>
        <Textarea
          :id="`note-${step.position}`"
          ref="note"
          v-model="draft.note"
          class="note"
          auto-resize
          rows="1"
          fluid
          :readonly="locked"
          placeholder="–"
          maxlength="10000"
          @blur="saveNote"
        />
      </div>
    </div>
    <div v-if="!locked" class="bar">
      <button
        v-for="v in verdicts"
        :key="v.verdict"
        type="button"
        class="give"
        :class="{
          chosen: form === v.verdict || (form === '' && step.record.verdict === v.verdict),
          fails: v.verdict === 'fail',
        }"
        :title="`${v.word} (${v.key})`"
        @click="choose(v.verdict)"
      >
        <VerdictMark :shown="v.verdict" word :label="v.word" :size="12" /> <kbd>{{ v.key }}</kbd>
      </button>
      <button type="button" class="capture" @click="emit('capture')">Add a file <kbd>c</kbd></button>
    </div>
    <div v-if="step.record.verdict === 'fail' && form !== 'fail'" class="said">
      <span class="label">What happened instead</span>{{ step.record.happened }}
    </div>
    <div v-if="step.record.verdict === 'blocked' && form !== 'blocked'" class="said">
      <span class="label">Why it is blocked</span>{{ step.record.reason
      }}<template v-if="step.record.waits_on">, waits on {{ step.record.waits_on }}</template>
    </div>
    <form v-if="form === 'fail' && !locked" class="more" @submit.prevent="record()">
      <label class="label" for="happened">What happened instead?</label>
      <Textarea
        id="happened"
        ref="happened"
        v-model="draft.happened"
        auto-resize
        rows="1"
        fluid
        :invalid="missing !== ''"
        maxlength="10000"
        aria-describedby="missing"
        @keydown.enter.exact.prevent="record()"
      />
      <p v-if="missing" id="missing" class="p-invalid-words" role="alert">{{ missing }}</p>
      <div class="row">
        <Button type="submit" label="Record the fail" />
        <Button type="button" outlined @click="recordAndDraft">Record and draft a defect</Button>
        <Button type="button" text severity="secondary" label="Leave it" @click="form = ''" />
        <span class="soft hint">Enter records and goes on</span>
      </div>
    </form>
    <form v-else-if="form === 'blocked' && !locked" class="more" @submit.prevent="record()">
      <label class="label" for="reason">Why is it blocked?</label>
      <InputText
        id="reason"
        ref="reason"
        v-model="draft.reason"
        fluid
        :invalid="missing !== ''"
        maxlength="2000"
        aria-describedby="missing"
      />
      <div class="chips offered">
        <button v-for="r in reasons" :key="r" type="button" class="chip" @click="draft.reason = r">
          {{ r }}
        </button>
      </div>
      <p v-if="missing" id="missing" class="p-invalid-words" role="alert">{{ missing }}</p>
      <label class="label" for="waits">Waits on …</label>
      <InputText id="waits" v-model="draft.waits_on" fluid maxlength="2000" />
      <div class="row">
        <Button type="submit" label="Record the block" />
        <Button type="button" text severity="secondary" label="Leave it" @click="form = ''" />
        <span class="soft hint">Enter records and goes on</span>
      </div>
    </form>
    <div v-else-if="step.record.verdict === 'fail' && !locked" class="more">
      <Button outlined @click="emit('draft')">Draft a defect <kbd>d</kbd></Button>
    </div>
  </section>
</template>

<style scoped>
.references img {
  height: 84px;
  margin: 6px 8px 0 0;
  border: 1px solid var(--rule);
  border-radius: 4px;
}
.lit {
  margin: 8px 0;
  padding: 14px 20px 16px 18px;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-left: 0;
  border-radius: 0 6px 6px 0;
  box-shadow:
    -6px 0 0 var(--lantern),
    -7px 0 0 var(--ink);
  margin-left: 7px;
}
.where {
  min-height: 1.8rem;
  display: flex;
  align-items: center;
  gap: 6px;
}
.action {
  font-size: 1.2rem;
  line-height: 1.4;
}
.parts {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 14px 24px;
  margin-top: 14px;
}
.wide {
  grid-column: 1 / -1;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.chip {
  color: var(--ink);
  background: var(--well);
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 3px 8px;
  min-height: 26px;
  cursor: pointer;
  text-align: left;
  overflow-wrap: anywhere;
}
.chip:not(.mono) {
  font: 0.87rem var(--text);
}
.offered {
  margin: 8px 0 12px;
}
.note {
  padding: 4px 8px;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 18px;
}
.give {
  font: 600 1rem var(--text);
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-radius: 6px;
  padding: 8px 14px;
  display: inline-flex;
  gap: 10px;
  align-items: center;
  cursor: pointer;
}
.give:hover {
  background: var(--well);
}
.give.chosen {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1px var(--ink);
}
.give.chosen.fails {
  background: var(--fail-tint);
}
.capture {
  margin-left: auto;
  font: inherit;
  color: var(--ink-soft);
  background: none;
  border: 0;
  cursor: pointer;
}
.said {
  margin-top: 14px;
  overflow-wrap: anywhere;
}
.more {
  margin: 16px -20px 0 -18px;
  padding: 14px 20px 0 18px;
  border-top: 1px solid var(--rule);
}
.more .row {
  margin-top: 12px;
}
.hint {
  margin-left: auto;
}
@media (max-width: 640px) {
  .parts {
    grid-template-columns: minmax(0, 1fr);
  }
  .bar {
    position: sticky;
    bottom: 0;
    padding: 10px 0;
    background: var(--sheet);
  }
  .give {
    white-space: nowrap;
    font-size: 0.93rem;
    flex: 1 1 40%;
    justify-content: center;
    padding: 12px 8px;
  }
  .hint,
  kbd {
    display: none;
  }
}
</style>
