<script setup lang="ts">
import PageTabs from '@/kit/PageTabs.vue';

/** The title line of the setup's pages. */
defineProps<{ project: string }>();
const tabs = [
  { path: '', word: 'Casebook' },
  { path: '/planning', word: 'Planning' },
  { path: '/walking', word: 'Walking' },
];
</script>

<template>
  <div class="title-line">
    <h1>Setup</h1>
    <PageTabs label="Setup" :base="`/${project}/setup`" :tabs="tabs" />
  </div>
</template>
