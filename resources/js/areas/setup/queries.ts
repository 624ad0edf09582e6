import { toValue, type MaybeRefOrGetter } from 'vue';
import { api, unwrap, type Api } from '@/api/client';
import { usePages } from '@/offline/usePages';
import { useRead } from '@/offline/useRead';

/** What cycles are planned with. */
export function usePlanningSetup(project: MaybeRefOrGetter<string>) {
  return useRead(
    'cycle',
    () => ['planning-setup', toValue(project)],
    async () =>
      unwrap(
        await api.GET('/projects/{project}/planning-setup', {
          params: { path: { project: toValue(project) } },
        }),
      ),
  );
}

/** Types, priorities, labels and custom fields, with how often each is used. */
export function useLists(project: MaybeRefOrGetter<string>) {
  return useRead(
    'case',
    () => ['lists', toValue(project)],
    async () =>
      unwrap(await api.GET('/projects/{project}/lists', { params: { path: { project: toValue(project) } } })),
  );
}

/** How the project walks: policies, reasons and storage; kept for when the server is away. */
export function useWalkSetup(project: MaybeRefOrGetter<string>) {
  return useRead<Api['WalkSetup']>(
    'cycle',
    () => ['walk-setup', toValue(project)],
    async () =>
      unwrap(
        await api.GET('/projects/{project}/walk-setup', { params: { path: { project: toValue(project) } } }),
      ),
    () => `walk-setup:${toValue(project)}`,
  );
}

/** What was changed in the setup, in policies and in milestones; the newest first, by windows. */
export function useSetupLog(project: MaybeRefOrGetter<string>) {
  return usePages<Api['SetupAct']>(
    'cycle',
    () => ['setup-log', toValue(project)],
    async (after) =>
      unwrap(
        await api.GET('/projects/{project}/setup-log', {
          params: { path: { project: toValue(project) }, query: after === '' ? {} : { after } },
        }),
      ),
  );
}

/** Takes people's time from a list, a line each; says what became of each line. */
export const importCapacity = async (project: string, text: string): Promise<Api['CapacityResult'][]> =>
  unwrap(
    await api.POST('/projects/{project}/capacity-imports', { params: { path: { project } }, body: { text } }),
  );

/** What is set, by words of it. */
export const findSettings = async (project: string, q: string): Promise<Api['SettingLine'][]> =>
  unwrap(await api.GET('/projects/{project}/settings', { params: { path: { project }, query: { q } } }));

/** Lets what an act changed be as it was. */
export const undoSetupAct = async (project: string, act: number): Promise<void> => {
  unwrap(
    await api.POST('/projects/{project}/setup-log/{setupAct}/undo', {
      params: { path: { project, setupAct: String(act) } },
    }),
  );
};

/** Take out of the log what was written in an act and stands in the setup no more. */
export const removeSetupWords = async (project: string, act: number, reason: string): Promise<void> => {
  unwrap(
    await api.POST('/projects/{project}/setup-log/{setupAct}/removals', {
      params: { path: { project, setupAct: String(act) } },
      body: { reason },
    }),
  );
};

/** Give a configuration another name. */
export const renameConfiguration = async (
  configuration: string,
  body: Api['NameRequest'],
): Promise<Api['PlanningSetup']> =>
  unwrap(await api.PATCH('/configurations/{configuration}', { params: { path: { configuration } }, body }));

/** Take a configuration out that nothing uses. */
export const removeConfiguration = async (configuration: string): Promise<Api['PlanningSetup']> =>
  unwrap(await api.DELETE('/configurations/{configuration}', { params: { path: { configuration } } }));

/** Replace axes, values and forbidden pairs. */
export const saveAxes = async (project: string, body: Api['AxesRequest']): Promise<Api['PlanningSetup']> =>
  unwrap(await api.PUT('/projects/{project}/axes', { params: { path: { project } }, body }));

/** What axes give, by all combinations and by pairs. */
export const checkAxes = async (project: string, body: Api['AxesRequest']): Promise<Api['AxisCheck']> =>
  unwrap(await api.POST('/projects/{project}/axis-checks', { params: { path: { project } }, body }));

/** Make a build. */
export const createBuild = async (
  project: string,
  body: Api['BuildRequest'],
): Promise<Api['PlanningSetup']> =>
  unwrap(await api.POST('/projects/{project}/builds', { params: { path: { project } }, body }));

