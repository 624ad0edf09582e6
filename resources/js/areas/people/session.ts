import { computed, shallowRef } from 'vue';
import { Problem, type Api } from '@/api/client';
import { clearAnswers, clearDevice, loadLocal, lockUnsent, openDevice, saveLocal } from '@/offline/device';
import { outbox } from '@/offline/outbox';
import { prefer } from '@/kit/preferences';
import { closeSession, openSession, readSession, readWelcome, savePreferences } from '@/areas/people/queries';

/** A session as the device keeps it for when the server is away, with when the server last said that it stands. */
interface Kept {
  session: Api['SessionState'];
  at: number;
}
/** Signed out while the server was away: it is told as soon as it is there, and nobody is signed in until then. */
const LEAVING = 'lucid-step-leaving';
/** As long as the server keeps a session, in ms: what it has not confirmed for so long is over. */
const LASTS = 12 * 3_600_000;

const state = shallowRef<Api['SessionState'] | null>(null);

/** Who is signed in. */
export const session = computed(() => state.value);

/** What tabs tell each other: who is signed in now, by id; null for nobody. */
const tabs = new BroadcastChannel('lucid-step-person');
tabs.onmessage = ({ data }: MessageEvent<string | null>) => {
  // What this tab shows is somebody else's now: it begins anew.
  if (state.value && state.value.user.id !== data) location.replace('/');
};

/** @returns whether somebody else was here before, whose drafts and answers are not theirs */
async function enter(found: Api['SessionState']): Promise<boolean> {
  const before = await loadLocal<string>('person');
  const other = before !== null && before !== found.user.id;
  if (other) await clearDevice();
  openDevice();
  state.value = found;
  prefer(found.preferences);
  await saveLocal('person', found.user.id);
  await stillThere();
  tabs.postMessage(found.user.id);
  await lockUnsent(found);
  await outbox.begin(found.user.id);
  return other;
}

/** The server confirmed the session: from now on it stands again for its time. */
export async function stillThere(): Promise<void> {
  if (state.value) await saveLocal('session', { session: state.value, at: Date.now() } satisfies Kept);
}

const PERMISSIONS = [
  'read',
  'see_evidence',
  'work_on_defects',
  'file_defects',
  'record',
  'write_cases',
  'lead',
  'administer',
  'remove_content',
] as const;
/** How many of them each role has where a project says nothing else. */
const OF_ROLE = { reader: 2, developer: 3, tester: 6, lead: 7, admin: 9 };

/** What an older release of the application kept counts too: it may have been replaced while the server is away. */
async function keptSession(): Promise<Kept | null> {
  const kept = await loadLocal<Kept | Api['SessionState']>('session');
  const found = kept && 'user' in kept ? { session: kept, at: Date.now() } : kept;
  for (const p of found?.session.projects ?? []) p.may ??= PERMISSIONS.slice(0, OF_ROLE[p.role]);
  return found;
}

/** Finds out who is signed in; while the server is away, who was. Null when nobody is. */
export async function whoIsThere(): Promise<Api['SessionState'] | null> {
  if (state.value) return state.value;
  if (localStorage.getItem(LEAVING) !== null && !(await endSession())) return null;
  try {
    await enter(await readSession());
    return state.value;
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    if (error.status === 401) {
      await clearAnswers();
      return null;
    }
    // A server in trouble says nothing of the session: what the device knows of it stands.
    outbox.sawServer(error.isAway);
  }
  const kept = await keptSession();
  if (!kept || Date.now() - kept.at > LASTS) {
    await clearAnswers();
    return null;
  }
  state.value = kept.session;
  prefer(kept.session.preferences);
  await outbox.begin(kept.session.user.id);
  return kept.session;
}

/**
 * @returns whether the page is to be begun anew: it may still hold what was somebody else's
 */
export async function signIn(email: string, password: string, code = ''): Promise<boolean> {
  return enterBy(() => openSession({ email, password, ...(code === '' ? {} : { code }) }));
}

/**
 * Goes in by another proof than a password: an invitation, or an address that works once.
 *
 * @param proof sends it, and answers the session that began
 * @returns whether the page is to be begun anew: it may still hold what was somebody else's
 */
export async function enterBy(proof: () => Promise<Api['SessionState']>): Promise<boolean> {
  await readWelcome();
  const found = await proof();
  localStorage.removeItem(LEAVING);
  return enter(found);
}

/** Reads again who one is, after a project came or went. */
export async function refreshSession(): Promise<void> {
  state.value = await readSession();
  prefer(state.value.preferences);
  await stillThere();
}

/**
 * Leaves nothing on the device but what is not sent yet, with or without the server: while it is away, it is told later.
 * The page is to be begun anew afterwards, so that nothing stays in its memory either.
 *
 * @returns whether the page can be begun anew: the server is there, or the device keeps the application
 */
export async function signOut(): Promise<boolean> {
  localStorage.setItem(LEAVING, '1');
  state.value = null;
  prefer(undefined);
  outbox.end();
  await clearDevice([LEAVING]);
  tabs.postMessage(null);
  return (await endSession()) || (await globalThis.caches?.match('/')) !== undefined;
}

/** @returns false while the server cannot say that it is over */
async function endSession(): Promise<boolean> {
  try {
    await closeSession();
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    if (error.status !== 401) return false;
  }
  localStorage.removeItem(LEAVING);
  return true;
}

/** Changes how one wants to work: it counts at once, on every device of this person. Fails as the request does; then nothing changed. */
export async function choose(change: Api['PreferencesRequest']): Promise<Api['AccountPage']> {
  const account = await savePreferences(change);
  await refreshSession();
  return account;
}

/** In which project this person was last on this device; it is no secret, and leaves with them. */
export const lastProject = (): string | null => localStorage.getItem('lucid-step-project');
export const rememberProject = (code: string): void => localStorage.setItem('lucid-step-project', code);

export function projectOf(code: string): Api['ProjectSummary'] | null {
  return state.value?.projects.find((p) => p.code === code) ?? null;
}

/** What can be allowed in a project; the server says what is. */
export type Permission = (typeof PERMISSIONS)[number];
export const may = (code: string, what: Permission): boolean => projectOf(code)?.may.includes(what) ?? false;
export const mayRecord = (code: string): boolean => may(code, 'record');
export const mayLead = (code: string): boolean => may(code, 'lead');
export const mayManagePeople = (code: string): boolean => may(code, 'administer');
export const mayRemoveContent = (code: string): boolean => may(code, 'remove_content');
export const mayWorkOnDefects = (code: string): boolean => may(code, 'work_on_defects');
