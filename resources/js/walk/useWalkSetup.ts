import { api, take, type Api } from '@/api/client';
import { useRead } from '@/kit/read';

/** How the project walks: policies, reasons and storage; kept for when the server is away. */
export function useWalkSetup(project: () => string) {
  return useRead<Api['WalkSetup']>(
    'cycle',
    () => ['walk-setup', project()],
    async () =>
      take(await api.GET('/projects/{project}/walk-setup', { params: { path: { project: project() } } })),
    () => `walk-setup:${project()}`,
  );
}
