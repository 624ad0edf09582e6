<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { takeOut } from '@/areas/people/queries';
import SelectField from '@/kit/SelectField.vue';

/** Somebody leaves the project: what is open of theirs goes to somebody else in the same step, or to nobody on purpose. */
const props = defineProps<{
  project: string;
  person: Api['ProjectPerson'];
  people: Api['ProjectPerson'][];
  /** Whether it is oneself. */
  me: boolean;
}>();
const emit = defineEmits<{ left: []; stay: [] }>();
const to = ref<string | null>(null);
const problem = ref('');
const busy = ref(false);
const heirs = computed(() =>
  props.people
    .filter((p) => p.id !== props.person.id && p.role !== 'reader')
    .map((p) => ({ value: p.id, label: `${p.name}, ${p.role}` })),
);

async function leave(): Promise<void> {
  problem.value = '';
  busy.value = true;
  try {
    await takeOut(props.project, props.person.id, to.value);
    emit('left');
  } catch (error) {
    problem.value = errorMessage(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form :aria-label="me ? 'Leave the project' : `Take ${person.name} out`" @submit.prevent="leave">
    <p>
      {{ me ? 'What you did stays under your name.' : `What ${person.name} did stays under their name.` }}
      <template v-if="person.open.length > 0">Open: {{ person.open.join(', ') }}.</template>
    </p>
    <SelectField v-model="to" form label="Hand what is open to" :options="heirs" none="nobody, on purpose" />
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <div class="row">
      <Button type="submit" :label="me ? 'Leave the project' : 'Take out'" :disabled="busy" />
      <button type="button" class="link" @click="emit('stay')">{{ me ? 'Stay' : 'Leave them in' }}</button>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
  max-width: 30rem;
  padding: 4px 0 12px;
}
</style>
