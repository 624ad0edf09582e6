<script setup lang="ts" generic="T extends { value: string | null; label: string }">
import Select from 'primevue/select';

/** A choice with its label: beside it where facts stand below one another, above it in a form. */
const chosen = defineModel<string | null | undefined>({ required: true });
defineProps<{
  label: string;
  options: T[];
  /** What is said while nothing is chosen. */
  none?: string;
  disabled?: boolean;
  /** Above the field, with a way to choose nothing again. */
  form?: boolean;
}>();
</script>

<template>
  <label :class="form ? 'above' : 'fact'"
    ><span class="label">{{ label }}</span
    ><Select
      v-model="chosen"
      :options="options"
      option-label="label"
      option-value="value"
      :placeholder="none"
      :show-clear="form"
      :filter="options.length > 10"
      :disabled="disabled"
      :aria-label="label"
      :size="form ? undefined : 'small'"
      :fluid="form"
  /></label>
</template>
