<script setup lang="ts">
import { projectDay } from '@/kit/zone';
import { durationText } from '@/kit/duration';
import Button from 'primevue/button';
import { computed, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { Problem, type Api } from '@/api/client';
import { createCycle } from '@/areas/cycles/queries';
import { chosenCases } from '@/areas/casebook/filter';
import StateBox from '@/kit/StateBox.vue';
import { day, plural } from '@/kit/words';
import CycleFields, { type CycleInput } from '@/areas/cycles/parts/CycleFields.vue';
import SelectionPanel from '@/areas/cycles/parts/SelectionPanel.vue';
import { useCycles, useMilestones, type Picks } from '@/areas/cycles/usePlan';
import { usePlanningSetup } from '@/areas/setup/queries';
import { loadLocal, removeLocal, saveLocal } from '@/offline/device';

/** A cycle on one page: what, when, who, with the count and the hours always in sight. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { data: setup, error, isPending, refetch } = usePlanningSetup(project);
const { data: milestones } = useMilestones(project);
const { data: cycles } = useCycles(project);
const DRAFT = computed(() => `draft:new-cycle:${project.value}`);
const form = ref<CycleInput>({
  name: '',
  description: '',
  starts_on: projectDay(),
  ends_on: projectDay(4),
  build_id: null,
  environment_id: null,
  milestone_id: typeof route.query.milestone === 'string' ? route.query.milestone : null,
  phase: null,
  folder: '',
  priority: null,
  conditions_hold: true,
  default_assignee_id: null,
  testers: [],
  watchers: [],
});
// What was typed is kept on the device until the cycle is there.
let there = false;
onMounted(async () => {
  const kept = await loadLocal<CycleInput>(DRAFT.value);
  if (kept) Object.assign(form.value, kept);
  there = true;
  document.getElementById('cycle-name')?.focus();
});
watch(form, (now) => void (there && saveLocal(DRAFT.value, JSON.parse(JSON.stringify(now)))), { deep: true });
// A cycle begun from somewhere has everything filled in that can be known.
watch(
  setup,
  (now) => {
    if (!now) return;
    form.value.build_id ??= now.builds[now.builds.length - 1]?.id ?? null;
    if (form.value.testers.length === 0)
      form.value.testers = now.people
        .filter((p) => p.role === 'tester' && p.minutes_per_day > 0)
        .map((p) => p.id);
    if (!form.value.name && (given.value.cases || given.value.filter))
      form.value.name = `Selection of ${day(projectDay())}`;
  },
  { immediate: true },
);
const given = computed<Picks>(() => {
  const out: Picks = {};
  if (typeof route.query.cases === 'string' && route.query.cases) out.cases = chosenCases(route.query.cases);
  if (typeof route.query.filter === 'string' && route.query.filter)
    out.filter = JSON.parse(route.query.filter) as Record<string, string>;
  return out;
});
const picks = ref<Picks>({});
const count = ref<Api['SelectionCount'] | null>(null);
const errors = ref<Record<string, string[]>>({});
const problem = ref('');
const busy = ref(false);
async function save(): Promise<void> {
  errors.value = {};
  problem.value = '';
  busy.value = true;
  try {
    const made = await createCycle(project.value, {
      ...form.value,
      phase: form.value.phase ?? '',
      priority: form.value.priority ?? '',
      picks: picks.value,
    });
    there = false;
    await removeLocal(DRAFT.value);
    await router.push(`/${project.value}/cycles/${made.cycle.key}/plan`);
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    errors.value = e.errors;
    const own = Object.entries(e.errors).find(([k]) => k.startsWith('picks'))?.[1][0];
    problem.value = own ?? (Object.keys(e.errors).length > 0 ? 'Look at the marked fields.' : e.message);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <div class="page">
    <p class="soft small crumb"><RouterLink :to="`/${project}/cycles`">Cycles</RouterLink></p>
    <StateBox v-if="!setup" :loading="isPending" :error="error" @again="refetch()" />
    <StateBox v-else-if="!setup.may_plan" empty="Leads and admins plan cycles." />
    <form v-else @submit.prevent="save">
      <div class="title-line">
        <h1>New cycle</h1>
        <div class="actions">
          <span role="status" class="soft">
            <template v-if="count && count.cases > 0"
              ><strong class="ink">{{ plural(count.entries, 'entry', 'entries') }}</strong
              >, about <strong class="ink">{{ durationText(1000 * count.seconds) }}</strong></template
            ><template v-else>No entries yet</template
            ><template v-if="count">
              · {{ durationText(1000 * count.capacity_seconds) }} of
              {{ plural(form.testers.length, 'tester') }} in {{ plural(count.days, 'working day') }}</template
            >
          </span>
          <Button type="submit" :disabled="busy" label="Make the cycle" />
        </div>
      </div>
      <p
        v-if="count && form.testers.length > 0 && count.seconds > count.capacity_seconds"
        class="p-invalid-words"
        role="status"
      >
        That is more than there is time for:
        {{ durationText(1000 * (count.seconds - count.capacity_seconds)) }} too much.
      </p>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      <section class="sheet" aria-label="What and when">
        <h2>What and when</h2>
        <CycleFields
          v-model="form"
          :setup="setup"
          :milestones="milestones ?? []"
          :folders="[...new Set((cycles ?? []).map((c) => c.folder).filter(Boolean))]"
          :errors="errors"
        />
      </section>
      <section class="sheet" aria-label="What is walked">
        <h2>What is walked</h2>
        <SelectionPanel
          v-model="picks"
          :project="project"
          :setup="setup"
          :cycles="cycles ?? []"
          :given="given"
          :when="{ starts_on: form.starts_on, ends_on: form.ends_on, testers: form.testers }"
          @count="count = $event"
        />
      </section>
    </form>
  </div>
</template>

<style scoped>
form {
  display: grid;
  gap: 16px;
}
.title-line {
  margin-bottom: 0;
}
section {
  padding: 16px 20px 20px;
  display: grid;
  gap: 12px;
}
.ink {
  color: var(--ink);
}
</style>
