<script setup lang="ts">
import CapacityForm from '@/areas/setup/parts/CapacityForm.vue';
import SetupSection from '@/areas/setup/parts/SetupSection.vue';
import { watch } from 'vue';
import { durationText, parseMinutes } from '@/kit/duration';
import type { Api } from '@/api/client';
import { saveCalendar, saveCapacity } from '@/areas/setup/queries';
import { useEditable } from '@/kit/useEditable';
import { seenNow, useSeen } from '@/kit/useSeen';
import { useSaving } from '@/areas/setup/useSaving';
import { session } from '@/areas/people/session';

/** When the project works, and how much each person can walk in a day. */
const props = defineProps<{ project: string; setup: Api['PlanningSetup'] }>();
const emit = defineEmits<{ saved: [now: Api['PlanningSetup'] | undefined] }>();
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const { problem, run } = useSaving<Api['PlanningSetup']>((now) => emit('saved', now));
const list = (text: string): string[] => text.split(/[\s,]+/).filter(Boolean);
const calendar = useEditable(() => ({
  week: [...props.setup.working_days],
  holidays: props.setup.holidays.join(' '),
  zone: props.setup.time_zone,
}));
const people = useEditable(() =>
  Object.fromEntries(
    props.setup.people.map((p) => [
      p.id,
      { minutes: durationText(60_000 * p.minutes_per_day), off: p.days_off.join(' '), seen: p.seen },
    ]),
  ),
);
const zones = Intl.supportedValuesOf('timeZone');
const { form, dirty } = calendar;
// Ticked off and on again, a day is where it was.
watch(
  () => form.value.week.length,
  () => form.value.week.sort(),
);
const times = people.form;
const send = useSeen(() => props.setup.seen.calendar ?? '', dirty);
async function save(): Promise<void> {
  const { week, holidays, zone } = form.value;
  const body = { working_days: week, holidays: list(holidays), time_zone: zone };
  const written = await run(
    () => send((seen) => saveCalendar(props.project, { ...body, seen })),
    'Calendar saved.',
  );
  if (written) await calendar.follow();
}
async function person(id: string): Promise<void> {
  const t = times.value[id];
  if (!t) return;
  const minutes = t.minutes.trim() === '0' || t.minutes.trim() === '0m' ? 0 : parseMinutes(t.minutes);
  if (minutes === null) {
    problem.value = 'Write the time a day like 6h, 4h 30m or 90m; 0 for none.';
    return;
  }
  const body = { minutes_per_day: minutes, days_off: list(t.off), seen: t.seen };
  const written = await run(
    () =>
      saveCapacity(props.project, id, body).catch((error: unknown) => {
        t.seen = seenNow(error) ?? t.seen;
        throw error;
      }),
    'Saved.',
  );
  // What is typed of others stays.
  if (written) await people.follow(id);
}
const mine = (id: string): boolean => props.setup.may_plan || session.value?.user.id === id;
</script>

<template>
  <SetupSection
    title="Working days and time"
    what="When there is work, by the project’s own zone. Assigning goes by each person’s time; your own is yours to change."
  >
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <p class="row" role="group" aria-label="Working days">
      <label v-for="(d, i) in DAYS" :key="d" class="tick"
        ><input v-model="form.week" type="checkbox" :value="i + 1" :disabled="!setup.may_plan" />
        {{ d }}</label
      >
    </p>
    <div class="pair">
      <label
        ><span class="label">Holidays, such as 2026-12-25</span
        ><input v-model="form.holidays" class="field" placeholder="None" :disabled="!setup.may_plan"
      /></label>
      <label
        ><span class="label">Time zone</span
        ><select v-model="form.zone" class="field" :disabled="!setup.may_plan">
          <option v-for="z in zones" :key="z" :value="z">{{ z }}</option>
        </select></label
      >
    </div>
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
            {{ p.name }} <span class="soft small">{{ p.role }}</span>
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
    <CapacityForm v-if="setup.may_plan" :project="project" @taken="emit('saved', undefined)" />
  </SetupSection>
</template>

<style scoped>
.tick {
  display: flex;
  gap: 4px;
  align-items: center;
}
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(16rem, 1fr));
  gap: 8px 16px;
}
.short {
  width: 84px;
}
</style>
