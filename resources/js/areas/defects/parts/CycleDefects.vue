<script setup lang="ts">
import { computed } from 'vue';
import { findDefects } from '@/areas/defects/queries';
import { plainWords, plural } from '@/kit/words';
import { useRead } from '@/offline/useRead';

/** The open defects that a cycle met, with where they stand; all of them are one step away. */
const props = defineProps<{ project: string; cycle: string }>();
const SHOWN = 6;
const { data } = useRead(
  'defect',
  () => ['cycle-defects', props.cycle],
  () => findDefects(props.project, { cycle: props.cycle, state: 'open', sort: 'severity' }),
);
const shown = computed(() => data.value?.items.slice(0, SHOWN) ?? []);
</script>

<template>
  <p v-if="data && data.total > 0" class="row small" aria-label="Defects of this cycle" role="group">
    <RouterLink :to="`/${project}/defects?cycle=${cycle}`">{{
      plural(data.total, 'open defect', 'open defects')
    }}</RouterLink>
    <span v-for="d in shown" :key="d.id" :title="d.title"
      ><RouterLink class="mono plain" :to="`/${project}/defects/${d.key}`">{{ d.key }}</RouterLink
      ><span class="soft">{{ ` ${plainWords(d.state).toLowerCase()}, ${d.severity}` }}</span></span
    >
    <span v-if="data.total > shown.length" class="soft">and {{ data.total - shown.length }} more</span>
  </p>
</template>
