<script setup lang="ts">
import { computed, onMounted } from 'vue';
import { useRouter } from 'vue-router';
import { lastProject, session } from '@/areas/people/session';

/** The projects one has a part in. Whoever has one, or was in one before, lands there. */
const router = useRouter();
const projects = computed(() => session.value?.projects ?? []);
const running = computed(() => projects.value.filter((p) => p.archived_at === null));
const archived = computed(() => projects.value.filter((p) => p.archived_at !== null));
onMounted(() => {
  // From within a project one comes here to choose another.
  const from = String(history.state?.back ?? '');
  if (from !== '' && router.resolve(from).params.project) return;
  const last =
    running.value.find((p) => p.code === lastProject()) ??
    (running.value.length === 1 ? running.value[0] : null);
  if (last) void router.replace(`/${last.code}/today`);
});
</script>

<template>
  <main class="page">
    <h1>Your projects</h1>
    <ul>
      <li v-for="p in running" :key="p.id">
        <RouterLink :to="`/${p.code}/today`">{{ p.name }}</RouterLink>
        <span class="soft">{{ p.code }}, {{ p.role }}</span>
      </li>
    </ul>
    <p v-if="projects.length === 0">
      You have no part in any project yet.
      <template v-if="session?.is_owner">
        <RouterLink to="/installation">Make the first one.</RouterLink>
      </template>
      <template v-else> Ask an admin to invite {{ session?.email }}.</template>
    </p>
    <template v-if="archived.length > 0">
      <h2>Archived</h2>
      <ul>
        <li v-for="p in archived" :key="p.id">
          <RouterLink :to="`/${p.code}/today`">{{ p.name }}</RouterLink>
          <span class="soft">{{ p.code }}: can be read, and not changed</span>
        </li>
      </ul>
    </template>
  </main>
</template>

<style scoped>
ul {
  margin: 16px 0 24px;
  display: grid;
  gap: 10px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
}
</style>
