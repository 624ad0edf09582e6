<script setup lang="ts">
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, errorMessage, Problem, unwrap, type Api } from '@/api/client';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';
import StateBox from '@/kit/StateBox.vue';
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
const { data, error, isPending, refetch } = useRead(
  'case',
  () => ['routine', id.value],
  async () =>
    isNew.value
      ? null
      : unwrap(await api.GET('/routines/{routine}', { params: { path: { routine: id.value } } })),
);
const problem = ref<Problem | null>(null);
const sure = ref(false);
const place = computed(() => `draft:routine:${project.value}:${id.value}`);
const content = (f: Form): string => JSON.stringify({ ...f, rows: toSteps(f.rows) });
const {
  form,
  began: revision,
  dirty,
  begin,
  discard,
  saved: settled,
} = useLocalForm<Form, number>(place, content, 0);
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
    if (form.value && dirty.value) return;
    await begin(serverForm(data.value), data.value?.routine.revision ?? 0);
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
    ...(revision.value > 0 ? { revision: revision.value } : {}),
  };
  try {
    const saved = unwrap(
      isNew.value
        ? await api.POST('/projects/{project}/routines', {
            params: { path: { project: project.value } },
            body,
          })
        : await api.PUT('/routines/{routine}', { params: { path: { routine: id.value } }, body }),
    );
    await settled(content(now), saved.routine.revision);
    toast(
      saved.routine.uses > 0
        ? `Saved, for ${plural(saved.routine.uses, 'case')}.`
        : `"${saved.routine.name}" is saved.`,
    );
    if (isNew.value) await router.replace(`/${project.value}/casebook/routines/${saved.routine.id}`);
    else await refetch();
  } catch (e) {
    if (e instanceof Problem) problem.value = e;
    else throw e;
  }
}
async function bin(): Promise<void> {
  try {
    await api.DELETE('/routines/{routine}', { params: { path: { routine: id.value } }, body: {} });
    const gone = id.value;
    toast(`"${form.value?.name}" is in the bin.`, async () => {
      await api.POST('/routines/{routine}/restorations', { params: { path: { routine: gone } }, body: {} });
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
  await begin(serverForm(data.value), data.value?.routine.revision ?? 0);
}
const errorOf = (field: string): string => problem.value?.errors[field]?.[0] ?? '';
</script>

<template>
  <div class="page">
    <StateBox v-if="!form" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <p class="soft small crumb"><RouterLink :to="`/${project}/casebook/routines`">Routines</RouterLink></p>
      <div class="title-line">
        <h1 class="unseen">{{ form.name || 'New routine' }}</h1>
        <input
          v-model="form.name"
          class="field name"
          aria-label="Name of the routine"
          placeholder="Name of the routine"
          maxlength="120"
          :disabled="!mayWrite"
        />
        <span v-if="data" class="soft">version {{ data.version }}</span>
        <div v-if="mayWrite" class="actions">
          <button v-if="!isNew" type="button" class="link" @click="bin">Bin</button>
          <button v-if="dirty && !isNew" type="button" class="link" @click="drop">Drop my changes</button>
          <span class="soft small" role="status">{{
            dirty ? 'Not saved yet, kept on this device' : ''
          }}</span>
          <Button label="Save" :disabled="!dirty" @click="uses > 0 ? (sure = true) : save()" />
        </div>
      </div>
      <p v-if="problem && Object.keys(problem.errors).length === 0" class="p-invalid-words" role="alert">
        {{ problem.message }}
      </p>
      <p v-if="errorOf('name')" class="p-invalid-words" role="alert">{{ errorOf('name') }}</p>
      <p v-if="errorOf('steps')" class="p-invalid-words" role="alert">{{ errorOf('steps') }}</p>
      <div class="columns">
        <div class="text">
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
        </div>
        <aside aria-label="Where it is used">
          <UseList :project="project" :uses="data?.used_in ?? []" />
        </aside>
      </div>
    </template>
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
  </div>
</template>

<style scoped>
.name {
  flex: 1;
  min-width: 260px;
  font-size: 1.2rem;
  font-weight: 700;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 280px;
  gap: 36px;
}
.text {
  display: grid;
  gap: 16px;
  align-content: start;
}
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
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
