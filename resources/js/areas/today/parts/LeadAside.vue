<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import { readQueue } from '@/areas/walk/queries';
import { ago, exact, plural } from '@/kit/words';
import { useRead } from '@/offline/useRead';
import KeyCap from '@/kit/KeyCap.vue';

/** What waits for a lead, who walks now, and what fails in the background. */
const props = defineProps<{ project: string; overview: Api['OverviewPage'] }>();
const FEW = 5;
const { data } = useRead(
  'entry',
  () => ['queue', props.project],
  () => readQueue(props.project),
);
const items = computed(() => data.value?.items ?? []);
</script>

<template>
  <section v-if="overview.failing.length > 0" aria-label="Does not work">
    <h2>Does not work</h2>
    <ul>
      <li v-for="f in overview.failing" :key="f.text">
        <span class="long">{{ f.text }}</span>
        <RouterLink v-if="f.page" :to="`/${project}${f.page}`">Look</RouterLink>
      </li>
    </ul>
  </section>
  <section aria-label="Waits for you">
    <h2>
      Waits for you <span v-if="data" class="soft">{{ items.length }}</span>
    </h2>
    <p v-if="data && items.length === 0" class="soft">Nothing waits for a lead.</p>
    <ul>
      <li v-for="i in items.slice(0, FEW)" :key="i.id">
        <RouterLink class="plain long name" :to="i.link">{{ i.title }}</RouterLink>
        <span class="long clamp">{{ i.text }}</span>
        <span class="soft small"
          ><template v-if="i.by">{{ i.by.name }}</template
          ><span v-if="i.at" :title="exact(i.at)">{{ i.by ? ', ' : '' }}{{ ago(i.at) }}</span></span
        >
      </li>
    </ul>
    <p v-if="items.length > 0">
      <RouterLink :to="`/${project}/queue`">{{
        items.length > FEW ? `All ${items.length}` : 'Decide them'
      }}</RouterLink>
      <KeyCap of="w" />
    </p>
  </section>
  <section aria-label="Walking now">
    <h2>Walking now</h2>
    <p v-if="overview.walking.length === 0" class="soft">Nobody has an entry open.</p>
    <ul>
      <li v-for="w in overview.walking" :key="w.entry_id">
        <RouterLink class="plain long" :to="`/${project}/entries/${w.entry_id}`"
          >{{ w.person.name }} <span class="mono">{{ w.case_key }}</span></RouterLink
        >
        <span class="soft small" :title="exact(w.started_at)"
          >{{ w.judged }} of {{ plural(w.steps, 'step') }}, began {{ ago(w.started_at) }}</span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  font-size: 0.93rem;
}
ul {
  margin-top: 8px;
}
li {
  display: grid;
  gap: 2px;
  border-top: 1px solid var(--rule);
  padding: 8px 0;
}
.name {
  font-weight: 600;
}
.clamp {
  --lines: 3;
}
</style>
