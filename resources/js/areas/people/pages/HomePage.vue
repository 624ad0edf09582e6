<script setup lang="ts">
import { onMounted } from 'vue';
import { useRouter } from 'vue-router';
import { session } from '@/areas/people/session';

const router = useRouter();
onMounted(() => {
  const projects = session.value?.projects ?? [];
  if (projects.length === 1) void router.replace(`/${projects[0]?.code}/today`);
});
</script>

<template>
  <main class="page">
    <h1>Your projects</h1>
    <ul>
      <li v-for="p in session?.projects" :key="p.id">
        <RouterLink :to="`/${p.code}/today`">{{ p.name }}</RouterLink> <span class="soft">{{ p.role }}</span>
      </li>
    </ul>
    <p v-if="session?.projects.length === 0">
      You have no part in any project yet. Ask an admin to take you in.
    </p>
  </main>
</template>

<style scoped>
ul {
  margin-top: 16px;
  display: grid;
  gap: 10px;
}
</style>
