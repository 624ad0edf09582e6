<script setup lang="ts">
import { readItems } from '@/kit/items';
import Button from 'primevue/button';
import { computed, reactive, ref, watch } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { createSuite, previewEdit, saveSuite } from '@/areas/casebook/queries';
import { toast } from '@/kit/notices';
import { mayLead } from '@/areas/people/session';
import { plural } from '@/kit/words';
import { actOn, undoAct } from '@/areas/casebook/frame';
import { asOptions, planOf, stateWord, states } from '@/areas/casebook/filter';
import SelectField from '@/kit/SelectField.vue';
import { tip } from '@/kit/keys';

/** What can be done with the chosen cases: at once, seen beforehand, and taken back. */
const props = defineProps<{
  project: string;
  frame: Api['CasebookFrame'];
  filter: Record<string, string>;
  count: number;
  total: number;
  pathOf: (folder: string | null) => string;
}>();
const emit = defineEmits<{ done: []; clear: []; everything: [] }>();
const mode = ref<'' | 'edit' | 'move' | 'copy' | 'suite' | 'export'>('');
const busy = ref(false);
const problem = ref('');
const preview = ref<Api['BulkEditPreview'] | null>(null);
const empty = () => ({
  state: null as string | null,
  priority: null as string | null,
  type: null as string | null,
  owner_id: undefined as string | null | undefined,
  estimate: '',
  labels_add: '',
  labels_remove: '',
  custom: {} as Record<string, string>,
});
const edit = reactive(empty());
const folder = ref<string | null>(null);
const other = ref<string>('');
/** The suite that cases are put into; none: a new one. */
const picked = ref<string | null>(null);
const suite = ref('');
const changes = computed<Record<string, unknown>>(() => {
  const c: Record<string, unknown> = {};
  for (const name of ['state', 'priority', 'type'] as const) if (edit[name]) c[name] = edit[name];
  if (edit.owner_id !== undefined) c.owner_id = edit.owner_id;
  if (edit.estimate.trim()) c.estimate = edit.estimate.trim();
  if (readItems(edit.labels_add).length > 0) c.labels_add = readItems(edit.labels_add);
  if (readItems(edit.labels_remove).length > 0) c.labels_remove = readItems(edit.labels_remove);
  const custom = Object.fromEntries(Object.entries(edit.custom).filter(([, v]) => v !== ''));
  if (Object.keys(custom).length > 0) c.custom = custom;
  return c;
});
watch([changes, () => props.count], () => (preview.value = null));
const folders = computed(() => [
  { value: null, label: 'No folder' },
  ...props.frame.folders.map((f) => ({ value: f.id, label: props.pathOf(f.id) })),
]);
const NAMES: Record<string, string> = {
  state: 'State',
  priority: 'Priority',
  type: 'Type',
  owner_id: 'Owner',
  estimate_seconds: 'Estimate',
  labels: 'Labels',
  custom: 'Fields',
  folder_id: 'Folder',
};

/** The values of a change as people call them. */
function said(field: string, value: string): string {
  if (value === '') return '–';
  if (field === 'state') return stateWord(value);
  const list = field === 'priority' ? props.frame.priorities : field === 'type' ? props.frame.types : [];
  return list.find((i) => i.value === value)?.name ?? value;
}
async function run<T>(work: () => Promise<T>): Promise<T | null> {
  busy.value = true;
  problem.value = '';
  try {
    return await work();
  } catch (error) {
    problem.value = errorMessage(error);
    return null;
  } finally {
    busy.value = false;
  }
}
async function look(): Promise<void> {
  const seen = await run(() =>
    previewEdit(props.project, { act: 'edit', filter: props.filter, changes: changes.value }),
  );
  if (seen) preview.value = seen;
}
async function act(what: 'edit' | 'move' | 'copy' | 'bin', how: Record<string, unknown> = {}): Promise<void> {
  const done = await run(() => actOn(props.project, what, props.filter, how));
  if (!done) return;
  const left =
    done.refused.length > 0
      ? ` Left out: ${done.refused
          .slice(0, 3)
          .map((r) => `${r.key} (${r.why})`)
          .join(', ')}${done.refused.length > 3 ? ` and ${done.refused.length - 3} more` : ''}`
      : '';
  const id = done.act_id;
  toast(`${done.title}.${left}`, id ? async () => undoAct(id) : undefined);
  mode.value = '';
  Object.assign(edit, empty());
  emit('done');
  emit('clear');
}
async function toSuite(): Promise<void> {
  const ids = props.filter.ids?.split(',') ?? [];
  const known = props.frame.suites.find((s) => s.id === picked.value);
  const done = await run(async () =>
    known
      ? saveSuite(known.id, { name: known.name, add: ids })
      : createSuite(props.project, { name: suite.value, kind: 'picked', add: ids }),
  );
  if (!done) return;
  toast(`${plural(ids.length, 'case')} put into the suite "${known?.name ?? suite.value}".`);
  mode.value = '';
  emit('done');
}
function toggle(now: typeof mode.value): void {
  problem.value = '';
  mode.value = mode.value === now ? '' : now;
}
</script>

