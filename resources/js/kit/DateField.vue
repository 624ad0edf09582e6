<script lang="ts">
import { updatePreset } from '@primeuix/themes';
import datepicker from '@primeuix/themes/aura/datepicker';

updatePreset({ components: { datepicker } });
</script>

<script setup lang="ts">
import { usePrimeVue } from 'primevue/config';
import DatePicker from 'primevue/datepicker';
import { computed, ref } from 'vue';

/**
 * A day, typed as 2026-11-28 or picked; with `time` a moment, typed as 2026-11-28 14:30. Empty: none. What is no date is
 * said when the field is left.
 */
const chosen = defineModel<string>({ required: true });
const props = defineProps<{
  label: string;
  id?: string;
  time?: boolean;
  disabled?: boolean;
  invalid?: boolean;
  describedBy?: string;
  placeholder?: string;
}>();
const { locale } = usePrimeVue().config;
if (locale) locale.firstDayOfWeek = 1;
const two = (n: number): string => String(n).padStart(2, '0');
/** A day or moment as it is kept. */
function textOf(at: Date): string {
  const day = `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
  return props.time ? `${day}T${two(at.getHours())}:${two(at.getMinutes())}` : day;
}
const date = computed({
  get: () => (chosen.value === '' ? null : new Date(props.time ? chosen.value : `${chosen.value}T12:00`)),
  set: (day: unknown) => {
    if (day === null || day === '') chosen.value = '';
    else if (day instanceof Date && !Number.isNaN(day.getTime())) chosen.value = textOf(day);
    typed = null;
    wrong.value = '';
  },
});
/** What was typed since the field was left last; null: nothing. And what of it is said to be no date. */
let typed: string | null = null;
const wrong = ref('');
/** A typed date as it is kept, such as 2026-1-5 as 2026-01-05; null where the text is no date. */
function read(text: string): string | null {
  if (text === '') return '';
  const form = props.time ? /^(\d{4})-(\d\d?)-(\d\d?)[ T]+(\d\d?):(\d\d)$/ : /^(\d{4})-(\d\d?)-(\d\d?)$/;
  const found = form.exec(text)?.slice(1).map(Number);
  if (!found) return null;
  const [year = 0, month = 0, day = 0, hour = 0, minute = 0] = found;
  const at = new Date(year, month - 1, day, hour, minute);
  const same = at.getMonth() === month - 1 && at.getDate() === day;
  return same && hour < 24 && minute < 60 ? textOf(at) : null;
}
/**
 * A date written in full is taken at once; any other waits until the field is left. The date picker is not told: it would
 * complete a half-typed day under one's fingers (2026-12-2 on the way to 2026-12-20), and reads no typed time of 24 hours.
 */
function onInput(event: Event): void {
  event.stopPropagation();
  typed = (event.target as HTMLInputElement).value.trim();
  const now = read(typed);
  if (now === null || now.replace('T', ' ') !== typed) return;
  chosen.value = now;
  wrong.value = '';
}
function take(): void {
  if (typed === null) return;
  const now = read(typed);
  wrong.value = now === null ? typed : '';
  if (now !== null) chosen.value = now;
  typed = null;
}
/** A form is not sent with what was there before. */
function onEnter(event: Event): void {
  take();
  if (wrong.value !== '') event.preventDefault();
}
</script>

<template>
  <span class="date" @input.capture="onInput">
    <DatePicker
      v-model="date"
      date-format="yy-mm-dd"
      :show-time="time"
      hour-format="24"
      :input-id="id"
      :aria-label="label"
      :placeholder="placeholder ?? (time ? 'Date and time' : 'Date')"
      :disabled="disabled"
      :invalid="invalid || wrong !== ''"
      :pt="{ pcInputText: { root: { 'aria-describedby': describedBy, 'aria-label': label } } }"
      show-button-bar
      update-model-type="date"
      show-icon
      :show-on-focus="false"
      icon-display="input"
      fluid
      @blur="take"
      @keydown.enter="onEnter"
    />
    <span v-if="wrong" class="p-invalid-words" role="alert"
      >“{{ wrong }}” is no date. Write it like {{ time ? '2026-11-28 14:30' : '2026-11-28' }}.</span
    >
  </span>
</template>

<style scoped>
.date {
  display: block;
}
</style>
