import { otherZone, projectDay, typedTime, zone } from '@/kit/zone';
import type { Api } from '@/api/client';

export type Shown = Api['EntryLine']['display_state'] | 'held' | 'uncovered';

const WORDS: Record<Shown, string> = {
  pass: 'Pass',
  fail: 'Fail',
  blocked: 'Blocked',
  not_applicable: 'Not applicable',
  not_run: 'Not run',
  in_progress: 'In progress',
  retest: 'Retest',
  held: 'Held',
  uncovered: 'No case yet',
};

/** What is shown of an entry or step, in words. */
export function wordOf(shown: Shown): string {
  return WORDS[shown];
}

/** What every list of entries tells of how one stands. */
type EntryState = Pick<Api['EntryLine'], 'display_state' | 'readiness' | 'previous_verdict'>;

/** An entry's mark: held stands beside not run and retest only where nothing else is to be said. */
export function shownOf(entry: EntryState): Shown {
  return entry.display_state === 'not_run' && entry.readiness === 'held' ? 'held' : entry.display_state;
}

/** An entry in words, such as "Retest (was fail)". */
export function entryWords(entry: EntryState): string {
  const was = entry.previous_verdict ? ` (was ${entry.previous_verdict.replace('_', ' ')})` : '';
  return wordOf(shownOf(entry)) + was;
}

/** Why an entry is held, in words. */
export function reasonWords(reason: Api['Reason']): string {
  const at = reason.at ? when(reason.at) : '';
  switch (reason.kind) {
    case 'waits_for':
      return `waits for ${reason.name}`;
    case 'needs_pass':
      return `needs a pass of ${reason.name}`;
    case 'needs_pass_not_applicable':
      return `needs a pass of ${reason.name}, which is not applicable`;
    case 'stopped':
      return `waits on ${reason.name}, which did not pass`;
    case 'too_early':
      return `not before ${at}`;
    case 'too_late':
      return `too late since ${at}`;
  }
}

export const upperFirst = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
export const plainWords = (name: string): string => upperFirst(name.replaceAll('_', ' '));

/** A moment for people: the day when it is not today, and the time. */
export function when(iso: string): string {
  const date = new Date(iso);
  const timeZone = zone.value;
  const of = (at: Date): string =>
    at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone });
  const time = date.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit', timeZone });
  return projectDay() === typedTime(iso).slice(0, 10) ? time : `${of(date)}, ${time}`;
}

/** How long ago, in words; the exact time belongs in the title. */
export function ago(iso: string): string {
  const minutes = Math.round((Date.now() - new Date(iso).getTime()) / 60_000);
  if (minutes < 1) return 'just now';
  if (minutes < 60) return `${minutes} min ago`;
  if (minutes < 24 * 60) return `${Math.round(minutes / 60)} h ago`;
  const days = Math.round(minutes / 1440);
  return days === 1 ? 'yesterday' : `${days} days ago`;
}

/** How long something has been so, by its greatest part. */
export function span(ms: number): string {
  const minutes = Math.floor(ms / 60_000);
  if (minutes < 1) return 'less than a minute';
  if (minutes < 60) return plural(minutes, 'minute');
  const hours = Math.floor(minutes / 60);
  return hours < 48 ? plural(hours, 'hour') : plural(Math.floor(hours / 24), 'day');
}
/** A moment to the second, with the zone where it is another than the reader's. */
export function exact(iso: string): string {
  const timeZone = zone.value;
  const at = new Date(iso).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'medium', timeZone });
  return otherZone() ? `${at}, ${timeZone}` : at;
}

/** A date such as "27 Nov". */
export function day(date: string): string {
  return new Date(`${date}T12:00:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' });
}

/** When a cycle is due, in words. */
export function due(date: string): string {
  const days = Math.round((Date.parse(date) - Date.parse(projectDay())) / 86_400_000);
  if (days < 0) return `was due ${day(date)}`;
  if (days === 0) return 'due today';
  return days === 1 ? 'due tomorrow' : `due ${day(date)}`;
}

/** A running clock, "4:12" or "1:04:12". */
export function clock(ms: number): string {
  const seconds = Math.floor(ms / 1000);
  const two = (n: number): string => String(n).padStart(2, '0');
  const h = Math.floor(seconds / 3600);
  const m = Math.floor((seconds % 3600) / 60);
  return h > 0 ? `${h}:${two(m)}:${two(seconds % 60)}` : `${m}:${two(seconds % 60)}`;
}

export const plural = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** How large a file is, in KB or MB. */
export const sizeWords = (bytes: number): string =>
  bytes < 1024 * 1024
    ? `${Math.max(1, Math.round(bytes / 1024))} KB`
    : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
