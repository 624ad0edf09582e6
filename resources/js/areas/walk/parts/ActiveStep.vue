<script setup lang="ts">
import Button from 'primevue/button';
import Textarea from 'primevue/textarea';
import { computed, defineAsyncComponent, nextTick, ref, watch } from 'vue';
import type { Api } from '@/api/client';
import MarkdownText from '@/kit/MarkdownText.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import type { FinalVerdict } from '@/areas/walk/types';
import BlockForm from './BlockForm.vue';
import FailForm from './FailForm.vue';
import { useReasons } from '@/areas/walk/reasons';
import ReasonChips from './ReasonChips.vue';
import VerdictBar from './VerdictBar.vue';
import { useCopying } from '@/areas/walk/useCopying';
import { useLocalDraft } from '@/offline/useLocalDraft';
import { isCarried, type Walk, type WalkStep } from '@/areas/walk/useWalk';
import KeyCap from '@/kit/KeyCap.vue';

const SideBySide = defineAsyncComponent(() => import('@/areas/evidence/parts/SideBySide.vue'));
const EarlierHere = defineAsyncComponent(() => import('./EarlierHere.vue'));
const props = defineProps<{ walk: Walk; step: WalkStep; count: number; locked: boolean; project: string }>();
const emit = defineEmits<{ draft: []; capture: []; ask: [] }>();
const { draft, clear } = useLocalDraft(
  computed(() => `${props.walk.id.value}.${props.walk.roundAt.value}.${props.step.position}`),
  () => ({
    happened: props.step.record.happened,
    reason: props.step.record.reason,
    waits_on: props.step.record.waits_on,
    note: props.step.record.note,
    also: [] as string[],
    form: '' as '' | 'fail' | 'blocked' | 'reason',
  }),
);
const form = computed({ get: () => draft.value.form, set: (now) => (draft.value.form = now) });
const missing = ref('');
const reasons = useReasons(() => props.project, 'blocked');
const asked = ref<{ focus: () => Promise<void> } | null>(null);
const note = ref<{ $el: HTMLTextAreaElement } | null>(null);
const { data, values, chips, said, copy, copyNext, onText } = useCopying(props.walk, () => props.step);

async function begin(what: 'fail' | 'blocked' | 'note'): Promise<void> {
  if (props.locked) return;
  missing.value = '';
  if (what !== 'note') form.value = what;
  await nextTick();
  if (what === 'note') note.value?.$el.focus();
  else await asked.value?.focus();
}
function choose(verdict: FinalVerdict): void {
  if (verdict === 'fail' || verdict === 'blocked') void begin(verdict);
  else void props.walk.judge(props.step, verdict);
}
/** Records the fail or block; false when a word is missing. Words stay where they are when nothing could keep the act. */
async function record(stay = false): Promise<boolean> {
  const fail = form.value === 'fail';
  const typed = (fail ? draft.value.happened : draft.value.reason).trim();
  const word = fail ? typed : reasons.meant(typed);
  if (!word) {
    await begin(fail ? 'fail' : 'blocked');
    if (fail) missing.value = 'Say what happened instead.';
    else missing.value = typed === '' ? 'Say why it is blocked.' : reasons.none(typed);
    return false;
  }
  const { step, walk } = props;
  const waits_on = draft.value.waits_on.trim();
  const also = draft.value.also;
  await walk.judge(
    step,
    fail ? 'fail' : 'blocked',
    fail ? { happened: word, reason: draft.value.reason.trim() } : { reason: word, waits_on },
    stay,
  );
  if (!fail && also.length > 0)
    await walk.record({
      kind: 'outage',
      cycle: walk.view.value?.cycle_key ?? '',
      ids: [...also],
      note: `The same outage as ${walk.view.value?.case_key ?? ''} step ${step.position}`,
      reason: word,
      waits_on,
    });
  await clear();
  return true;
}
async function recordAndDraft(): Promise<void> {
  if (await record(true)) emit('draft');
}
/** A known defect: the fail is recorded with its words, and linked. */
async function linkKnown(defect: Api['DefectLine']): Promise<void> {
  if (draft.value.happened.trim() === '') draft.value.happened = `As in ${defect.key}: ${defect.title}`;
  const { step, walk } = props;
  const inRound = walk.roundAt.value;
  if (!(await record(false))) return;
  await walk.record({
    kind: 'link',
    defect: defect.id,
    key: defect.key,
    title: defect.title,
    round: inRound,
    step: step.position,
  });
}
async function withReason(reason: string): Promise<void> {
  const { verdict } = props.step.record;
  if (verdict === 'pass' || verdict === 'not_applicable')
    await props.walk.judge(props.step, verdict, { reason }, true);
}
async function saveNote(): Promise<void> {
  const now = draft.value.note.trim();
  if (now !== props.step.record.note)
    await props.walk.record({
      kind: 'note',
      round: props.walk.roundAt.value,
      step: props.step.position,
      note: now,
    });
}
function tried(failed: boolean): void {
  if (!props.locked)
    void props.walk.record({
      kind: 'try',
      round: props.walk.roundAt.value,
      step: props.step.position,
      failed,
    });
}
watch(
  () => [draft.value.happened, draft.value.reason],
  () => (missing.value = ''),
);
watch(
  () => props.step.record.note,
  // Another device wrote it: what is being typed here is not overwritten.
  (now, before) => draft.value.note === before && (draft.value.note = now),
);
defineExpose({ begin, copyNext, tried });
</script>

