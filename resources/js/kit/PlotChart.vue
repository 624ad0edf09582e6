<script setup lang="ts">
import * as Plot from '@observablehq/plot';
import { useElementSize } from '@vueuse/core';
import { ref, watchPostEffect } from 'vue';

/** A chart in SVG, as wide as there is room. What it shows stands in a table beside it too: here it is told in one sentence. */
const props = defineProps<{
  /** What one sees, in a sentence. */
  label: string;
  options: (width: number) => Plot.PlotOptions;
}>();
const root = ref<HTMLElement | null>(null);
const { width } = useElementSize(root);
watchPostEffect(() => {
  if (!root.value || width.value < 50) return;
  const chart = Plot.plot({
    style: { background: 'none', color: 'var(--ink)', fontFamily: 'inherit', fontSize: '13px' },
    ...props.options(Math.floor(width.value)),
    width: Math.floor(width.value),
  });
  chart.setAttribute('aria-hidden', 'true');
  root.value.replaceChildren(chart);
});
</script>

<template>
  <figure role="img" :aria-label="label">
    <div ref="root" />
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  min-width: 0;
}
div {
  min-height: 20px;
}
</style>
