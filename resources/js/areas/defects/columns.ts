import type { Api } from '@/api/client';
import type { Option } from '@/areas/defects/choices';
import type { Criterion } from '@/kit/criteria';
import type { Column } from '@/kit/list';
import { ago, exact, plainWords, span } from '@/kit/words';

type Line = Api['DefectLine'];
/** What is no filter in the address of the list. */
export const VIEW = ['columns', 'group', 'as'];
export const USUAL = ['state', 'severity', 'with', 'case', 'build', 'reported'];
export const GROUPS = [
  { value: '', label: 'No groups' },
  { value: 'state', label: 'State' },
  { value: 'severity', label: 'Severity' },
  { value: 'priority', label: 'To be mended' },
  { value: 'assignee', label: 'With' },
  { value: 'component', label: 'Component' },
  { value: 'build', label: 'Build' },
];
const choices = (values: string[]): Option[] => values.map((value) => ({ value, label: plainWords(value) }));
const nameOf = (options: Option[], value: string): string =>
  options.find((o) => o.value === value)?.label ?? value;

/** What is the same in each group of a list, as the server groups it. */
export const groupOf = (group: string, d: Line): string =>
  ({
    state: d.state,
    severity: d.severity,
    priority: d.priority ?? '',
    assignee: d.assignee?.id ?? '',
    component: d.component,
    build: d.build?.id ?? '',
  })[group] ?? '';

/** A group as people call it. */
export function groupWords(
  group: string,
  value: string,
  known: Api['DefectChoices'],
  components: Option[],
): string {
  if (value === '') return { assignee: 'With nobody', priority: 'Nobody said' }[group] ?? 'None';
  if (group === 'assignee') return known.people.find((p) => p.id === value)?.name ?? 'Somebody who left';
  if (group === 'build') return known.builds.find((b) => b.id === value)?.name ?? value;
  return group === 'component' ? nameOf(components, value) : plainWords(value);
}

/** What defects can be narrowed by. */
export function defectCriteria(known: Api['DefectChoices'], components: Option[]): Criterion[] {
  const people = known.people.map((p) => ({ value: p.id, label: p.name }));
  const named = (list: readonly { id: string; name: string }[]): Option[] =>
    list.map((n) => ({ value: n.id, label: n.name }));
  const some = (criterion: Criterion): Criterion[] => (criterion.choices.length > 0 ? [criterion] : []);
  return [
    {
      name: 'state',
      label: 'State',
      many: true,
      choices: choices([
        'open',
        'closed',
        'new',
        'needs_information',
        'accepted',
        'in_work',
        'fixed',
        'verified',
        'reopened',
        'rejected',
        'duplicate',
      ]),
    },
    {
      name: 'severity',
      label: 'Severity',
      many: true,
      choices: choices(['critical', 'major', 'minor', 'trivial']),
    },
    {
      name: 'priority',
      label: 'To be mended',
      many: true,
      choices: [...choices(['now', 'soon', 'later']), { value: 'none', label: 'Nobody said' }],
    },
    {
      name: 'assignee',
      label: 'With',
      many: true,
      choices: [{ value: 'me', label: 'Me' }, { value: 'nobody', label: 'Nobody' }, ...people],
    },
    {
      name: 'reporter',
      label: 'Reported by',
      many: true,
      choices: [{ value: 'me', label: 'Me' }, ...people],
    },
    { name: 'watcher', label: 'Told of everything', many: false, choices: [{ value: 'me', label: 'Me' }] },
    ...some({
      name: 'component',
      label: 'Component',
      many: true,
      choices: components.length > 0 ? [...components, { value: 'none', label: 'None' }] : [],
    }),
    ...some({
      name: 'label',
      label: 'Label',
      many: true,
      choices: known.labels.slice(0, 200).map((l) => ({ value: l, label: l })),
    }),
    ...some({ name: 'build', label: 'Build', many: true, choices: named(known.builds) }),
    ...some({
      name: 'configuration',
      label: 'Configuration',
      many: true,
      choices: named(known.configurations),
    }),
    ...known.fields
      .filter((f) => f.kind === 'choice' || f.kind === 'yes_no')
      .map((f) => ({
        name: `field.${f.id}`,
        label: f.name,
        many: false,
        choices: (f.kind === 'choice' ? f.choices : ['yes', 'no']).map((c) => ({ value: c, label: c })),
      })),
  ];
}

/** What a link from elsewhere narrowed the list to: it is shown, and can be taken away. */
export const linkedCriteria = (filter: Record<string, string>): Criterion[] =>
  Object.entries({ case: 'Case', cycle: 'Cycle', entry: 'Entry', under: 'Stands under' }).flatMap(
    ([name, label]) =>
      filter[name]
        ? [{ name, label, many: false, choices: [{ value: filter[name], label: filter[name] }] }]
        : [],
  );

/** The columns that defects can be listed with: those of every project and its own fields. */
export function defectColumns(
  chosen: string[],
  known: Api['DefectChoices'],
  components: Option[],
): Column<Line>[] {
  const all: Record<string, Omit<Column<Line>, 'name'>> = {
    state: { word: 'State', width: '140px', sorted: true, text: (d) => plainWords(d.state) },
    severity: { word: 'Severity', width: '84px', sorted: true, text: (d) => plainWords(d.severity) },
    priority: {
      word: 'To be mended',
      width: '112px',
      sorted: true,
      soft: true,
      text: (d) => (d.priority ? plainWords(d.priority) : ''),
    },
    with: { word: 'With', width: '130px', soft: true, wide: true, text: (d) => d.assignee?.name ?? 'nobody' },
    case: { word: 'Case', width: '90px', wide: true },
    build: { word: 'Build', width: '110px', soft: true, wide: true, text: (d) => d.build?.name ?? '' },
    configuration: {
      word: 'Configuration',
      width: '150px',
      soft: true,
      text: (d) => d.configuration?.name ?? '',
    },
    component: {
      word: 'Component',
      width: '120px',
      soft: true,
      text: (d) => nameOf(components, d.component),
    },
    labels: { word: 'Labels', width: '150px', soft: true, text: (d) => d.labels.join(', ') },
    age: { word: 'Open for', width: '92px', sorted: true, soft: true, text: (d) => span(d.open_ms) },
    changed: {
      word: 'Changed',
      width: '96px',
      sorted: true,
      soft: true,
      text: (d) => ago(d.updated_at),
      tip: (d) => exact(d.updated_at),
    },
    reported: {
      word: 'Reported',
      width: '190px',
      soft: true,
      text: (d) => `${d.reporter.name}, ${ago(d.created_at)}`,
      tip: (d) => exact(d.created_at),
    },
    ...Object.fromEntries(
      known.fields.map((f) => [
        `field.${f.id}`,
        {
          word: f.name,
          width: '120px',
          soft: true,
          text: (d: Line) => (d.custom as Record<string, string>)[f.id] ?? '',
        },
      ]),
    ),
  };
  return [
    { name: 'title', word: 'Defect', width: 'minmax(240px, 1fr)', sorted: true },
    ...chosen.flatMap((name) => (all[name] ? [{ name, ...all[name] }] : [])),
  ];
}
/** What can be chosen as a column. */
export const columnChoices = (known: Api['DefectChoices'], components: Option[]): Option[] =>
  defectColumns(
    [
      ...['state', 'severity', 'priority', 'with', 'case', 'build', 'configuration', 'component', 'labels'],
      ...['age', 'changed', 'reported', ...known.fields.map((f) => `field.${f.id}`)],
    ],
    known,
    components,
  )
    .slice(1)
    .map((c) => ({ value: c.name, label: c.word }));
