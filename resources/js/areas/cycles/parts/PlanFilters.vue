<script setup lang="ts">
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Api } from '@/api/client';
import { plural, wordOf, type Shown } from '@/kit/words';

/** What of a plan is shown: it stands in the address. */
const props = defineProps<{ plan: Api['CyclePlan']; shown: number }>();
const route = useRoute();
const router = useRouter();
const STATES = [
  'not_run',
  'held',
  'in_progress',
  'pass',
  'fail',
  'blocked',
  'retest',
  'not_applicable',
] as Shown[];
const of = (name: string): string => String(route.query[name] ?? '');
const behind = computed(() => props.plan.entries.filter((e) => e.outdated).length);
const filtered = computed(() => ['q', 'shows', 'who'].some((name) => of(name) !== ''));
function set(name: string, event: Event): void {
  const value = (event.target as HTMLInputElement | HTMLSelectElement).value;
  void router.replace({ query: { ...route.query, [name]: value || undefined } });
}
</script>

<template>
  <div class="row filters">
    <input
      class="field words"
      :value="of('q')"
      placeholder="Words or a key"
      aria-label="Filter by words or a key"
      @input="set('q', $event)"
    />
    <select
      class="field"
      :value="of('shows')"
      aria-label="Filter by what it shows"
      @change="set('shows', $event)"
    >
      <option value="">Whatever it shows</option>
      <option v-for="s in STATES" :key="s" :value="s">{{ wordOf(s) }}</option>
      <option v-if="behind > 0" value="behind">Case changed ({{ behind }})</option>
    </select>
    <select class="field" :value="of('who')" aria-label="Filter by assignee" @change="set('who', $event)">
      <option value="">Everybody’s</option>
      <option value="nobody">Nobody’s</option>
      <option v-for="l in plan.loads" :key="l.id" :value="l.id">{{ l.name }}’s</option>
    </select>
    <span class="soft small" role="status">{{
      filtered
        ? `${shown} of ${plan.entries.length} entries`
        : plural(plan.entries.length, 'entry', 'entries')
    }}</span>
    <button v-if="filtered" type="button" class="link soft small" @click="router.replace({ query: {} })">
      Show all
    </button>
  </div>
</template>

<style scoped>
.filters {
  margin-bottom: 8px;
}
.filters .field {
  width: auto;
}
.filters .words {
  width: 200px;
}
</style>
