<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { errorMessage, Problem, type Api } from '@/api/client';
import { asOptions, PRIORITIES, SEVERITIES, type Option } from '@/areas/defects/choices';
import { editDefect, watchDefect } from '@/areas/defects/queries';
import { may, session } from '@/areas/people/session';
import { writeItems } from '@/kit/items';
import OwnField from '@/areas/defects/parts/OwnField.vue';
import SelectField from '@/kit/SelectField.vue';

/** Who has it, how grave it is, where it belongs: chosen in place, saved at once. */
const props = defineProps<{
  project: string;
  detail: Api['DefectDetail'];
  choices: Api['DefectChoices'];
  components: Option[];
  mayWork: boolean;
}>();
const emit = defineEmits<{ changed: [Api['DefectDetail']]; stale: [] }>();
const problem = ref('');
const defect = computed(() => props.detail.defect);
const labels = ref('');
watch(
  () => writeItems(defect.value.labels),
  (now) => (labels.value = now),
  { immediate: true },
);
const custom = ref<Record<string, string>>({});
watch(
  () => defect.value.custom,
  (now) => (custom.value = { ...(now as Record<string, string>) }),
  { immediate: true },
);

async function run(work: () => Promise<Api['DefectDetail']>): Promise<void> {
  problem.value = '';
  try {
    emit('changed', await work());
  } catch (e) {
    const first = e instanceof Problem ? Object.values(e.errors)[0]?.[0] : undefined;
    problem.value = first ?? errorMessage(e);
    emit('stale');
  }
}
type Field =
  'severity' | 'priority' | 'assignee_id' | 'component' | 'labels' | 'build_id' | 'configuration_id';
async function save(field: Field, was: string | null, is: unknown): Promise<void> {
  const to = typeof is === 'string' && is !== '' ? is : null;
  if ((to ?? '') === (was ?? '')) return;
  await run(() => editDefect(defect.value.key, { [field]: to, was: { [field]: was } }));
}
async function saveOwn(id: string): Promise<void> {
  const was = (defect.value.custom as Record<string, string>)[id] ?? '';
  const is = custom.value[id] ?? '';
  if (was === is) return;
  await run(() => editDefect(defect.value.key, { custom: { [id]: is }, was: {}, was_custom: { [id]: was } }));
}
/** Who could have it, and who has it though they left. */
const people = computed(() => {
  const has = defect.value.assignee;
  const all = props.choices.people;
  return asOptions(has && !all.some((p) => p.id === has.id) ? [...all, has] : all);
});
const me = computed(() => session.value?.user.id ?? '');
const watches = computed(() => props.detail.watchers.some((p) => p.id === me.value));
const others = computed(() => props.detail.watchers.filter((p) => p.id !== me.value));
const mayTell = computed(() => may(props.project, 'file_defects'));
const told = ref('');
async function tell(person: string): Promise<void> {
  if (person === '') return;
  await run(() => watchDefect(defect.value.key, true, person));
  told.value = '';
}
</script>

<template>
  <section aria-label="Who has it">
    <SelectField
      label="With"
      none="Nobody"
      :disabled="!mayWork"
      :options="people"
      :model-value="defect.assignee?.id ?? null"
      @update:model-value="save('assignee_id', defect.assignee?.id ?? null, $event)"
    />
    <p v-if="mayWork && defect.assignee?.id !== me" class="mine">
      <button type="button" class="link small" @click="save('assignee_id', defect.assignee?.id ?? null, me)">
        Give it to me
      </button>
    </p>
    <div class="two">
      <SelectField
        label="Severity"
        :disabled="!mayWork"
        :options="SEVERITIES"
        :model-value="defect.severity"
        @update:model-value="save('severity', defect.severity, $event)"
      />
      <SelectField
        label="To be mended"
        none="Nobody said"
        :disabled="!mayWork"
        :options="PRIORITIES"
        :model-value="defect.priority"
        @update:model-value="save('priority', defect.priority, $event)"
      />
      <SelectField
        v-if="components.length > 0 || defect.component"
        label="Component"
        none="None"
        :disabled="!mayWork"
        :options="components"
        :model-value="defect.component"
        @update:model-value="save('component', defect.component, $event)"
      />
      <SelectField
        label="Met on build"
        none="None"
        :disabled="!mayWork"
        :options="asOptions(choices.builds)"
        :model-value="defect.build?.id ?? null"
        @update:model-value="save('build_id', defect.build?.id ?? null, $event)"
      />
      <SelectField
        v-if="choices.configurations.length > 0"
        label="On configuration"
        none="None"
        :disabled="!mayWork"
        :options="asOptions(choices.configurations)"
        :model-value="defect.configuration?.id ?? null"
        @update:model-value="save('configuration_id', defect.configuration?.id ?? null, $event)"
      />
      <label
        ><span class="label">Labels</span
        ><input
          v-model="labels"
          class="field"
          maxlength="4000"
          list="page-labels"
          placeholder="none"
          :disabled="!mayWork"
          @change="save('labels', writeItems(defect.labels), labels)"
          @keydown.enter.prevent="save('labels', writeItems(defect.labels), labels)" /><datalist
          id="page-labels"
        >
          <option v-for="l in choices.labels.slice(0, 300)" :key="l" :value="l" /></datalist
      ></label>
      <OwnField
        v-for="f in choices.fields"
        :key="f.id"
        v-model="custom[f.id]"
        :field="f"
        :disabled="!mayWork"
        @done="saveOwn(f.id)"
      />
    </div>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <p v-if="mayWork" class="row small">
      <button type="button" class="link" @click="run(() => watchDefect(defect.key, !watches))">
        {{ watches ? 'Be told no more' : 'Be told of everything' }}
      </button>
      <span v-for="p in others" :key="p.id" class="soft">
        {{ p.name }} is told
        <button
          v-if="mayTell"
          type="button"
          class="link soft"
          :aria-label="`Tell ${p.name} no more`"
          @click="run(() => watchDefect(defect.key, false, p.id))"
        >
          ×
        </button>
      </span>
      <SelectField
        v-if="mayTell"
        v-model="told"
        small
        hide-label
        label="Tell somebody else"
        none="Tell …"
        :options="people.filter((p) => !detail.watchers.some((w) => w.id === p.value) && p.value !== me)"
        @update:model-value="tell($event ?? '')"
      />
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
.mine {
  margin-top: -4px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 10px 12px;
}
</style>
