<script setup lang="ts">
import { ref } from 'vue';
import { Problem, type Api } from '@/api/client';
import { saveCycle } from '@/areas/cycles/queries';
import { toast } from '@/kit/notices';
import CycleFields, { type CycleInput } from './CycleFields.vue';

/** The facts of a cycle: what one typed stays until it is saved, also when somebody else saved in between. */
const props = defineProps<{
  cycle: Api['CycleDetail'];
  setup: Api['PlanningSetup'];
  milestones: Api['MilestoneLine'][];
  folders: string[];
}>();
const emit = defineEmits<{ saved: []; stale: []; close: [] }>();
let revision = props.cycle.revision;
const form = ref<CycleInput>({
  name: props.cycle.cycle.name,
  description: props.cycle.cycle.description,
  starts_on: props.cycle.cycle.starts_on,
  ends_on: props.cycle.cycle.ends_on,
  build_id: props.cycle.build_id,
  environment_id: props.cycle.environment_id,
  milestone_id: props.cycle.milestone?.id ?? null,
  phase: props.cycle.phase || null,
  folder: props.cycle.folder,
  priority: props.cycle.priority || null,
  conditions_hold: props.cycle.cycle.conditions_hold,
  default_assignee_id: props.cycle.default_assignee_id,
  testers: props.cycle.testers.map((t) => t.id),
  watchers: props.cycle.watchers.map((w) => w.id),
});
const errors = ref<Record<string, string[]>>({});
const clash = ref('');
async function save(): Promise<void> {
  errors.value = {};
  clash.value = '';
  try {
    await saveCycle(props.cycle.cycle.key, {
      ...form.value,
      phase: form.value.phase ?? '',
      priority: form.value.priority ?? '',
      revision,
    });
    toast('Saved.');
    emit('saved');
    emit('close');
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    errors.value = e.errors;
    // Whoever saves once more has been told.
    if (typeof e.facts.revision === 'number') revision = e.facts.revision;
    if (e.status === 412 || Object.keys(e.errors).length === 0) clash.value = e.message;
    emit('stale');
  }
}
</script>

<template>
  <form class="sheet facts" @submit.prevent="save()">
    <CycleFields v-model="form" :setup="setup" :milestones="milestones" :folders="folders" :errors="errors" />
    <p v-if="clash" class="p-invalid-words" role="alert">{{ clash }}</p>
    <p class="row">
      <button type="submit" class="link">Save</button>
      <button v-if="clash" type="button" class="link" @click="save()">Save mine all the same</button>
      <button type="button" class="link soft" @click="emit('close')">Leave it as it was</button>
    </p>
  </form>
</template>

<style scoped>
.facts {
  padding: 14px 18px;
  display: grid;
  gap: 12px;
  margin-bottom: 12px;
}
</style>
