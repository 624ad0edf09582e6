<script setup lang="ts">
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage, Problem, type Api } from '@/api/client';
import {
  binRoutine,
  createRoutine,
  readRoutine,
  restoreRoutine,
  saveRoutine,
} from '@/areas/casebook/queries';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';
import DocumentPage from '@/kit/DocumentPage.vue';
import { plural } from '@/kit/words';
import { useFrame } from '@/areas/casebook/frame';
import StepGrid from '@/areas/casebook/parts/StepGrid.vue';
import { toRows, toSteps, type Row } from '@/areas/casebook/steps';
import UseList from '@/areas/casebook/parts/UseList.vue';
import { useLocalForm } from '@/offline/useLocalForm';

interface Form {
  name: string;
  description: string;
  parameters: { name: string; default: string }[];
  rows: Row[];
}
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const id = computed(() => String(route.params.routine));
const isNew = computed(() => id.value === 'new');
const { frame } = useFrame(project);
const { data, error, isPending, refetch, set } = useRead(
  'case',
  () => ['routine', id.value],
  async () => (isNew.value ? null : await readRoutine(id.value)),
);
const problem = ref<Problem | null>(null);
const sure = ref(false);
const placeOf = (routine: string): string => `draft:routine:${project.value}:${routine}`;
const place = computed(() => placeOf(id.value));
const content = (f: Form): string => JSON.stringify({ ...f, rows: toSteps(f.rows) });
const {
  form,
  began,
  dirty,
  begin,
  arrived,
  discard,
  saved: settled,
} = useLocalForm(place, content, { revision: 0 });
const serverForm = (d: Api['RoutineDetail'] | null | undefined): Form => ({
  name: d?.routine.name ?? '',
  description: d?.routine.description ?? '',
  parameters: (d?.routine.parameters ?? []).map((p) => ({ ...p })),
  rows: toRows(d?.steps ?? []),
});
watch(
  [data, id],
  async () => {
    if (!isNew.value && data.value?.routine.id !== id.value) return;
    await arrived(serverForm(data.value), { revision: data.value?.routine.revision ?? 0 });
  },
  { immediate: true },
);
const uses = computed(() => (data.value?.used_in ?? []).filter((u) => u.kind !== 'filter').length);
const routines = computed<Api['RoutineText'][]>(() => data.value?.inner ?? []);
const known = computed(() => (form.value?.parameters ?? []).map((p) => p.name.toLowerCase()));
const mayWrite = computed(() => frame.value?.may_write ?? false);

async function save(): Promise<void> {
  const now = form.value;
  if (!now) return;
  problem.value = null;
  sure.value = false;
  const body = {
    name: now.name,
    description: now.description,
    parameters: now.parameters.filter((p) => p.name.trim() !== ''),
    steps: toSteps(now.rows),
    ...(isNew.value ? {} : { revision: began.value.revision }),
  };
  const sent = content(now);
  try {
    const saved = isNew.value ? await createRoutine(project.value, body) : await saveRoutine(id.value, body);
    await settled(sent, { revision: saved.routine.revision }, placeOf(saved.routine.id));
    toast(
      saved.routine.uses > 0
        ? `Saved, for ${plural(saved.routine.uses, 'case')}.`
        : `"${saved.routine.name}" is saved.`,
    );
    if (isNew.value) await router.replace(`/${project.value}/casebook/routines/${saved.routine.id}`);
    else await set(saved);
  } catch (e) {
    if (e instanceof Problem) problem.value = e;
    else throw e;
  }
}
async function bin(): Promise<void> {
  try {
    await binRoutine(id.value);
    const gone = id.value;
    toast(`"${form.value?.name}" is in the bin.`, async () => {
      await restoreRoutine(gone);
    });
    await discard();
    await router.push(`/${project.value}/casebook/routines`);
  } catch (e) {
    toast(errorMessage(e));
  }
}
async function drop(): Promise<void> {
  await discard();
  await refetch();
  await begin(serverForm(data.value), { revision: data.value?.routine.revision ?? 0 });
}
const name = computed({
  get: () => form.value?.name,
  set: (now) => form.value && (form.value.name = now ?? ''),
});
const errorOf = (field: string): string => problem.value?.errors[field]?.[0] ?? '';
</script>

<template>
  <DocumentPage
    v-model:name="name"
    :crumb="{ to: `/${project}/casebook/routines`, word: 'Routines' }"
    what="routine"
    :is-new="isNew"
    :dirty="dirty"
    :may-write="mayWrite"
    :problem="problem"
    :shown="(field) => /^parameters\.\d+\.name$/.test(field)"
    :loading="isPending"
    :error="error"
    :version="data?.version"
    beside="Where it is used"
    @save="uses > 0 ? (sure = true) : save()"
    @bin="bin"
    @drop="drop"
    @again="refetch()"
  >
    <template v-if="form">
      <label
        ><span class="label">What it is for</span
        ><input v-model="form.description" class="field" maxlength="400" :disabled="!mayWrite"
      /></label>
      <fieldset>
        <legend class="label">Parameters: what a case says when it uses this</legend>
        <div v-for="(p, i) in form.parameters" :key="i" class="row">
          <input
            v-model="p.name"
            class="field mono short"
            placeholder="name"
            :aria-label="`Name of parameter ${i + 1}`"
            :disabled="!mayWrite"
          />
          <input
            v-model="p.default"
            class="field short"
            placeholder="when nothing is said"
            :aria-label="`What parameter ${i + 1} is when nothing is said`"
            :disabled="!mayWrite"
          />
          <button v-if="mayWrite" type="button" class="link soft" @click="form.parameters.splice(i, 1)">
            Take out
          </button>
          <span v-if="errorOf(`parameters.${i}.name`)" class="p-invalid-words">{{
            errorOf(`parameters.${i}.name`)
          }}</span>
        </div>
        <button
          v-if="mayWrite"
          type="button"
          class="link"
          @click="form.parameters.push({ name: '', default: '' })"
        >
          Add a parameter
        </button>
      </fieldset>
      <StepGrid
        :project="project"
        :rows="form.rows"
        :routines="routines"
        :shelf="(frame?.routines ?? []).filter((r) => r.id !== id)"
        :known="known"
        :columns="form.parameters.map((p) => p.name).filter(Boolean)"
        :problems="data?.problems ?? []"
        :may-write="mayWrite"
        @change="(rows) => form && (form.rows = rows)"
      />
    </template>
    <template #beside><UseList :project="project" :uses="data?.used_in ?? []" /></template>
    <template #over>
      <Dialog
        v-if="sure"
        visible
        modal
        :header="`This changes ${plural(uses, 'place')}`"
        :style="{ width: '30rem' }"
        @update:visible="sure = false"
      >
        <UseList :project="project" :uses="data?.used_in ?? []" :most="12" />
        <p class="soft small">Attempts that have begun keep the steps as they were.</p>
        <div class="row dialog">
          <Button label="Save for all of them" @click="save" />
          <Button label="Not yet" text severity="secondary" @click="sure = false" />
        </div>
      </Dialog>
    </template>
  </DocumentPage>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
  justify-items: start;
}
.short {
  width: 220px;
}
.dialog {
  margin-top: 16px;
}
</style>
