import type { LocationQuery } from 'vue-router';
import { readItems, writeItems } from './items';

/** What a list is narrowed to, as it stands in the address. */
export type Filter = Record<string, string>;

/** One thing that a list can be narrowed by. */
export interface Criterion {
  name: string;
  label: string;
  choices: { value: string; label: string }[];
  /** Whether several values can be chosen: any of them fits. */
  many: boolean;
  /** What stands between several chosen values in words; "or" when nothing is said. */
  joint?: string;
}

export function withValue(query: LocationQuery, name: string, value: string | undefined): LocationQuery {
  const next = { ...query };
  if (value) next[name] = value;
  else delete next[name];
  return next;
}

/** A filter in words, such as "Priority: High or Low". */
export function inWords(criterion: Criterion, value: string): string {
  const chosen = readItems(value)
    .map((v) => criterion.choices.find((c) => c.value === v)?.label ?? v)
    .join(` ${criterion.joint ?? 'or'} `);
  return `${criterion.label}: ${chosen}`;
}

/** Adds a value to those of a filter, or takes it out. */
export function toggled(value: string | undefined, one: string): string {
  const values = readItems(value ?? '');
  return writeItems(values.includes(one) ? values.filter((v) => v !== one) : [...values, one], ',');
}
