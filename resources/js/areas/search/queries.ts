import { api, unwrap, type Api } from '@/api/client';

/** What words, or a key, lead to. */
export const findAnything = async (project: string, q: string): Promise<Api['GoToList']['items']> =>
  unwrap(await api.GET('/projects/{project}/go-to', { params: { path: { project }, query: { q } } })).items;
