import { useQuery } from '@tanstack/vue-query';
import { computed, type ComputedRef, type Ref } from 'vue';
import { api, send, unwrap, type Api } from '@/api/client';
import type { Filter } from '@/kit/criteria';
import type { Pages } from '@/kit/list';
import { plural } from '@/kit/words';
import { usePages } from '@/offline/usePages';

export interface CaseList extends Pages<Api['CaseLine']> {
  counts: Ref<Api['CaseCounts'] | undefined>;
  /** How many there are, in words; of very many only that. */
  countWords: ComputedRef<string>;
}

/** The cases that a filter finds, by windows, with how many there are of them and in each group. */
export function useCases(
  project: Ref<string>,
  filter: Ref<Filter>,
  sort: Ref<string>,
  group: Ref<string>,
): CaseList {
  const list = usePages<Api['CaseLine']>(
    'case',
    () => ['cases', project.value, filter.value, sort.value, group.value],
    (after) =>
      listCases(project.value, {
        ...filter.value,
        sort: sort.value,
        group: group.value,
        ...(after ? { after } : {}),
      }),
  );
  // Counted apart: the list need not wait for it.
  const { data: counts } = useQuery({
    queryKey: computed(() => ['live', 'case', 'case-counts', project.value, filter.value, group.value]),
    queryFn: async () => {
      const params = { path: { project: project.value }, query: { ...filter.value, group: group.value } };
      return unwrap(await api.GET('/projects/{project}/cases/counts', { params })) as Api['CaseCounts'];
    },
    placeholderData: (before) => before,
  });
  const total = computed(() => counts.value?.total ?? list.lines.value.length);
  return {
    ...list,
    total,
    counts,
    countWords: computed(() => {
      if (!counts.value) return '';
      return counts.value.more_than_total
        ? `more than ${total.value.toLocaleString('en')} cases`
        : plural(total.value, 'case');
    }),
  };
}

/** Undo a change of many cases. */
export const undoCaseAct = async (act: string): Promise<Api['BulkEditResult']> =>
  unwrap(await api.POST('/case-acts/{act}/undo', { params: { path: { act } }, body: {} }));

/** How far an export is. */
export const readExport = async (id: string): Promise<Api['ExportState']> =>
  unwrap(await api.GET('/case-exports/{export}', { params: { path: { export: id } } }));

/** Stop an export. */
export const cancelExport = async (id: string): Promise<Api['ExportState']> =>
  unwrap(await api.POST('/case-exports/{export}/cancel', { params: { path: { export: id } }, body: {} }));

/** What a file holds, and how far its import is. */
export const readImport = async (id: string): Promise<Api['ImportState']> =>
  unwrap(await api.GET('/case-imports/{import}', { params: { path: { import: id } } }));

/** Say what the columns are; the file is read again. */
export const mapImport = async (id: string, body: Api['MappingRequest']): Promise<Api['ImportState']> =>
  unwrap(await api.POST('/case-imports/{import}/mapping', { params: { path: { import: id } }, body }));

/** Answer a question, take or decline a suggestion. */
export const answerMessage = async (
  message: string,
  body: Api['AnswerRequest'],
): Promise<Api['CaseMessageLine']> =>
  unwrap(await api.POST('/case-messages/{message}/answers', { params: { path: { message } }, body }));

/** Take the words of a question or a suggestion out. */
export const removeMessage = async (
  message: string,
  body: Api['WhyRequest'],
): Promise<Api['CaseMessageLine']> =>
  unwrap(await api.POST('/case-messages/{message}/removals', { params: { path: { message } }, body }));

/** A case with its steps, and where it was walked. */
export const readCase = async (key: string): Promise<Api['CaseDetail']> =>
  unwrap(await api.GET('/cases/{case}', { params: { path: { case: key } } }));

/** Save a case. The revision that one began from comes in the body or as If-Match; when another saved meanwhile the answer is 412. */
export const saveCase = async (key: string, body: Api['CaseRequest']): Promise<Api['CaseSaved']> =>
  unwrap(await api.PUT('/cases/{case}', { params: { path: { case: key } }, body }));

