const LONGEST_MS = 24 * 3_600_000;
/** What the server says of a text that is no duration. */
export const DURATION_HINT = 'Write it like 90s, 12m, 1h 20m, 1.5h, 1:30 (min:s), 1:05:00 or 15 (minutes).';

const NUMBER = '(\\d{1,6}(?:[.,]\\d{1,4})?)';
const BARE = new RegExp(`^${NUMBER}$`);
const HOURS_AND_MORE = new RegExp(`^${NUMBER}\\s*(?:h|hr|hrs|hours?)\\s*(\\d{1,6})$`);
const UNITS = new RegExp(
  `^(?:${NUMBER}\\s*(?:h|hr|hrs|hours?))?\\s*(?:${NUMBER}\\s*(?:m|min|mins|minutes?))?\\s*(?:${NUMBER}\\s*(?:s|sec|secs|seconds?))?$`,
);
const COLONS = /^(\d{1,5}):(\d{1,2})(?::(\d{1,2}))?$/;
const number = (text: string | undefined): number | null =>
  text === undefined ? null : Number(text.replace(',', '.'));

/**
 * A length of time as people type it, in ms: `90s`, `12m`, `1h 20m`, `1h20`, `1.5h`, `1:30` (min:s), `1:05:00`
 * (h:min:s) or a bare `15` (minutes); null when it is none, not above zero, over 24 hours, or a part after the first is
 * over 59. The server reads the same examples (tests/shared/durations.json).
 */
export function parseDuration(text: string): number | null {
  const clean = text.trim().toLowerCase();
  const seconds = colons(clean) ?? units(clean);
  const ms = seconds === null ? 0 : Math.round(seconds * 1000);
  return ms > 0 && ms <= LONGEST_MS ? ms : null;
}

function colons(clean: string): number | null {
  const found = COLONS.exec(clean);
  if (!found) return null;
  const parts = found.slice(1).filter((p) => p !== undefined);
  if (parts.slice(1).some((p) => Number(p) > 59)) return null;
  return parts.reduce((sum, p) => sum * 60 + Number(p), 0);
}

function units(clean: string): number | null {
  if (clean === '') return null;
  const bare = BARE.exec(clean);
  if (bare) return number(bare[1])! * 60;
  const short = HOURS_AND_MORE.exec(clean);
  const found = short ? [short[1], short[2], undefined] : UNITS.exec(clean)?.slice(1);
  if (!found) return null;
  const given = found.map(number);
  const first = given.findIndex((n) => n !== null);
  if (first < 0 || given.some((n, i) => i > first && n !== null && n >= 60)) return null;
  return [3600, 60, 1].reduce((sum, size, i) => sum + (given[i] ?? 0) * size, 0);
}

/** A length of time for people, to the minute from one minute on: "45s", "12m", "1h 20m", "120h". */
export function durationText(ms: number): string {
  if (ms === 0) return '0m';
  const seconds = Math.round(ms / 1000);
  if (seconds < 60) return `${seconds}s`;
  const minutes = Math.round(seconds / 60);
  const h = Math.floor(minutes / 60);
  if (h >= 100) return `${h}h`;
  if (h === 0) return `${minutes}m`;
  return minutes % 60 > 0 ? `${h}h ${minutes % 60}m` : `${h}h`;
}

/** Whole minutes of a plan that somebody typed, which may be longer than a day; null for anything else, also for 1:30. */
export function parseMinutes(text: string): number | null {
  const seconds = units(text.trim().toLowerCase());
  const minutes = seconds === null ? 0 : Math.round(seconds / 60);
  return minutes > 0 ? minutes : null;
}
