<script setup lang="ts">
import { durationText, parseMinutes } from '@/kit/duration';
import { computed, reactive, ref, watch } from 'vue';
import { api, type Api } from '@/api/client';
import { sentenceOf } from '@/areas/cycles/usePlan';
import { toast } from '@/kit/notices';
import { session } from '@/areas/people/session';

/** When the project works, and how much each person can walk in a day. */
const props = defineProps<{ project: string; setup: Api['PlanningSetup'] }>();
const emit = defineEmits<{ saved: [now: Api['PlanningSetup'] | undefined] }>();
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const week = ref<number[]>([]);
const holidays = ref('');
const zone = ref('');
const times = reactive<Record<string, { minutes: string; off: string }>>({});
const problem = ref('');
const list = (text: string): string[] => text.split(/[\s,]+/).filter(Boolean);
const differs = (from: Api['PlanningSetup']): boolean =>
  JSON.stringify([[...week.value].sort(), list(holidays.value), zone.value]) !==
  JSON.stringify([[...from.working_days].sort(), from.holidays, from.time_zone]);
watch(
  () => props.setup,
  (now, before) => {
    // What is typed stays when the setup is read anew.
    if (!before || !differs(before)) {
      week.value = [...now.working_days];
      holidays.value = now.holidays.join(' ');
      zone.value = now.time_zone;
    }
    for (const p of now.people)
      times[p.id] = { minutes: durationText(1000 * (p.minutes_per_day * 60)), off: p.days_off.join(' ') };
  },
  { immediate: true },
);
const zones = Intl.supportedValuesOf('timeZone');
async function run(
  work: () => Promise<{ data?: Api['PlanningSetup'] | undefined }>,
  words: string,
): Promise<void> {
  problem.value = '';
  try {
    const { data } = await work();
    emit('saved', data);
    toast(words);
  } catch (e) {
    problem.value = sentenceOf(e);
  }
}
const dirty = computed(() => differs(props.setup));
const save = (): Promise<void> =>
  run(
    () =>
      api.PUT('/projects/{project}/calendar', {
        params: { path: { project: props.project } },
        body: { working_days: week.value, holidays: list(holidays.value), time_zone: zone.value },
      }),
    'Calendar saved.',
  );
function person(id: string): void {
  const t = times[id];
  if (!t) return;
  const minutes = t.minutes.trim() === '0' || t.minutes.trim() === '0m' ? 0 : parseMinutes(t.minutes);
  if (minutes === null) {
    problem.value = 'Write the time a day like 6h, 4h 30m or 90m; 0 for none.';
    return;
  }
  void run(
    () =>
      api.PUT('/projects/{project}/people/{person}/capacity', {
        params: { path: { project: props.project, person: id } },
        body: { minutes_per_day: minutes, days_off: list(t.off) },
      }),
    'Saved.',
  );
}
const mine = (id: string): boolean => props.setup.may_plan || session.value?.user.id === id;
</script>

<template>
  <section aria-label="Working days and time">
    <h2>Working days and time</h2>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <p class="row" role="group" aria-label="Working days">
      <label v-for="(d, i) in DAYS" :key="d" class="tick"
        ><input v-model="week" type="checkbox" :value="i + 1" :disabled="!setup.may_plan" /> {{ d }}</label
      >
    </p>
    <label
      ><span class="label">Holidays, such as 2026-12-25</span
      ><input v-model="holidays" class="field" placeholder="None" :disabled="!setup.may_plan"
    /></label>
    <label
      ><span class="label">Time zone</span
      ><select v-model="zone" class="field" :disabled="!setup.may_plan">
        <option v-for="z in zones" :key="z" :value="z">{{ z }}</option>
      </select></label
    >
    <p v-if="dirty && setup.may_plan">
      <button type="button" class="link" @click="save">Save the calendar</button>
    </p>
    <table class="lines">
      <thead>
        <tr>
          <th>Person</th>
          <th>Time a day</th>
          <th>Days off</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="p in setup.people" :key="p.id">
          <td>
            {{ p.name }}<span class="soft small"> {{ p.role }}</span>
          </td>
          <td>
            <input
              v-model="times[p.id]!.minutes"
              class="field short"
              :aria-label="`Time a day of ${p.name}`"
              :disabled="!mine(p.id)"
              @change="person(p.id)"
            />
          </td>
          <td>
            <input
              v-model="times[p.id]!.off"
              class="field"
              placeholder="None"
              :aria-label="`Days off of ${p.name}`"
              :disabled="!mine(p.id)"
              @change="person(p.id)"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  align-content: start;
}
.tick {
  display: flex;
  gap: 4px;
  align-items: center;
}
.short {
  width: 84px;
}
</style>
