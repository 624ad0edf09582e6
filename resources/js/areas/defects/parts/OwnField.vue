<script setup lang="ts">
import type { Api } from '@/api/client';
import SelectField from '@/kit/SelectField.vue';

/** A field that the project added to its defects, as its kind is filled in. */
const value = defineModel<string | undefined>({ required: true });
defineProps<{ field: Api['CustomFieldLine']; disabled?: boolean; form?: boolean }>();
const emit = defineEmits<{ done: [] }>();
function choose(chosen: string | null | undefined): void {
  value.value = chosen ?? '';
  emit('done');
}
</script>

<template>
  <SelectField
    v-if="field.kind === 'choice' || field.kind === 'yes_no'"
    :form="form"
    :label="field.name"
    none="Nothing"
    :disabled="disabled"
    :options="(field.kind === 'choice' ? field.choices : ['yes', 'no']).map((c) => ({ value: c, label: c }))"
    :model-value="value"
    @update:model-value="choose"
  />
  <label v-else
    ><span class="label">{{ field.name }}</span
    ><input
      v-model="value"
      class="field"
      maxlength="2000"
      :disabled="disabled"
      :placeholder="field.kind === 'date' ? '2027-06-14' : ''"
      @change="emit('done')"
  /></label>
</template>
