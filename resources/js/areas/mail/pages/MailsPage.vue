<script setup lang="ts">
import { useRead } from '@/offline/useRead';
import StateBox from '@/kit/StateBox.vue';
import { ago, exact } from '@/kit/words';
import { readMails } from '@/areas/mail/queries';

/** Mails that would have been sent: on this machine they are caught and shown here. */
const { data, error, isPending, refetch } = useRead('cycle', () => ['mails'], readMails);
</script>

<template>
  <main class="page">
    <div class="title-line"><h1>Caught mails</h1></div>
    <p class="soft about">No mail leaves this machine: what would be sent stands here, the newest first.</p>
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <StateBox
      v-else-if="data.length === 0"
      empty="No mail yet. Invitations go by mail, and closing a cycle sends one to each of its watchers."
    />
    <article v-for="m in data ?? []" :key="m.id">
      <h2 class="long">{{ m.subject }}</h2>
      <p class="soft small">
        To {{ m.to }}, <span :title="exact(m.at)">{{ ago(m.at) }}</span>
      </p>
      <pre class="long">{{ m.text }}</pre>
    </article>
  </main>
</template>

<style scoped>
.about {
  margin-bottom: 12px;
}
article {
  border-top: 1px solid var(--rule);
  padding: 12px 0;
  max-width: 80ch;
}
pre {
  font: inherit;
  white-space: pre-wrap;
  margin: 6px 0 0;
}
</style>