/** Write the project's calendar. */
export const saveCalendar = async (
  project: string,
  body: Api['CalendarRequest'],
): Promise<Api['PlanningSetup']> =>
  unwrap(await api.PUT('/projects/{project}/calendar', { params: { path: { project } }, body }));

/** Make configurations of the axes. */
export const createConfigurations = async (
  project: string,
  body: Api['ConfigurationsRequest'],
): Promise<Api['PlanningSetup']> =>
  unwrap(await api.POST('/projects/{project}/configurations', { params: { path: { project } }, body }));

/** Add labels. */
export const addLabels = async (project: string, body: Api['LabelsRequest']): Promise<Api['ProjectSetup']> =>
  unwrap(await api.POST('/projects/{project}/labels', { params: { path: { project } }, body }));

/** Rename a label on every case, merge it into another, or take it off. */
export const renameLabel = async (project: string, body: Api['LabelRequest']): Promise<Api['ProjectSetup']> =>
  unwrap(await api.PATCH('/projects/{project}/labels', { params: { path: { project } }, body }));

/** Replace the custom fields of cases or of defects. */
export const saveFields = async (
  project: string,
  of: 'cases' | 'defects',
  body: Api['FieldsRequest'],
): Promise<Api['ProjectSetup']> => {
  const asked = { params: { path: { project } }, body };
  return unwrap(
    of === 'cases'
      ? await api.PUT('/projects/{project}/lists/fields', asked)
      : await api.PUT('/projects/{project}/lists/defect-fields', asked),
  );
};

/** How much a person can walk, and when not. */
export const saveCapacity = async (
  project: string,
  person: string,
  body: Api['CapacityRequest'],
): Promise<Api['PlanningSetup']> =>
  unwrap(
    await api.PUT('/projects/{project}/people/{person}/capacity', {
      params: { path: { project, person } },
      body,
    }),
  );

/** Change policies. */
export const savePolicies = async (
  project: string,
  body: Api['PoliciesRequest'],
): Promise<Api['WalkSetup']> =>
  unwrap(await api.PUT('/projects/{project}/policies', { params: { path: { project } }, body }));

/** Make a release. */
export const createRelease = async (
  project: string,
  body: Api['NameRequest'],
): Promise<Api['PlanningSetup']> =>
  unwrap(await api.POST('/projects/{project}/releases', { params: { path: { project } }, body }));

/** How much evidence is kept, and for how long. */
export const saveStorage = async (project: string, body: Api['StorageRequest']): Promise<Api['WalkSetup']> =>
  unwrap(await api.PUT('/projects/{project}/storage', { params: { path: { project } }, body }));

/** Replace the environments. */
export const saveEnvironments = async (
  project: string,
  body: Api['EnvironmentsRequest'],
): Promise<Api['PlanningSetup']> =>
  unwrap(await api.PUT('/projects/{project}/environments', { params: { path: { project } }, body }));

/** Take a release out that has no builds. */
export const removeRelease = async (release: string): Promise<Api['PlanningSetup']> =>
  unwrap(await api.DELETE('/releases/{release}', { params: { path: { release } } }));

/** Take a build out that nothing was tested on. */
export const removeBuild = async (build: string): Promise<Api['PlanningSetup']> =>
  unwrap(await api.DELETE('/builds/{build}', { params: { path: { build } } }));

export const saveBuild = async (build: string, body: Api['BuildRequest']): Promise<Api['PlanningSetup']> =>
  unwrap(await api.PATCH('/builds/{build}', { params: { path: { build } }, body }));

/** The lists of words that a project keeps: the answer is the setup that the list belongs to. */
export type ListName =
  | 'types'
  | 'priorities'
  | 'phases'
  | 'components'
  | 'milestone-types'
  | 'reasons-pass'
  | 'reasons-fail'
  | 'reasons-blocked'
  | 'reasons-not-applicable';

export const saveList = async (
  project: string,
  list: ListName,
  body: Api['ListRequest'],
): Promise<Api['ProjectSetup'] | Api['WalkSetup']> =>
  unwrap(await api.PUT(`/projects/{project}/lists/${list}`, { params: { path: { project } }, body }));
