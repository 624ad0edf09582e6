<script setup lang="ts">
import { computed, ref } from 'vue';
import { plural } from '@/kit/words';

/** The defects of a list, or the chosen ones, as a file: each format is an address of its own. */
const props = defineProps<{ project: string; filter: Record<string, string>; count: number }>();
const open = ref(false);
const FORMATS = [
  { value: 'csv', label: 'Table (CSV)' },
  { value: 'json', label: 'JSON, with the talk' },
  { value: 'md', label: 'Markdown' },
  { value: 'txt', label: 'Plain text' },
  { value: 'html', label: 'A page to print' },
];
const links = computed(() =>
  FORMATS.map((f) => ({
    ...f,
    href: `/api/v1/projects/${props.project}/defect-export?${new URLSearchParams({ ...props.filter, format: f.value })}`,
  })),
);
</script>

<template>
  <span class="out" @keydown.esc.stop="open = false">
    <button type="button" class="link" :aria-expanded="open" @click="open = !open">Take out</button>
    <span v-if="open" class="menu sheet">
      <span class="label">{{ plural(count, 'defect') }} as</span>
      <a
        v-for="l in links"
        :key="l.value"
        :href="l.href"
        :target="l.value === 'html' ? '_blank' : undefined"
        @click="open = false"
        >{{ l.label }}</a
      >
    </span>
  </span>
</template>

<style scoped>
.out {
  position: relative;
}
.menu {
  position: absolute;
  right: 0;
  top: 28px;
  z-index: 12;
  width: 200px;
  padding: 12px 14px;
  display: grid;
  gap: 8px;
  box-shadow: var(--float);
}
</style>
