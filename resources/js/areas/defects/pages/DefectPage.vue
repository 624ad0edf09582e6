<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query';
import Button from 'primevue/button';
import Textarea from 'primevue/textarea';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import { moveDefect, readDefect } from '@/areas/defects/queries';
import MarkdownText from '@/kit/MarkdownText.vue';
import { useRead } from '@/offline/useRead';
import { mayWorkOnDefects } from '@/areas/people/session';
import SelectField from '@/kit/SelectField.vue';
import DocumentPage from '@/kit/DocumentPage.vue';
import { ago, exact, plainWords, when } from '@/kit/words';
import EvidenceCard from '@/areas/evidence/parts/EvidenceCard.vue';

const route = useRoute();
const queries = useQueryClient();
const project = computed(() => String(route.params.project));
const key = computed(() => String(route.params.defect));
const { data, error, isPending, refetch } = useRead(
  'defect',
  () => ['defect', key.value],
  () => readDefect(key.value),
);
const to = ref<Api['DefectStateRequest']['state'] | ''>('');
const note = ref('');
const build = ref('');
const refusal = ref('');
const copied = ref('');
const moves = computed(() => (data.value?.moves ?? []).map((m) => ({ value: m, label: plainWords(m) })));

async function move(): Promise<void> {
  refusal.value = '';
  if (to.value === '') {
    refusal.value = 'Choose the state it goes to.';
    return;
  }
  try {
    const now = await moveDefect(key.value, {
      state: to.value,
      note: note.value,
      build_id: build.value || null,
    });
    queries.setQueryData(['live', 'defect', 'defect', key.value], now);
    to.value = '';
    note.value = '';
    build.value = '';
  } catch (e) {
    refusal.value = errorMessage(e);
    await refetch();
  }
}
async function copy(as: 'markdown' | 'plain'): Promise<void> {
  if (!data.value) return;
  await navigator.clipboard.writeText(data.value[as]);
  copied.value = as === 'markdown' ? 'Copied as Markdown' : 'Copied as plain text';
  setTimeout(() => (copied.value = ''), 2000);
}
/** The report's headings, shown as words in bold: the page has its own. */
const body = computed(() => (data.value?.body ?? '').replaceAll(/^#+ (.*)$/gm, '**$1**'));
</script>

<template>
  <DocumentPage
    :name="data?.defect.title"
    :crumb="{ to: `/${project}/defects`, word: 'Defects' }"
    what="defect"
    :code="data?.defect.key"
    :may-write="false"
    :loading="isPending"
    :error="error"
    beside="About this defect"
    @again="refetch()"
  >
    <template #actions>
      <span class="soft" role="status">{{ copied }}</span>
      <Button outlined severity="secondary" label="Copy as Markdown" @click="copy('markdown')" />
      <Button outlined severity="secondary" label="Copy as text" @click="copy('plain')" />
    </template>
    <article class="sheet"><MarkdownText :text="body || 'No report was written.'" /></article>
    <template #beside>
      <template v-if="data">
        <dl>
          <dt>State</dt>
          <dd>
            <strong>{{ plainWords(data.defect.state) }}</strong>
          </dd>
          <dt>Severity</dt>
          <dd>{{ plainWords(data.defect.severity) }}</dd>
          <dt>Reported</dt>
          <dd :title="exact(data.defect.created_at)">
            {{ data.defect.reporter.name }}, {{ ago(data.defect.created_at) }}
          </dd>
          <dt>With</dt>
          <dd>{{ data.defect.assignee?.name ?? 'nobody' }}</dd>
          <dt>Build</dt>
          <dd>{{ data.defect.build?.name ?? '–' }}</dd>
          <template v-if="data.fixed_build"
            ><dt>Fixed in</dt>
            <dd>{{ data.fixed_build.name }}</dd></template
          >
        </dl>
        <form v-if="mayWorkOnDefects(project) && moves.length > 0" @submit.prevent="move">
          <SelectField v-model="to" hide-label label="Move it to" none="Move it to …" :options="moves" />
          <SelectField
            v-if="to === 'fixed'"
            v-model="build"
            hide-label
            label="Build with the fix"
            none="Build with the fix"
            :options="data.builds.map((b) => ({ value: b.id, label: b.name }))"
          />
          <Textarea
            v-if="to"
            v-model="note"
            rows="2"
            fluid
            placeholder="A word on it"
            aria-label="A word on it"
            maxlength="10000"
          />
          <p v-if="refusal" class="p-invalid-words" role="alert">{{ refusal }}</p>
          <Button v-if="to" type="submit" :label="`Move to ${plainWords(to).toLowerCase()}`" />
        </form>
        <h2>Met in</h2>
        <ul>
          <li v-for="o in data.origins" :key="`${o.attempt_id}${o.step}`">
            <RouterLink :to="`/${project}/entries/${o.entry_id}?attempt=${o.attempt_id}`"
              ><span class="mono">{{ o.case_key }}</span
              >{{ o.step ? ` step ${o.step}` : '' }}</RouterLink
            >, attempt {{ o.attempt_number }}
            <span class="soft small long">{{ o.cycle_name }}, {{ when(o.created_at) }}</span>
          </li>
          <li v-if="data.origins.length === 0" class="soft">Not linked to a walk.</li>
        </ul>
        <h2 v-if="data.evidence.length > 0">Evidence</h2>
        <EvidenceCard v-for="e in data.evidence" :key="e.id" :item="e" locked />
        <h2>History</h2>
        <ul>
          <li v-for="(m, i) in data.history" :key="i">
            {{ m.from ? `${plainWords(m.from)} → ${plainWords(m.to)}` : 'Filed' }}
            <span class="soft small" :title="exact(m.at)">{{ m.actor.name }}, {{ ago(m.at) }}</span>
            <p v-if="m.note" class="long">{{ m.note }}</p>
          </li>
        </ul>
      </template>
    </template>
  </DocumentPage>
</template>

<style scoped>
article {
  padding: 20px 24px;
  align-self: start;
}
form {
  display: grid;
  gap: 10px;
  align-content: start;
  min-width: 0;
}
h2 {
  margin-top: 10px;
}
ul {
  display: grid;
  gap: 8px;
}
dl {
  display: grid;
  grid-template-columns: 6rem 1fr;
  row-gap: 4px;
}
dt {
  color: var(--ink-soft);
}
</style>
