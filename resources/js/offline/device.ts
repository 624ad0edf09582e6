import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { QueuedCommand } from './commands';

interface Device extends DBSchema {
  /** What waits to be sent, in order. */
  acts: { key: number; value: QueuedCommand };
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
  const all = (await (await device()).getAll('acts')) as (QueuedCommand & {
    deed?: QueuedCommand['command'];
  })[];
  return all.map(({ deed, ...queued }) => (deed ? { ...queued, command: deed } : queued));
}

/** Whether the device itself refused, for lack of room or rights; anything else is a mistake of the application. */
export function isNoRoom(error: unknown): boolean {
  return error instanceof DOMException && error.name !== 'DataCloneError';
}
/**
 * Keeps something for when the server is away.
 *
 * @returns false when the device has no room for it: what it came from goes on without
 */
export async function saveLocal(key: string, value: unknown): Promise<boolean> {
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
/** Empties what is kept of the server's answers and drafts, on signing out. Commands not yet sent stay. */
export async function clearLocal(): Promise<void> {
  await (await device()).clear('kept');
}
