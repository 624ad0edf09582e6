import { may, type Permission } from '@/areas/people/session';

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
  /** What one must be allowed to go there. */
  needs?: Permission;
}

const AREAS: Area[] = [
  { path: 'today', word: 'Today', about: 'What is mine to do', key: 't' },
  { path: 'cycles', word: 'Cycles', about: 'All cycles and milestones', key: 'c' },
  { path: 'casebook', word: 'Casebook', about: 'All cases', key: 'b' },
  {
    path: 'sessions',
    word: 'Sessions',
    about: 'What is explored, and what was',
    key: 'x',
    needs: 'see_evidence',
  },
  { path: 'defects', word: 'Defects', about: 'All defects', key: 'd', needs: 'see_evidence' },
  { path: 'coverage', word: 'Coverage', about: 'What must hold, and what is proven of it', key: 'v' },
  { path: 'setup', word: 'Setup', about: 'Lists, fields and labels', key: 's', needs: 'lead' },
];
const PAGES: (Place & { needs?: Permission })[] = [
  { path: 'casebook/new', word: 'New case', about: 'Write one', needs: 'write_cases' },
  { path: 'cycles/new', word: 'New cycle', about: 'Plan one', needs: 'lead' },
  { path: 'sessions/new', word: 'New session', about: 'Explore something', needs: 'record' },
  { path: 'casebook/routines', word: 'Routines', about: 'Steps that many cases use' },
  { path: 'casebook/tables', word: 'Data tables', about: 'Values that cases are walked with' },
  { path: 'casebook/desk', word: 'Desk', about: 'Questions and reviews that wait for an author' },
  { path: 'casebook/bin', word: 'Bin', about: 'What was binned, and the way back' },
  { path: 'casebook/import', word: 'Bring in', about: 'Cases from a file', needs: 'write_cases' },
  {
    path: 'coverage/import',
    word: 'Bring in requirements',
    about: 'From a sheet, ReqIF or pasted',
    needs: 'write_cases',
  },
  { path: 'queue', word: 'What waits', about: 'Late acts, looks and retests for a lead', needs: 'lead' },
  {
    path: 'setup/planning',
    word: 'Planning',
    about: 'Axes, configurations, builds, calendar',
    needs: 'lead',
  },
  { path: 'setup/people', word: 'People', about: 'Who has part in the project, and inviting' },
  { path: 'setup/walking', word: 'Walking', about: 'Policies, reasons, storage', needs: 'lead' },
];

const open = (project: string, p: { needs?: Permission }): boolean => !p.needs || may(project, p.needs);

/** The areas of the masthead, for whoever is signed in. */
export const areasOf = (project: string): Area[] => AREAS.filter((a) => open(project, a));

/** Everything with an address of its own that one may go to, areas first. */
export const placesOf = (project: string): Place[] => [
  ...areasOf(project),
  ...PAGES.filter((p) => open(project, p)),
];
