<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import { errorMessage, Problem, type Api } from '@/api/client';
import { askRetests, readRetests } from '@/areas/defects/queries';
import { toast } from '@/kit/notices';
import { plural } from '@/kit/words';
import { useRead } from '@/offline/useRead';

/** What failed and can be walked again with the fix: asked for all or some of it in one act. */
const props = defineProps<{ project: string; defect: string; mayAsk: boolean }>();
const { data, refetch } = useRead(
  'defect',
  () => ['retests', props.defect],
  () => readRetests(props.defect),
);
const isReady = (r: Api['RetestLine']): boolean => r.waits_on.length === 0 && !r.behind;
const ready = computed(() => (data.value ?? []).filter(isReady));
const chosen = ref<string[]>([]);
watch(ready, (now) => (chosen.value = now.map((r) => r.entry_id)), { immediate: true });
const problem = ref('');
const busy = ref(false);
const why = (r: Api['RetestLine']): string =>
  r.waits_on.length > 0
    ? `still waits on ${r.waits_on.join(', ')}`
    : r.behind
      ? 'the cycle tests an earlier build'
      : '';
async function ask(): Promise<void> {
  problem.value = '';
  busy.value = true;
  try {
    const count = chosen.value.length;
    await askRetests(props.defect, chosen.value);
    toast(`${plural(count, 'retest', 'retests')} asked for.`);
  } catch (e) {
    problem.value =
      e instanceof Problem && Object.keys(e.errors).length > 0
        ? Object.values(e.errors).flat().join(' ')
        : errorMessage(e);
  }
  busy.value = false;
  await refetch();
}
</script>

<template>
  <section v-if="data && data.length > 0" aria-label="To be walked again">
    <div class="row head">
      <h2>To be walked again</h2>
      <span class="soft small">on {{ data[0]!.build }} or later</span>
    </div>
    <ul class="ruled">
      <li v-for="r in data" :key="r.entry_id">
        <input
          v-if="mayAsk"
          :id="`retest-${r.entry_id}`"
          v-model="chosen"
          type="checkbox"
          :value="r.entry_id"
          :disabled="!isReady(r)"
        />
        <label :for="`retest-${r.entry_id}`" class="long">
          <RouterLink :to="`/${project}/entries/${r.entry_id}`" class="mono">{{ r.case_key }}</RouterLink>
          {{ r.title }}
          <span class="soft small">
            {{ r.cycle_name }}, {{ r.assignee?.name ?? 'nobody’s'
            }}<template v-if="r.walked_on">, failed on {{ r.walked_on }}</template
            ><template v-if="why(r)"> · {{ why(r) }}</template></span
          >
        </label>
      </li>
    </ul>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <Button
      v-if="mayAsk && ready.length > 0"
      outlined
      size="small"
      :disabled="busy || chosen.length === 0"
      :label="`Ask for ${plural(chosen.length, 'retest', 'retests')}`"
      @click="ask"
    />
  </section>
</template>

<style scoped>
.head {
  align-items: baseline;
}
</style>
