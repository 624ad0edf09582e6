<script setup lang="ts">
import Button from 'primevue/button';
import { v7 as uuid7 } from 'uuid';
import { computed, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage, Problem, type Api } from '@/api/client';
import { filingOf, noWords } from '@/areas/defects/choices';
import DefectForm from '@/areas/defects/parts/DefectForm.vue';
import FilesField from '@/areas/defects/parts/FilesField.vue';
import LikelyDefects from '@/areas/defects/parts/LikelyDefects.vue';
import { addFile, draftDefect, fileDefect, linkDefect } from '@/areas/defects/queries';
import { vFocus } from '@/kit/focus';
import { toast } from '@/kit/notices';
import { useLocalDraft } from '@/offline/useLocalDraft';
import { moveLocalFiles, useLocalFiles } from '@/offline/useLocalFiles';

/** A defect that is filed beside a walk: of nothing that was walked, of a case, or of an attempt that is read afterwards. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const asked = (name: string): string => String(route.query[name] ?? '');
const from = computed(() => ({
  attempt: asked('attempt'),
  round: asked('round'),
  step: asked('step'),
  case: asked('case'),
}));
const draftKey = computed(() => `defect-new:${project.value}:${Object.values(from.value).join(':')}`);
const { draft, clear } = useLocalDraft(draftKey, () => ({ id: '', made: false, words: noWords() }));
const { files, add, replace, drop } = useLocalFiles(draftKey);
const problem = ref('');
const wrong = ref<Record<string, string[]>>({});
const busy = ref(false);

async function make(): Promise<void> {
  problem.value = '';
  const { attempt, round, step } = from.value;
  try {
    const { markdown: _m, plain: _p, ...made } = await draftDefect(attempt, step ? { round, step } : {});
    draft.value = { ...draft.value, made: true, words: { ...draft.value.words, ...made } };
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
onMounted(async () => {
  // What was typed before is found again first.
  await new Promise((r) => setTimeout(r, 60));
  if (from.value.attempt && !draft.value.made) await make();
});
const walk = computed(() => {
  const { attempt, round, step } = from.value;
  return attempt
    ? { attempt_id: attempt, round: Number(round) || null, step: Number(step) || null }
    : from.value.case
      ? { case: from.value.case }
      : {};
});
/** Files go behind the defect that they were added for, or turned out to belong to; those that could not wait at it. */
async function sendFiles(defect: Api['DefectLine']): Promise<string> {
  if (files.value.length === 0) return '';
  try {
    for (const f of [...files.value]) {
      await addFile(defect.key, f);
      await drop(f.id);
    }
    return '';
  } catch (error) {
    await moveLocalFiles(draftKey.value, `defect:${defect.id}`);
    return `Files wait at it on this device: ${errorMessage(error)}`;
  }
}
async function run(
  work: () => Promise<Api['DefectDetail']>,
  said: (d: Api['DefectLine']) => string,
): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  problem.value = '';
  wrong.value = {};
  try {
    const { defect } = await work();
    const left = await sendFiles(defect);
    await clear();
    toast(left === '' ? said(defect) : `${said(defect)} ${left}`);
    await router.replace(`/${project.value}/defects/${defect.key}`);
  } catch (error) {
    if (error instanceof Problem && Object.keys(error.errors).length > 0) wrong.value = error.errors;
    else problem.value = `${errorMessage(error)} What you wrote is kept on this device.`;
  }
  busy.value = false;
}
const file = (): Promise<void> => {
  // Filed again after a lost answer, or a reload, it is there once.
  if (draft.value.id === '') draft.value = { ...draft.value, id: uuid7() };
  return run(
    () => fileDefect(project.value, { ...filingOf(draft.value.words), ...walk.value, id: draft.value.id }),
    (d) => `${d.key} filed.`,
  );
};
/** What was met here is known: it is linked where there is a walk, and looked at. */
async function link(d: Api['DefectLine']): Promise<void> {
  const { attempt, round, step } = from.value;
  if (!attempt) await router.push(`/${project.value}/defects/${d.key}`);
  else
    await run(
      () =>
        linkDefect(d.key, { attempt_id: attempt, round: Number(round) || null, step: Number(step) || null }),
      (linked) => `${linked.key} linked.`,
    );
}
/** What is wrong and stands at no field of the form. */
const elsewhere = computed(() => [
  ...(wrong.value.id ?? []),
  ...(wrong.value.case ?? []),
  ...(wrong.value.attempt_id ?? []),
]);
</script>

<template>
  <div class="page">
    <p class="soft small crumb"><RouterLink :to="`/${project}/defects`">Defects</RouterLink></p>
    <div class="title-line"><h1>New defect</h1></div>
    <p class="soft">
      {{
        from.attempt
          ? `From ${from.step ? `step ${from.step} of ` : ''}what was walked; filled in with what is known of it.`
          : from.case
            ? `About ${from.case}.`
            : 'Met on no walk.'
      }}
    </p>
    <p v-if="problem" class="p-invalid-words" role="alert">
      {{ problem }}
      <button v-if="from.attempt && !draft.made" type="button" class="link" @click="make">Try again</button>
    </p>
    <p v-for="text in elsewhere" :key="text" class="p-invalid-words" role="alert">{{ text }}</p>
    <form
      v-focus
      class="sheet"
      aria-label="New defect"
      @submit.prevent="file"
      @keydown.ctrl.enter.prevent="file"
    >
      <DefectForm v-model="draft.words" :project="project" :wrong="wrong" :walked="from.attempt !== ''" whole>
        <template #likely
          ><LikelyDefects
            :project="project"
            :title="draft.words.title"
            :actual="draft.words.actual"
            :component="draft.words.component"
            :attempt="from.attempt || undefined"
            :step="Number(from.step) || null"
            @link="link"
        /></template>
      </DefectForm>
      <FilesField label="Files to go with it" :files="files" :add="add" :replace="replace" :drop="drop" />
      <div class="row">
        <Button type="submit" :disabled="busy">File the defect <kbd>Ctrl Enter</kbd></Button>
        <Button text severity="secondary" label="Not now" @click="router.back()" />
        <span class="soft small">The draft is kept on this device.</span>
      </div>
    </form>
  </div>
</template>

<style scoped>
.crumb {
  margin-bottom: 2px;
}
form {
  display: grid;
  gap: 14px;
  padding: 18px 22px;
  margin-top: 12px;
}
</style>
