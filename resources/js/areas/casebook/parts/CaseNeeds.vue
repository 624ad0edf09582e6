<script setup lang="ts">
import { ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { readNeeds, saveNeeds } from '@/areas/casebook/queries';
import { useRead } from '@/offline/useRead';

/** What a case usually waits for: its entries take it over when they are planned. */
const props = defineProps<{ project: string; caseKey: string; mayWrite: boolean }>();
const { data, set } = useRead(
  'case',
  () => ['needs', props.caseKey],
  () => readNeeds(props.caseKey),
);
const key = ref('');
const kind = ref<'after' | 'only_if_passed'>('only_if_passed');
const problem = ref('');
async function write(needs: { case: string; kind: Api['CaseNeed']['kind'] }[]): Promise<void> {
  problem.value = '';
  try {
    await set(await saveNeeds(props.caseKey, { needs }));
    key.value = '';
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
const now = (): { case: string; kind: Api['CaseNeed']['kind'] }[] =>
  (data.value ?? []).map((n) => ({ case: n.key, kind: n.kind }));
</script>

<template>
  <section aria-label="Usually waits for" class="needs">
    <span class="label">Usually waits for</span>
    <ul v-if="data && data.length > 0">
      <li v-for="n in data" :key="n.id" class="row">
        <span class="long"
          >{{ n.kind === 'after' ? 'after' : 'a pass of' }}
          <RouterLink class="mono" :to="`/${project}/casebook/${n.key}`">{{ n.key }}</RouterLink>
          {{ n.title }}</span
        >
        <button
          v-if="mayWrite"
          type="button"
          class="link soft small"
          @click="write(now().filter((x) => x.case !== n.key))"
        >
          Drop
        </button>
      </li>
    </ul>
    <form
      v-if="mayWrite"
      class="row"
      @submit.prevent="key.trim() && write([...now(), { case: key.trim(), kind }])"
    >
      <select v-model="kind" class="field kind" aria-label="Kind of condition">
        <option value="only_if_passed">A pass of</option>
        <option value="after">After</option>
      </select>
      <input
        v-model="key"
        class="field key"
        placeholder="Key of a case"
        aria-label="Key of the case it waits for"
        maxlength="40"
      />
      <button type="submit" class="link">Add</button>
    </form>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.needs {
  display: grid;
  gap: 6px;
}
.kind {
  width: auto;
}
.key {
  width: 130px;
}
</style>
