import { device } from './device';
import type { QueuedCommand } from './commands';

/** Something that only its person can read again. */
export interface SealedText {
  user: string;
  iv: Uint8Array<ArrayBuffer>;
  sealed: ArrayBuffer;
}
/** A command of that kind. */
export interface Sealed extends SealedText {
  counter: number;
}
/** Where what was typed by a person lies while it is locked, by the name it is kept under. */
export const SEALED = 'sealed:';
const lockedName = (user: string, name: string): string => `${SEALED}${user}:${name}`;

/**
 * A command, or what was typed, as text, with the bytes of its files behind it: the length of the text (32 bits), the text, the
 * bytes.
 */
async function packed(value: unknown): Promise<ArrayBuffer> {
  const files: Blob[] = [];
  let at = 0;
  const text = JSON.stringify(value, (_, one: unknown) => {
    if (!(one instanceof Blob)) return one;
    files.push(one);
    const file = {
      blob: [at, one.size],
      type: one.type,
      name: one instanceof File ? one.name : null,
    };
    at += one.size;
    return file;
  });
  const words = new TextEncoder().encode(text);
  return new Blob([new Uint32Array([words.length]), words, ...files]).arrayBuffer();
}

function unpacked(bytes: ArrayBuffer): unknown {
  const length = new Uint32Array(bytes.slice(0, 4))[0] ?? 0;
  const rest = bytes.slice(4 + length);
  const text = new TextDecoder().decode(bytes.slice(4, 4 + length));
  return JSON.parse(text, (_, value: unknown) => {
    const file = value as { blob?: [number, number]; type: string; name: string | null } | null;
    if (!Array.isArray(file?.blob)) return value;
    const part = rest.slice(file.blob[0], file.blob[0] + file.blob[1]);
    return file.name === null
      ? new Blob([part], { type: file.type })
      : new File([part], file.name, { type: file.type });
  }) as unknown;
}

/** @param secret 32 bytes as base64, which the server tells its person alone */
async function keyOf(secret: string): Promise<CryptoKey> {
  const bytes = Uint8Array.from(atob(secret), (c) => c.charCodeAt(0));
  return crypto.subtle.importKey('raw', bytes, 'AES-GCM', false, ['encrypt', 'decrypt']);
}

async function locked(user: string, key: CryptoKey, value: unknown): Promise<SealedText> {
  const iv = crypto.getRandomValues(new Uint8Array(12));
  return { user, iv, sealed: await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, key, await packed(value)) };
}

/** @returns what was locked; null where another key locked it, or somebody changed its bytes */
async function opened(key: CryptoKey, of: SealedText): Promise<unknown> {
  try {
    return unpacked(await crypto.subtle.decrypt({ name: 'AES-GCM', iv: of.iv }, key, of.sealed));
  } catch (error) {
    if (!(error instanceof Error) || error.name !== 'OperationError') throw error;
    return null;
  }
}

/**
 * Locks what a person has not sent yet and what they were typing: whoever uses the device after them can neither read nor change
 * it.
 *
 * @param typed the names that what was typed is kept under
 */
export async function seal(user: string, secret: string, typed: string[]): Promise<void> {
  const key = await keyOf(secret);
  const at = await device();
  for (const name of typed) {
    await at.put('kept', await locked(user, key, await at.get('kept', name)), lockedName(user, name));
    await at.delete('kept', name);
  }
  for (const queued of await at.getAll('acts')) {
    if ('sealed' in queued || queued.user !== user) continue;
    await at.put('acts', { counter: queued.counter, ...(await locked(user, key, queued)) });
  }
}

/** Opens what was locked for a person. What another key locked stays as it is: nothing is lost. */
export async function unseal(user: string, secret: string): Promise<void> {
  const key = await keyOf(secret);
  const at = await device();
  for (const queued of await at.getAll('acts')) {
    if (!('sealed' in queued) || queued.user !== user) continue;
    const command = await opened(key, queued);
    if (command !== null) await at.put('acts', command as QueuedCommand);
  }
  for (const name of (await at.getAllKeys('kept')).filter((n) => n.startsWith(lockedName(user, '')))) {
    const typed = await opened(key, (await at.get('kept', name)) as SealedText);
    if (typed === null) continue;
    await at.put('kept', typed, name.slice(lockedName(user, '').length));
    await at.delete('kept', name);
  }
}
