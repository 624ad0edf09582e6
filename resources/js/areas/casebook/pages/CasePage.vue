<script setup lang="ts">
import { durationText } from '@/kit/duration';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { readCase } from '@/areas/casebook/queries';
import { useKeys } from '@/kit/keys';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';
import DocumentPage from '@/kit/DocumentPage.vue';
import { ago, exact } from '@/kit/words';
import { session } from '@/areas/people/session';
import CaseNeeds from '@/areas/casebook/parts/CaseNeeds.vue';
import CaseSide from '@/areas/casebook/parts/CaseSide.vue';
import CaseTalk from '@/areas/casebook/parts/CaseTalk.vue';
import { useFrame } from '@/areas/casebook/frame';
import ExtractDialog from '@/areas/casebook/parts/ExtractDialog.vue';
import LeaveDialog from '@/areas/casebook/parts/LeaveDialog.vue';
import LongText from '@/areas/casebook/parts/LongText.vue';
import MergeView from '@/areas/casebook/parts/MergeView.vue';
import type { PastedCase } from '@/areas/casebook/paste';
import PastedCases from '@/areas/casebook/parts/PastedCases.vue';
import PreviewPanel from '@/areas/casebook/parts/PreviewPanel.vue';
import ReviewBar from '@/areas/casebook/parts/ReviewBar.vue';
import StepGrid from '@/areas/casebook/parts/StepGrid.vue';
import StepPictures from '@/areas/casebook/parts/StepPictures.vue';
import { formOf, useCase, type Form } from '@/areas/casebook/useCase';
import { refusedSteps, useCheck } from '@/areas/casebook/useCheck';
import { useCaseActions } from '@/areas/casebook/useCaseActions';
import { usePresence } from '@/areas/casebook/usePresence';

const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const isNew = computed(() => route.params.case === 'new');
const key = computed(() => (isNew.value ? `new:${project.value}` : String(route.params.case)));
const { frame, pathOf } = useFrame(project);
const estimate = (seconds: number): string => durationText(seconds * 1000);
const fresh = (): Form => ({
  title: '',
  objective: '',
  preconditions: '',
  postconditions: '',
  rows: [],
  table: null,
  files: [],
  folder_id: route.query.folder ? String(route.query.folder) : null,
  type: frame.value?.usual_type ?? '',
  priority: frame.value?.usual_priority ?? '',
  estimate: '',
  automated: false,
  is_template: false,
  owner_id: session.value?.user.id ?? null,
  labels: [],
  requirements: route.query.requirement ? [String(route.query.requirement)] : [],
  custom: {},
});
const desk = useCase(key, fresh);
const { form, dirty, returned, merge, problem, saving } = desk;
const { data, error, isPending, refetch } = useRead(
  'case',
  () => ['case', key.value],
  async () => (isNew.value ? null : await readCase(key.value)),
);
watch(
  [data, key, frame],
  async () => {
    const now = data.value;
    if (isNew.value) {
      if (frame.value) await desk.arrived(fresh(), { revision: 0, version: 0 });
    } else if (now?.case.key === key.value)
      await desk.arrived(formOf(now, estimate), { revision: now.case.revision, version: now.version });
  },
  { immediate: true },
);
const mayWrite = computed(() =>
  isNew.value ? (frame.value?.may_write ?? false) : (data.value?.may_write ?? false),
);
const savedMeanwhile = computed(
  () => !isNew.value && dirty.value && data.value && data.value.case.revision !== desk.began.value.revision,
);

