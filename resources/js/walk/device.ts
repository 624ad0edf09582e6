import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Act } from './acts';

interface Device extends DBSchema {
  /** What waits to be sent, in order. */
  acts: { key: number; value: Act };
  /** Server answers kept for when the server is away, and texts being typed. */
  kept: { key: string; value: unknown };
}

let open: Promise<IDBPDatabase<Device>> | null = null;

/** The database on this device. */
export function device(): Promise<IDBPDatabase<Device>> {
  open ??= openDB<Device>('lucid-step', 1, {
    upgrade(db) {
      db.createObjectStore('acts', { keyPath: 'counter', autoIncrement: true });
      db.createObjectStore('kept');
    },
  });
  return open;
}

export async function keep(key: string, value: unknown): Promise<void> {
  await (await device()).put('kept', value, key);
}
export async function kept<T>(key: string): Promise<T | null> {
  return ((await (await device()).get('kept', key)) as T | undefined) ?? null;
}
export async function forget(key: string): Promise<void> {
  await (await device()).delete('kept', key);
}
/** Empties what is kept of the server's answers and drafts, on signing out. Acts not yet sent stay. */
export async function forgetAll(): Promise<void> {
  await (await device()).clear('kept');
}
