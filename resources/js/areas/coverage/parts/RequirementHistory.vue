<script setup lang="ts">
import type { Api } from '@/api/client';
import { ago, exact } from '@/kit/words';

/** What became of a requirement, the newest above. */
defineProps<{ history: Api['RequirementChange'][] }>();
const WORDS: Record<Api['RequirementChange']['kind'], string> = {
  made: 'Written',
  changed: 'Changed',
  moved: 'Moved',
  dropped: 'Dropped',
  restored: 'Taken up again',
  confirmed: 'Cases confirmed',
  linked: 'Linked',
  parted: 'Parted',
};
const FIELDS: Record<string, string> = {
  title: 'Title',
  text: 'Text',
  external_id: 'Identifier',
  details: 'Details',
  parent_id: 'Below',
  case: 'Case',
  cases: 'Cases',
};
</script>

<template>
  <section aria-label="History">
    <h2>History</h2>
    <ol>
      <li v-for="(h, i) in history" :key="i" class="small">
        <p>
          {{ WORDS[h.kind] }}{{ h.by ? ` by ${h.by.name}` : '' }}{{ h.imported ? ', from a file' : '' }},
          <span class="soft" :title="exact(h.at)">{{ ago(h.at) }}</span>
        </p>
        <template v-if="h.kind !== 'made'">
          <p v-for="c in h.changes" :key="c.field" class="soft long change">
            {{ FIELDS[c.field] ?? c.field }}:
            <template v-if="c.from"
              ><s>{{ c.from }}</s> </template
            >{{ c.to || (c.from ? '' : '–') }}
          </p>
        </template>
      </li>
    </ol>
  </section>
</template>

<style scoped>
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}
.change {
  white-space: pre-line;
}
</style>
