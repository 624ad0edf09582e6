<script setup lang="ts">
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import GoTo from '@/areas/search/parts/GoTo.vue';
import { session } from '@/areas/people/session';
import { placesOf } from './pages';

/** Go to, with the places and acts that a project's masthead has. */
const props = defineProps<{ project: string }>();
const emit = defineEmits<{ close: []; help: []; leave: []; change: [project: string] }>();
const router = useRouter();
const others = computed(() => session.value?.projects.filter((p) => p.code !== props.project) ?? []);
/** What Go to leads to beside what the project holds. */
const places = computed(() => [
  ...placesOf(props.project),
  ...others.value.map((p) => ({
    word: p.name,
    about: 'Another project',
    run: () => emit('change', p.code),
  })),
  {
    word: 'Your account',
    about: 'Name, password, where you are signed in',
    run: () => void router.push('/account'),
  },
  ...(session.value?.is_owner
    ? [
        {
          word: 'Installation',
          about: 'All projects and people',
          run: () => void router.push('/installation'),
        },
      ]
    : []),
  {
    word: 'Words used here',
    about: 'Entry, round, held and the like',
    run: () => void router.push('/words'),
  },
  { word: 'Documentation', about: 'How it all works', run: () => void router.push('/docs') },
  { word: 'All keys', about: 'What single keys do here', run: () => emit('help') },
  { word: 'Sign out', about: 'And leave nothing of yours on this device', run: () => emit('leave') },
]);
</script>

<template>
  <GoTo :project="project" :places="places" @close="emit('close')" />
</template>
