import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { QueuedCommand } from './commands';
import type { Sealed } from './seal';

interface Device extends DBSchema {
  /** What waits to be sent, in order. */
  acts: { key: number; value: QueuedCommand | Sealed };
  /** Server answers kept for when the server is away, and texts being typed. */
  kept: { key: string; value: unknown };
}

let open: Promise<IDBPDatabase<Device>> | null = null;

/** The database on this device. */
export function device(): Promise<IDBPDatabase<Device>> {
  open ??= openDB<Device>('lucid-step', 1, {
    // A newer page in another tab may want to change the database: it is not kept waiting.
    blocking: (_old, _new, event) => (event.target as IDBDatabase).close(),
    upgrade(db) {
      db.createObjectStore('acts', { keyPath: 'counter', autoIncrement: true });
      db.createObjectStore('kept');
    },
  });
  return open;
}

/** What waits to be sent, in order, also what an older release of the application wrote there. */
export async function queuedOnDevice(): Promise<QueuedCommand[]> {
  const all = (await (await device()).getAll('acts')).filter((q) => !('sealed' in q)) as (QueuedCommand & {
    deed?: QueuedCommand['command'];
  })[];
  return all.map(({ deed, ...queued }) => (deed ? { ...queued, command: deed } : queued));
}

/** Whether the device itself refused, for lack of room or rights; anything else is a mistake of the application. */
export function isNoRoom(error: unknown): boolean {
  return error instanceof DOMException && error.name !== 'DataCloneError';
}
/** Whether somebody just signed out here: what was still on its way to them is not kept. */
let emptied = false;

/**
 * Keeps something for when the server is away.
 *
 * @returns false when the device has no room for it, or nobody is there any more: what it came from goes on without
 */
export async function saveLocal(key: string, value: unknown): Promise<boolean> {
  if (emptied) return false;
  try {
    await (await device()).put('kept', value, key);
    return true;
  } catch (error) {
    if (isNoRoom(error)) return false;
    throw error;
  }
}
export async function loadLocal<T>(key: string): Promise<T | null> {
  return ((await (await device()).get('kept', key)) as T | undefined) ?? null;
}
export async function removeLocal(key: string): Promise<void> {
  await (await device()).delete('kept', key);
}
/** What a person typed and the server does not have: it waits for them. */
const TYPED = /^(draft|scratch):/;
const LOCKED = /^sealed:/;

const namesOf = async (kind: RegExp): Promise<string[]> =>
  (await (await device()).getAllKeys('kept')).filter((name) => kind.test(name));

/**
 * What of a person is on the device and nowhere else.
 *
 * @returns how much waits to be sent, how much was typed, and whether the device can lock both for them when they leave
 */
export async function unsent(user: string): Promise<{ acts: number; typed: number; locks: boolean }> {
  const kept = await loadLocal<{ session?: { device_key?: string } }>('session');
  return {
    acts: (await queuedOnDevice()).filter((q) => q.user === user).length,
    typed: (await namesOf(/^draft:/)).length,
    locks: Boolean(kept?.session?.device_key) && Boolean(crypto.subtle),
  };
}

/**
 * Locks what the person of the kept session has not sent and was typing, or opens what was locked for one. Browsers encrypt only where the
 * address is `https` or this very machine; elsewhere it stays as it is.
 */
export async function lockUnsent(opens?: { user: { id: string }; device_key: string }): Promise<void> {
  const kept = await loadLocal<{ session?: typeof opens }>('session');
  const of = opens ?? kept?.session;
  if (!of?.device_key || !crypto.subtle) return;
  const typed = await namesOf(opens ? LOCKED : TYPED);
  if (typed.length === 0 && (await (await device()).count('acts')) === 0) return;
  const { seal, unseal } = await import('./seal');
  if (opens) await unseal(of.user.id, of.device_key);
  else await seal(of.user.id, of.device_key, typed);
}

/** Empties what is kept of the server's answers, when a session is over. What was typed and not sent waits for its person. */
export async function clearAnswers(): Promise<void> {
  await lockUnsent();
  const at = await device();
  for (const key of await at.getAllKeys('kept'))
    if (!TYPED.test(key) && !LOCKED.test(key)) await at.delete('kept', key);
}

/**
 * Leaves nothing of a person on the device but what is not sent yet, on signing out or before somebody else: locked for them where
 * the browser can, and without what was typed where it cannot.
 *
 * @param spared what stays in the storage of the page
 */
export async function clearDevice(spared: string[] = []): Promise<void> {
  emptied = true;
  await lockUnsent();
  for (const key of await namesOf(/^(?!sealed:)/)) await (await device()).delete('kept', key);
  for (const key of Object.keys(localStorage)) if (!spared.includes(key)) localStorage.removeItem(key);
  sessionStorage.clear();
}

/** Somebody is there: what is read for them is kept again. */
export function openDevice(): void {
  emptied = false;
}
