<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import { plural } from '@/kit/words';

/** Where something is used. */
const props = defineProps<{ project: string; uses: Api['UseLine'][]; most?: number }>();
const shown = computed(() => props.uses.slice(0, props.most ?? 60));
const KIND = { case: '', routine: 'Routine ', suite: 'Suite ', filter: 'Shared filter ' } as const;
</script>

<template>
  <div>
    <h2>Used in {{ uses.length === 0 ? 'no place yet' : plural(uses.length, 'place') }}</h2>
    <ul>
      <li v-for="u in shown" :key="u.kind + u.id">
        <RouterLink v-if="u.kind === 'case'" :to="`/${project}/casebook/${u.key}`"
          ><span class="mono">{{ u.key }}</span> {{ u.title }}</RouterLink
        >
        <RouterLink v-else-if="u.kind === 'routine'" :to="`/${project}/casebook/routines/${u.id}`"
          >{{ KIND[u.kind] }}{{ u.title }}</RouterLink
        >
        <span v-else>{{ KIND[u.kind] }}{{ u.title }}</span>
        <span v-if="u.steps" class="soft small">
          {{ u.steps.includes(',') ? 'steps' : 'step' }} {{ u.steps }}</span
        >
      </li>
      <li v-if="uses.length > shown.length" class="soft">and {{ uses.length - shown.length }} more</li>
    </ul>
  </div>
</template>

<style scoped>
ul {
  display: grid;
  gap: 6px;
  margin-top: 8px;
}
</style>
