<script lang="ts">
import { updatePreset } from '@primeuix/themes';
import select from '@primeuix/themes/aura/select';

// Its looks come with this component: the walk does without them.
updatePreset({ components: { select } });
</script>

<script setup lang="ts" generic="T extends { value: string; label: string; group?: string }">
import Select from 'primevue/select';

/** One out of a long list, looked for by its words; what it is stands above the field. */
const chosen = defineModel<string | null>({ required: true });
defineProps<{
  label: string;
  options: T[];
  /** What is said while nothing is chosen; with `clearable` one can go back to that. */
  none: string;
  clearable?: boolean;
}>();
</script>

<template>
  <label
    ><span class="label">{{ label }}</span
    ><Select
      v-model="chosen"
      :options="options"
      option-label="label"
      option-value="value"
      :placeholder="none"
      :filter="options.length > 8"
      :filter-fields="['label']"
      :show-clear="clearable"
      :aria-label="label"
      fluid
  /></label>
</template>