/** Two versions of a case beside each other. */
export const compareVersions = async (
  key: string,
  query: { from: string; to: string },
): Promise<Api['CaseComparison']> =>
  unwrap(await api.GET('/cases/{case}/comparison', { params: { path: { case: key }, query } }));

/** Say that cases differ on purpose, so that they are not pointed out as likely doubles; or take that back. */
export async function differOnPurpose(project: string, body: Api['DifferencesRequest']): Promise<void> {
  await api.POST('/projects/{project}/case-differences', { params: { path: { project } }, body });
}

/** All that happened to a case. */
export const readHistory = async (key: string): Promise<Api['CaseHistory']> =>
  unwrap(await api.GET('/cases/{case}/history', { params: { path: { case: key } } }));

/** My changes and those saved meanwhile, brought together; nothing is written. */
export const mergeCase = async (key: string, body: Api['CaseRequest']): Promise<Api['CaseMerge']> =>
  unwrap(await api.POST('/cases/{case}/merges', { params: { path: { case: key } }, body }));

/** Ask the author, or suggest a change. */
export const sendMessage = async (
  key: string,
  body: Api['MessageRequest'],
): Promise<Api['CaseMessageLine']> =>
  unwrap(await api.POST('/cases/{case}/messages', { params: { path: { case: key } }, body }));

/** What a case usually waits for. */
export const readNeeds = async (key: string): Promise<Api['CaseNeed'][]> =>
  unwrap(await api.GET('/cases/{case}/needs', { params: { path: { case: key } } }));

/** Say what a case usually waits for; offered when entries are made of it. */
export const saveNeeds = async (key: string, body: Api['CaseNeedsRequest']): Promise<Api['CaseNeed'][]> =>
  unwrap(await api.PUT('/cases/{case}/needs', { params: { path: { case: key } }, body }));

/** Say that one has a case open to write; the answer names who else has. */
export const sayPresence = async (key: string): Promise<Api['Presence']> =>
  unwrap(await api.PUT('/cases/{case}/presence', { params: { path: { case: key } }, body: {} }));

/** Bring an old version back as the newest. */
export const restoreVersion = async (key: string, body: Api['VersionRequest']): Promise<Api['CaseSaved']> =>
  unwrap(await api.POST('/cases/{case}/restorations', { params: { path: { case: key } }, body }));

/** How a case went last. */
export const readResults = async (key: string): Promise<Api['CaseResult'][]> =>
  unwrap(await api.GET('/cases/{case}/results', { params: { path: { case: key } } }));

/** Ask for approval, approve, or return with a comment. */
export const reviewCase = async (key: string, body: Api['ReviewRequest']): Promise<Api['CaseSaved']> =>
  unwrap(await api.POST('/cases/{case}/reviews', { params: { path: { case: key } }, body }));

/** Make a routine of some of its steps. */
export const extractRoutine = async (
  key: string,
  body: Api['ExtractRequest'],
): Promise<Api['RoutineDetail']> =>
  unwrap(await api.POST('/cases/{case}/routines', { params: { path: { case: key } }, body }));

/** A data table with its rows, and where it is used. */
export const readTable = async (table: string): Promise<Api['TableDetail']> =>
  unwrap(await api.GET('/data-tables/{table}', { params: { path: { table } } }));

/** Change a data table. */
export const saveTable = async (table: string, body: Api['TableRequest']): Promise<Api['TableDetail']> =>
  unwrap(await api.PUT('/data-tables/{table}', { params: { path: { table } }, body }));

/** Bin a data table that is used nowhere. */
export const binTable = async (table: string): Promise<Api['Done']> =>
  unwrap(await api.DELETE('/data-tables/{table}', { params: { path: { table } }, body: {} }));

/** Take a data table out of the bin. */
export const restoreTable = async (table: string): Promise<Api['Done']> =>
  unwrap(await api.POST('/data-tables/{table}/restorations', { params: { path: { table } }, body: {} }));

