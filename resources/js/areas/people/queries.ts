import { api, unwrap, type Api } from '@/api/client';

/** What whoever is not signed in may know; brings the cookie that signing in needs. */
export const readWelcome = async (): Promise<Api['Welcome']> => unwrap(await api.GET('/welcome'));

export const readSession = async (): Promise<Api['SessionState']> => unwrap(await api.GET('/session'));

export const openSession = async (email: string, password: string): Promise<Api['SessionState']> =>
  unwrap(await api.POST('/session', { body: { email, password } }));

export async function closeSession(): Promise<void> {
  await api.DELETE('/session');
}
