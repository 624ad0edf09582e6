<script setup lang="ts">
import Button from 'primevue/button';
import { onBeforeUnmount, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { addEntries, cancelAddition, readAddition } from '@/areas/cycles/queries';
import { toast } from '@/kit/notices';
import { plural } from '@/kit/words';
import SelectionPanel from './SelectionPanel.vue';
import { type Picks } from '@/areas/cycles/usePlan';

/** Adds entries behind those that a cycle has; many are added by a job that can be stopped. */
const props = defineProps<{
  project: string;
  setup: Api['PlanningSetup'];
  cycles: Api['CycleSummary'][];
  cycle: string;
}>();
const emit = defineEmits<{ done: []; close: [] }>();
const picks = ref<Picks>({});
const count = ref<Api['SelectionCount'] | null>(null);
const problem = ref('');
const running = ref<Api['AdditionState'] | null>(null);
let timer = 0;
function heed(state: Api['AdditionState']): void {
  running.value = ['running', 'stopping'].includes(state.state) ? state : null;
  if (running.value) {
    timer = window.setTimeout(() => void look(state.id), 600);
    return;
  }
  if (state.state === 'done')
    toast(
      `Added ${plural(state.total, 'entry', 'entries')}` +
        `${state.conditions > 0 ? ` and ${plural(state.conditions, 'usual condition')}` : ''}.`,
    );
  else problem.value = state.problem || 'Stopped. None was added.';
  emit('done');
  if (state.state === 'done') emit('close');
}
async function look(id: string): Promise<void> {
  heed(await readAddition(id));
}
onBeforeUnmount(() => clearTimeout(timer));
async function add(): Promise<void> {
  problem.value = '';
  try {
    heed(await addEntries(props.cycle, { picks: picks.value }));
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
async function stop(): Promise<void> {
  if (!running.value) return;
  await cancelAddition(running.value.id);
}
</script>

<template>
  <section class="sheet panel" aria-label="Add entries">
    <h2>Add entries</h2>
    <SelectionPanel
      v-model="picks"
      :project="project"
      :setup="setup"
      :cycles="cycles"
      :given="{}"
      :cycle="cycle"
      @count="count = $event"
    />
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <p v-if="running" class="row" role="status">
      <progress :value="running.done" :max="running.total" aria-label="How far it is" />
      {{ running.done }} of {{ running.total }}
      <button type="button" class="link" @click="stop">Stop</button>
    </p>
    <p v-if="running?.standstill" class="p-invalid-words" role="alert">{{ running.standstill }}</p>
    <p class="row">
      <Button
        :disabled="!count || count.entries === 0 || running !== null"
        :label="count && count.entries > 0 ? `Add ${plural(count.entries, 'entry', 'entries')}` : 'Add'"
        @click="add"
      />
      <button type="button" class="link soft" @click="emit('close')">Leave it</button>
      <span class="soft small">What is there stays as it is, with all that was walked.</span>
    </p>
  </section>
</template>

<style scoped>
.panel {
  padding: 14px 18px;
  display: grid;
  gap: 10px;
}
</style>