/** Delete a saved filter. */
export async function removeFilter(filter: string): Promise<void> {
  await api.DELETE('/filters/{filter}', { params: { path: { filter } }, body: {} });
}

/** Name or move a folder. */
export const saveFolder = async (folder: string, body: Api['FolderRequest']): Promise<Api['FolderLine']> =>
  unwrap(await api.PATCH('/folders/{folder}', { params: { path: { folder } }, body }));

/** Bin a folder with what is in it. */
export const binFolder = async (folder: string): Promise<Api['BulkEditResult']> =>
  unwrap(await api.DELETE('/folders/{folder}', { params: { path: { folder } }, body: {} }));

/** Edit, move, copy, bin or restore many cases. */
export const editCases = async (
  project: string,
  body: Api['BulkEditCasesRequest'],
): Promise<Api['BulkEditResult']> =>
  unwrap(await api.POST('/projects/{project}/case-acts', { params: { path: { project } }, body }));

/** Cases not walked for long, and likely doubles. */
export const readCare = async (project: string, query: { days: string }): Promise<Api['CaseCare']> =>
  unwrap(await api.GET('/projects/{project}/case-care', { params: { path: { project }, query } }));

/** What is wrong with a case, and how it will read in the walk. */
export const checkCase = async (project: string, body: Api['CaseCheckRequest']): Promise<Api['CaseCheck']> =>
  unwrap(await api.POST('/projects/{project}/case-checks', { params: { path: { project } }, body }));

/** Export cases. */
export const startExport = async (project: string, body: Api['ExportRequest']): Promise<Api['ExportState']> =>
  unwrap(await api.POST('/projects/{project}/case-exports', { params: { path: { project } }, body }));

/** Questions, suggestions and reviews that wait. */
export const readInbox = async (project: string, query: { mine: string }): Promise<Api['Inbox']> =>
  unwrap(await api.GET('/projects/{project}/case-inbox', { params: { path: { project }, query } }));

/** What an act on many cases would do. */
export const previewEdit = async (
  project: string,
  body: Api['BulkEditCasesRequest'],
): Promise<Api['BulkEditPreview']> =>
  unwrap(await api.POST('/projects/{project}/case-previews', { params: { path: { project } }, body }));

/** What the casebook is made of beside its cases. */
export const readCasebook = async (project: string): Promise<Api['CasebookFrame']> =>
  unwrap(await api.GET('/projects/{project}/casebook', { params: { path: { project } } }));

/** Make a case. */
export const createCase = async (project: string, body: Api['CaseRequest']): Promise<Api['CaseSaved']> =>
  unwrap(await api.POST('/projects/{project}/cases', { params: { path: { project } }, body }));

/** Make a data table, typed or from a text. */
export const createTable = async (project: string, body: Api['TableRequest']): Promise<Api['TableDetail']> =>
  unwrap(await api.POST('/projects/{project}/data-tables', { params: { path: { project } }, body }));

/** Make a folder. */
export const createFolder = async (project: string, body: Api['FolderRequest']): Promise<Api['FolderLine']> =>
  unwrap(await api.POST('/projects/{project}/folders', { params: { path: { project } }, body }));

/** Make a routine. */
export const createRoutine = async (
  project: string,
  body: Api['RoutineRequest'],
): Promise<Api['RoutineDetail']> =>
  unwrap(await api.POST('/projects/{project}/routines', { params: { path: { project } }, body }));

/** Make a suite. */
export const createSuite = async (project: string, body: Api['SuiteRequest']): Promise<Api['SuiteDetail']> =>
  unwrap(await api.POST('/projects/{project}/suites', { params: { path: { project } }, body }));

/** A routine, and where it is used. */
export const readRoutine = async (routine: string): Promise<Api['RoutineDetail']> =>
  unwrap(await api.GET('/routines/{routine}', { params: { path: { routine } } }));

/** Change a routine, for all who use it. */
export const saveRoutine = async (
  routine: string,
  body: Api['RoutineRequest'],
): Promise<Api['RoutineDetail']> =>
  unwrap(await api.PUT('/routines/{routine}', { params: { path: { routine } }, body }));

