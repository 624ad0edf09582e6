import { toValue, type MaybeRefOrGetter } from 'vue';
import { api, unwrap, type Api } from '@/api/client';
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
