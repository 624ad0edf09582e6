import { api, unwrap, type Api } from '@/api/client';

const of = (project: string) => ({ params: { path: { project } } });

export const readToday = async (project: string): Promise<Api['TodayPage']> =>
  unwrap(await api.GET('/projects/{project}/today', of(project)));

/** How the project stands, as each role works with it. */
export const readOverview = async (project: string): Promise<Api['OverviewPage']> =>
  unwrap(await api.GET('/projects/{project}/overview', of(project)));

/** What is new was seen, as it stood at a time. */
export async function markSeen(project: string, asOf: string): Promise<void> {
  await api.POST('/projects/{project}/today-seen', { ...of(project), body: { as_of: asOf } });
}

export const readScratch = async (project: string): Promise<Api['ScratchNote']> =>
  unwrap(await api.GET('/projects/{project}/scratch', of(project)));

export const saveScratch = async (project: string, text: string): Promise<Api['ScratchNote']> =>
  unwrap(await api.PUT('/projects/{project}/scratch', { ...of(project), body: { text } }));
