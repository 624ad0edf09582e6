import { describe, expect, it } from 'vitest';
import { criteria } from '@/areas/casebook/filter';
import { blank } from '@/areas/casebook/steps';
import { body, content, formOf, type Form } from '@/areas/casebook/useCase';
import type { Api } from '@/api/client';

const line = {
  id: 'i',
  key: 'SKR-C1',
  title: 'A title',
  folder_id: null,
  state: 'draft',
  type: 'functional',
  priority: 'high',
  estimate_seconds: 240,
  owner: { id: 'u', name: 'Maren' },
  labels: ['a'],
  table_id: null,
  custom: { f: 'High' },
  automated: false,
  is_template: false,
} as unknown as Api['CaseLine'];
const detail = {
  case: line,
  objective: 'Goal',
  preconditions: '',
  postconditions: '',
  steps: [{ action: 'Open', data: '', expected: '', files: [], routine: null, values: {} }],
  files: [],
  requirements: [{ id: 'r' }],
} as unknown as Api['CaseDetail'];
const form = (): Form => formOf(detail, (seconds) => `${seconds}s`);

describe('a case on the page', () => {
  it('is not changed by being shown', () => {
    expect(content(form())).toBe(content(form()));
    expect(form().rows[0]?.id).not.toBe(form().rows[0]?.id);
  });

  it('is sent as the API takes it, without what only the page needs', () => {
    const sent = body({ ...form(), rows: [...form().rows, blank({ action: ' ' })] });
    expect(sent.steps).toEqual([
      { action: 'Open', data: '', expected: '', files: [], routine: null, values: {} },
    ]);
    expect(sent).toMatchObject({
      estimate: '240s',
      owner_id: 'u',
      requirements: ['r'],
      custom: { f: 'High' },
    });
    expect('rows' in sent).toBe(false);
  });

  it('is changed by a letter, a label or an order, not by an empty row at the end', () => {
    const clean = content(form());
    expect(content({ ...form(), title: 'A title.' })).not.toBe(clean);
    expect(content({ ...form(), labels: [] })).not.toBe(clean);
    expect(content({ ...form(), rows: [...form().rows, blank()] })).toBe(clean);
    expect(content({ ...form(), rows: [blank(), ...form().rows] })).not.toBe(clean);
  });
});

describe('what cases can be filtered by', () => {
  it('has the lists and the fields of the project', () => {
    const frame = {
      priorities: [{ value: 'high', name: 'High', weight: 5, uses: 0 }],
      types: [],
      labels: ['tide'],
      people: [{ id: 'u', name: 'Maren' }],
      requirements: [{ id: 'q', key: 'SKR-Q1', title: 'Fares', parent_id: null, cases: 0 }],
      routines: [],
      tables: [],
      fields: [
        { id: 'f', name: 'Risk', kind: 'choice', choices: ['Money'], required: false, uses: 0 },
        { id: 'g', name: 'Tide-bound', kind: 'yes_no', choices: [], required: false, uses: 0 },
      ],
    } as unknown as Api['CasebookFrame'];
    const all = criteria(frame);
    const of = (name: string) => all.find((c) => c.name === name);
    expect(of('priority')?.choices).toEqual([{ value: 'high', label: 'High' }]);
    expect(of('owner')?.choices.map((c) => c.value)).toEqual(['me', 'none', 'u']);
    expect(of('requirement')?.choices[1]?.label).toBe('SKR-Q1 Fares');
    expect(of('field.f')).toMatchObject({ label: 'Risk', many: true });
    expect(of('field.g')?.choices.map((c) => c.value)).toEqual(['yes', 'no', 'none']);
    expect(new Set(all.map((c) => c.name)).size).toBe(all.length);
  });
});
