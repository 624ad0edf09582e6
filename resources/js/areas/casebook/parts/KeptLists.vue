<script setup lang="ts">
import { useRouter } from 'vue-router';
import type { Api } from '@/api/client';
import type { Filter } from '@/kit/criteria';

/** Lists of cases that have a name: suites, and filters that were kept. */
defineProps<{ frame: Api['CasebookFrame']; suite: string | undefined }>();
const router = useRouter();
</script>

<template>
  <section v-if="frame.suites.length > 0" aria-label="Suites">
    <h2 class="label">Suites</h2>
    <button
      v-for="s in frame.suites"
      :key="s.id"
      type="button"
      class="named"
      :aria-current="suite === s.id ? 'true' : undefined"
      @click="router.replace({ query: { suite: s.id } })"
    >
      <span class="long">{{ s.name }}</span><span class="soft"
        >{{ s.cases
        }}<span v-if="s.gained + s.lost > 0" :title="`${s.gained} gained, ${s.lost} lost`">
          +{{ s.gained }} −{{ s.lost }}</span
        ></span
      >
    </button>
  </section>
  <section v-if="frame.filters.length > 0" aria-label="Kept filters">
    <h2 class="label">Kept filters</h2>
    <RouterLink v-for="f in frame.filters" :key="f.id" class="named plain" :to="{ query: f.filter as Filter }"
      ><span class="long">{{ f.name }}</span
      ><span v-if="f.shared" class="soft small">{{ f.mine ? 'shared' : f.by }}</span></RouterLink
    >
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 1px;
}
.named {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 4px 8px 4px 26px;
  border: 0;
  border-radius: 4px;
  background: none;
  font: inherit;
  color: var(--ink);
  text-align: left;
  cursor: pointer;
}
.named:hover {
  background: var(--well);
}
.named[aria-current='true'] {
  background: var(--sheet);
  box-shadow: inset 3px 0 0 var(--ink);
}
h2.label {
  font-weight: 400;
  padding-left: 26px;
}
</style>
