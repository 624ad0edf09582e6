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
/** Whether whoever is signed in may go there. */
export const open = (project: string, p: { needs?: Permission }): boolean =>
  !p.needs || may(project, p.needs);

/** The areas of the masthead, for whoever is signed in. */
export const areasOf = (project: string): Area[] => AREAS.filter((a) => open(project, a));
