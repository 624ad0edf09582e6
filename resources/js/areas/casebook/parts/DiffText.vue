<script setup lang="ts">
import type { Api } from '@/api/client';

/** A text with what was taken out and put in: struck through and underlined, not by colour alone. */
defineProps<{ parts: Api['DiffPart'][] }>();
</script>

<template>
  <span class="long"
    ><component
      :is="p.kind === 'removed' ? 'del' : p.kind === 'added' ? 'ins' : 'span'"
      v-for="(p, i) in parts"
      :key="i"
      >{{ p.text }}</component
    ></span
  >
</template>

<style scoped>
span {
  white-space: pre-line;
}
del {
  background: var(--fail-tint);
  text-decoration: line-through;
}
ins {
  background: color-mix(in srgb, var(--pass) 14%, transparent);
  text-decoration: underline;
}
</style>