<template>
  <section class="lit" :aria-label="`Step ${step.position} of ${count}`">
    <p class="soft small where">
      Step {{ step.position }} of {{ count }}
      <span v-if="(step.routines ?? []).length > 0">· {{ step.routines.join(' › ') }}</span>
      <span v-if="step.record.verdict !== 'not_run'">
        · <VerdictMark :shown="step.record.verdict" word :size="11" />
        <template v-if="isCarried(step)">, carried from an older version of the case</template
        ><Button v-if="!locked" text size="small" severity="secondary" @click="walk.judge(step, 'not_run')"
          >Take back <KeyCap of="0" /></Button
      ></span>
      <span v-if="step.record.tries > 0" class="tries"
        >fails {{ step.record.tries_failed }} of {{ step.record.tries }}</span
      >
      <span class="copied" role="status">{{ said }}</span>
    </p>
    <!-- eslint-disable-next-line vuejs-accessibility/click-events-have-key-events -->
    <div class="action" @click="onText"><MarkdownText :text="step.action" /></div>
    <div class="parts">
      <div v-if="data.length > 0 || values.length > 0" class="wide">
        <span class="label"
          >{{ data.length > 0 ? 'Data' : 'Values' }} <KeyCap of="v" title="Copy one after another"
        /></span>
        <div class="chips">
          <button
            v-for="value in values"
            :key="value.name"
            type="button"
            class="chip mono"
            :disabled="value.hidden"
            :title="value.hidden ? 'Only whoever walks sees it' : `Copy ${value.name}`"
            @click="copy(value.value, value.name)"
          >
            <span class="of">{{ value.name }}</span> {{ value.value === '' ? '(empty)' : value.value }}
          </button>
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
        </div>
      </div>
      <div>
        <span class="label">Expected</span>
        <!-- eslint-disable-next-line vuejs-accessibility/click-events-have-key-events -->
        <div @click="onText"><MarkdownText :text="step.expected || '–'" /></div>
        <p v-if="(step.files ?? []).length > 0" class="references">
          <a
            v-for="f in step.files"
            :key="f.sha256"
            :href="`/api/v1/projects/${project}/files/${f.sha256}`"
            target="_blank"
            rel="noopener"
            ><img
              :src="`/api/v1/projects/${project}/files/${f.sha256}/thumbnail`"
              :alt="`How it should look: ${f.name}`"
          /></a>
        </p>
      </div>
      <div>
        <label class="label" :for="`note-${step.position}`">Note <KeyCap of="n" /></label>
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
    <EarlierHere
      v-if="(walk.view.value?.attempt.number ?? 1) > 1"
      :walk="walk"
      :step="step"
      :project="project"
    />
    <VerdictBar
      v-if="!locked"
      :verdict="step.record.verdict"
      :form="form"
      :tried="step.record.tries > 0"
      @choose="choose"
      @capture="emit('capture')"
      @ask="emit('ask')"
      @tried="tried"
    />
    <template v-if="step.record.verdict === 'fail' && form !== 'fail'">
      <SideBySide v-if="step.expected !== ''" :expected="step.expected" :actual="step.record.happened" />
      <div v-else class="said">
        <span class="label">What happened instead</span>{{ step.record.happened }}
      </div>
    </template>
    <div v-if="step.record.reason && step.record.verdict !== 'blocked'" class="said">
      <span class="label">Reason</span>{{ step.record.reason }}
    </div>
    <div v-if="step.record.verdict === 'blocked' && form !== 'blocked'" class="said">
      <span class="label">Why it is blocked</span>{{ step.record.reason
      }}<template v-if="step.record.waits_on">, waits on {{ step.record.waits_on }}</template>
    </div>
    <FailForm
      v-if="form === 'fail' && !locked"
      ref="asked"
      v-model:happened="draft.happened"
      v-model:reason="draft.reason"
      class="more"
      :walk="walk"
      :step="step"
      :project="project"
      :missing="missing"
      @record="record()"
      @draft="recordAndDraft"
      @link="linkKnown"
      @leave="form = ''"
    />
    <BlockForm
      v-else-if="form === 'blocked' && !locked"
      ref="asked"
      v-model:reason="draft.reason"
      v-model:waits="draft.waits_on"
      v-model:also="draft.also"
      class="more"
      :walk="walk"
      :project="project"
      :missing="missing"
      @record="record()"
      @leave="form = ''"
    />
    <div v-else-if="step.record.verdict === 'fail' && !locked" class="more">
      <Button outlined @click="emit('draft')">Draft a defect <KeyCap of="d" /></Button>
    </div>
    <div
      v-else-if="!locked && (step.record.verdict === 'pass' || step.record.verdict === 'not_applicable')"
      class="more"
    >
      <button v-if="form !== 'reason'" type="button" class="link" @click="form = 'reason'">
        {{ step.record.reason ? 'Another reason' : 'Give a reason' }}
      </button>
      <ReasonChips
        v-else
        :project="project"
        :verdict="step.record.verdict"
        :model-value="step.record.reason"
        @update:model-value="withReason"
      />
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
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.copied {
  margin-left: auto;
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
.chip .of {
  font: 0.8rem var(--text);
  color: var(--ink-soft);
  margin-right: 4px;
}
.action :deep(code),
.parts :deep(code) {
  background: var(--well);
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 0 5px;
  font-family: var(--mono);
  font-size: 0.87em;
  cursor: copy;
}
.tries {
  font-weight: 700;
  color: var(--ink);
}
.note {
  padding: 4px 8px;
}
.said {
  margin-top: 14px;
  overflow-wrap: anywhere;
}
section > .more {
  margin: 16px -20px 0 -18px;
  padding: 14px 20px 0 18px;
  border-top: 1px solid var(--rule);
}
.more :deep(.row) {
  margin-top: 12px;
}
.more :deep(.hint) {
  margin-left: auto;
}
@media (max-width: 640px) {
  .parts {
    grid-template-columns: minmax(0, 1fr);
  }
  .more :deep(.hint),
  kbd,
  :deep(kbd) {
    display: none;
  }
}
</style>