<template>
  <section class="bulk sheet" aria-label="With the chosen cases">
    <div class="row">
      <strong>{{ plural(count, 'case') }} chosen</strong>
      <button v-if="count < total" type="button" class="link" @click="emit('everything')">
        Choose all {{ total }} that fit
      </button>
      <span class="gap" />
      <button type="button" class="link" :aria-expanded="mode === 'edit'" @click="toggle('edit')">
        Edit
      </button>
      <button type="button" class="link" :aria-expanded="mode === 'move'" @click="toggle('move')">
        Move
      </button>
      <button type="button" class="link" :aria-expanded="mode === 'copy'" @click="toggle('copy')">
        Copy
      </button>
      <button
        v-if="filter.ids"
        type="button"
        class="link"
        :aria-expanded="mode === 'suite'"
        @click="toggle('suite')"
      >
        Into a suite
      </button>
      <RouterLink
        v-if="mayLead(project)"
        class="link"
        :title="tip('Plan a cycle of them', 'p')"
        :to="planOf(project, filter)"
        >Plan a cycle</RouterLink
      >
      <slot name="export" />
      <button type="button" class="link" :disabled="busy" @click="act('edit', { state: 'retired' })">
        Retire
      </button>
      <button type="button" class="link" :disabled="busy" @click="act('bin')">Bin</button>
      <button type="button" class="link soft" @click="emit('clear')">Clear</button>
    </div>
    <form v-if="mode === 'edit'" class="form" @submit.prevent="preview ? act('edit', changes) : look()">
      <SelectField v-model="edit.state" form label="State" none="As it is" :options="states" />
      <SelectField
        v-model="edit.priority"
        form
        label="Priority"
        none="As it is"
        :options="asOptions(frame.priorities)"
      />
      <SelectField v-model="edit.type" form label="Type" none="As it is" :options="asOptions(frame.types)" />
      <SelectField
        v-model="edit.owner_id"
        form
        label="Owner"
        none="As it is"
        :options="asOptions(frame.people)"
      />
      <label
        ><span class="label">Estimate</span
        ><input v-model="edit.estimate" class="field" placeholder="As it is, or 5m"
      /></label>
      <label
        ><span class="label">Add labels</span
        ><input v-model="edit.labels_add" class="field" placeholder="tide, smoke" list="known-labels"
      /></label>
      <label
        ><span class="label">Take labels off</span
        ><input v-model="edit.labels_remove" class="field" list="known-labels"
      /></label>
      <label v-for="f in frame.fields" :key="f.id"
        ><span class="label">{{ f.name }}</span
        ><input
          v-model="edit.custom[f.id]"
          class="field"
          :placeholder="f.choices.join(', ') || 'As it is'"
          :list="f.choices.length > 0 ? `choices-${f.id}` : undefined" /><datalist
          v-if="f.choices.length > 0"
          :id="`choices-${f.id}`"
        >
          <option v-for="c in f.choices" :key="c" :value="c" /></datalist
      ></label>
      <datalist id="known-labels">
        <option v-for="l in frame.labels.slice(0, 300)" :key="l" :value="l" />
      </datalist>
      <div v-if="preview" class="wide" role="status">
        <p>
          {{ preview.changed }} of {{ preview.cases }} change<template v-if="preview.unchanged">
            , {{ preview.unchanged }} {{ preview.unchanged === 1 ? 'is' : 'are' }} so already</template
          ><template v-if="preview.refused.length > 0">
            , {{ preview.refused.length }} left out ({{ preview.refused[0]?.why }})</template
          >.
        </p>
        <ul class="samples small">
          <li v-for="s in preview.samples.slice(0, 6)" :key="s.key">
            <span class="mono soft">{{ s.key }}</span> {{ s.title }}
            <span v-for="c in s.changes" :key="c.field" class="soft"
              >· {{ NAMES[c.field] ?? c.field }}: {{ said(c.field, c.from) }} →
              {{ said(c.field, c.to) }}</span
            >
          </li>
        </ul>
      </div>
      <div class="wide row">
        <Button
          v-if="preview"
          type="submit"
          :disabled="busy || preview.changed === 0"
          :label="`Change ${plural(preview.changed, 'case')}`"
        />
        <Button
          v-else
          type="submit"
          outlined
          severity="secondary"
          :disabled="busy || Object.keys(changes).length === 0"
          label="See what changes"
        />
      </div>
    </form>
    <form v-if="mode === 'move'" class="row" @submit.prevent="act('move', { folder_id: folder })">
      <SelectField v-model="folder" hide-label label="To the folder" :options="folders" />
      <Button type="submit" :disabled="busy" :label="`Move ${plural(count, 'case')}`" />
    </form>
    <form
      v-if="mode === 'copy'"
      class="row"
      @submit.prevent="act('copy', other ? { project: other } : { folder_id: folder })"
    >
      <SelectField
        v-model="other"
        hide-label
        label="Copy to the project"
        :options="[
          { value: '', label: 'In this project' },
          ...frame.projects.map((p) => ({ value: p.code, label: p.name })),
        ]"
      />
      <SelectField v-if="!other" v-model="folder" hide-label label="To the folder" :options="folders" />
      <span v-else class="soft small"
        >Routines and data tables come along, or those of the same name are taken; secret values stay
        here.</span
      >
      <Button type="submit" :disabled="busy" :label="`Copy ${plural(count, 'case')}`" />
    </form>
    <form v-if="mode === 'suite'" class="row" @submit.prevent="toSuite">
      <SelectField
        v-model="picked"
        hide-label
        label="Suite"
        none="A new suite"
        :options="
          frame.suites.filter((s) => s.kind === 'picked').map((s) => ({ value: s.id, label: s.name }))
        "
      />
      <input
        v-if="picked === null"
        v-model="suite"
        class="field short"
        maxlength="120"
        placeholder="Its name"
        aria-label="Name of the new suite"
      />
      <Button type="submit" :disabled="busy || (picked === null && !suite.trim())" label="Put them in" />
    </form>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.bulk {
  padding: 10px 14px;
  margin: 8px 0;
  display: grid;
  gap: 12px;
}
.gap {
  flex: 1;
}
.form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 12px;
}
.wide {
  grid-column: 1 / -1;
}
.samples {
  margin-top: 6px;
}
</style>
