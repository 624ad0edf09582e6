<script setup lang="ts">
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Api } from '@/api/client';
import { compareBuilds, compareCycles } from '@/areas/cycles/queries';
import { useRead } from '@/offline/useRead';
import StateBox from '@/kit/StateBox.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import type { Shown } from '@/kit/words';

/** Two cycles or builds beside each other: what moved since. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
/** A cycle, or none where two builds are compared. */
const key = computed(() => (route.params.cycle ? String(route.params.cycle) : null));
const other = computed(() => String(route.query.with ?? ''));
const build = computed(() => String(route.query.build ?? ''));
const only = computed(() => String(route.query.is ?? ''));
const { data, error, isPending, refetch } = useRead(
  'entry',
  () => ['compare', project.value, key.value, build.value, other.value],
  () =>
    key.value
      ? compareCycles(key.value, { with: other.value })
      : compareBuilds(project.value, { one: build.value, other: other.value }),
);
const WORDS: Record<Api['ComparedEntry']['is'], string> = {
  newly_failing: 'Newly failing',
  still_failing: 'Still failing',
  no_longer_failing: 'No longer failing',
  changed: 'Changed otherwise',
  new: 'New',
  gone: 'No longer walked',
  same: 'The same',
};
const counts = computed(() => (data.value?.counts ?? {}) as Record<string, number>);
const lines = computed(() =>
  [...(data.value?.entries ?? [])]
    .filter((e) => only.value === '' || e.is === only.value)
    .sort((a, b) => Object.keys(WORDS).indexOf(a.is) - Object.keys(WORDS).indexOf(b.is)),
);
const choose = (is: string): void =>
  void router.replace({ query: { ...route.query, is: only.value === is ? undefined : is } });
</script>

<template>
  <div class="page">
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <p class="soft small crumb">
        <RouterLink :to="key ? `/${project}/cycles/${key}` : `/${project}/cycles`">{{
          key ? [data.before, data.after].find((s) => s.id === key)?.name : 'Cycles'
        }}</RouterLink>
      </p>
      <div class="title-line">
        <h1>Compared</h1>
        <span class="soft long">{{ data.before.name }} to {{ data.after.name }}</span>
      </div>
      <p class="row" role="group" aria-label="What changed">
        <button
          v-for="(word, is) in WORDS"
          :key="is"
          type="button"
          class="link"
          :class="{ soft: only !== '' && only !== is }"
          :aria-pressed="only === is"
          :disabled="!counts[is]"
          @click="choose(String(is))"
        >
          {{ counts[is] ?? 0 }} {{ word.toLowerCase() }}
        </button>
      </p>
      <div class="scroll">
        <table class="lines">
          <thead>
            <tr>
              <th>Entry</th>
              <th>{{ data.before.short }}</th>
              <th>{{ data.after.short }}</th>
              <th>What changed</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="e in lines" :key="`${e.before_id} ${e.after_id}`">
              <td>
                <span class="mono soft">{{ e.key }}</span>
                <RouterLink class="plain long" :to="`/${project}/entries/${e.after_id ?? e.before_id}`">{{
                  e.title
                }}</RouterLink>
                <span class="soft small"> {{ e.configuration }}</span>
              </td>
              <td class="nowrap"><VerdictMark v-if="e.before" :shown="e.before as Shown" word /></td>
              <td class="nowrap"><VerdictMark v-if="e.after" :shown="e.after as Shown" word /></td>
              <td>{{ WORDS[e.is] }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </div>
</template>

<style scoped>
.row {
  gap: 18px;
  margin-bottom: 12px;
}
.link:disabled {
  color: var(--ink-soft);
  text-decoration: none;
  cursor: default;
}
.nowrap {
  white-space: nowrap;
}
</style>
