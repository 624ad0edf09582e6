import { afterEach, describe, expect, it, vi } from 'vitest';
import { momentOf, otherZone, ownZone, projectDay, typedTime, zone } from '@/kit/zone';
import { due, exact, when } from '@/kit/words';

const ZONES = [
  'Europe/Berlin',
  'America/New_York',
  'Asia/Kolkata',
  'Pacific/Chatham',
  'Australia/Lord_Howe',
  'UTC',
];

afterEach(() => {
  zone.value = undefined;
  ownZone.value = undefined;
  vi.useRealTimers();
});

describe('the time zone of the project', () => {
  it('counts before one’s own, which counts where there is none, and says so where they are apart', () => {
    ownZone.value = 'Asia/Kolkata';
    expect(typedTime('2026-11-29T14:00:00Z')).toBe('2026-11-29T19:30');
    expect(otherZone()).toBe('');
    zone.value = 'Europe/Berlin';
    expect(typedTime('2026-11-29T14:00:00Z')).toBe('2026-11-29T15:00');
    expect(exact('2026-11-29T14:00:00Z')).toContain('Europe/Berlin');
    ownZone.value = 'Europe/Paris';
    expect(otherZone()).toBe('');
  });

  it('is that in which times are typed, whatever the browser’s is', () => {
    zone.value = 'Europe/Berlin';
    expect(momentOf('2026-11-29T09:00')).toBe('2026-11-29T08:00:00.000Z');
    expect(momentOf('2026-07-01T09:00')).toBe('2026-07-01T07:00:00.000Z');
    zone.value = 'America/New_York';
    expect(momentOf('2026-11-29T09:00')).toBe('2026-11-29T14:00:00.000Z');
    expect(typedTime('2026-11-29T14:00:00Z')).toBe('2026-11-29T09:00');
  });

  it('gives back what was typed, in every hour of two years, but for the hours that its clocks leave out', () => {
    for (const name of ZONES) {
      zone.value = name;
      for (let hour = 0; hour < 2 * 365 * 24; hour += 5) {
        const iso = new Date(Date.UTC(2026, 0, 1, hour, 30)).toISOString();
        const typed = typedTime(iso);
        expect(typedTime(momentOf(typed)), `${name} ${typed}`).toBe(typed);
        // The only other moment with the same clock is the second of two, an hour or half of one later.
        const off = Date.parse(iso) - Date.parse(momentOf(typed));
        expect([0, 1_800_000, 3_600_000], `${name} ${typed}`).toContain(off);
      }
    }
  });

  it('takes the first of two equal times, and moves one that is left out on', () => {
    zone.value = 'Europe/Berlin';
    expect(momentOf('2026-10-25T02:30')).toBe('2026-10-25T00:30:00.000Z');
    expect(typedTime(momentOf('2026-03-29T02:30'))).toBe('2026-03-29T03:30');
  });

  it('is that in which times are shown, and is named where the reader’s clock is another', () => {
    vi.useFakeTimers({ now: new Date('2026-11-29T23:30:00Z') });
    zone.value = 'Europe/Berlin';
    expect(projectDay()).toBe('2026-11-30');
    expect(projectDay(4)).toBe('2026-12-04');
    expect(when('2026-11-29T23:05:00Z')).toBe('00:05');
    expect(when('2026-11-29T22:05:00Z')).toBe('29 Nov, 23:05');
    expect(due('2026-11-30')).toBe('due today');
    zone.value = 'America/New_York';
    expect(projectDay()).toBe('2026-11-29');
    expect(due('2026-11-30')).toBe('due tomorrow');
    expect(exact('2026-11-29T23:05:00Z')).toContain('18:05:00');
    zone.value = 'Pacific/Chatham';
    expect(otherZone()).toBe('Pacific/Chatham');
    expect(exact('2026-11-29T23:05:00Z')).toContain('12:50:00, Pacific/Chatham');
    zone.value = Intl.DateTimeFormat().resolvedOptions().timeZone;
    expect(otherZone()).toBe('');
    expect(exact('2026-11-29T23:05:00Z')).not.toContain(zone.value);
  });
});
