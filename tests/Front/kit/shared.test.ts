import { describe, expect, it } from 'vitest';
import { nextEntry } from '@/areas/walk/nextEntry';
import { isText, maskFile, maskText } from '@/areas/walk/mask';
import { rollUp, setsVerdict } from '@/areas/walk/rollUp';
import { condense } from '@/kit/condense';
import { durationText, parseDuration } from '@/kit/duration';
import { isWhyGiven } from '@/kit/why';
import durations from '../../shared/durations.json';
import masks from '../../shared/masks.json';
import nexts from '../../shared/next-entry.json';
import textFiles from '../../shared/text-files.json';
import policies from '../../shared/policies.json';
import rollUps from '../../shared/roll-ups.json';
import trails from '../../shared/trail.json';
import why from '../../shared/words-of-why.json';

type Readiness = Parameters<typeof nextEntry>[0][number]['readiness'];
type RollUp = Parameters<typeof rollUp>[0][number];

const person = (id: string | null): { id: string; name: string } | null =>
  id === null ? null : { id, name: id };
const nextsOf = () =>
  nexts.map((example) => ({
    ...example,
    entries: (example.entries as [string, Readiness, string | null, string | null][]).map(
      ([id, readiness, assignee, walking]) => ({
        id,
        readiness,
        assignee: person(assignee),
        walking: person(walking),
      }),
    ),
  }));

/** What the device knows of the rules by itself, on the examples that the server runs too. */
describe('the rules that the device knows', () => {
  it.each(rollUps)('roll up “%s” to %s', (steps, expected) => {
    expect(rollUp(steps!.split(' ').filter(Boolean) as RollUp[])).toBe(expected);
  });
  it.each(Object.entries(durations.accepted))('read “%s” as %d ms', (text, ms) => {
    expect(parseDuration(text)).toBe(ms);
  });
  it.each(textFiles as [string, boolean][])('tell whether bytes %s are text: %s', async (hex, expected) => {
    const bytes = Uint8Array.from(hex.split(' ').filter(Boolean), (h) => parseInt(h, 16));
    expect(await isText(new Blob([bytes]))).toBe(expected);
  });
  it('hide in any text file, whatever it is called, and leave bytes as they are', async () => {
    const traffic = new File(['{"pin":"GEHEIM-4711"}'], 'a.har', { type: '' });
    expect(await (await maskFile(traffic, 'a.har', ['GEHEIM-4711'])).text()).toBe('{"pin":"••••"}');
    const document = new File(['%PDF-\0GEHEIM-4711'], 'a.pdf');
    expect(await maskFile(document, 'a.pdf', ['GEHEIM-4711'])).toBe(document);
  });
  it.each(masks as [string[], string, string][])('hide %j in “%s”', (secrets, text, expected) => {
    expect(maskText(text, secrets)).toBe(expected);
  });
  it.each(durations.refused)('refuse “%s” as a duration', (text) => {
    expect(parseDuration(text)).toBeNull();
  });
  it.each(durations.rounded as [number, string][])('say %d ms as %s', (ms, text) => {
    expect(durationText(ms)).toBe(text);
  });
  it('take a word of why for one from three graphemes on', () => {
    expect(why.given.filter((w) => !isWhyGiven(w))).toEqual([]);
    expect(why.missing.filter((w) => isWhyGiven(w))).toEqual([]);
  });
  it.each(nextsOf())('go on with $says', ({ entries, current, may_take, next }) => {
    expect(nextEntry(entries, 'me', current, may_take)?.id ?? null).toBe(next);
  });
  it.each(policies)('set a verdict by itself as %o', ({ policies: of, sets }) => {
    const said = Object.keys(sets).map((v) => [v, setsVerdict(of, v as RollUp)]);
    expect(Object.fromEntries(said)).toEqual(sets);
  });

  it('condenses trails as the server does', () => {
    for (const { says, longest, marks, runs } of trails) {
      const all = (marks as [string, string, string][]).map(([id, shown, group]) => ({ id, shown, group }));
      const made = condense(all, longest).map((r) => [r.mark.id, r.mark.shown, r.mark.group, r.count]);
      expect(made, says).toEqual(runs);
    }
  });
});
