<script setup lang="ts">
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import { computed, onBeforeUnmount, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { cancelExport, readExport, startExport } from '@/areas/casebook/queries';
import { plural } from '@/kit/words';

/** Takes cases out as a file. */
const props = defineProps<{ project: string; filter: Record<string, string>; count: number }>();
const emit = defineEmits<{ close: [] }>();
const FORMATS = [
  { value: 'csv', label: 'CSV', what: 'for any spreadsheet' },
  { value: 'xlsx', label: 'XLSX', what: 'a workbook' },
  {
    value: 'json',
    label: 'JSON',
    what: 'all of it: pictures, routines, data tables, suites, folders, usual conditions',
  },
  { value: 'md', label: 'Markdown', what: 'to read and to keep beside code' },
  { value: 'html', label: 'Page to print', what: 'one page with its pictures' },
] as const;
const format = ref<(typeof FORMATS)[number]['value']>('csv');
/** A sheet, which cannot hold everything. */
const sheet = computed(() => format.value === 'csv' || format.value === 'xlsx');
const layout = ref<'step' | 'case'>('step');
const expand = ref(false);
const state = ref<Api['ExportState'] | null>(null);
const problem = ref('');
let timer: ReturnType<typeof setTimeout> | undefined;

async function start(): Promise<void> {
  problem.value = '';
  try {
    state.value = await startExport(props.project, {
      format: format.value,
      filter: props.filter,
      layout: layout.value,
      expand: expand.value,
    });
    follow();
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
function follow(): void {
  const now = state.value;
  if (!now || now.state === 'failed') return;
  if (now.state === 'done') {
    window.location.assign(`/api/v1/case-exports/${now.id}/file`);
    return;
  }
  timer = setTimeout(() => void look(now.id), 700);
}
async function look(id: string): Promise<void> {
  try {
    state.value = await readExport(id);
    follow();
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
async function stop(): Promise<void> {
  if (state.value) await cancelExport(state.value.id);
}
onBeforeUnmount(() => clearTimeout(timer));
</script>

<template>
  <Dialog
    visible
    modal
    :header="`Take ${plural(count, 'case')} out`"
    :style="{ width: '30rem' }"
    @update:visible="emit('close')"
  >
    <form class="form" @submit.prevent="start">
      <fieldset>
        <legend class="label">As</legend>
        <label v-for="f in FORMATS" :key="f.value"
          ><input v-model="format" type="radio" name="format" :value="f.value" />
          <strong>{{ f.label }}</strong> <span class="soft">{{ f.what }}</span></label
        >
      </fieldset>
      <fieldset v-if="sheet">
        <legend class="label">Rows</legend>
        <label><input v-model="layout" type="radio" value="step" /> One row for each step</label>
        <label
          ><input v-model="layout" type="radio" value="case" /> One row for each case, steps as numbered
          lines</label
        >
      </fieldset>
      <p v-if="sheet" class="soft small">
        Routines and data tables go by their names. A sheet does not hold pictures, suites, empty folders or
        what cases usually wait for; JSON does.
      </p>
      <label v-if="format !== 'json'"
        ><input v-model="expand" type="checkbox" /> Write routines out as steps{{
          sheet ? '; they come back as steps' : ''
        }}</label
      >
      <p class="soft small">The values of secret columns are left out.</p>
      <p v-if="problem || state?.problem" class="p-invalid-words" role="alert">
        {{ problem || state?.problem }}
      </p>
      <p v-if="state?.standstill" class="p-invalid-words" role="alert">{{ state.standstill }}</p>
      <div class="row">
        <template v-if="state && (state.state === 'waiting' || state.state === 'running')">
          <progress :value="state.done" :max="state.total" aria-label="How far it is" />
          <span>{{ state.done }} of {{ state.total }}</span>
          <button type="button" class="link" @click="stop">Stop</button>
        </template>
        <template v-else-if="state?.state === 'done'">
          <a :href="`/api/v1/case-exports/${state.id}/file`" download>{{ state.name }}</a>
          <span class="soft">{{ Math.max(1, Math.round(state.bytes / 1024)) }} KB</span>
        </template>
        <Button v-else type="submit" label="Make the file" />
      </div>
    </form>
  </Dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 14px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 6px;
}
</style>
