import { computed, type ComputedRef, type Ref } from 'vue';
import { api, send, unwrap, type Api } from '@/api/client';
import type { Filter } from '@/kit/criteria';
import type { Pages } from '@/kit/list';
import type { LocalFile } from '@/offline/useLocalFiles';
import { usePages } from '@/offline/usePages';

/** The defects of a project that a filter finds, by windows, with how many are in each group. */
export function useDefects(
  project: Ref<string>,
  filter: Ref<Filter>,
  sort: Ref<string>,
  group: Ref<string>,
): { list: Pages<Api['DefectLine']>; groups: ComputedRef<Map<string, number>> } {
  const list = usePages<Api['DefectLine'], Api['DefectPage']>(
    'defect',
    () => ['defects', project.value, filter.value, sort.value, group.value],
    (after) =>
      findDefects(project.value, {
        ...filter.value,
        sort: sort.value,
        after,
        ...(group.value ? { group: group.value } : {}),
      }),
  );
  return { list, groups: computed(() => new Map(list.first.value?.groups.map((g) => [g.value, g.defects]))) };
}

/** Defects linked to this very step already, in any cycle. */
export const readKnownDefects = async (
  attempt: string,
  query: { step: string },
): Promise<Api['DefectLine'][]> =>
  unwrap(await api.GET('/attempts/{attempt}/known-defects', { params: { path: { attempt }, query } }));

/** What can be chosen where defects are filed, changed and looked for. */
export const readChoices = async (project: string): Promise<Api['DefectChoices']> =>
  unwrap(await api.GET('/projects/{project}/defect-choices', { params: { path: { project } } }));

export const fileDefect = async (
  project: string,
  body: Api['FileDefectRequest'],
): Promise<Api['DefectDetail']> =>
  unwrap(await api.POST('/projects/{project}/defects', { params: { path: { project } }, body }));

/** Links a defect to an attempt or one of its steps. */
export const linkDefect = async (
  defect: string,
  body: Api['LinkDefectRequest'],
): Promise<Api['DefectDetail']> =>
  unwrap(await api.POST('/defects/{defect}/links', { params: { path: { defect } }, body }));

/** Says how a defect stands to another. */
export const relateDefects = async (
  defect: string,
  body: Api['RelationRequest'],
): Promise<Api['DefectDetail']> =>
  unwrap(await api.POST('/defects/{defect}/relations', { params: { path: { defect } }, body }));

export const unrelateDefects = async (
  defect: string,
  body: Api['RelationRequest'],
): Promise<Api['DefectDetail']> =>
  unwrap(await api.DELETE('/defects/{defect}/relations', { params: { path: { defect } }, body }));

/** Lets oneself, or somebody else, be told of everything that becomes of a defect, or no more. */
export const watchDefect = async (
  defect: string,
  watches: boolean,
  person: string | null = null,
): Promise<Api['DefectDetail']> => {
  const asked = { params: { path: { defect } }, body: { person_id: person } };
  return unwrap(
    watches
      ? await api.POST('/defects/{defect}/watchers', asked)
      : await api.DELETE('/defects/{defect}/watchers', asked),
  );
};

/** Keeps how the list is narrowed and shown under a name. */
export const keepFilter = async (
  project: string,
  body: Api['DefectFilterRequest'],
): Promise<Api['SavedFilterLine']> =>
  unwrap(await api.POST('/projects/{project}/defect-filters', { params: { path: { project } }, body }));

export const dropFilter = async (filter: string): Promise<unknown> =>
  unwrap(await api.DELETE('/filters/{filter}', { params: { path: { filter } }, body: {} }));

/** The tracker outside: how it is set up, tried out, and told of defects. */
export const readTracker = async (project: string): Promise<Api['TrackerSetup']> =>
  unwrap(await api.GET('/projects/{project}/tracker', { params: { path: { project } } }));

export const saveTracker = async (
  project: string,
  body: Api['TrackerRequest'],
): Promise<Api['TrackerSetup']> =>
  unwrap(await api.PATCH('/projects/{project}/tracker', { params: { path: { project } }, body }));

export const removeTracker = async (project: string): Promise<Api['TrackerSetup']> =>
  unwrap(await api.DELETE('/projects/{project}/tracker', { params: { path: { project } }, body: {} }));

export const tryTracker = async (project: string): Promise<Api['TrackerTry']> =>
  unwrap(await api.POST('/projects/{project}/tracker-tries', { params: { path: { project } }, body: {} }));

export const renewTrackerSecret = async (project: string): Promise<string> =>
  unwrap(await api.POST('/projects/{project}/tracker-secrets', { params: { path: { project } }, body: {} }))
    .secret;

export const sendToTracker = async (defect: string): Promise<Api['DefectDetail']> =>
  unwrap(await api.POST('/defects/{defect}/tracker-calls', { params: { path: { defect } }, body: {} }));

export const sendCallAgain = async (call: string): Promise<Api['DefectDetail']> =>
  unwrap(await api.POST('/tracker-calls/{call}/repetitions', { params: { path: { call } }, body: {} }));

export const leaveCallOut = async (call: string): Promise<Api['DefectDetail']> =>
  unwrap(await api.DELETE('/tracker-calls/{call}', { params: { path: { call } }, body: {} }));

/** What an act on many defects would do, and the act itself. */
export const previewAct = async (
  project: string,
  body: Api['DefectActRequest'],
): Promise<Api['DefectActPreview']> =>
  unwrap(await api.POST('/projects/{project}/defect-act-previews', { params: { path: { project } }, body }));

export const actOnDefects = async (
  project: string,
  body: Api['DefectActRequest'],
): Promise<Api['DefectActResult']> =>
  unwrap(await api.POST('/projects/{project}/defect-acts', { params: { path: { project } }, body }));

export const undoDefectAct = async (act: string): Promise<string> =>
  unwrap(await api.POST('/defect-acts/{defectAct}/undo', { params: { path: { defectAct: act } }, body: {} }))
    .title;

/** A defect with everything about it. */
export const readDefect = async (defect: string): Promise<Api['DefectDetail']> =>
  unwrap(await api.GET('/defects/{defect}', { params: { path: { defect } } }));

/** Defects that may be the same as one that is being written. */
export const findLikelyDefects = async (
  project: string,
  query: { title: string; actual: string; attempt?: string; step?: string; component?: string },
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
export const sayOfDefect = async (
  defect: string,
  body: Api['CommentRequest'],
): Promise<Api['DefectDetail']> =>
  unwrap(await api.POST('/defects/{defect}/comments', { params: { path: { defect } }, body }));

/** Adds a file to a defect, or to what one is about to say of it; asked again with the same id, it is there once. */
export async function addFile(defect: string, of: LocalFile, comment?: string): Promise<void> {
  const form = new FormData();
  form.set('file', of.file, of.file.name);
  form.set('name', of.file.name);
  form.set('id', of.id);
  if (comment) form.set('comment', comment);
  await send(`/api/v1/defects/${defect}/files`, { method: 'POST', body: form });
}

/** Takes a file out that must not be there. */
export const removeFile = async (defectFile: string, reason: string): Promise<Api['DefectDetail']> =>
  unwrap(
    await api.POST('/defect-files/{defectFile}/removals', {
      params: { path: { defectFile } },
      body: { reason },
    }),
  );

/** Takes out what was said at a move and must not be there. */
export const removeNote = async (
  defect: string,
  defectChange: string,
  reason: string,
): Promise<Api['DefectDetail']> =>
  unwrap(
    await api.POST('/defects/{defect}/changes/{defectChange}/removals', {
      params: { path: { defect, defectChange } },
      body: { reason },
    }),
  );

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
