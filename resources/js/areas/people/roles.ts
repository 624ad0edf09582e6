import type { Api } from '@/api/client';

/** What a person can be in a project, from the least on. */
export const ROLES: readonly { value: Api['ProjectPerson']['role']; label: string }[] = [
  { value: 'reader', label: 'reader' },
  { value: 'developer', label: 'developer' },
  { value: 'tester', label: 'tester' },
  { value: 'lead', label: 'lead' },
  { value: 'admin', label: 'admin' },
];
