<script setup lang="ts">
import SetupSection from '@/areas/setup/parts/SetupSection.vue';
import { readItems, writeItems } from '@/kit/items';
import type { Api } from '@/api/client';
import EditorFoot from '@/areas/setup/parts/EditorFoot.vue';
import { saveFields } from '@/areas/setup/queries';
import { useReplacing } from '@/areas/setup/useReplacing';
import { useEditable } from '@/kit/useEditable';
import { plural } from '@/kit/words';

/** Fields that the project adds to its cases, or to its defects. */
const props = defineProps<{
  project: string;
  fields: Api['CustomFieldLine'][];
  mayWrite: boolean;
  /** What has them. */
  of: 'cases' | 'defects';
  /** The state of the fields. */
  seen: string;
}>();
const emit = defineEmits<{ saved: [now: Api['ProjectSetup'] | undefined] }>();
type Kind = Api['CustomFieldLine']['kind'];
interface Row {
  id: string | null;
  name: string;
  kind: Kind;
  choices: string;
  required: boolean;
  uses: number;
}
const KINDS: { value: Kind; label: string }[] = [
  { value: 'text', label: 'Text' },
  { value: 'number', label: 'Number' },
  { value: 'date', label: 'Date' },
  { value: 'choice', label: 'Choice' },
  { value: 'yes_no', label: 'Yes or no' },
];
const {
  form: rows,
  dirty,
  follow,
} = useEditable<Row[]>(() => props.fields.map((f) => ({ ...f, choices: writeItems(f.choices) })));
const { problem, replace } = useReplacing<Api['ProjectSetup']>(
  () => props.seen,
  dirty,
  follow,
  (now) => emit('saved', now),
);
function save(): Promise<void> {
  const fields = rows.value.map(({ id, name, kind, choices, required }) => ({
    id,
    name,
    kind,
    required,
    choices: readItems(choices),
  }));
  return replace((seen) => saveFields(props.project, props.of, { fields, seen }), 'Fields saved.');
}
const errorOf = (i: number): string =>
  Object.entries(problem.value?.errors ?? {}).find(([path]) => path.startsWith(`fields.${i}.`))?.[1][0] ?? '';
</script>

<template>
  <SetupSection
    :title="of === 'cases' ? 'Fields of your own' : 'Fields of defects'"
    :what="`What ${of} have here beside what every one has. Lists can be filtered by them.`"
  >
    <div v-for="(r, i) in rows" :key="i" class="one">
      <div class="row">
        <input
          v-model="r.name"
          class="field"
          maxlength="60"
          placeholder="Name"
          :aria-label="`Name of field ${i + 1}`"
          :disabled="!mayWrite"
        />
        <select
          v-model="r.kind"
          class="field kind"
          :aria-label="`Kind of ${r.name || `field ${i + 1}`}`"
          :disabled="!mayWrite"
        >
          <option v-for="k in KINDS" :key="k.value" :value="k.value">{{ k.label }}</option>
        </select>
        <label v-if="of === 'cases'" class="small needed"
          ><input v-model="r.required" type="checkbox" :disabled="!mayWrite" /> needed</label
        >
        <button v-if="mayWrite" type="button" class="link soft" @click="rows.splice(i, 1)">Take out</button>
      </div>
      <input
        v-if="r.kind === 'choice'"
        v-model="r.choices"
        class="field"
        placeholder="What to choose from, between commas"
        :aria-label="`Choices of ${r.name}`"
        :disabled="!mayWrite"
      />
      <p v-if="r.uses" class="soft small">filled in on {{ plural(r.uses, of.slice(0, -1)) }}</p>
      <p v-if="errorOf(i)" class="p-invalid-words" role="alert">{{ errorOf(i) }}</p>
    </div>
    <p v-if="problem && Object.keys(problem.errors).length === 0" class="p-invalid-words" role="alert">
      {{ problem.message }}
    </p>
    <EditorFoot
      v-if="mayWrite"
      :dirty="dirty"
      more="Add a field"
      @add="rows.push({ id: null, name: '', kind: 'text', choices: '', required: false, uses: 0 })"
      @save="save"
      @leave="follow()"
    />
  </SetupSection>
</template>

<style scoped>
.one {
  display: grid;
  gap: 8px;
  align-content: start;
}
.one {
  border-bottom: 1px solid var(--rule);
  padding-bottom: 10px;
}
.row {
  flex-wrap: nowrap;
}
.kind {
  width: 130px;
}
.needed {
  white-space: nowrap;
}
</style>
