<script setup lang="ts">
import Button from 'primevue/button';
import { computed, nextTick, onMounted, ref } from 'vue';
import { v7 as uuid7 } from 'uuid';
import { Problem, type Api } from '@/api/client';
import { filingOf, noWords } from '@/areas/defects/choices';
import DefectForm from '@/areas/defects/parts/DefectForm.vue';
import EvidenceTicks from '@/areas/defects/parts/EvidenceTicks.vue';
import LikelyDefects from '@/areas/defects/parts/LikelyDefects.vue';
import LinkKnown from '@/areas/defects/parts/LinkKnown.vue';
import { draftDefect } from '@/areas/defects/queries';
import { useLocalDraft } from '@/offline/useLocalDraft';
import type { Walk } from '@/areas/walk/useWalk';
import { outbox } from '@/offline/outbox';

const props = defineProps<{ walk: Walk; project: string; step: number | null }>();
const emit = defineEmits<{ close: [] }>();
const attempt = computed(() => props.walk.view.value?.attempt.id ?? '');
const { draft, clear } = useLocalDraft(
  computed(() => `${attempt.value}.defect.${props.step}`),
  () => ({ made: false, words: noWords(), left: [] as string[], more: [] as string[] }),
);
const problem = ref<string | null>(null);
const wrong = ref<Record<string, string[]>>({});
const panel = ref<HTMLElement | null>(null);
const round = computed(() => (props.step === null ? null : props.walk.roundAt.value));
/** Captures of this step belong to it unless they are left out; those of others only where they are ticked. */
const all = computed(() => (props.walk.view.value?.evidence ?? []).filter((e) => !e.gone));
const isOfStep = (e: { step: number | null; round: number | null }): boolean =>
  props.step === null || (e.step === props.step && (e.round ?? 1) === (round.value ?? 1));
const chosen = computed({
  get: () =>
    all.value
      .filter((e) => (isOfStep(e) ? !draft.value.left.includes(e.id) : draft.value.more.includes(e.id)))
      .map((e) => e.id),
  set: (ids: string[]) =>
    (draft.value = {
      ...draft.value,
      left: all.value.filter((e) => isOfStep(e) && !ids.includes(e.id)).map((e) => e.id),
      more: all.value.filter((e) => !isOfStep(e) && ids.includes(e.id)).map((e) => e.id),
    }),
});
/** Nothing left out and nothing more: what is still captured here belongs to it too. */
const evidence = computed(() =>
  draft.value.left.length + draft.value.more.length === 0 ? null : chosen.value,
);

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
      props.step === null ? {} : { round: String(round.value), step: String(props.step) };
    const happened = props.walk.steps.value.find((s) => s.position === props.step)?.record.happened;
    if (happened) query.happened = happened;
    const { markdown: _m, plain: _p, ...made } = await draftDefect(attempt.value, query);
    draft.value = { ...draft.value, made: true, words: { ...draft.value.words, ...made } };
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

async function file(): Promise<void> {
  wrong.value = {};
  if (draft.value.words.title.trim() === '') {
    wrong.value = { title: ['A defect needs a title.'] };
    document.getElementById('defect-title')?.focus();
    return;
  }
  await props.walk.record({
    kind: 'defect',
    id: uuid7(),
    project: props.project,
    round: round.value,
    step: props.step,
    evidence: evidence.value,
    ...filingOf(draft.value.words),
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
    round: round.value,
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
      <DefectForm v-model="draft.words" :project="project" :wrong="wrong" walked>
        <template #likely
          ><LikelyDefects
            v-if="draft.made"
            :project="project"
            :title="draft.words.title"
            :actual="draft.words.actual"
            :component="draft.words.component"
            :attempt="attempt"
            :step="step"
            @link="link"
        /></template>
        <template #evidence
          ><EvidenceTicks v-model="chosen" :walk="walk" :project="project" :items="all"
        /></template>
      </DefectForm>
      <div class="row">
        <Button type="submit">File the defect <kbd>Ctrl Enter</kbd></Button>
        <Button text severity="secondary" label="Not now" @click="emit('close')" />
        <span class="soft small">The draft is kept on this device.</span>
      </div>
    </form>
    <LinkKnown :project="project" @link="link" />
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
</style>
