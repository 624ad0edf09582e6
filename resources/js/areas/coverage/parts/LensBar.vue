<script setup lang="ts">
import type { Api } from '@/api/client';
import { LENS, type Lens } from '@/areas/coverage/tree';
import DateField from '@/kit/DateField.vue';

/** What coverage is asked of, and as of when; it stands in the address. */
defineProps<{ lenses: Api['CoverageLenses'] | undefined; lens: Lens }>();
const emit = defineEmits<{ set: [name: keyof Lens, value: string] }>();
</script>

<template>
  <div class="row lens">
    <template v-if="lenses">
      <label v-for="l in LENS.filter((x) => lenses![x.from].length > 0)" :key="l.name" class="small"
        ><span class="soft">{{ l.word }}</span>
        <select
          class="field inline"
          :value="lens[l.name] ?? ''"
          :aria-label="l.word"
          @change="emit('set', l.name, ($event.target as HTMLSelectElement).value)"
        >
          <option value="">each</option>
          <option v-for="o in lenses[l.from]" :key="o.id" :value="o.id">{{ o.name }}</option>
        </select></label
      >
    </template>
    <span class="small day"
      ><span class="soft">As of</span>
      <DateField
        :model-value="lens.as_of ?? ''"
        label="As of"
        placeholder="now"
        @update:model-value="(v: string) => emit('set', 'as_of', v)"
    /></span>
  </div>
</template>

<style scoped>
.lens {
  gap: 8px 14px;
}
label,
.day {
  display: inline-flex;
  gap: 8px;
  align-items: center;
  max-width: 100%;
}
.day :deep(.p-datepicker) {
  width: 8.7rem;
}
select {
  min-width: 0;
  max-width: 9.5rem;
}
</style>