const { check, row, routines } = useCheck(project, form, data);
const table = computed(() => frame.value?.tables.find((t) => t.id === form.value?.table));
const columns = computed(() => (table.value?.columns ?? []).map((c) => c.name));
const known = computed(() => columns.value.map((c) => c.toLowerCase()));
async function save(): Promise<void> {
  const saved = await desk.save();
  if (!saved) return;
  if (isNew.value) {
    toast(`${saved.case.key} is in the casebook.`);
    leaving.value = true;
    await router.replace(`/${project.value}/casebook/${saved.case.key}`);
    leaving.value = false;
  } else await refetch();
}
async function dropReturned(): Promise<void> {
  await desk.discard();
  const d = data.value;
  if (d) await desk.begin(formOf(d, estimate), { revision: d.case.revision, version: d.version });
  else await desk.startNew();
}
const { copy, bin, restore } = useCaseActions(project, key, data, refetch);
const extracting = ref<number[] | null>(null);
const pasted = ref<PastedCase[] | null>(null);
const leaving = ref(false);
const others = usePresence(
  computed(() => (isNew.value ? null : key.value)),
  dirty,
  data,
);
useKeys('Case', () => [
  { keys: ['h'], label: 'History', run: () => void router.push(`${route.path}/history`) },
  { keys: ['v'], label: 'As the tester will see it', run: () => (previewing.value = !previewing.value) },
]);
const previewing = ref(false);
const grid = ref<InstanceType<typeof StepGrid> | null>(null);
const title = computed({
  get: () => form.value?.title,
  set: (now) => form.value && (form.value.title = now ?? ''),
});
const errorsOf = (field: string): string => problem.value?.errors[field]?.[0] ?? '';
const stepProblems = computed(() => [
  ...(check.value?.problems ?? data.value?.problems ?? []),
  ...refusedSteps(problem.value?.errors ?? {}),
]);
</script>

