<script setup lang="ts">
import type { Api } from '@/api/client';
import { removeNote } from '@/areas/defects/queries';
import RemoveWords from '@/kit/RemoveWords.vue';
import { ago, exact, plainWords } from '@/kit/words';

/** What became of a defect: who moved, gave or changed it, and when. */
const props = defineProps<{
  project: string;
  defect: string;
  history: Api['DefectChangeLine'][];
  mayRemove: boolean;
}>();
const emit = defineEmits<{ changed: [Api['DefectDetail']] }>();
async function remove(id: string, reason: string): Promise<void> {
  emit('changed', await removeNote(props.defect, id, reason));
}
const WORDS: Record<string, string> = {
  title: 'title',
  body: 'report',
  expected: 'what was expected',
  actual: 'what happened',
  severity: 'severity',
  priority: 'to be mended',
  assignee_id: 'with',
};
const told = (f: Api['FieldChange']): string => {
  const word = WORDS[f.field] ?? f.field;
  if (f.was === null && f.is === null) return `${word} changed`;
  const shown = (v: string | null): string => (v === null ? 'nobody' : v);
  return f.field === 'assignee_id' || f.field === 'priority'
    ? `${word}: ${f.field === 'priority' ? (f.is ?? 'nobody said') : shown(f.is)}`
    : `${word}: ${shown(f.was)} → ${shown(f.is)}`;
};
const lineOf = (m: Api['DefectChangeLine']): string => {
  if (m.fields.length > 0) return m.fields.map(told).join(', ');
  if (m.from === null) return 'Filed';
  return m.from === m.to ? '' : `${plainWords(m.from)} → ${plainWords(m.to).toLowerCase()}`;
};
const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
</script>

<template>
  <section aria-label="History">
    <h2>History</h2>
    <ul>
      <li v-for="m in history" :key="m.id">
        <span class="long">{{ sentence(lineOf(m)) }}</span>
        <span class="soft small" :title="exact(m.at)">
          {{ m.outside ? 'in the tracker' : m.actor.name }}, {{ ago(m.at) }}</span
        >
        <p v-if="m.note" class="long">
          <RouterLink v-if="m.attempt_id" :to="`/${project}/entries/${m.entry_id}?attempt=${m.attempt_id}`">{{
            m.note
          }}</RouterLink>
          <template v-else>{{ m.note }}</template>
        </p>
        <RemoveWords v-if="m.note && mayRemove" :of="m.note" :remove="(reason) => remove(m.id, reason)" />
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  display: grid;
  gap: 8px;
  margin-top: 6px;
}
</style>
