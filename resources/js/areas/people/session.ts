import { computed, shallowRef } from 'vue';
import { api, Problem, unwrap, type Api } from '@/api/client';
import { removeLocal, clearLocal, saveLocal, loadLocal } from '@/offline/device';
import { outbox } from '@/offline/outbox';

const state = shallowRef<Api['SessionState'] | null>(null);

/** Who is signed in. */
export const session = computed(() => state.value);

/** Finds out who is signed in; while the server is away, who was. Null when nobody is. */
export async function whoIsThere(): Promise<Api['SessionState'] | null> {
  if (state.value) return state.value;
  try {
    state.value = unwrap(await api.GET('/session'));
    await saveLocal('session', state.value);
  } catch (error) {
    if (!(error instanceof Problem) || !error.isAway) {
      await removeLocal('session');
      return null;
    }
    outbox.sawServer(true);
    state.value = await loadLocal<Api['SessionState']>('session');
  }
  if (state.value) await outbox.begin(state.value.user.id);
  return state.value;
}

export async function signIn(email: string, password: string): Promise<void> {
  await api.GET('/welcome');
  state.value = unwrap(await api.POST('/session', { body: { email, password } }));
  await saveLocal('session', state.value);
  await outbox.begin(state.value.user.id);
}

export async function signOut(): Promise<void> {
  await api.DELETE('/session');
  await clearLocal();
  state.value = null;
}

export function projectOf(code: string): Api['ProjectSummary'] | null {
  return state.value?.projects.find((p) => p.code === code) ?? null;
}

const RECORDS = ['admin', 'lead', 'tester'];
export const mayRecord = (code: string): boolean => RECORDS.includes(projectOf(code)?.role ?? '');
export const mayLead = (code: string): boolean => ['admin', 'lead'].includes(projectOf(code)?.role ?? '');
export const mayWorkOnDefects = (code: string): boolean =>
  [...RECORDS, 'developer'].includes(projectOf(code)?.role ?? '');
