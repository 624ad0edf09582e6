<script lang="ts">
import { updatePreset } from '@primeuix/themes';
import checkbox from '@primeuix/themes/aura/checkbox';
import multiselect from '@primeuix/themes/aura/multiselect';

// Their looks come with this component: the walk does without them.
updatePreset({ components: { checkbox, multiselect } });
</script>

<script setup lang="ts" generic="T extends { value: string; label: string }">
import MultiSelect from 'primevue/multiselect';

/** Several choices out of a list, with what they are above the field. */
const chosen = defineModel<string[]>({ required: true });
defineProps<{
  label: string;
  options: T[];
  /** What is said while nothing is chosen. */
  none?: string;
  small?: boolean;
  /** For a place that says what it is by itself. */
  hideLabel?: boolean;
  /** More chosen ones are only counted. */
  named?: number;
}>();
</script>

<template>
  <label
    ><span v-if="!hideLabel" class="label">{{ label }}</span
    ><MultiSelect
      v-model="chosen"
      :options="options"
      option-label="label"
      option-value="value"
      :placeholder="none"
      :filter="options.length > 10"
      :aria-label="label"
      :max-selected-labels="named ?? 2"
      :selected-items-label="`{0} of ${options.length}`"
      :size="small ? 'small' : undefined"
      :show-toggle-all="options.length > 3"
      fluid
  /></label>
</template>
