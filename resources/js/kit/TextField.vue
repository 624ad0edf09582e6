<script setup lang="ts">
import InputText from 'primevue/inputtext';

/** A line of text with its label above and what is wrong with it below. */
const text = defineModel<string>({ required: true });
defineProps<{
  id: string;
  label: string;
  type?: 'text' | 'email' | 'password';
  autocomplete?: string;
  problem?: string | undefined;
}>();
</script>

<template>
  <div>
    <label class="label" :for="id">{{ label }}</label>
    <InputText
      :id="id"
      v-model="text"
      :type="type ?? 'text'"
      :autocomplete="autocomplete"
      fluid
      :invalid="!!problem"
      :aria-describedby="problem ? `${id}-problem` : undefined"
    />
    <p v-if="problem" :id="`${id}-problem`" class="p-invalid-words" role="alert">{{ problem }}</p>
  </div>
</template>
