<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { refDebounced, useEventListener } from '@vueuse/core';
import Button from 'primevue/button';
import { computed } from 'vue';
import type { Api } from '@/api/client';
import { findLikelyDefects } from '@/areas/defects/queries';
import { plainWords } from '@/kit/words';

/** Defects that may be the one that is being written, with why: one key links the first instead of filing another. */
const props = defineProps<{
  project: string;
  title: string;
  actual: string;
  attempt?: string | undefined;
  step?: number | null | undefined;
  component?: string | undefined;
}>();
const emit = defineEmits<{ link: [Api['DefectLine']] }>();
const asked = refDebounced(
  computed(() => ({
    title: props.title.trim(),
    actual: props.actual.trim(),
    ...(props.attempt ? { attempt: props.attempt } : {}),
    ...(props.step ? { step: String(props.step) } : {}),
    ...(props.component ? { component: props.component } : {}),
  })),
  400,
);
const { data } = useQuery({
  queryKey: computed(() => ['likely', props.project, asked.value]),
  queryFn: () => findLikelyDefects(props.project, asked.value),
  enabled: () => asked.value.title !== '' || asked.value.actual !== '',
  placeholderData: (before) => before,
  retry: false,
});
const found = computed(() => data.value ?? []);
const why = (l: Api['LikelyDefect']): string =>
  [
    l.at_this_step ? 'same step' : l.same_case ? 'same case' : '',
    l.same_component ? 'same component' : '',
    l.words.length > 0 ? `same words: ${l.words.slice(0, 6).join(', ')}` : '',
  ]
    .filter(Boolean)
    .join(', ');
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  const first = found.value[0];
  if (!event.altKey || event.key.toLowerCase() !== 'l' || !first) return;
  event.preventDefault();
  emit('link', first.defect);
});
</script>

<template>
  <section v-if="found.length > 0" class="likely" aria-label="Known already?">
    <h3>Known already?</h3>
    <ul>
      <li v-for="(l, i) in found" :key="l.defect.id">
        <div class="long">
          <span class="mono">{{ l.defect.key }}</span> {{ l.defect.title }}
          <span class="soft small">
            {{ plainWords(l.defect.state).toLowerCase()
            }}<template v-if="why(l)"> · {{ why(l) }}</template></span
          >
        </div>
        <Button type="button" size="small" outlined severity="secondary" @click="emit('link', l.defect)"
          >It is this one <kbd v-if="i === 0">Alt L</kbd></Button
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.likely {
  background: var(--well);
  border-radius: 6px;
  padding: 10px 14px 6px;
}
h3 {
  margin: 0 0 4px;
  font-size: 1rem;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  padding: 5px 0;
}
@media (max-width: 640px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    justify-items: start;
  }
}
</style>
