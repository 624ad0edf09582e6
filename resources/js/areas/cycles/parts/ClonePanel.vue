<script setup lang="ts">
import Button from 'primevue/button';
import { computed, reactive, ref } from 'vue';
import { useRouter } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import {
  cloneCycle,
  cloneMilestone,
  previewCycleClone,
  previewMilestoneClone,
  listMilestones,
} from '@/areas/cycles/queries';
import DateField from '@/kit/DateField.vue';
import SelectField from '@/kit/SelectField.vue';
import { toast } from '@/kit/notices';
import { day, plural } from '@/kit/words';
import { useRead } from '@/offline/useRead';
import { useAnswer } from '@/kit/useAnswer';

/** A cycle, or a milestone with all its cycles, again: old and new dates beside each other before anything is made. */
const props = defineProps<{
  project: string;
  setup: Api['PlanningSetup'];
  cycle?: Api['CycleSummary'];
  milestone?: Api['MilestoneLine'];
}>();
const emit = defineEmits<{ close: []; made: [] }>();
const router = useRouter();
const later = (date: string, by: number): string =>
  new Date(new Date(`${date}T12:00:00Z`).getTime() + by * 86_400_000).toISOString().slice(0, 10);
const how = reactive({
  name: props.cycle ? `${props.cycle.name}, again` : `${props.milestone?.name ?? ''}, next`,
  date: props.cycle ? later(props.cycle.ends_on, 1) : later(props.milestone?.due_on ?? '2026-01-01', 28),
  which: 'all' as NonNullable<Api['CloneRequest']['which']>,
  build_id: null as string | null,
  milestone_id: props.cycle?.milestone_id ?? null,
  off_days: true,
  people: true,
});
const { data: all } = useRead(
  'cycle',
  () => ['milestones', props.project],
  () => listMilestones(props.project),
);
const milestones = computed(() =>
  (all.value ?? []).map((m) => ({ value: m.id, label: `${m.name}, due ${day(m.due_on)}` })),
);
const WHICH = [
  { value: 'all', label: 'All entries' },
  { value: 'failed', label: 'Failed ones' },
  { value: 'failed_blocked', label: 'Failed, blocked and retest' },
  { value: 'not_run', label: 'Not run' },
  { value: 'open', label: 'All that did not pass' },
];
const problem = ref('');
const body = computed(() => ({
  name: how.name,
  [props.cycle ? 'starts_on' : 'due_on']: how.date,
  which: how.which,
  build_id: how.build_id,
  ...(props.cycle ? { milestone_id: how.milestone_id } : {}),
  off_days: how.off_days,
  people: how.people,
}));
const { answer: preview, refusal } = useAnswer(
  'again',
  body,
  () =>
    props.cycle
      ? previewCycleClone(props.cycle.key, body.value)
      : previewMilestoneClone(props.milestone!.id, body.value),
  () => how.name.trim() !== '' && how.date !== '',
);
async function make(): Promise<void> {
  problem.value = '';
  try {
    if (props.cycle) {
      const made = await cloneCycle(props.cycle.key, body.value);
      toast(`${made.cycle.name} is there, as a draft.`);
      emit('close');
      await router.push(`/${props.project}/cycles/${made.cycle.key}/plan`);
    } else {
      await cloneMilestone(props.milestone!.id, body.value);
      toast(`${how.name} is there, with ${plural(preview.value?.moves.length ?? 0, 'cycle')} as drafts.`);
      emit('made');
      emit('close');
    }
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
</script>

<template>
  <form
    class="sheet panel"
    :aria-label="cycle ? 'This cycle again' : 'This milestone again'"
    @submit.prevent="make"
  >
    <h2>{{ cycle ? 'This cycle again' : `“${milestone?.name}” again, with its cycles` }}</h2>
    <div class="fields">
      <label class="wide"
        ><span class="label">Name</span><input v-model="how.name" class="field" maxlength="200"
      /></label>
      <label
        ><span class="label">{{ cycle ? 'First day' : 'New date' }}</span
        ><DateField v-model="how.date" :label="cycle ? 'First day' : 'New date'"
      /></label>
      <SelectField v-model="how.which" label="Which entries" form :options="WHICH" />
      <SelectField
        v-model="how.build_id"
        label="Build"
        form
        none="The same"
        :options="[...setup.builds].reverse().map((b) => ({ value: b.id, label: b.name }))"
      />
      <SelectField
        v-if="cycle"
        v-model="how.milestone_id"
        label="Milestone"
        form
        none="None"
        :options="milestones"
      />
    </div>
    <p class="row">
      <label class="tick"
        ><input v-model="how.off_days" type="checkbox" /> Starts and ends avoid days off</label
      >
      <label class="tick"><input v-model="how.people" type="checkbox" /> The same people</label>
    </p>
    <table v-if="preview" class="lines">
      <thead>
        <tr>
          <th>Cycle</th>
          <th>Was</th>
          <th>Will be</th>
          <th class="number">Entries</th>
          <th class="number">Windows moved</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="m in preview.moves" :key="m.cycle_id">
          <td class="long">{{ m.name }}</td>
          <td class="soft">{{ day(m.starts_on) }} to {{ day(m.ends_on) }}</td>
          <td>{{ day(m.new_starts_on) }} to {{ day(m.new_ends_on) }}</td>
          <td class="number">{{ m.entries }}</td>
          <td class="number">{{ m.windows || '' }}</td>
        </tr>
      </tbody>
    </table>
    <p v-for="n in preview?.notes ?? []" :key="n" class="small">{{ n }}</p>
    <p v-for="f in preview?.faults ?? []" :key="f" class="p-invalid-words" role="alert">{{ f }}</p>
    <p v-if="problem || refusal" class="p-invalid-words" role="alert">
      {{ problem || errorMessage(refusal) }}
    </p>
    <p class="row">
      <Button type="submit" :disabled="!preview || preview.faults.length > 0" label="Make it" />
      <button type="button" class="link soft" @click="emit('close')">Leave it</button>
    </p>
  </form>
</template>

<style scoped>
.panel {
  padding: 14px 18px;
  display: grid;
  gap: 10px;
  margin-bottom: 12px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: 12px 16px;
}
.tick {
  display: flex;
  gap: 6px;
  align-items: center;
}
</style>
