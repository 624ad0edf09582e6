import { computed, ref } from 'vue';

/** The person's own time zone; undefined for the browser's. */
export const ownZone = ref<string>();
const ofProject = ref<string>();
/**
 * The time zone of the project in which one is: all times are typed and shown in it, whatever one's own is. Outside of projects
 * one's own.
 */
export const zone = computed({
  get: () => ofProject.value ?? ownZone.value,
  set: (now: string | undefined) => (ofProject.value = now),
});

const clocks = new Map<string, Intl.DateTimeFormat>();
/** A moment by the clocks of a zone: 2026-11-29 09:00:00. */
function clockOf(ms: number, timeZone: string | undefined): string {
  let clock = clocks.get(timeZone ?? '');
  if (!clock) {
    clock = new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short', timeStyle: 'medium' });
    clocks.set(timeZone ?? '', clock);
  }
  return clock.format(ms);
}
const utcOf = ([year = 0, month = 1, day = 1, hour = 0, minute = 0, second = 0]: number[]): number =>
  Date.UTC(year, month - 1, day, hour, minute, second);
/** How far a zone is ahead of UTC at a moment, in ms. */
const ahead = (ms: number, timeZone: string | undefined): number =>
  utcOf(clockOf(ms, timeZone).split(/[- :]/).map(Number)) - Math.floor(ms / 1000) * 1000;

/** A moment as it is typed in the project: 2026-11-29T09:00. */
export const typedTime = (iso: string): string =>
  clockOf(Date.parse(iso), zone.value).slice(0, 16).replace(' ', 'T');

/**
 * The moment that was typed in the project. A time that its clocks show twice is the first of the two; one that they leave out
 * is as much later as they are put on.
 */
export function momentOf(typed: string): string {
  const local = utcOf(typed.split(/[-T:]/).map(Number));
  const [before, after] = [-1, 1].map((day) => ahead(local + day * 86_400_000, zone.value)) as [
    number,
    number,
  ];
  const first = local - Math.max(before, after);
  const fits = ahead(first, zone.value) === Math.max(before, after);
  return new Date(fits ? first : local - Math.min(before, after)).toISOString();
}

/** The project's zone, where its clocks show another time now than the reader's; empty where they do not. */
export const otherZone = (): string =>
  zone.value && ahead(Date.now(), zone.value) !== ahead(Date.now(), ownZone.value) ? zone.value : '';

/** A day of the project, so many days from its today: 2026-11-29. */
export const projectDay = (plus = 0): string =>
  new Date(Date.parse(typedTime(new Date().toISOString()).slice(0, 10)) + plus * 86_400_000)
    .toISOString()
    .slice(0, 10);
