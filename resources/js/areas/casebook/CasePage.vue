<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { api, take } from '@/api/client';
import MarkdownText from '@/kit/MarkdownText.vue';
import { useRead } from '@/kit/read';
import StateBox from '@/kit/StateBox.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { length, plainWords, wordOf, type Shown } from '@/kit/words';

const route = useRoute();
const project = computed(() => String(route.params.project));
const key = computed(() => String(route.params.case));
const { data, error, isPending, refetch } = useRead(
  'case',
  () => ['case', key.value],
  async () => take(await api.GET('/cases/{case}', { params: { path: { case: key.value } } })),
);
</script>

<template>
  <div class="page">
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <p class="soft small">
        <RouterLink
          :to="`/${project}/casebook${data.case.folder_id ? `?folder=${data.case.folder_id}` : ''}`"
          >{{ data.folder_path.join(' / ') || 'Casebook' }}</RouterLink
        >
      </p>
      <div class="title-line">
        <span class="mono soft">{{ data.case.key }}</span>
        <h1 class="long">{{ data.case.title }}</h1>
        <span class="soft"
          >{{ plainWords(data.case.state) }} · {{ data.case.priority }} · version {{ data.version }}</span
        >
      </div>
      <div class="columns">
        <div>
          <section v-if="data.objective">
            <span class="label">Objective</span><MarkdownText :text="data.objective" />
          </section>
          <section v-if="data.preconditions">
            <span class="label">Preconditions</span><MarkdownText :text="data.preconditions" />
          </section>
          <div class="scroll">
            <table class="lines steps">
              <thead>
                <tr>
                  <th><span class="unseen">Step</span></th>
                  <th>Action</th>
                  <th>Data</th>
                  <th>Expected</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="s in data.steps" :key="s.position">
                  <td class="mono soft">{{ s.position }}</td>
                  <td><MarkdownText :text="s.action" /></td>
                  <td class="mono small data long">{{ s.data }}</td>
                  <td><MarkdownText :text="s.expected" /></td>
                </tr>
              </tbody>
            </table>
          </div>
          <p v-if="data.steps.length === 0" class="soft">This case has no steps.</p>
          <section v-if="data.postconditions">
            <span class="label">Postconditions</span><MarkdownText :text="data.postconditions" />
          </section>
        </div>
        <aside aria-label="About this case">
          <dl>
            <dt>Type</dt>
            <dd>{{ data.case.type }}</dd>
            <dt>Estimate</dt>
            <dd>{{ data.case.estimate_seconds ? length(data.case.estimate_seconds * 1000) : '–' }}</dd>
            <dt>Owner</dt>
            <dd>{{ data.case.owner?.name ?? '–' }}</dd>
            <dt>Labels</dt>
            <dd>{{ data.case.labels.join(', ') || '–' }}</dd>
          </dl>
          <h2>Walked in</h2>
          <ul>
            <li v-for="w in data.walks" :key="w.entry_id">
              <VerdictMark :shown="w.shows as Shown" :label="wordOf(w.shows as Shown)" />
              <RouterLink :to="`/${project}/entries/${w.entry_id}`">{{ w.cycle_name }}</RouterLink>
              <span class="soft small">{{ w.configuration }}</span>
            </li>
            <li v-if="data.walks.length === 0" class="soft">No cycle yet.</li>
          </ul>
          <h2>Defects</h2>
          <ul>
            <li v-for="d in data.defects" :key="d.id">
              <RouterLink class="mono" :to="`/${project}/defects/${d.key}`">{{ d.key }}</RouterLink>
              <span class="long">{{ d.title }}</span>
              <span class="soft small">{{ plainWords(d.state) }}</span>
            </li>
            <li v-if="data.defects.length === 0" class="soft">None.</li>
          </ul>
        </aside>
      </div>
    </template>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 40px;
}
section {
  margin-bottom: 16px;
  max-width: 80ch;
}
.steps td:nth-child(3) {
  width: 24%;
}
.data {
  white-space: pre-line;
}
.scroll {
  overflow-x: auto;
}
aside {
  display: grid;
  gap: 10px;
  align-content: start;
}
aside h2 {
  margin-top: 12px;
}
aside ul {
  display: grid;
  gap: 6px;
}
dl {
  display: grid;
  grid-template-columns: 6rem 1fr;
  row-gap: 4px;
}
dt {
  color: var(--ink-soft);
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
