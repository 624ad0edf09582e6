import type { Permission } from '@/areas/people/session';
import { areasOf, open, type Place } from './places';

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

/** Everything with an address of its own that one may go to, areas first. */
export const placesOf = (project: string): Place[] => [
  ...areasOf(project),
  ...PAGES.filter((p) => open(project, p)),
];