<template>
  <DocumentPage
    v-model:name="title"
    :crumb="{
      to: `/${project}/casebook${form?.folder_id ? `?folder=${form.folder_id}` : ''}`,
      word: pathOf(form?.folder_id ?? null) || 'Casebook',
    }"
    what="case"
    :code="isNew ? '' : data?.case.key"
    name-id="case-title"
    name-label="Title of the case"
    name-placeholder="What is tested?"
    :name-length="300"
    :is-new="isNew"
    tab-enters
    :dirty="dirty"
    :saving="saving"
    :may-write="mayWrite"
    :may-drop="false"
    :problem="problem"
    :shown="(field) => field !== 'title'"
    :loading="isPending || isNew"
    :error="error"
    beside="About this case"
    :covered="merge !== null"
    @enter="grid?.go(0, 'action')"
    @save="save"
    @bin="bin"
    @again="refetch()"
  >
    <template #actions>
      <template v-if="!isNew">
        <RouterLink :to="`${route.path}/history`" title="h">History</RouterLink>
        <RouterLink :to="`/${project}/trace/case/${route.params.case}`">Trace</RouterLink>
        <button type="button" class="link" title="v" @click="previewing = !previewing">
          {{ previewing ? 'Back to writing' : 'As the tester sees it' }}
        </button>
        <button v-if="mayWrite" type="button" class="link" @click="copy">
          {{ form?.is_template ? 'Make a case of it' : 'Copy' }}
        </button>
      </template>
    </template>
    <template #bands>
      <p v-if="data?.case.binned_at" class="band row">
        This case is in the bin since {{ ago(data.case.binned_at) }}. Its entries stay, and say so.
        <button v-if="frame?.may_write" type="button" class="link" @click="restore">Restore it</button>
      </p>
      <p v-if="returned" class="band row" role="status">
        <span
          >What you wrote <span :title="exact(returned)">{{ ago(returned) }}</span> and did not save is
          back.</span
        >
        <button type="button" class="link" @click="dropReturned">Drop it</button>
      </p>
      <p v-if="others.length > 0" class="band" role="status">
        {{ others.map((o) => o.name).join(' and ') }} {{ others.length === 1 ? 'is' : 'are' }} writing here
        too. Whoever saves second sees both.
      </p>
      <p v-if="savedMeanwhile && !merge" class="band row" role="status">
        This case was saved by somebody else meanwhile.
        <button type="button" class="link" @click="desk.bringTogether()">Bring both together</button>
      </p>
      <MergeView
        v-if="merge"
        :merge="merge"
        :routines="routines"
        @decide="desk.decide"
        @later="merge = null"
      />
      <ReviewBar
        v-else-if="data && !data.case.binned_at"
        :detail="data"
        :dirty="dirty"
        @changed="refetch()"
      />
    </template>
    <template v-if="form">
      <PreviewPanel
        v-if="previewing"
        :project="project"
        :check="check"
        :form="form"
        :table="table?.name ?? ''"
        @row="(n) => (row = n)"
      />
      <template v-else>
        <LongText v-model="form.objective" label="Objective" :may-write="mayWrite" :known="known" />
        <LongText v-model="form.preconditions" label="Preconditions" :may-write="mayWrite" :known="known" />
        <StepGrid
          ref="grid"
          :project="project"
          :rows="form.rows"
          :routines="routines"
          :shelf="frame?.routines ?? []"
          :known="known"
          :columns="columns"
          :problems="stepProblems"
          :may-write="mayWrite"
          may-cases
          :may-extract="!isNew"
          @change="(rows) => form && (form.rows = rows)"
          @cases="(found) => (pasted = found)"
          @extract="(positions) => (extracting = positions)"
        />
        <p v-if="errorsOf('steps')" class="p-invalid-words" role="alert">{{ errorsOf('steps') }}</p>
        <LongText v-model="form.postconditions" label="Postconditions" :may-write="mayWrite" :known="known" />
        <section v-if="mayWrite || form.files.length > 0" aria-label="Attachments">
          <span class="label">Attachments</span>
          <StepPictures
            :project="project"
            :files="form.files"
            label="the case"
            :may-write="mayWrite"
            :pasting="false"
            texts
            @change="(files) => form && (form.files = files)"
          />
          <p v-if="errorsOf('files')" class="p-invalid-words" role="alert">{{ errorsOf('files') }}</p>
        </section>
        <p v-if="mayWrite" class="soft small keys">
          <kbd>Enter</kbd> next step <kbd>Shift Enter</kbd> new line <kbd>Ctrl Enter</kbd> step between
          <kbd>Ctrl Shift Enter</kbd> split <kbd>Alt ↑ ↓</kbd> move <kbd>Ctrl Shift D</kbd> double
          <kbd>Ctrl Shift ⌫</kbd> delete
        </p>
      </template>
    </template>
    <template #beside>
      <template v-if="form">
        <CaseSide
          v-if="frame"
          v-model="form"
          :project="project"
          :frame="frame"
          :detail="data ?? null"
          :errors="problem?.errors ?? {}"
          :problems="stepProblems"
          :may-write="mayWrite"
          :path-of="pathOf"
        />
        <CaseNeeds v-if="data" :project="project" :case-key="data.case.key" :may-write="mayWrite" />
        <CaseTalk v-if="data" :project="project" :detail="data" :may-answer="mayWrite" @changed="refetch()" />
      </template>
    </template>
    <template #over>
      <LeaveDialog :dirty="dirty" :going="leaving" :save-now="desk.saveNow" :save="desk.save" />
      <PastedCases
        v-if="pasted"
        :project="project"
        :cases="pasted"
        :as="{ ...fresh(), folder_id: form?.folder_id ?? null }"
        @close="pasted = null"
        @steps="(rows) => form && (form.rows = [...form.rows, ...rows])"
      />
      <ExtractDialog
        v-if="extracting"
        :case-key="key"
        :positions="extracting"
        :ready="async () => (dirty && !(await desk.save()) ? null : desk.began.value.revision)"
        @close="extracting = null"
        @made="refetch()"
      />
    </template>
  </DocumentPage>
</template>

<style scoped>
.band {
  background: var(--well);
  border-radius: 6px;
  padding: 8px 12px;
  margin-bottom: 10px;
}
.keys kbd {
  margin-left: 10px;
}
</style>
