<script setup lang="ts">
import type { Api } from '@/api/client';
import { LENS, type Lens, type LensName } from '@/areas/coverage/tree';

/** What coverage is asked of; it stands in the address. */
defineProps<{ lenses: Api['CoverageLenses']; lens: Lens }>();
const emit = defineEmits<{ set: [name: LensName, value: string] }>();
</script>

<template>
  <div class="row lens">
    <label v-for="l in LENS.filter((x) => lenses[x.from].length > 0)" :key="l.name" class="small"
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
  </div>
</template>

<style scoped>
.lens {
  gap: 8px 20px;
}
label {
  display: inline-flex;
  gap: 8px;
  align-items: center;
  max-width: 100%;
}
select {
  min-width: 0;
  max-width: 12rem;
}
</style>
