<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import SelectField from '@/kit/SelectField.vue';
import DateField from '@/kit/DateField.vue';
import PickMany from '@/kit/PickMany.vue';
import { day } from '@/kit/words';

/** When a cycle is, for what, and who has part in it. Dates are checked as one types. */
export interface CycleInput {
  name: string;
  description: string;
  starts_on: string;
  ends_on: string;
  build_id: string | null;
  environment_id: string | null;
  milestone_id: string | null;
  phase: string | null;
  folder: string;
  priority: string | null;
  conditions_hold: boolean;
  default_assignee_id: string | null;
  testers: string[];
  watchers: string[];
}
const form = defineModel<CycleInput>({ required: true });
const props = defineProps<{
  setup: Api['PlanningSetup'];
  milestones: Api['MilestoneLine'][];
  folders: string[];
  errors: Record<string, string[]>;
}>();
const RECORDS = ['admin', 'lead', 'tester'];
const recorders = computed(() => props.setup.people.filter((p) => RECORDS.includes(p.role)));
const asOptions = (all: { id: string; name: string }[]) => all.map((x) => ({ value: x.id, label: x.name }));
const goal = computed(() => props.milestones.find((m) => m.id === form.value.milestone_id));
/** The order in which a build is named with its release. */
const builds = computed(() =>
  [...props.setup.builds].reverse().map((b) => {
    const release = props.setup.releases.find((r) => r.id === b.release_id)?.name;
    return { value: b.id, label: release ? `${b.name} (release ${release})` : b.name };
  }),
);
/** What is deployed there, where the cycle is for another build. */
const elsewhere = computed(() => {
  const there = props.setup.environments.find((e) => e.id === form.value.environment_id);
  if (!there?.build || there.build.id === form.value.build_id) return '';
  return `Build ${there.build.name} is deployed there.`;
});
const dates = computed(() => {
  const { starts_on: from, ends_on: to } = form.value;
  if (from && to && to < from) return 'It would end before it starts.';
  if (goal.value && to && to > goal.value.due_on)
    return `It would end after “${goal.value.name}” on ${day(goal.value.due_on)}.`;
  return '';
});
const wrong = (name: string): string =>
  props.errors[name]?.[0] ??
  Object.entries(props.errors).find(([k]) => k.startsWith(`${name}.`))?.[1][0] ??
  '';
defineExpose({ dates });
</script>

<template>
  <div class="fields">
    <label class="wide"
      ><span class="label">Name</span
      ><input id="cycle-name" v-model="form.name" class="field" maxlength="200" autocomplete="off" />
      <span v-if="wrong('name')" class="p-invalid-words" role="alert">{{ wrong('name') }}</span></label
    >
    <SelectField
      v-model="form.milestone_id"
      form
      label="Milestone"
      none="None"
      :options="milestones.map((m) => ({ value: m.id, label: `${m.name}, ${day(m.due_on)}` }))"
    />
    <label
      ><span class="label">First day</span
      ><DateField v-model="form.starts_on" label="First day" described-by="dates-wrong" />
      <span v-if="wrong('starts_on')" class="p-invalid-words" role="alert">{{
        wrong('starts_on')
      }}</span></label
    >
    <label
      ><span class="label">Last day</span
      ><DateField v-model="form.ends_on" label="Last day" described-by="dates-wrong" />
      <span v-if="dates || wrong('ends_on')" id="dates-wrong" class="p-invalid-words" role="alert">{{
        dates || wrong('ends_on')
      }}</span></label
    >
    <SelectField v-model="form.build_id" form label="Build" none="None yet" :options="builds" />
    <div v-if="setup.environments.length > 0">
      <SelectField
        v-model="form.environment_id"
        form
        label="Environment"
        none="None"
        :options="setup.environments.map((e) => ({ value: e.id, label: e.name }))"
      />
      <span v-if="wrong('environment_id')" class="p-invalid-words" role="alert">{{
        wrong('environment_id')
      }}</span>
      <span v-else-if="elsewhere" class="soft small">{{ elsewhere }}</span>
    </div>
    <SelectField
      v-model="form.phase"
      form
      label="Phase"
      none="None"
      :options="setup.phases.map((p) => ({ value: p.value, label: p.name }))"
    />
    <div>
      <PickMany
        v-model="form.testers"
        label="Testers, in this order"
        none="Nobody yet"
        :options="asOptions(recorders)"
      />
      <span v-if="wrong('testers')" class="p-invalid-words" role="alert">{{ wrong('testers') }}</span>
    </div>
    <SelectField
      v-model="form.default_assignee_id"
      form
      label="Whoever gets what nobody has"
      none="Nobody"
      :options="asOptions(recorders)"
    />
    <PickMany
      v-model="form.watchers"
      label="Watchers, told when it ends"
      none="Nobody"
      :options="asOptions(setup.people)"
    />
    <label
      ><span class="label">Folder</span
      ><input
        v-model="form.folder"
        class="field"
        maxlength="200"
        list="cycle-folders"
        placeholder="None" /><datalist id="cycle-folders">
        <option v-for="f in folders" :key="f" :value="f" /></datalist
    ></label>
    <label class="wide"
      ><span class="label">What it is for</span
      ><textarea v-model="form.description" class="field" rows="2" maxlength="20000" />
    </label>
    <label class="tick wide"
      ><input v-model="form.conditions_hold" type="checkbox" /> Conditions hold entries back. Without this
      they only warn, and walking on asks for a word.</label
    >
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 12px 16px;
  align-items: start;
}
.wide {
  grid-column: 1 / -1;
}
.tick {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
</style>
