<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import { exact, when } from '@/kit/words';

/** Where the failing step passed: only what was otherwise there, and its picture beside the one of the fail. */
const props = defineProps<{ project: string; way: Api['Reproduction'] }>();
const beside = computed(() => props.way.beside);
const first = (items: Api['EvidenceItem'][]): Api['EvidenceItem'] | undefined =>
  items.find((e) => !e.gone && /^image\//.test(e.media_type ?? ''));
const pictures = computed(() => ({
  passed: first(beside.value?.evidence ?? []),
  failed: first(props.way.evidence),
}));
const others = computed(() => {
  const b = beside.value;
  if (!b) return '';
  const said = [b.same_configuration ? '' : 'on another configuration', b.same_data ? '' : 'with other data'];
  return said.filter(Boolean).join(', ');
});
</script>

<template>
  <section v-if="beside" aria-label="Where it passed">
    <div class="row head">
      <h2>It passed {{ beside.is_before ? 'before' : 'since' }}</h2>
      <span class="soft small"
        ><RouterLink :to="`/${project}/entries/${beside.entry_id}?attempt=${beside.attempt_id}`"
          >attempt {{ beside.attempt_number }}</RouterLink
        ><template v-if="beside.build"> on {{ beside.build.name }}</template
        >, <span :title="exact(beside.finished_at)">{{ when(beside.finished_at) }}</span>,
        {{ beside.tester.name }}<template v-if="others">, {{ others }}</template></span
      >
    </div>
    <table v-if="beside.differences.length > 0" class="lines">
      <thead>
        <tr>
          <th><span class="unseen">What</span></th>
          <th>It passed</th>
          <th>It failed</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="d in beside.differences" :key="d.what">
          <td class="soft">{{ d.what }}</td>
          <td class="long text">{{ d.passed }}</td>
          <td class="long text">{{ d.failed }}</td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">Nothing that is recorded was otherwise there.</p>
    <div v-if="pictures.passed && pictures.failed" class="pictures">
      <figure v-for="side in ['passed', 'failed'] as const" :key="side">
        <a :href="pictures[side]!.url" target="_blank"
          ><img :src="pictures[side]!.thumbnail_url ?? pictures[side]!.url" :alt="pictures[side]!.name"
        /></a>
        <figcaption class="soft small">{{ side === 'passed' ? 'It passed' : 'It failed' }}</figcaption>
      </figure>
    </div>
  </section>
</template>

<style scoped>
.head {
  align-items: baseline;
  margin-bottom: 4px;
}
td:first-child {
  width: 9rem;
}
.text {
  white-space: pre-line;
}
.pictures {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 16px;
  margin-top: 12px;
}
img {
  display: block;
  max-width: 100%;
  border: 1px solid var(--rule);
  border-radius: 4px;
}
</style>
