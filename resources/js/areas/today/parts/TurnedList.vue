<script setup lang="ts">
import type { Api } from '@/api/client';
import VerdictMark from '@/kit/VerdictMark.vue';
import { ago, exact } from '@/kit/words';

/** What turned bad, or good again, since yesterday. */
defineProps<{ project: string; turned: Api['TurnedEntry'][] }>();
</script>

<template>
  <section aria-label="Turned since yesterday">
    <h2>Turned since yesterday</h2>
    <p v-if="turned.length === 0" class="soft">Nothing failed, was blocked or came right again.</p>
    <ul>
      <li v-for="t in turned" :key="t.entry_id">
        <span class="marks"
          ><VerdictMark :shown="t.from" :size="12" /> <span aria-hidden="true">→</span>
          <VerdictMark :shown="t.to" :size="12"
        /></span>
        <RouterLink class="plain long" :to="`/${project}/entries/${t.entry_id}`"
          ><span class="mono">{{ t.case_key }}</span> {{ t.title }}</RouterLink
        >
        <span class="soft small who" :title="exact(t.at)"
          ><template v-if="t.configuration">{{ t.configuration }} · </template
          ><template v-if="t.by">{{ t.by.name }}, </template>{{ ago(t.at) }}</span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  margin-top: 28px;
}
h2 {
  margin-bottom: 6px;
}
li {
  display: grid;
  grid-template-columns: 56px minmax(0, 1fr) auto;
  gap: 4px 12px;
  align-items: baseline;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
.marks {
  display: flex;
  gap: 6px;
  align-items: center;
}
@media (max-width: 760px) {
  li {
    grid-template-columns: 56px minmax(0, 1fr);
  }
  .who {
    grid-column: 2;
  }
}
</style>
