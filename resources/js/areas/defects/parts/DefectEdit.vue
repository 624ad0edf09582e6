<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import { computed, ref } from 'vue';
import { errorMessage, Problem, type Api } from '@/api/client';
import { editDefect } from '@/areas/defects/queries';
import { useLocalDraft } from '@/offline/useLocalDraft';

/** What a defect says, field by field. What another changed meanwhile stands beside what was typed; nothing is lost. */
const props = defineProps<{ detail: Api['DefectDetail'] }>();
const emit = defineEmits<{ saved: [Api['DefectDetail']]; leave: [] }>();
type Field = 'title' | 'expected' | 'actual' | 'preconditions' | 'steps' | 'environment' | 'body';
const FIELDS: { name: Field; word: string; rows: number }[] = [
  { name: 'title', word: 'Title', rows: 1 },
  { name: 'actual', word: 'Happened instead', rows: 3 },
  { name: 'expected', word: 'Expected', rows: 3 },
  { name: 'preconditions', word: 'Before that', rows: 2 },
  { name: 'steps', word: 'Steps, numbered', rows: 6 },
  { name: 'environment', word: 'Environment', rows: 1 },
  { name: 'body', word: 'What else there is to say', rows: 4 },
];
const asKept = (): Record<Field, string> => ({
  title: props.detail.defect.title,
  expected: props.detail.expected,
  actual: props.detail.actual,
  preconditions: props.detail.preconditions,
  steps: props.detail.steps,
  environment: props.detail.environment,
  body: props.detail.body,
});
const { draft, clear } = useLocalDraft(
  computed(() => `defect-edit:${props.detail.defect.id}`),
  () => ({ was: asKept(), is: asKept() }),
);
const theirs = ref<Partial<Record<Field, string>>>({});
const problem = ref('');
const wrong = ref<Record<string, string[]>>({});
const changed = computed(() =>
  FIELDS.map((f) => f.name).filter((f) => draft.value.is[f] !== draft.value.was[f]),
);

async function save(): Promise<void> {
  problem.value = '';
  wrong.value = {};
  const only = (of: Record<Field, string>): Partial<Record<Field, string>> =>
    Object.fromEntries(changed.value.map((f) => [f, of[f]]));
  try {
    const now = await editDefect(props.detail.defect.key, {
      ...only(draft.value.is),
      was: only(draft.value.was),
    });
    theirs.value = {};
    await clear();
    emit('saved', now);
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    wrong.value = e.errors;
    problem.value = Object.keys(e.errors).length > 0 ? '' : errorMessage(e);
    if (e.status === 412) {
      theirs.value = (e.facts.now ?? {}) as Partial<Record<Field, string>>;
      // Saved again it stands: it was looked at.
      draft.value = { ...draft.value, was: { ...draft.value.was, ...theirs.value } };
    }
  }
}
async function drop(): Promise<void> {
  await clear();
  emit('leave');
}
</script>

<template>
  <form
    class="sheet edit"
    aria-label="What it says"
    @submit.prevent="save"
    @keydown.ctrl.enter.prevent="save"
  >
    <div v-for="f in FIELDS" :key="f.name">
      <label class="label" :for="`defect-${f.name}`">{{ f.word }}</label>
      <InputText
        v-if="f.rows === 1"
        :id="`defect-${f.name}`"
        v-model="draft.is[f.name]"
        fluid
        :maxlength="f.name === 'title' ? 300 : 2000"
      />
      <Textarea
        v-else
        :id="`defect-${f.name}`"
        v-model="draft.is[f.name]"
        :rows="f.rows"
        auto-resize
        fluid
        :class="{ mono: f.name === 'steps' }"
      />
      <p v-if="wrong[f.name]" class="p-invalid-words" role="alert">{{ wrong[f.name]![0] }}</p>
      <p v-if="theirs[f.name] !== undefined" class="small theirs long">
        <span class="soft">Theirs:</span> {{ theirs[f.name] || '(empty)' }}
        <button type="button" class="link" @click="draft.is[f.name] = theirs[f.name] ?? ''">Take it</button>
      </p>
    </div>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <div class="row">
      <Button type="submit" :disabled="changed.length === 0">Save <kbd>Ctrl Enter</kbd></Button>
      <Button
        text
        severity="secondary"
        :label="changed.length > 0 ? 'Drop my changes' : 'Leave it'"
        @click="drop"
      />
      <span class="soft small">{{ changed.length > 0 ? 'Kept on this device until you save' : '' }}</span>
    </div>
  </form>
</template>

<style scoped>
.edit {
  display: grid;
  gap: 12px;
  padding: 16px 20px;
}
.theirs {
  margin-top: 4px;
  white-space: pre-line;
}
</style>
