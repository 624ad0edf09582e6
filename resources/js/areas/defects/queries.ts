import type { Ref } from 'vue';
import { api, unwrap, type Api } from '@/api/client';
import type { Criterion, Filter } from '@/kit/criteria';
import type { Pages } from '@/kit/list';
import { plainWords } from '@/kit/words';
import { usePages } from '@/offline/usePages';

/** The defects of a project that a filter finds, by windows. */
export function useDefects(
  project: Ref<string>,
  filter: Ref<Filter>,
  sort: Ref<string>,
): Pages<Api['DefectLine']> {
  return usePages<Api['DefectLine']>(
    'defect',
    () => ['defects', project.value, filter.value, sort.value],
    (after) => findDefects(project.value, { ...filter.value, sort: sort.value, after }),
  );
}

const choices = (values: string[]) => values.map((value) => ({ value, label: plainWords(value) }));

/** What defects can be narrowed by. */
export const defectCriteria: Criterion[] = [
  {
    name: 'state',
    label: 'State',
    many: false,
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
    many: false,
    choices: choices(['critical', 'major', 'minor', 'trivial']),
  },
  { name: 'priority', label: 'To be mended', many: false, choices: choices(['now', 'soon', 'later']) },
  {
    name: 'assignee',
    label: 'With',
    many: false,
    choices: [
      { value: 'me', label: 'Me' },
      { value: 'nobody', label: 'Nobody' },
    ],
  },
  { name: 'reporter', label: 'Reported by', many: false, choices: [{ value: 'me', label: 'Me' }] },
];

/** Defects linked to this very step already, in any cycle. */
export const readKnownDefects = async (
  attempt: string,
  query: { step: string },
): Promise<Api['DefectLine'][]> =>
  unwrap(await api.GET('/attempts/{attempt}/known-defects', { params: { path: { attempt }, query } }));

/** A defect with everything about it. */
export const readDefect = async (defect: string): Promise<Api['DefectDetail']> =>
  unwrap(await api.GET('/defects/{defect}', { params: { path: { defect } } }));

/** Defects that may be the same as one that is being written. */
export const findLikelyDefects = async (
  project: string,
  query: { title: string; actual: string; attempt?: string; step?: string },
): Promise<Api['LikelyDefect'][]> =>
  unwrap(await api.GET('/projects/{project}/likely-defects', { params: { path: { project }, query } }));

/** How to get to a fault; null where it was met on no walk. */
export const readReproduction = async (defect: string): Promise<Api['Reproduction'] | null> =>
  unwrap(await api.GET('/defects/{defect}/reproduction', { params: { path: { defect } } })).reproduction;

/** What failed and can be walked again after its fix. */
export const readRetests = async (defect: string): Promise<Api['RetestLine'][]> =>
  unwrap(await api.GET('/defects/{defect}/retests', { params: { path: { defect } } }));

export const askRetests = async (defect: string, entries: string[]): Promise<Api['RetestLine'][]> =>
  unwrap(await api.POST('/defects/{defect}/retests', { params: { path: { defect } }, body: { entries } }));

/** Changes what a defect says: each field with what it was when one began. */
export const editDefect = async (
  defect: string,
  body: Api['EditDefectRequest'],
): Promise<Api['DefectDetail']> =>
  unwrap(await api.PATCH('/defects/{defect}', { params: { path: { defect } }, body }));

/** Says something of a defect. */
export const sayOfDefect = async (defect: string, text: string): Promise<Api['DefectDetail']> =>
  unwrap(await api.POST('/defects/{defect}/comments', { params: { path: { defect } }, body: { text } }));

/** Mends what one said, within a quarter of an hour. */
export const mendComment = async (comment: string, text: string): Promise<Api['DefectDetail']> =>
  unwrap(await api.PATCH('/defect-comments/{comment}', { params: { path: { comment } }, body: { text } }));

/** Takes out what must not be there. */
export const removeComment = async (comment: string, reason: string): Promise<Api['DefectDetail']> =>
  unwrap(
    await api.POST('/defect-comments/{comment}/removals', {
      params: { path: { comment } },
      body: { reason },
    }),
  );

/** Move a defect to another state. */
export const moveDefect = async (
  defect: string,
  body: Api['DefectStateRequest'],
): Promise<Api['DefectDetail']> =>
  unwrap(await api.POST('/defects/{defect}/moves', { params: { path: { defect } }, body }));

/** The defects of a project, the newest first. */
export const findDefects = async (project: string, query: Filter): Promise<Api['DefectPage']> =>
  unwrap(await api.GET('/projects/{project}/defects', { params: { path: { project }, query } }));

/** A defect drafted from what was walked. */
export const draftDefect = async (
  attempt: string,
  query: Record<string, string>,
): Promise<Api['DefectDraft']> =>
  unwrap(await api.GET('/attempts/{attempt}/defect-draft', { params: { path: { attempt }, query } }));
