<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import { clock } from '@/kit/words';

/** The session in which a defect was seen, how often it showed since, and the way to walk it again. */
const props = defineProps<{ project: string; seen: Api['SeenInSession'] }>();
const at = computed(() => `/${props.project}/sessions/${props.seen.charter_key}/lines/${props.seen.line_id}`);
</script>

<template>
  <p class="small soft">
    Seen in
    <RouterLink :to="`/${project}/sessions/${seen.charter_key}?run=${seen.number}`"
      ><span class="mono">{{ seen.charter_key }}</span> {{ seen.title }}</RouterLink
    >
    at <span class="mono">{{ clock(seen.at_ms) }}</span><template v-if="seen.tries > 0"
      >, and again <strong>{{ seen.shown }} of {{ seen.tries }}</strong> times</template
    ><template v-if="seen.case_key"
      >; case
      <RouterLink class="mono" :to="`/${project}/casebook/${seen.case_key}`">{{
        seen.case_key
      }}</RouterLink></template
    >. <RouterLink :to="at">Walk it again</RouterLink>
  </p>
</template>
