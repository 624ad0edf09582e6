<script setup lang="ts">
import { useRoute } from 'vue-router';

/** The title line of the setup's pages. */
defineProps<{ project: string }>();
const route = useRoute();
const tabs = [
  { path: '', word: 'Casebook' },
  { path: '/planning', word: 'Planning' },
];
</script>

<template>
  <div class="title-line">
    <h1>Setup</h1>
    <nav aria-label="Setup">
      <RouterLink
        v-for="t in tabs"
        :key="t.path"
        :to="`/${project}/setup${t.path}`"
        :aria-current="route.path === `/${project}/setup${t.path}` ? 'page' : undefined"
        >{{ t.word }}</RouterLink
      >
    </nav>
  </div>
</template>

<style scoped>
nav {
  display: flex;
  gap: 4px;
  margin-left: 12px;
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
</style>
