<script setup lang="ts">
import { computed } from 'vue';
import PageTabs from '@/kit/PageTabs.vue';
import FindSetting from '@/areas/setup/parts/FindSetting.vue';
import { mayLead } from '@/areas/people/session';

/** The title line of the setup's pages. */
const props = defineProps<{ project: string }>();
const tabs = computed(() => [
  { path: '', word: 'Casebook' },
  { path: '/planning', word: 'Planning' },
  { path: '/walking', word: 'Walking' },
  { path: '/defects', word: 'Defects' },
  { path: '/people', word: 'People' },
  ...(mayLead(props.project) ? [{ path: '/log', word: 'Log' }] : []),
]);
</script>

<template>
  <div class="title-line">
    <h1>Setup</h1>
    <PageTabs label="Setup" :base="`/${project}/setup`" :tabs="tabs" />
    <div class="actions"><FindSetting :project="project" /></div>
  </div>
</template>
