<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { renderDocument } from '@/kit/documents';
import StateBox from '@/kit/StateBox.vue';

/** The documentation, as it came with this installation. */
const FILES = import.meta.glob<string>('../../../docs/*.md', { query: '?raw', import: 'default' });
const TITLES: Record<string, string> = {
  people: 'People and projects',
  casebook: 'The casebook',
  planning: 'Planning',
  walk: 'The walk and its outbox',
  handset: 'The handset',
  record: 'The record',
  access: 'Who may what',
  operations: 'Operations',
  security: 'Security',
  api: 'The API',
  problems: 'Problem types',
  packages: 'Packages',
  benches: 'Benches',
};
const nameOf = (path: string): string => path.replace(/^.*\/|\.md$/g, '');
const there = Object.keys(FILES).map(nameOf);
const pages = Object.keys(TITLES).filter((p) => there.includes(p));
const route = useRoute();
const router = useRouter();
const page = computed(() => String(route.params.page || 'people'));
const html = ref<string | null>(null);
const missing = ref(false);
watch(
  page,
  async (now) => {
    const path = Object.keys(FILES).find((p) => nameOf(p) === now);
    missing.value = path === undefined;
    const text = path ? await FILES[path]?.() : '';
    if (now === page.value) html.value = renderDocument(text ?? '', there);
  },
  { immediate: true },
);
/** Links between documents stay within the page. */
function follow(event: MouseEvent): void {
  const to = (event.target as HTMLElement).closest('a')?.getAttribute('href');
  if (!to?.startsWith('/docs/')) return;
  event.preventDefault();
  void router.push(to);
}
</script>

<template>
  <main class="page docs">
    <nav aria-label="Documents">
      <RouterLink
        v-for="p in pages"
        :key="p"
        :to="`/docs/${p}`"
        :aria-current="p === page ? 'page' : undefined"
        >{{ TITLES[p] }}</RouterLink
      >
      <RouterLink to="/words">Words used here</RouterLink>
    </nav>
    <StateBox v-if="missing" empty="There is no such document.">
      <RouterLink to="/docs">To the documentation</RouterLink>
    </StateBox>
    <!-- eslint-disable vue/no-v-html, vuejs-accessibility/click-events-have-key-events -->
    <!-- eslint-disable vuejs-accessibility/no-static-element-interactions -->
    <article v-else-if="html" class="document long" @click="follow" v-html="html" />
    <StateBox v-else loading />
  </main>
</template>

<style>
.docs {
  display: grid;
  grid-template-columns: 13rem minmax(0, 56rem);
  gap: 48px;
  align-items: start;
}
.docs nav {
  display: grid;
  gap: 6px;
}
.docs nav [aria-current] {
  font-weight: 700;
  text-decoration: none;
  color: var(--ink);
}
.document > * + * {
  margin-top: 12px;
}
.document h2 {
  margin-top: 28px;
}
.document ul,
.document ol {
  padding-left: 20px;
  list-style: disc;
}
.document pre {
  overflow-x: auto;
  background: var(--well);
  padding: 10px 12px;
}
.document code {
  font-family: var(--mono);
  font-size: 0.9em;
}
.document table {
  display: block;
  overflow-x: auto;
  border-collapse: collapse;
}
.document th,
.document td {
  text-align: left;
  vertical-align: top;
  padding: 6px 14px 6px 0;
  border-bottom: 1px solid var(--rule);
}
@media (max-width: 800px) {
  .docs {
    grid-template-columns: minmax(0, 1fr);
    gap: 20px;
  }
  .docs nav {
    grid-template-columns: repeat(auto-fill, minmax(10rem, 1fr));
  }
}
</style>
