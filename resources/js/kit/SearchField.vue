<script lang="ts">
import { updatePreset } from '@primeuix/themes';
import autocomplete from '@primeuix/themes/aura/autocomplete';

updatePreset({ components: { autocomplete } });
</script>

<script setup lang="ts" generic="T extends { value: string; label: string }">
import AutoComplete from 'primevue/autocomplete';
import { ref, watch } from 'vue';

/** One out of more than can be listed: found by words on the server. */
const chosen = defineModel<string | null>({ required: true });
const props = defineProps<{
  label: string;
  placeholder?: string;
  small?: boolean;
  /** What fits the words; without words the first ones. */
  find: (words: string) => Promise<T[]>;
}>();
const shown = ref<T | string | null>(null);
const found = ref<T[]>([]);
let asked = 0;
async function search(words: string): Promise<void> {
  const mine = ++asked;
  const answer = await props.find(words.trim());
  // Answers may overtake each other.
  if (mine === asked) found.value = answer;
}
function pick(value: unknown): void {
  // What was asked for before is not looked at any more: it would open the list again.
  if (typeof value === 'object') asked += 1;
  shown.value = value as T | string | null;
  chosen.value = typeof value === 'object' && value !== null ? (value as T).value : null;
}
watch(chosen, (now) => {
  if (now === null && typeof shown.value === 'object') shown.value = null;
});
</script>

<template>
  <AutoComplete
    :model-value="shown"
    :suggestions="found"
    option-label="label"
    :placeholder="placeholder"
    :aria-label="label"
    :size="small ? 'small' : undefined"
    :delay="150"
    dropdown
    :pt="{ dropdown: { 'aria-label': `The first of them: ${label}` } }"
    force-selection
    fluid
    @complete="search($event.query)"
    @update:model-value="pick"
  />
</template>
