import { v7 as uuid } from 'uuid';
import type { Api } from '@/api/client';

/** A row of the grid: a step as the API takes it, with an identity of its own on this page. */
export interface Row {
  id: string;
  action: string;
  data: string;
  expected: string;
  files: Api['FileRef'][];
  routine: string | null;
  values: Record<string, string>;
}
export const COLUMNS = ['action', 'data', 'expected'] as const;
export type Column = (typeof COLUMNS)[number];

export function blank(texts: Partial<Row> = {}): Row {
  return {
    id: uuid(),
    action: '',
    data: '',
    expected: '',
    files: [],
    routine: null,
    values: {},
    ...texts,
  };
}

/** Steps of the API as rows. */
export function toRows(steps: readonly Api['StepEdit'][]): Row[] {
  return steps.map((s) => blank({ ...s, files: [...s.files], values: { ...s.values } }));
}

/** Rows as the API takes them; empty ones at the end are no steps. */
export function toSteps(rows: readonly Row[]): Api['StepEdit'][] {
  const steps = rows.map(({ id: _, ...step }) => ({
    ...step,
    files: [...step.files],
    values: { ...step.values },
  }));
  while (steps.length > 0 && isEmpty(steps[steps.length - 1] as Api['StepEdit'])) steps.pop();
  return steps;
}

export function isEmpty(step: Omit<Row, 'id'>): boolean {
  return !step.routine && step.files.length === 0 && (step.action + step.data + step.expected).trim() === '';
}

/** Puts rows in before a place. */
export function insertAt(rows: readonly Row[], at: number, some: readonly Row[]): Row[] {
  return [...rows.slice(0, at), ...some, ...rows.slice(at)];
}

/** Moves a run of rows by one; at the edge nothing changes. */
export function moveBy(rows: readonly Row[], from: number, to: number, by: -1 | 1): Row[] {
  if ((by < 0 && from === 0) || (by > 0 && to >= rows.length - 1)) return [...rows];
  const run = rows.slice(from, to + 1);
  const rest = [...rows.slice(0, from), ...rows.slice(to + 1)];
  return insertAt(rest, from + by, run);
}

/** Moves the row at one place so that it stands at another. */
export function moveTo(rows: readonly Row[], from: number, to: number): Row[] {
  const row = rows[from];
  if (!row || from === to) return [...rows];
  const rest = rows.filter((_, i) => i !== from);
  return insertAt(rest, Math.min(to, rest.length), [row]);
}

export function duplicate(row: Row): Row {
  return blank({ ...row, id: uuid(), files: [...row.files], values: { ...row.values } });
}

/** Splits a row at a place in one of its texts: what stands behind it, there and in the columns after, goes on in a new row. */
export function split(row: Row, column: Column, caret: number): [Row, Row] {
  const first: Row = { ...row };
  const second = blank();
  const at = COLUMNS.indexOf(column);
  first[column] = row[column].slice(0, caret).trimEnd();
  second[column] = row[column].slice(caret).trimStart();
  for (const later of COLUMNS.slice(at + 1)) {
    second[later] = row[later];
    first[later] = '';
  }
  return [first, second];
}
