<script setup lang="ts" generic="V extends string | number">
import { computed } from 'vue';

/** One out of a list, with its label: beside it where facts stand below one another, above it in a form, or only heard. */
const chosen = defineModel<V | null | undefined>({ required: true });
const props = defineProps<{
  label: string;
  options: readonly { value: V | null; label: string }[];
  /** What choosing nothing is called; without it something is always chosen. */
  none?: string | undefined;
  disabled?: boolean | undefined;
  /** The label stands above the field. */
  form?: boolean;
  /** The place says by itself what it is: the label is only heard. */
  hideLabel?: boolean;
  small?: boolean;
}>();
const value = computed({
  // Nothing is nothing, whether the form calls it '' or null; unless '' is a choice itself.
  get: () =>
    chosen.value === '' && !props.options.some((o) => o.value === '') ? null : (chosen.value ?? null),
  set: (now: V | null) => (chosen.value = now),
});
const listed = computed(() => props.options.some((o) => o.value === value.value));
/** Something that is not in the list any more still shows that it is chosen. */
const lost = computed(() => value.value !== null && !listed.value);
</script>

<template>
  <component :is="hideLabel ? 'span' : 'label'" :class="hideLabel ? 'alone' : form ? 'above' : 'fact'"
    ><span v-if="!hideLabel" class="label">{{ label }}</span
    ><select v-model="value" class="field" :class="{ small }" :disabled="disabled" :aria-label="label">
      <option
        v-if="none !== undefined || (value === null && !listed)"
        :value="null"
        :hidden="none === undefined"
      >
        {{ none ?? '' }}
      </option>
      <option v-if="lost" :value="value">{{ value }}</option>
      <option v-for="o in options" :key="String(o.value)" :value="o.value">{{ o.label }}</option>
    </select></component
  >
</template>

<style scoped>
.alone {
  display: inline-block;
}
.small {
  padding-block: 4px;
}
</style>