/** Bin a routine that is used nowhere. */
export const binRoutine = async (routine: string): Promise<Api['Done']> =>
  unwrap(await api.DELETE('/routines/{routine}', { params: { path: { routine } }, body: {} }));

/** Take a routine out of the bin. */
export const restoreRoutine = async (routine: string): Promise<Api['Done']> =>
  unwrap(await api.POST('/routines/{routine}/restorations', { params: { path: { routine } }, body: {} }));

/** Change a suite. */
export const saveSuite = async (suite: string, body: Api['SuiteRequest']): Promise<Api['SuiteDetail']> =>
  unwrap(await api.PATCH('/suites/{suite}', { params: { path: { suite } }, body }));

/** A suite, and what it gained or lost since it was accepted. */
export const readSuite = async (suite: string): Promise<Api['SuiteDetail']> =>
  unwrap(await api.GET('/suites/{suite}', { params: { path: { suite } } }));

/** Bin a suite; its cases stay. */
export const binSuite = async (suite: string): Promise<Api['Done']> =>
  unwrap(await api.DELETE('/suites/{suite}', { params: { path: { suite } }, body: {} }));

/** Accept what a live suite gained and lost. */
export const acceptSuite = async (suite: string): Promise<Api['SuiteDetail']> =>
  unwrap(await api.POST('/suites/{suite}/acceptances', { params: { path: { suite } }, body: {} }));

/** Take a suite out of the bin. */
export const restoreSuite = async (suite: string): Promise<Api['Done']> =>
  unwrap(await api.POST('/suites/{suite}/restorations', { params: { path: { suite } }, body: {} }));

/** A window of the cases that a filter finds. */
export const listCases = async (project: string, query: Filter): Promise<Api['CasePage']> =>
  unwrap(await api.GET('/projects/{project}/cases', { params: { path: { project }, query } }));

export const listBinnedRoutines = async (project: string): Promise<Api['RoutineLine'][]> =>
  unwrap(
    await api.GET('/projects/{project}/routines', { params: { path: { project }, query: { bin: 'yes' } } }),
  );

export const listBinnedTables = async (project: string): Promise<Api['TableLine'][]> =>
  unwrap(
    await api.GET('/projects/{project}/data-tables', {
      params: { path: { project }, query: { bin: 'yes' } },
    }),
  );

/** Bring the cases of a file in. */
export const startImport = async (id: string): Promise<Api['ImportState']> =>
  unwrap(await api.POST('/case-imports/{import}/start', { params: { path: { import: id } }, body: {} }));

/** Stop; nothing is written. */
export const cancelImport = async (id: string): Promise<Api['ImportState']> =>
  unwrap(await api.POST('/case-imports/{import}/cancel', { params: { path: { import: id } }, body: {} }));

/** Undo an import as a whole. */
export const undoImport = async (id: string): Promise<Api['ImportState']> =>
  unwrap(await api.POST('/case-imports/{import}/undo', { params: { path: { import: id } }, body: {} }));

/** Keep a filter under a name. */
export const createFilter = async (
  project: string,
  body: Api['FilterRequest'],
): Promise<Api['SavedFilterLine']> =>
  unwrap(await api.POST('/projects/{project}/filters', { params: { path: { project } }, body }));

/** Keeps a file of the project: the same content is kept once. */
export async function uploadFile(project: string, file: File, name: string): Promise<Api['StoredFileLine']> {
  const form = new FormData();
  form.set('file', file, name);
  form.set('name', name);
  const response = await send(`/api/v1/projects/${project}/files`, { method: 'POST', body: form });
  return (await response.json()) as Api['StoredFileLine'];
}

/** Reads a file and tells what would become of it; nothing is written. */
export async function uploadImport(project: string, file: File): Promise<Api['ImportState']> {
  const form = new FormData();
  form.set('file', file, file.name);
  const response = await send(`/api/v1/projects/${project}/case-imports`, { method: 'POST', body: form });
  return (await response.json()) as Api['ImportState'];
}
