import { mayLead, mayRecord } from '@/areas/people/session';

/** An area of the masthead, or a page that has no word there. */
export interface Place {
  /** Its address below the project. */
  path: string;
  word: string;
  /** What it is for, as Go to says it. */
  about: string;
}
export interface Area extends Place {
  /** The letter after g. */
  key: string;
  /** Only for those who plan. */
  leads?: boolean;
}

const AREAS: Area[] = [
  { path: 'today', word: 'Today', about: 'What is mine to do', key: 't' },
  { path: 'cycles', word: 'Cycles', about: 'All cycles and milestones', key: 'c' },
  { path: 'casebook', word: 'Casebook', about: 'All cases', key: 'b' },
  { path: 'defects', word: 'Defects', about: 'All defects', key: 'd' },
  { path: 'setup', word: 'Setup', about: 'Lists, fields and labels', key: 's', leads: true },
];
const PAGES: (Place & { leads?: boolean; records?: boolean })[] = [
  { path: 'casebook/new', word: 'New case', about: 'Write one', records: true },
  { path: 'cycles/new', word: 'New cycle', about: 'Plan one', leads: true },
  { path: 'casebook/routines', word: 'Routines', about: 'Steps that many cases use' },
  { path: 'casebook/tables', word: 'Data tables', about: 'Values that cases are walked with' },
  { path: 'casebook/desk', word: 'Desk', about: 'Questions and reviews that wait for an author' },
  { path: 'casebook/bin', word: 'Bin', about: 'What was binned, and the way back' },
  { path: 'casebook/import', word: 'Bring in', about: 'Cases from a file', records: true },
  { path: 'queue', word: 'What waits', about: 'Late acts, looks and retests for a lead', leads: true },
  { path: 'setup/planning', word: 'Planning', about: 'Axes, configurations, builds, calendar', leads: true },
  { path: 'setup/people', word: 'People', about: 'Who has part in the project, and inviting' },
  { path: 'setup/walking', word: 'Walking', about: 'Policies, reasons, storage', leads: true },
];

const open = (project: string, p: { leads?: boolean; records?: boolean }): boolean =>
  (!p.leads || mayLead(project)) && (!p.records || mayRecord(project));

/** The areas of the masthead, for whoever is signed in. */
export const areasOf = (project: string): Area[] => AREAS.filter((a) => open(project, a));

/** Everything with an address of its own that one may go to, areas first. */
export const placesOf = (project: string): Place[] => [
  ...areasOf(project),
  ...PAGES.filter((p) => open(project, p)),
];
