import { api, unwrap, type Api } from '@/api/client';
import { useRead } from '@/offline/useRead';

/** How the project walks: policies, reasons and storage; kept for when the server is away. */
export function useWalkSetup(project: () => string) {
  return useRead<Api['WalkSetup']>(
    'cycle',
    () => ['walk-setup', project()],
    async () =>
      unwrap(await api.GET('/projects/{project}/walk-setup', { params: { path: { project: project() } } })),
    () => `walk-setup:${project()}`,
  );
}
