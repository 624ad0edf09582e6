import { api, unwrap, type Api } from '@/api/client';

export const readNotices = async (): Promise<Api['Notices']> => unwrap(await api.GET('/notices'));

export async function markNoticesRead(): Promise<void> {
  await api.POST('/notices/read', { body: {} });
}
