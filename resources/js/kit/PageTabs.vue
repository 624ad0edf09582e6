<script setup lang="ts">
import { useRoute } from 'vue-router';

/** Where else one can look from here, beside a page's title. */
defineProps<{
  /** What it leads through, for those who hear it. */
  label: string;
  /** The address that the paths stand below. */
  base: string;
  tabs: { path: string; word: string; count?: number | undefined }[];
}>();
const route = useRoute();
</script>

<template>
  <nav :aria-label="label">
    <RouterLink
      v-for="t in tabs"
      :key="t.path"
      :to="base + t.path"
      :aria-current="route.path === base + t.path ? 'page' : undefined"
      >{{ t.word }}<span v-if="t.count" class="count">{{ t.count }}</span></RouterLink
    >
  </nav>
</template>

<style scoped>
nav {
  display: flex;
  gap: 4px;
  margin-left: 12px;
  flex-wrap: wrap;
}
a {
  color: var(--ink-soft);
  text-decoration: none;
  padding: 4px 10px;
  border-radius: 4px;
}
a:hover {
  background: var(--well);
  color: var(--ink);
}
a[aria-current] {
  color: var(--ink);
  background: var(--sheet);
  box-shadow: inset 0 -2px 0 var(--ink);
}
.count {
  font-size: 0.8rem;
  margin-left: 6px;
  padding: 0 6px;
  border-radius: 8px;
  border: 1px solid var(--edge);
}
</style>
