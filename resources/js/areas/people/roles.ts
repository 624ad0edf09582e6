import type { Api } from '@/api/client';

/** What a person can be in a project, from the least on. */
export const ROLES: readonly { value: Api['ProjectPerson']['role']; label: string; may: string }[] = [
  { value: 'reader', label: 'reader', may: 'reads' },
  { value: 'developer', label: 'developer', may: 'reads, and works on defects' },
  { value: 'tester', label: 'tester', may: 'walks, writes cases and files defects' },
  { value: 'lead', label: 'lead', may: 'plans, assigns, reviews and sets up' },
  { value: 'admin', label: 'admin', may: 'looks after people, and takes content out' },
];
