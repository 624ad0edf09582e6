<script setup lang="ts">
import Button from 'primevue/button';
import { computed, reactive, ref, watch } from 'vue';
import { errorMessage, Problem, type Api } from '@/api/client';
import { asOptions, PRIORITIES, SEVERITIES, type Option } from '@/areas/defects/choices';
import { MOVES, type State } from '@/areas/defects/life';
import { actOnDefects, previewAct, undoDefectAct } from '@/areas/defects/queries';
import { may } from '@/areas/people/session';
import { toast } from '@/kit/notices';
import SelectField from '@/kit/SelectField.vue';
import { plainWords, plural } from '@/kit/words';

/** What can be done with the chosen defects at once: seen beforehand, and taken back. */
const props = defineProps<{
  project: string;
  filter: Record<string, string>;
  count: number;
  total: number;
  choices: Api['DefectChoices'];
  components: Option[];
}>();
const emit = defineEmits<{ done: []; clear: []; everything: [] }>();
const open = ref(false);
const busy = ref(false);
const problem = ref('');
const preview = ref<Api['DefectActPreview'] | null>(null);
/** As it is: nothing is said of it. */
const AS_IT_IS = null;
const empty = () => ({
  severity: AS_IT_IS as string | null,
  priority: AS_IT_IS as string | null,
  assignee_id: AS_IT_IS as string | null,
  component: AS_IT_IS as string | null,
  labels_add: '',
  labels_remove: '',
  state: AS_IT_IS as State | null,
  note: '',
  fixed_build_id: AS_IT_IS as string | null,
});
const edit = reactive(empty());
/** A field that is to be empty is said so. */
const NOTHING = 'nothing';
const changes = computed(() =>
  Object.fromEntries(
    Object.entries(edit)
      .filter(([, v]) => v !== null && v !== '')
      .map(([k, v]) => [k, v === NOTHING ? null : v]),
  ),
);
/** Who does not file them does not verify, close or reopen them either. */
const FILERS: State[] = ['verified', 'reopened', 'closed'];
const MOVABLE: State[] = ['accepted', 'in_work', 'fixed', 'needs_information', 'rejected', ...FILERS];
const moves = computed(() =>
  MOVABLE.filter((s) => may(props.project, 'file_defects') || !FILERS.includes(s)).map((value) => ({
    value,
    label: MOVES[value],
  })),
);
watch([changes, () => props.count], () => (preview.value = null));
const WORDS: Record<string, string> = { assignee_id: 'with', priority: 'to be mended' };
function said(change: Api['FieldChange'], value: string | null): string {
  if (!value) return '–';
  if (change.field === 'assignee_id') return props.choices.people.find((p) => p.id === value)?.name ?? value;
  if (change.field === 'component') return props.components.find((c) => c.value === value)?.label ?? value;
  return change.field === 'labels' ? value : plainWords(value).toLowerCase();
}
async function run<T>(work: () => Promise<T>): Promise<T | null> {
  busy.value = true;
  problem.value = '';
  try {
    return await work();
  } catch (error) {
    problem.value =
      (error instanceof Problem ? Object.values(error.errors)[0]?.[0] : undefined) ?? errorMessage(error);
    return null;
  } finally {
    busy.value = false;
  }
}
const asked = (): Api['DefectActRequest'] => ({ filter: props.filter, changes: changes.value });
async function look(): Promise<void> {
  preview.value = await run(() => previewAct(props.project, asked()));
}
async function act(): Promise<void> {
  const done = await run(() => actOnDefects(props.project, asked()));
  if (!done) return;
  const left = done.refused.slice(0, 3).map((r) => `${r.key} (${r.why})`);
  const more = done.refused.length > 3 ? ` and ${done.refused.length - 3} more` : '';
  const id = done.act_id;
  toast(
    `${done.title}.${left.length > 0 ? ` Left out: ${left.join(', ')}${more}` : ''}`,
    id
      ? async () => {
          const words = await undoDefectAct(id);
          emit('done');
          return words;
        }
      : undefined,
  );
  open.value = false;
  Object.assign(edit, empty());
  emit('done');
  emit('clear');
}
</script>

<template>
  <section class="bulk sheet" aria-label="With the chosen defects">
    <div class="row">
      <strong>{{ plural(count, 'defect') }} chosen</strong>
      <button v-if="count < total" type="button" class="link" @click="emit('everything')">
        Choose all {{ total }} that fit
      </button>
      <span class="gap" />
      <button type="button" class="link" :aria-expanded="open" @click="open = !open">Change</button>
      <slot name="out" />
      <button type="button" class="link soft" @click="emit('clear')">Clear</button>
    </div>
    <form v-if="open" class="form" @submit.prevent="preview ? act() : look()">
      <SelectField v-model="edit.state" form label="Move" none="As it is" :options="moves" />
      <SelectField
        v-if="edit.state === 'fixed'"
        v-model="edit.fixed_build_id"
        form
        label="Build with the fix"
        none="Choose one"
        :options="asOptions(choices.builds)"
      />
      <label v-if="edit.state"
        ><span class="label">A word on it</span><input v-model="edit.note" class="field" maxlength="10000"
      /></label>
      <SelectField v-model="edit.severity" form label="Severity" none="As it is" :options="SEVERITIES" />
      <SelectField
        v-model="edit.priority"
        form
        label="To be mended"
        none="As it is"
        :options="[...PRIORITIES, { value: NOTHING, label: 'Nobody said' }]"
      />
      <SelectField
        v-model="edit.assignee_id"
        form
        label="With"
        none="As it is"
        :options="[{ value: NOTHING, label: 'Nobody' }, ...asOptions(choices.people)]"
      />
      <SelectField
        v-if="components.length > 0"
        v-model="edit.component"
        form
        label="Component"
        none="As it is"
        :options="[...components, { value: NOTHING, label: 'None' }]"
      />
      <label
        ><span class="label">Add labels</span
        ><input v-model="edit.labels_add" class="field" placeholder="between commas" list="bulk-labels"
      /></label>
      <label
        ><span class="label">Take labels off</span
        ><input v-model="edit.labels_remove" class="field" list="bulk-labels"
      /></label>
      <datalist id="bulk-labels">
        <option v-for="l in choices.labels.slice(0, 300)" :key="l" :value="l" />
      </datalist>
      <div v-if="preview" class="wide" role="status">
        <p>
          {{ preview.changed }} of {{ preview.defects }} change<template v-if="preview.unchanged">
            , {{ preview.unchanged }} {{ preview.unchanged === 1 ? 'is' : 'are' }} so already</template
          ><template v-if="preview.refused.length > 0"> , {{ preview.refused.length }} left out</template>.
        </p>
        <ul class="small">
          <li v-for="s in preview.samples.slice(0, 6)" :key="s.key">
            <span class="mono soft">{{ s.key }}</span> {{ s.title }}
            <span v-for="c in s.changes" :key="c.field" class="soft"
              >· {{ WORDS[c.field] ?? c.field }}: {{ said(c, c.was) }} → {{ said(c, c.is) }}</span
            >
          </li>
          <li v-for="r in preview.refused.slice(0, 6)" :key="r.key">
            <span class="mono soft">{{ r.key }}</span> left out: {{ r.why }}
          </li>
        </ul>
      </div>
      <div class="wide row">
        <Button
          v-if="preview"
          type="submit"
          :disabled="busy || preview.changed === 0"
          :label="`Change ${plural(preview.changed, 'defect')}`"
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
</style>
