<script setup lang="ts">
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, unwrap, type Api } from '@/api/client';
import { useRead } from '@/offline/useRead';
import StateBox from '@/kit/StateBox.vue';
import { ago, exact, plainWords } from '@/kit/words';

const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const state = computed(() => String(route.query.state ?? ''));
const words = ref(String(route.query.q ?? ''));
const asked = ref(words.value);
let timer: ReturnType<typeof setTimeout> | undefined;
watch(words, (now) => {
  clearTimeout(timer);
  timer = setTimeout(() => {
    asked.value = now.trim();
    void router.replace({ query: { ...route.query, q: now.trim() || undefined } });
  }, 200);
});
const states = [
  ...[
    'open',
    'closed',
    'new',
    'needs_information',
    'accepted',
    'in_work',
    'fixed',
    'verified',
    'reopened',
    'rejected',
    'duplicate',
  ].map((s) => ({ value: s, label: plainWords(s) })),
];
const load = async (after?: string) =>
  unwrap(
    await api.GET('/projects/{project}/defects', {
      params: {
        path: { project: project.value },
        query: { q: asked.value, state: state.value, ...(after ? { after } : {}) },
      },
    }),
  );
const { data, error, isPending, refetch } = useRead(
  'defect',
  () => ['defects', project.value, asked.value, state.value],
  async () => load(),
);
const more = ref<Api['DefectLine'][]>([]);
const nextPage = ref<string | null>(null);
watch(
  data,
  (now) => {
    more.value = [];
    nextPage.value = now?.next ?? null;
  },
  { immediate: true },
);
async function loadMore(): Promise<void> {
  const page = await load(nextPage.value ?? undefined);
  more.value = [...more.value, ...page.items];
  nextPage.value = page.next;
}
const lines = computed(() => [...(data.value?.items ?? []), ...more.value]);
</script>

<template>
  <div class="page">
    <div class="title-line"><h1>Defects</h1></div>
    <div class="row filters">
      <InputText v-model="words" placeholder="Words or a key" aria-label="Find defects by words or a key" />
      <Select
        :model-value="state"
        :options="states"
        option-label="label"
        option-value="value"
        placeholder="Every state"
        show-clear
        aria-label="Filter by state"
        @update:model-value="router.replace({ query: { ...route.query, state: $event || undefined } })"
      />
    </div>
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <StateBox
      v-else-if="lines.length === 0"
      :empty="
        asked || state
          ? 'No defect fits.'
          : 'Defects are filed from a failed step on the walk. There is none yet.'
      "
    />
    <div v-else class="scroll">
      <table class="lines">
        <thead>
          <tr>
            <th>Defect</th>
            <th>State</th>
            <th>Severity</th>
            <th>Case</th>
            <th>Build</th>
            <th>Reported</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="d in lines" :key="d.id">
            <td>
              <span class="mono soft key">{{ d.key }}</span><RouterLink
                class="plain long"
                :to="`/${project}/defects/${d.key}`"
                >{{ d.title }}</RouterLink
              >
            </td>
            <td class="nowrap">{{ plainWords(d.state) }}</td>
            <td>{{ plainWords(d.severity) }}</td>
            <td>
              <RouterLink v-if="d.case_key" class="mono" :to="`/${project}/casebook/${d.case_key}`">{{
                d.case_key
              }}</RouterLink>
            </td>
            <td class="nowrap">{{ d.build?.name }}</td>
            <td class="soft nowrap" :title="exact(d.created_at)">
              {{ d.reporter.name }}, {{ ago(d.created_at) }}
            </td>
          </tr>
        </tbody>
      </table>
      <button v-if="nextPage" type="button" class="more" @click="loadMore">Show more</button>
    </div>
  </div>
</template>

<style scoped>
.filters {
  margin-bottom: 8px;
}
.key {
  display: inline-block;
  min-width: 5.2rem;
}
.nowrap {
  white-space: nowrap;
}
.scroll {
  overflow-x: auto;
}
.more {
  font: inherit;
  color: var(--dusk);
  background: none;
  border: 0;
  padding: 12px 0;
  text-decoration: underline;
  cursor: pointer;
}
</style>
