<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';

/** The title line of the casebook's pages: where one is, and where else one can go. */
defineProps<{ waiting?: number | undefined }>();
const route = useRoute();
const base = computed(() => `/${String(route.params.project)}/casebook`);
const tabs = [
  { path: '', word: 'Cases' },
  { path: '/routines', word: 'Routines' },
  { path: '/tables', word: 'Data tables' },
  { path: '/desk', word: 'Desk' },
  { path: '/bin', word: 'Bin' },
];
</script>

<template>
  <div class="title-line">
    <h1>Casebook</h1>
    <nav aria-label="Casebook">
      <RouterLink
        v-for="t in tabs"
        :key="t.path"
        :to="base + t.path"
        :aria-current="route.path === base + t.path ? 'page' : undefined"
        >{{ t.word }}<span v-if="t.path === '/desk' && waiting" class="count">{{ waiting }}</span></RouterLink
      >
    </nav>
    <div class="actions"><slot /></div>
  </div>
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
