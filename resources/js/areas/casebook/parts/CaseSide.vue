<script setup lang="ts">
import { readItems } from '@/kit/items';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { createRequirement } from '@/areas/coverage/queries';
import { plainWords, wordOf, type Shown } from '@/kit/words';
import { may } from '@/areas/people/session';
import VerdictMark from '@/kit/VerdictMark.vue';
import { asOptions, stateWord } from '@/areas/casebook/filter';
import DateField from '@/kit/DateField.vue';
import SelectField from '@/kit/SelectField.vue';
import type { Form } from '@/areas/casebook/useCase';

/** What a case has beside its text. */
const form = defineModel<Form>({ required: true });
const props = defineProps<{
  project: string;
  frame: Api['CasebookFrame'];
  detail: Api['CaseDetail'] | null;
  errors: Record<string, string[]>;
  problems: Api['ProblemLine'][];
  mayWrite: boolean;
  pathOf: (folder: string | null) => string;
}>();
const folders = computed(() => [
  { value: null, label: 'No folder' },
  ...props.frame.folders.map((f) => ({ value: f.id, label: props.pathOf(f.id) })),
]);
const tables = computed(() => [{ value: null, label: 'None' }, ...asOptions(props.frame.tables)]);
const people = computed(() => [{ value: null, label: 'Nobody' }, ...asOptions(props.frame.people)]);
const label = ref('');
function addLabel(): void {
  // One that is chosen from the list is whole, whatever is in it.
  const known = props.frame.labels.find((l) => l === label.value.trim());
  for (const one of known ? [known] : readItems(label.value)) {
    const spelt = props.frame.labels.find((l) => l.toLowerCase() === one.toLowerCase()) ?? one;
    if (!form.value.labels.some((l) => l.toLowerCase() === spelt.toLowerCase()))
      form.value.labels = [...form.value.labels, spelt];
  }
  label.value = '';
}
const requirement = ref('');
const problem = ref('');
async function addRequirement(): Promise<void> {
  const typed = requirement.value.trim();
  if (!typed) return;
  problem.value = '';
  const known = props.frame.requirements.find(
    (r) => `${r.key} ${r.title}` === typed || r.key.toLowerCase() === typed.toLowerCase(),
  );
  try {
    const id = known?.id ?? (await createRequirement(props.project, { title: typed })).id;
    if (!form.value.requirements.includes(id)) form.value.requirements = [...form.value.requirements, id];
    requirement.value = '';
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
const knownRequirement = (id: string): { key: string; title: string } | undefined =>
  [...props.frame.requirements, ...(props.detail?.requirements ?? [])].find((x) => x.id === id);
const keyOfRequirement = (id: string): string => knownRequirement(id)?.key ?? '';
function nameOfRequirement(id: string): string {
  const r = knownRequirement(id);
  return r ? `${r.key} ${r.title}` : 'new';
}
const error = (field: string): string => props.errors[field]?.[0] ?? '';
const tableProblem = computed(() => props.problems.find((p) => p.field === 'table')?.message ?? '');
</script>

<template>
  <div class="facts">
    <div v-if="detail" class="fact">
      <span class="label">State</span>
      <span>{{ stateWord(detail.case.state) }}, version {{ detail.version }}</span>
    </div>
    <SelectField
      v-model="form.folder_id"
      label="Folder"
      none="No folder"
      :options="folders"
      :disabled="!mayWrite"
    />
    <p v-if="error('folder_id')" class="p-invalid-words">{{ error('folder_id') }}</p>
    <SelectField
      v-model="form.priority"
      label="Priority"
      :options="asOptions(frame.priorities)"
      :disabled="!mayWrite"
    />
    <SelectField v-model="form.type" label="Type" :options="asOptions(frame.types)" :disabled="!mayWrite" />
    <SelectField
      v-model="form.owner_id"
      label="Owner"
      none="Nobody"
      :options="people"
      :disabled="!mayWrite"
    />
    <label class="fact"
      ><span class="label">Estimate</span
      ><input
        v-model="form.estimate"
        class="field small"
        placeholder="5m"
        :disabled="!mayWrite"
        :aria-invalid="error('estimate') !== ''"
    /></label>
    <p v-if="error('estimate')" class="p-invalid-words">{{ error('estimate') }}</p>
    <SelectField
      v-model="form.table"
      label="Data table"
      none="None"
      :options="tables"
      :disabled="!mayWrite"
    />
    <p v-if="form.table" class="small soft under">
      <RouterLink :to="`/${project}/casebook/tables/${form.table}`">Open the table</RouterLink>. Its columns
      stand above the steps; each of its rows is a round.
    </p>
    <p v-if="tableProblem" class="p-invalid-words">{{ tableProblem }}</p>
    <div class="fact">
      <span class="label">Labels</span>
      <div>
        <span v-for="l in form.labels" :key="l" class="tag long"
          >{{ l
          }}<button
            v-if="mayWrite"
            type="button"
            :aria-label="`Take ${l} off`"
            @click="form.labels = form.labels.filter((x) => x !== l)"
          >
            ×
          </button></span
        >
        <input
          v-if="mayWrite"
          v-model="label"
          class="field small"
          list="all-labels"
          aria-label="Add a label"
          placeholder="Add"
          maxlength="200"
          @keydown.enter.prevent="addLabel"
          @change="addLabel"
        />
        <datalist id="all-labels">
          <option
            v-for="l in frame.labels
              .filter((x) => x.toLowerCase().includes(label.toLowerCase()))
              .slice(0, 100)"
            :key="l"
            :value="l"
          />
        </datalist>
      </div>
    </div>
    <p v-if="error('labels')" class="p-invalid-words">{{ error('labels') }}</p>
    <div class="fact">
      <span class="label">Requirements</span>
      <div>
        <span v-for="r in form.requirements" :key="r" class="tag long"
          ><RouterLink v-if="keyOfRequirement(r)" :to="`/${project}/coverage/${keyOfRequirement(r)}`">{{
            nameOfRequirement(r)
          }}</RouterLink
          ><template v-else>{{ nameOfRequirement(r) }}</template
          ><button
            v-if="mayWrite"
            type="button"
            :aria-label="`Unlink ${nameOfRequirement(r)}`"
            @click="form.requirements = form.requirements.filter((x) => x !== r)"
          >
            ×
          </button></span
        >
        <input
          v-if="mayWrite"
          v-model="requirement"
          class="field small"
          list="all-requirements"
          aria-label="Link a requirement, or name a new one"
          placeholder="Link, or name a new one"
          maxlength="300"
          @keydown.enter.prevent="addRequirement"
        />
        <datalist id="all-requirements">
          <option v-for="r in frame.requirements" :key="r.id" :value="`${r.key} ${r.title}`" />
        </datalist>
        <p v-if="problem" class="p-invalid-words">{{ problem }}</p>
      </div>
    </div>
    <template v-for="f in frame.fields" :key="f.id">
      <SelectField
        v-if="f.kind === 'choice' || f.kind === 'yes_no'"
        v-model="form.custom[f.id]"
        :label="f.name + (f.required ? ' (needed)' : '')"
        none="–"
        :options="
          (f.kind === 'choice' ? f.choices : ['yes', 'no']).map((c) => ({ value: c, label: plainWords(c) }))
        "
        :disabled="!mayWrite"
      />
      <label v-else class="fact"
        ><span class="label">{{ f.name }}{{ f.required ? ' (needed)' : '' }}</span>
        <DateField
          v-if="f.kind === 'date'"
          :model-value="form.custom[f.id] ?? ''"
          :label="f.name"
          :disabled="!mayWrite"
          @update:model-value="form.custom[f.id] = $event" /><input
          v-else
          v-model="form.custom[f.id]"
          class="field small"
          :inputmode="f.kind === 'number' ? 'decimal' : undefined"
          :disabled="!mayWrite"
      /></label>
      <p v-if="error(`custom.${f.id}`)" class="p-invalid-words">{{ error(`custom.${f.id}`) }}</p>
    </template>
    <p class="row flags">
      <label><input v-model="form.automated" type="checkbox" :disabled="!mayWrite" /> Automated</label>
      <label
        ><input v-model="form.is_template" type="checkbox" :disabled="!mayWrite" /> Template for others</label
      >
    </p>
    <template v-if="detail">
      <h2>Walked in</h2>
      <ul>
        <li v-for="w in detail.walks" :key="w.entry_id">
          <VerdictMark :shown="w.display_state as Shown" :label="wordOf(w.display_state as Shown)" />
          <RouterLink :to="`/${project}/entries/${w.entry_id}`">{{ w.cycle_name }}</RouterLink>
          <span class="soft small"> {{ w.configuration }}</span>
        </li>
        <li v-if="detail.walks.length === 0" class="soft">No cycle yet.</li>
      </ul>
      <h2 v-if="detail.defects.length > 0">Defects</h2>
      <ul>
        <li v-for="d in detail.defects" :key="d.id">
          <RouterLink class="mono" :to="`/${project}/defects/${d.key}`">{{ d.key }}</RouterLink>
          <span class="long"> {{ d.title }}</span>
          <span class="soft small"> {{ plainWords(d.state) }}</span>
        </li>
      </ul>
      <p v-if="may(project, 'file_defects')">
        <RouterLink class="small file" :to="`/${project}/defects/new?case=${detail.case.key}`"
          >File a defect</RouterLink
        >
      </p>
    </template>
  </div>
</template>

<style scoped>
.file {
  display: inline-block;
  padding: 4px 0;
}
.facts {
  display: grid;
  gap: 8px;
}
.facts :deep(.fact) {
  display: grid;
  grid-template-columns: 88px minmax(0, 1fr);
  gap: 8px;
  align-items: baseline;
}
.facts :deep(.fact > .label) {
  margin: 0;
}
.field.small {
  padding: 4px 8px;
}
.tag {
  display: inline-flex;
  gap: 4px;
  border: 1px solid var(--rule);
  background: var(--sheet);
  border-radius: 4px;
  padding: 0 6px;
  margin: 0 4px 4px 0;
  font-size: 0.87rem;
}
.tag button {
  border: 0;
  background: none;
  color: var(--ink-soft);
  cursor: pointer;
  padding: 0 2px;
  min-width: 24px;
  min-height: 24px;
}
.under {
  padding-left: 96px;
}
.flags {
  padding-left: 96px;
  gap: 4px 14px;
}
h2 {
  margin-top: 10px;
}
ul {
  display: grid;
  gap: 6px;
}
</style>
