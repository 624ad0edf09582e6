<script setup lang="ts">
import InputText from 'primevue/inputtext';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, take, type Api } from '@/api/client';
import { useRead } from '@/kit/read';
import StateBox from '@/kit/StateBox.vue';
import { length, plainWords, plural } from '@/kit/words';

const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const folder = computed(() => String(route.query.folder ?? ''));
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
const { data: folders } = useRead(
  'case',
  () => ['folders', project.value],
  async () =>
    take(await api.GET('/projects/{project}/folders', { params: { path: { project: project.value } } })),
);
const more = ref<Api['CaseLine'][]>([]);
const nextPage = ref<string | null>(null);
const load = async (after?: string) =>
  take(
    await api.GET('/projects/{project}/cases', {
      params: {
        path: { project: project.value },
        query: { folder: folder.value, q: asked.value, ...(after ? { after } : {}) },
      },
    }),
  );
const { data, error, isPending, refetch } = useRead(
  'case',
  () => ['cases', project.value, folder.value, asked.value],
  async () => load(),
);
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
const tree = computed(() => {
  const depth = new Map<string, number>();
  return (folders.value ?? []).map((f) => {
    depth.set(f.id, f.parent_id ? (depth.get(f.parent_id) ?? 0) + 1 : 0);
    return { ...f, depth: depth.get(f.id) ?? 0 };
  });
});
const all = computed(() => (folders.value ?? []).reduce((n, f) => n + f.cases, 0));
const nameOf = computed(() => new Map((folders.value ?? []).map((f) => [f.id, f.name])));
</script>

<template>
  <div class="page">
    <div class="title-line">
      <h1>Casebook</h1>
      <span v-if="data" class="soft"
        >{{ plural(data.total, 'case')
        }}{{ folder ? ` in ${nameOf.get(folder) ?? 'this folder'}` : '' }}</span
      >
    </div>
    <div class="columns">
      <nav aria-label="Folders">
        <RouterLink
          :to="{ query: { ...route.query, folder: undefined } }"
          :aria-current="folder === '' ? 'true' : undefined"
          ><span>All cases</span><span class="soft">{{ all || '' }}</span></RouterLink
        >
        <RouterLink
          v-for="f in tree"
          :key="f.id"
          :to="{ query: { ...route.query, folder: f.id } }"
          :aria-current="folder === f.id ? 'true' : undefined"
          :style="{ paddingLeft: `${10 + f.depth * 16}px` }"
          ><span class="long">{{ f.name }}</span
          ><span class="soft">{{ f.cases }}</span></RouterLink
        >
      </nav>
      <div>
        <InputText
          v-model="words"
          placeholder="Words or a key"
          aria-label="Find cases by words or a key"
          class="find"
        />
        <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
        <StateBox
          v-else-if="lines.length === 0"
          :empty="
            asked
              ? 'No case has these words.'
              : 'The casebook holds all cases of the project. There is none here yet.'
          "
        />
        <div v-else class="scroll">
          <table class="lines">
            <thead>
              <tr>
                <th>Case</th>
                <th>State</th>
                <th>Priority</th>
                <th class="number">Estimate</th>
                <th>Owner</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="c in lines" :key="c.id">
                <td>
                  <span class="mono soft key">{{ c.key }}</span><RouterLink
                    class="plain long"
                    :to="`/${project}/casebook/${c.key}`"
                    >{{ c.title }}</RouterLink
                  ><span v-if="!folder || c.labels.length > 0" class="soft small second">{{
                    [folder ? '' : (nameOf.get(c.folder_id ?? '') ?? ''), c.labels.join(', ')]
                      .filter(Boolean)
                      .join(' · ')
                  }}</span>
                </td>
                <td>{{ plainWords(c.state) }}</td>
                <td>{{ plainWords(c.priority) }}</td>
                <td class="number">{{ c.estimate_seconds ? length(c.estimate_seconds * 1000) : '' }}</td>
                <td class="soft">{{ c.owner?.name }}</td>
              </tr>
            </tbody>
          </table>
          <button v-if="nextPage" type="button" class="more" @click="loadMore">Show more</button>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 230px minmax(0, 1fr);
  gap: 32px;
}
nav {
  display: grid;
  align-content: start;
  gap: 1px;
}
nav a {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 6px 10px;
  border-radius: 4px;
  color: var(--ink);
  text-decoration: none;
}
nav a:hover {
  background: var(--well);
}
nav a[aria-current] {
  background: var(--sheet);
  box-shadow: inset 3px 0 0 var(--ink);
  font-weight: 700;
}
.find {
  width: min(360px, 100%);
  margin-bottom: 8px;
}
.key {
  display: inline-block;
  min-width: 5.2rem;
}
.second {
  display: block;
  padding-left: calc(5.2rem + 4px);
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
@media (max-width: 760px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
