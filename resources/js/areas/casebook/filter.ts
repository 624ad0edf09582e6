import type { Api } from '@/api/client';
import type { Criterion, Filter } from '@/kit/criteria';

/** Words of the address that are no filter. */
export const VIEW = ['group', 'columns', 'peek'] as const;
/** The criteria that a project's casebook offers. */
export function criteria(frame: Api['CasebookFrame']): Criterion[] {
  const yesNo = [
    { value: 'yes', label: 'Yes' },
    { value: 'no', label: 'No' },
  ];
  return [
    {
      name: 'state',
      label: 'State',
      many: true,
      choices: states,
    },
    { name: 'priority', label: 'Priority', many: true, choices: asOptions(frame.priorities) },
    { name: 'type', label: 'Type', many: true, choices: asOptions(frame.types) },
    {
      name: 'owner',
      label: 'Owner',
      many: true,
      choices: [{ value: 'me', label: 'Me' }, { value: 'none', label: 'Nobody' }, ...asOptions(frame.people)],
    },
    {
      name: 'label',
      label: 'Label',
      many: true,
      joint: 'and',
      choices: frame.labels.map((l) => ({ value: l, label: l })),
    },
    {
      name: 'walked',
      label: 'Walked',
      many: false,
      choices: [
        { value: 'never', label: 'Never' },
        { value: '30', label: 'Not for 30 days' },
        { value: '90', label: 'Not for 90 days' },
        { value: '365', label: 'Not for a year' },
      ],
    },
    {
      name: 'changed',
      label: 'Changed',
      many: false,
      choices: [
        { value: '1', label: 'Within a day' },
        { value: '7', label: 'Within 7 days' },
        { value: '30', label: 'Within 30 days' },
      ],
    },
    {
      name: 'requirement',
      label: 'Requirement',
      many: true,
      choices: [
        { value: 'none', label: 'None' },
        ...frame.requirements.map((r) => ({ value: r.id, label: `${r.key} ${r.title}` })),
      ],
    },
    { name: 'routine', label: 'Routine', many: true, choices: asOptions(frame.routines) },
    {
      name: 'table',
      label: 'Data table',
      many: false,
      choices: [{ value: 'any', label: 'Any' }, { value: 'none', label: 'None' }, ...asOptions(frame.tables)],
    },
    { name: 'automated', label: 'Automated', many: false, choices: yesNo },
    { name: 'template', label: 'Template', many: false, choices: yesNo },
    { name: 'estimate', label: 'Estimate given', many: false, choices: yesNo },
    {
      name: 'author_asked',
      label: 'Open questions',
      many: false,
      choices: [{ value: 'yes', label: 'Yes' }],
    },
    { name: 'errors', label: 'Cannot be walked', many: false, choices: [{ value: 'yes', label: 'Yes' }] },
    ...frame.fields.map((f) => ({
      name: `field.${f.id}`,
      label: f.name,
      many: f.kind === 'choice',
      choices: [
        ...(f.kind === 'choice'
          ? f.choices.map((c) => ({ value: c, label: c }))
          : f.kind === 'yes_no'
            ? yesNo
            : []),
        { value: 'none', label: 'Not filled in' },
      ],
    })),
  ];
}

/** Things of a project as choices of a field: lists by value, people, tables and folders by id. */
export function asOptions(
  items: readonly ({ value: string; name: string } | { id: string; name: string })[],
): { value: string; label: string }[] {
  return items.map((i) => ({ value: 'value' in i ? i.value : i.id, label: i.name }));
}

export function stateWord(state: string): string {
  return { draft: 'Draft', in_review: 'In review', approved: 'Approved', retired: 'Retired' }[state] ?? state;
}

/** How a folder stands below others: depth first, with its depth. */
type FolderLine = Api['FolderLine'];
export interface TreeLine extends FolderLine {
  /** Cases in it and in all below it. */
  all: number;
  depth: number;
  hasChildren: boolean;
}

export function tree(folders: readonly FolderLine[], closed: ReadonlySet<string>): TreeLine[] {
  const children = new Map<string | null, FolderLine[]>();
  for (const f of folders) children.set(f.parent_id, [...(children.get(f.parent_id) ?? []), f]);
  const total = (f: FolderLine): number =>
    f.cases + (children.get(f.id) ?? []).reduce((n, c) => n + total(c), 0);
  const lines: TreeLine[] = [];
  const visit = (parent: string | null, depth: number): void => {
    for (const f of children.get(parent) ?? []) {
      const hasChildren = (children.get(f.id) ?? []).length > 0;
      lines.push({ ...f, all: total(f), depth, hasChildren });
      if (!closed.has(f.id)) visit(f.id, depth + 1);
    }
  };
  visit(null, 0);
  return lines;
}

/** The states of a case as choices. */
export const states = ['draft', 'in_review', 'approved', 'retired'].map((value) => ({
  value,
  label: stateWord(value),
}));

const CHOSEN = 'lucid-step-chosen-cases';
/** Longer lists of ids do not go into an address: servers refuse it on a reload. */
const LONGEST = 3000;

/** Where a cycle is planned of chosen cases: those of some ids, or all that a filter finds. */
export function planOf(project: string, filter: Filter): { path: string; query: Record<string, string> } {
  const long = filter.ids !== undefined && filter.ids.length > LONGEST;
  if (long) sessionStorage.setItem(CHOSEN, filter.ids!);
  return {
    path: `/${project}/cycles/new`,
    query: filter.ids ? { cases: long ? 'chosen' : filter.ids } : { filter: JSON.stringify(filter) },
  };
}

/** The cases that an address of {@link planOf} means. */
export function chosenCases(cases: string): string[] {
  return (cases === 'chosen' ? (sessionStorage.getItem(CHOSEN) ?? '') : cases).split(',').filter(Boolean);
}
