<script setup lang="ts">
import { durationText } from '@/kit/duration';
import Button from 'primevue/button';
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, unwrap } from '@/api/client';
import { useKeys } from '@/kit/keys';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';
import StateBox from '@/kit/StateBox.vue';
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
  type: frame.value?.types.find((t) => t.value === 'functional')?.value ?? frame.value?.types[0]?.value ?? '',
  priority:
    frame.value?.priorities.find((p) => p.value === 'medium')?.value ??
    frame.value?.priorities[0]?.value ??
    '',
  estimate: '',
  automated: false,
  is_template: false,
  owner_id: session.value?.user.id ?? null,
  labels: [],
  requirements: [],
  custom: {},
});
const desk = useCase(key, fresh);
const { form, dirty, returned, merge, problem, saving } = desk;
const { data, error, isPending, refetch } = useRead(
  'case',
  () => ['case', key.value],
  async () =>
    isNew.value ? null : unwrap(await api.GET('/cases/{case}', { params: { path: { case: key.value } } })),
);
const loaded = ref('');
watch(
  [data, key, frame],
  async () => {
    if (isNew.value) {
      if (frame.value && loaded.value !== key.value) {
        loaded.value = key.value;
        await desk.startNew();
      }
      return;
    }
    const now = data.value;
    if (!now || now.case.key !== key.value) return;
    // What one is writing is never written over; that another saved is told instead.
    if (loaded.value !== key.value || (!dirty.value && now.case.revision !== desk.began.value.revision)) {
      loaded.value = key.value;
      await desk.begin(formOf(now, estimate), { revision: now.case.revision, version: now.version });
    }
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
const { copy, bin, restore } = useCaseActions(project, key, data, refetch);
const extracting = ref<number[] | null>(null);
const pasted = ref<PastedCase[] | null>(null);
const leaving = ref(false);
function onKey(event: KeyboardEvent): void {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 's') {
    event.preventDefault();
    if (mayWrite.value) void save();
  }
}
onMounted(() => {
  window.addEventListener('keydown', onKey);
});
onBeforeUnmount(() => {
  window.removeEventListener('keydown', onKey);
});
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
const errorsOf = (field: string): string => problem.value?.errors[field]?.[0] ?? '';
const stepProblems = computed(() => [
  ...(check.value?.problems ?? data.value?.problems ?? []),
  ...refusedSteps(problem.value?.errors ?? {}),
]);
</script>

<template>
  <div class="page">
    <StateBox v-if="!form" :loading="isPending || isNew" :error="error" @again="refetch()" />
    <template v-else>
      <p class="soft small crumb">
        <RouterLink :to="`/${project}/casebook${form.folder_id ? `?folder=${form.folder_id}` : ''}`">{{
          pathOf(form.folder_id) || 'Casebook'
        }}</RouterLink>
      </p>
      <div class="title-line">
        <span class="mono soft">{{ isNew ? 'New case' : data?.case.key }}</span>
        <input
          v-if="mayWrite"
          id="case-title"
          v-model="form.title"
          class="title"
          aria-label="Title of the case"
          placeholder="What is tested?"
          maxlength="300"
          :autofocus="isNew"
          @keydown.enter.prevent="grid?.go(0, 'action')"
        />
        <h1 :class="mayWrite ? 'unseen' : 'long'">{{ form.title || 'New case' }}</h1>
        <div class="actions">
          <template v-if="!isNew">
            <RouterLink :to="`${route.path}/history`" title="h">History</RouterLink>
            <button type="button" class="link" title="v" @click="previewing = !previewing">
              {{ previewing ? 'Back to writing' : 'As the tester sees it' }}
            </button>
            <button v-if="mayWrite" type="button" class="link" @click="copy">
              {{ form.is_template ? 'Make a case of it' : 'Copy' }}
            </button>
            <button v-if="mayWrite" type="button" class="link" @click="bin">Bin</button>
          </template>
          <span v-if="mayWrite" class="soft small" role="status">{{
            dirty ? 'Not saved yet, kept on this device' : isNew ? '' : 'Saved'
          }}</span>
          <Button v-if="mayWrite" label="Save" title="Ctrl S" :disabled="saving || !dirty" @click="save" />
        </div>
      </div>
      <p v-if="errorsOf('title')" class="p-invalid-words" role="alert">{{ errorsOf('title') }}</p>
      <p v-if="problem && Object.keys(problem.errors).length === 0" class="p-invalid-words" role="alert">
        {{ problem.message }}
      </p>
      <p v-if="data?.case.binned_at" class="band row">
        This case is in the bin since {{ ago(data.case.binned_at) }}. Its entries stay, and say so.
        <button v-if="frame?.may_write" type="button" class="link" @click="restore">Restore it</button>
      </p>
      <p v-if="returned" class="band row" role="status">
        <span
          >What you wrote <span :title="exact(returned)">{{ ago(returned) }}</span> and did not save is
          back.</span
        >
        <button
          type="button"
          class="link"
          @click="
            desk.discard();
            data
              ? desk.begin(formOf(data, estimate), { revision: data.case.revision, version: data.version })
              : desk.startNew();
          "
        >
          Drop it
        </button>
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
      <div v-show="!merge" class="columns">
        <div class="text">
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
            <LongText
              v-model="form.preconditions"
              label="Preconditions"
              :may-write="mayWrite"
              :known="known"
            />
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
            <LongText
              v-model="form.postconditions"
              label="Postconditions"
              :may-write="mayWrite"
              :known="known"
            />
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
        </div>
        <div class="aside">
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
          <CaseTalk
            v-if="data"
            :project="project"
            :detail="data"
            :may-answer="mayWrite"
            @changed="refetch()"
          />
        </div>
      </div>
    </template>
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
  </div>
</template>

<style scoped>
.crumb {
  margin-bottom: 2px;
}
.title {
  flex: 1;
  min-width: 260px;
  font: inherit;
  font-size: 1.47rem;
  font-weight: 700;
  line-height: 1.25;
  color: var(--ink);
  background: none;
  border: 1px solid transparent;
  border-radius: 5px;
  padding: 2px 6px;
  margin-left: -6px;
}
.title:hover {
  border-color: var(--rule);
}
.title:focus {
  background: var(--sheet);
  border-color: var(--edge);
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 290px;
  gap: 36px;
}
.text {
  display: grid;
  gap: 14px;
  align-content: start;
}
.aside {
  display: grid;
  gap: 22px;
  align-content: start;
}
.band {
  background: var(--well);
  border-radius: 6px;
  padding: 8px 12px;
  margin-bottom: 10px;
}
.keys kbd {
  margin-left: 10px;
}
@media (max-width: 960px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
