<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import PageTabs from '@/kit/PageTabs.vue';

/** The title line of the casebook's pages: where one is, and where else one can go. */
const props = defineProps<{ waiting?: number | undefined }>();
const route = useRoute();
const tabs = computed(() => [
  { path: '', word: 'Cases' },
  { path: '/routines', word: 'Routines' },
  { path: '/tables', word: 'Data tables' },
  { path: '/desk', word: 'Desk', count: props.waiting },
  { path: '/bin', word: 'Bin' },
]);
</script>

<template>
  <div class="title-line">
    <h1>Casebook</h1>
    <PageTabs label="Casebook" :base="`/${String(route.params.project)}/casebook`" :tabs="tabs" />
    <div class="actions"><slot /></div>
  </div>
</template>
