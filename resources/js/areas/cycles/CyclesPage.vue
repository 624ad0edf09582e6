<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { api, take } from '@/api/client';
import CountBar from '@/kit/CountBar.vue';
import { useRead } from '@/kit/read';
import StateBox from '@/kit/StateBox.vue';
import { day, due, plainWords } from '@/kit/words';

const route = useRoute();
const project = computed(() => String(route.params.project));
const { data, error, isPending, refetch } = useRead(
  'entry',
  () => ['cycles', project.value],
  async () =>
    take(await api.GET('/projects/{project}/cycles', { params: { path: { project: project.value } } })),
);
</script>

<template>
  <div class="page">
    <div class="title-line">
      <h1>Cycles</h1>
      <span v-if="data" class="soft">{{ data.length }}</span>
    </div>
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <StateBox
      v-else-if="data.length === 0"
      empty="A cycle is a dated set of entries to be walked for a build. There is none in this project yet."
    />
    <ul v-else>
      <li v-for="c in data" :key="c.id">
        <div class="names">
          <RouterLink class="plain name long" :to="`/${project}/cycles/${c.key}`">{{ c.name }}</RouterLink>
          <span class="soft small"
            ><span class="mono">{{ c.key }}</span> · {{ plainWords(c.state) }} · build
            {{ c.build?.name ?? '–' }} · {{ day(c.starts_on) }} to {{ day(c.ends_on)
            }}<template v-if="c.state === 'released'">, {{ due(c.ends_on) }}</template></span
          >
        </div>
        <CountBar :counts="c.counts" :total="c.total" />
      </li>
    </ul>
  </div>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr);
  gap: 32px;
  padding: 14px 0;
  border-top: 1px solid var(--rule);
  align-items: center;
}
.names {
  display: grid;
  gap: 2px;
}
.name {
  font-weight: 700;
}
@media (max-width: 760px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
}
</style>
