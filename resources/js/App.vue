<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue';
import { useRoute } from 'vue-router';
import BareFrame from '@/frame/BareFrame.vue';
import ProjectFrame from '@/frame/ProjectFrame.vue';
import { session } from '@/areas/people/session';
import { wouldLose } from '@/areas/people/useLeaving';

const LeaveQuestion = defineAsyncComponent(() => import('@/areas/people/parts/LeaveQuestion.vue'));
const route = useRoute();
const project = computed(() =>
  typeof route.params.project === 'string' && session.value ? route.params.project : null,
);
</script>

<template>
  <ProjectFrame v-if="project" :key="project" :project="project" />
  <BareFrame v-else-if="route.meta.bare"><RouterView /></BareFrame>
  <RouterView v-else />
  <LeaveQuestion v-if="wouldLose" />
</template>
