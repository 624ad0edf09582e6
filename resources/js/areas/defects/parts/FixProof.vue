<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import VerdictMark from '@/kit/VerdictMark.vue';

/** How far a fix is proven: each entry that is to be walked with it, and what came of it. */
const props = defineProps<{ project: string; progress: Api['FixProgress']; fixed: boolean }>();
const entries = computed(() => {
  const asked = props.progress.entries.filter((e) => e.asked);
  return asked.length > 0 ? asked : props.progress.entries.filter((e) => e.result !== 'open');
});
const MARKS = { passed: 'pass', failed: 'fail', unproven: 'not_applicable', open: 'retest' } as const;
const WORDS = {
  passed: 'passed',
  failed: 'failed',
  unproven: 'walked, but it proves nothing: its step is gone, was not walked or does not apply',
  open: 'not walked with the fix yet',
};
</script>

<template>
  <section v-if="entries.length > 0" aria-label="Walked with the fix">
    <div class="row head">
      <h2>Walked with the fix</h2>
      <span class="soft">passed on {{ progress.passed }} of {{ progress.of }}</span>
    </div>
    <ul class="ruled">
      <li v-for="e in entries" :key="e.entry_id">
        <VerdictMark :shown="MARKS[e.result]" />
        <span class="long">
          <RouterLink
            :to="`/${project}/entries/${e.entry_id}${e.attempt_id ? `?attempt=${e.attempt_id}` : ''}`"
            class="mono"
            >{{ e.case_key }}</RouterLink
          >
          {{ e.title }} <span class="soft small">{{ e.cycle_key }} · {{ WORDS[e.result] }}</span>
        </span>
      </li>
    </ul>
    <p v-if="fixed && (progress.proven || progress.proposed)" class="soft">
      {{ progress.proven ? 'All of them passed' : 'All of them were walked, and none failed' }}: is it gone?
    </p>
  </section>
</template>

<style scoped>
.head {
  align-items: baseline;
}
</style>
