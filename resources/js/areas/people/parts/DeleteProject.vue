<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { ref } from 'vue';
import { Problem, type Api } from '@/api/client';
import { deleteProject } from '@/areas/people/queries';
import { vFocus } from '@/kit/focus';

/** Deletes an archived project: what goes is said, taking it out is offered, and its name is typed to be sure. */
const props = defineProps<{ project: Api['InstallationProject'] }>();
const emit = defineEmits<{ deleted: [page: Api['InstallationPage']]; leave: [] }>();
const name = ref('');
const problem = ref('');
const busy = ref(false);
async function go(): Promise<void> {
  problem.value = '';
  busy.value = true;
  try {
    emit('deleted', await deleteProject(props.project.id, { name: name.value }));
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    problem.value = error.errors.name?.[0] ?? error.message;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form @submit.prevent="go" @keydown.esc.stop="emit('leave')">
    <p>
      All cases, cycles, attempts, evidence and defects of <strong>{{ project.name }}</strong> go for good,
      and its records can be checked no more. What stays is that it was there, and that you deleted it.
    </p>
    <p v-if="project.role" class="soft">
      Take out first what should stay:
      <RouterLink :to="`/${project.code}/casebook`">the casebook</RouterLink> (Take out, at its top), and from
      each attempt the bundle with its evidence. A whole copy is <code>./lucid backup</code>.
    </p>
    <p v-else class="soft">
      You have no part in it: ask {{ project.admins.join(' or ') || 'who worked in it' }} to take out what
      should stay. A whole copy is <code>./lucid backup</code>.
    </p>
    <label class="label" :for="`delete-${project.id}`">Its name, to be sure</label>
    <InputText
      :id="`delete-${project.id}`"
      v-model="name"
      v-focus
      autocomplete="off"
      :invalid="problem !== ''"
      :placeholder="project.name"
    />
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <p class="row">
      <Button
        type="submit"
        severity="danger"
        label="Delete it"
        :disabled="busy || name.trim() !== project.name"
      />
      <Button text severity="secondary" label="Leave it" @click="emit('leave')" />
    </p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  justify-items: start;
  padding: 8px 0 12px;
  max-width: 44rem;
}
</style>
