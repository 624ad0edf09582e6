<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';
import { readCase, readResults } from '@/areas/casebook/queries';
import VerdictMark from '@/kit/VerdictMark.vue';
import { ago, exact, wordOf, type Shown } from '@/kit/words';

/** How a case went last, beside the list. */
const props = defineProps<{ project: string; caseKey: string }>();
const emit = defineEmits<{ close: [] }>();
const { data } = useQuery({
  queryKey: computed(() => ['live', 'entry', 'results', props.caseKey]),
  queryFn: () => readResults(props.caseKey),
});
const { data: detail } = useQuery({
  queryKey: computed(() => ['live', 'case', 'case', props.caseKey]),
  queryFn: () => readCase(props.caseKey),
});
</script>

<template>
  <aside class="peek sheet" :aria-label="`A look at ${caseKey}`">
    <p class="row">
      <span class="mono soft">{{ caseKey }}</span>
      <span class="gap" />
      <RouterLink :to="`/${project}/casebook/${caseKey}`">Open</RouterLink>
      <button type="button" class="link soft" @click="emit('close')">Close</button>
    </p>
    <h2 class="long">{{ detail?.case.title }}</h2>
    <h3 class="label">Last results</h3>
    <ul>
      <li v-for="r in data ?? []" :key="r.attempt_id ?? r.entry_id">
        <VerdictMark :shown="r.display_state as Shown" :label="wordOf(r.display_state as Shown)" />
        <div>
          <RouterLink
            :to="r.attempt_id ? `/${project}/entries/${r.entry_id}` : `/${project}/cycles/${r.cycle_key}`"
            >{{ wordOf(r.display_state as Shown) }}</RouterLink
          >
          <span class="soft small" :title="r.at ? exact(r.at) : undefined">
            {{
              [r.at ? ago(r.at) : '', r.tester, r.build, r.configuration].filter(Boolean).join(' · ')
            }}</span
          >
          <span class="soft small second">{{ r.cycle_name }}</span>
          <span v-if="r.note" class="small second long">{{ r.note }}</span>
        </div>
      </li>
      <li v-if="data?.length === 0" class="soft">Never planned, never walked.</li>
    </ul>
    <h3 class="label">Steps</h3>
    <ol class="small">
      <li v-for="(s, i) in (detail?.steps ?? []).slice(0, 8)" :key="i" class="long">
        {{ i + 1 }}.
        {{
          s.routine
            ? `Routine: ${detail?.routines.find((r) => r.id === s.routine)?.name ?? ''}`
            : s.action.slice(0, 140)
        }}
      </li>
      <li v-if="(detail?.steps.length ?? 0) > 8" class="soft">
        and {{ (detail?.steps.length ?? 0) - 8 }} more
      </li>
    </ol>
  </aside>
</template>

<style scoped>
.peek {
  padding: 14px 16px;
  display: grid;
  gap: 10px;
  align-content: start;
  max-height: calc(100vh - 210px);
  overflow-y: auto;
}
.gap {
  flex: 1;
}
ul,
ol {
  display: grid;
  gap: 8px;
}
ul li {
  display: flex;
  gap: 8px;
}
.second {
  display: block;
}
h3 {
  margin: 6px 0 0;
  font-weight: 400;
}
</style>
