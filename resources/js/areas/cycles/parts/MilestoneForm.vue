<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { reactive, ref } from 'vue';
import { errorMessage, Problem, type Api } from '@/api/client';
import { createMilestone, removeMilestone, saveMilestone } from '@/areas/cycles/queries';
import DateField from '@/kit/DateField.vue';
import { toast } from '@/kit/notices';
import { seenNow } from '@/kit/useSeen';
import SelectField from '@/kit/SelectField.vue';

/** A milestone, made or changed where the cycles stand. */
const props = defineProps<{
  project: string;
  types: Api['PlanningSetup']['milestone_types'];
  /** The one to be changed; without it a new one. */
  milestone: Api['MilestoneLine'] | null;
}>();
const emit = defineEmits<{ close: []; changed: [] }>();
const m = props.milestone;
const form = reactive(
  m
    ? { name: m.name, type: m.type, description: m.description, due_on: m.due_on }
    : { name: '', type: props.types[0]?.value ?? '', description: '', due_on: '' },
);
let seen = m?.seen ?? '';
const errors = ref<Record<string, string[]>>({});
const problem = ref('');
async function save(): Promise<void> {
  errors.value = {};
  problem.value = '';
  try {
    await (m ? saveMilestone(m.id, { ...form, seen }) : createMilestone(props.project, { ...form }));
    emit('changed');
    emit('close');
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    errors.value = e.errors;
    seen = seenNow(e) ?? seen;
    if (Object.keys(e.errors).length === 0) problem.value = e.message;
  }
}
async function remove(): Promise<void> {
  if (!m) return;
  try {
    await removeMilestone(m.id);
    toast(`“${m.name}” is gone.`);
    emit('changed');
    emit('close');
  } catch (e) {
    toast(errorMessage(e));
  }
}
</script>

<template>
  <form class="sheet form" aria-label="Milestone" @submit.prevent="save">
    <label
      ><span class="label">Milestone</span
      ><InputText v-model="form.name" fluid maxlength="200" autofocus :invalid="errors.name !== undefined" />
      <span v-if="errors.name" class="p-invalid-words" role="alert">{{ errors.name[0] }}</span></label
    >
    <SelectField
      v-model="form.type"
      form
      label="Type"
      :options="[{ value: '', label: 'None' }, ...types.map((t) => ({ value: t.value, label: t.name }))]"
    />
    <label
      ><span class="label">Date</span><DateField v-model="form.due_on" label="Date" />
      <span v-if="errors.due_on" class="p-invalid-words" role="alert">{{ errors.due_on[0] }}</span></label
    >
    <label class="wide"
      ><span class="label">What it is</span><InputText v-model="form.description" fluid maxlength="20000"
    /></label>
    <p v-if="problem" class="p-invalid-words wide" role="alert">{{ problem }}</p>
    <p class="row wide">
      <Button type="submit" label="Save the milestone" />
      <button type="button" class="link soft" @click="emit('close')">Leave it</button>
      <button v-if="milestone" type="button" class="link soft" @click="remove">Take it out</button>
    </p>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 2fr 1fr 1fr;
  gap: 12px 16px;
  padding: 14px 18px;
  margin-bottom: 16px;
}
.wide {
  grid-column: 1 / -1;
}
@media (max-width: 760px) {
  .form {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
