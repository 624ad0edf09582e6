<script setup lang="ts">
import { findDefects } from '@/areas/defects/queries';
import { ago, exact } from '@/kit/words';
import { useRead } from '@/offline/useRead';

/** Defects that one reported and of which somebody wants to know more: it waits until it is answered. */
const props = defineProps<{ project: string }>();
const { data } = useRead(
  'defect',
  () => ['asked-of-me', props.project],
  () => findDefects(props.project, { state: 'needs_information', reporter: 'me' }),
);
</script>

<template>
  <section v-if="data && data.items.length > 0" class="asked" aria-label="Asked of you about defects">
    <h2>Asked of you about defects</h2>
    <ul>
      <li v-for="d in data.items" :key="d.id">
        <RouterLink class="plain long" :to="`/${project}/defects/${d.key}`"
          ><span class="mono">{{ d.key }}</span> {{ d.title }}</RouterLink
        >
        <span class="soft small" :title="exact(d.updated_at)"> {{ ago(d.updated_at) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.asked {
  margin-bottom: 24px;
}
li {
  padding: var(--line) 0;
  border-bottom: 1px solid var(--rule);
}
</style>
