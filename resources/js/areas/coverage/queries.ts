import { api, send, unwrap, type Api } from '@/api/client';
import type { Lens } from './tree';

/** What is proven of the requirements, through a lens. */
export const readCoverage = async (project: string, lens: Lens): Promise<Api['CoverageTree']> =>
  unwrap(await api.GET('/projects/{project}/coverage', { params: { path: { project }, query: lens } }));

/** What each requirement shows on each build or configuration. */
export const readCoverageGrid = async (
  project: string,
  by: 'build' | 'configuration',
  lens: Lens,
): Promise<Api['CoverageGrid']> =>
  unwrap(
    await api.GET('/projects/{project}/coverage/grid', {
      params: { path: { project }, query: { ...lens, by } },
    }),
  );

/** What was proven at the end of each of the last days, and by now. */
export const readCoverageTrend = async (
  project: string,
  days: number,
  lens: Lens,
): Promise<Api['CoverageTrend']> =>
  unwrap(
    await api.GET('/projects/{project}/coverage/trend', {
      params: { path: { project }, query: { ...lens, days: String(days) } },
    }),
  );

/** All that a thing is tied to. */
export const readTrace = async (
  project: string,
  kind: Api['Trace']['kind'],
  id: string,
): Promise<Api['Trace']> =>
  unwrap(await api.GET('/projects/{project}/trace', { params: { path: { project }, query: { kind, id } } }));

export const readRequirement = async (
  requirement: string,
  lens: Lens = {},
): Promise<Api['RequirementDetail']> =>
  unwrap(await api.GET('/requirements/{requirement}', { params: { path: { requirement }, query: lens } }));

/** Make a requirement. */
export const createRequirement = async (
  project: string,
  body: Api['RequirementRequest'],
): Promise<Api['RequirementDetail']> =>
  unwrap(await api.POST('/projects/{project}/requirements', { params: { path: { project } }, body }));

export const saveRequirement = async (
  requirement: string,
  body: Api['RequirementRequest'],
): Promise<Api['RequirementDetail']> =>
  unwrap(await api.PUT('/requirements/{requirement}', { params: { path: { requirement } }, body }));

/** Moves one, with all below it; `before` null: last. */
export const moveRequirement = async (
  requirement: string,
  parent: string | null,
  before: string | null,
): Promise<Api['RequirementDetail']> =>
  unwrap(
    await api.POST('/requirements/{requirement}/moves', {
      params: { path: { requirement } },
      body: { parent_id: parent, before_id: before },
    }),
  );

/** Says that it need not hold any more. */
export const dropRequirement = async (requirement: string): Promise<Api['RequirementDetail']> =>
  unwrap(await api.DELETE('/requirements/{requirement}', { params: { path: { requirement } }, body: {} }));

export const restoreRequirement = async (requirement: string): Promise<Api['RequirementDetail']> =>
  unwrap(
    await api.POST('/requirements/{requirement}/restorations', {
      params: { path: { requirement } },
      body: {},
    }),
  );

/** Says that cases fit its words as they are now; all of them without ids. */
export const confirmCases = async (
  requirement: string,
  cases?: string[],
): Promise<Api['RequirementDetail']> =>
  unwrap(
    await api.POST('/requirements/{requirement}/confirmations', {
      params: { path: { requirement } },
      body: { cases: cases ?? null },
    }),
  );

/** Links cases to a requirement, or parts them: an edit of the cases, which can be undone as one. */
export const linkCases = async (
  project: string,
  requirement: string,
  cases: string[],
  part = false,
): Promise<Api['BulkEditResult']> =>
  unwrap(
    await api.POST('/projects/{project}/case-acts', {
      params: { path: { project } },
      body: {
        act: 'edit',
        filter: { ids: cases.join(',') },
        changes: part ? { requirements_remove: [requirement] } : { requirements_add: [requirement] },
      },
    }),
  ) as Api['BulkEditResult'];

export const undoLinks = async (act: string): Promise<void> => {
  await api.POST('/case-acts/{act}/undo', { params: { path: { act } }, body: {} });
};

/** Cases that fit words or a key, the first of them. */
export const findCases = async (project: string, q: string): Promise<Api['CasePage']['items']> =>
  unwrap(
    await api.GET('/projects/{project}/cases', { params: { path: { project }, query: { q } } }),
  ).items.slice(0, 8);

export const readImports = async (project: string): Promise<Api['RequirementImportLine'][]> =>
  unwrap(await api.GET('/projects/{project}/requirement-imports', { params: { path: { project } } }));

/** Looks at requirements of a file or a pasted text, or takes them in. */
export async function importRequirements(
  project: string,
  from: { file: File | null; text: string },
  meanings: Record<string, string>,
  apply: boolean,
): Promise<Api['RequirementImportResult']> {
  const form = new FormData();
  if (from.file) form.append('file', from.file);
  else form.append('text', from.text);
  form.append('meanings', JSON.stringify(meanings));
  form.append('apply', apply ? '1' : '0');
  const response = await send(`/api/v1/projects/${project}/requirement-imports`, {
    method: 'POST',
    body: form,
  });
  return (await response.json()) as Api['RequirementImportResult'];
}

export const undoImport = async (id: string): Promise<Api['RequirementImportLine']> =>
  unwrap(
    await api.POST('/requirement-imports/{requirementImport}/undo', {
      params: { path: { requirementImport: id } },
      body: {},
    }),
  );
