import { device } from './device';
import type { QueuedCommand } from './commands';

/** A command that only its person can read again. */
export interface Sealed {
  counter: number;
  user: string;
  iv: Uint8Array<ArrayBuffer>;
  sealed: ArrayBuffer;
}

/** A command as text, with the bytes of its files behind it: the length of the text (32 bits), the text, the bytes. */
async function packed(queued: QueuedCommand): Promise<ArrayBuffer> {
  const files: Blob[] = [];
  let at = 0;
  const text = JSON.stringify(queued, (_, value: unknown) => {
    if (!(value instanceof Blob)) return value;
    files.push(value);
    const file = {
      blob: [at, value.size],
      type: value.type,
      name: value instanceof File ? value.name : null,
    };
    at += value.size;
    return file;
  });
  const words = new TextEncoder().encode(text);
  return new Blob([new Uint32Array([words.length]), words, ...files]).arrayBuffer();
}

function unpacked(bytes: ArrayBuffer): QueuedCommand {
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
  }) as QueuedCommand;
}

/** @param secret 32 bytes as base64, which the server tells its person alone */
async function keyOf(secret: string): Promise<CryptoKey> {
  const bytes = Uint8Array.from(atob(secret), (c) => c.charCodeAt(0));
  return crypto.subtle.importKey('raw', bytes, 'AES-GCM', false, ['encrypt', 'decrypt']);
}

/** Locks what a person has not sent yet: whoever uses the device after them can neither read nor change it. */
export async function seal(user: string, secret: string): Promise<void> {
  const key = await keyOf(secret);
  for (const queued of await (await device()).getAll('acts')) {
    if ('sealed' in queued || queued.user !== user) continue;
    const iv = crypto.getRandomValues(new Uint8Array(12));
    const sealed = await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, key, await packed(queued));
    await (await device()).put('acts', { counter: queued.counter, user, iv, sealed });
  }
}

/** Opens what was locked for a person. What another key locked stays as it is: nothing is lost. */
export async function unseal(user: string, secret: string): Promise<void> {
  const key = await keyOf(secret);
  for (const queued of await (await device()).getAll('acts')) {
    if (!('sealed' in queued) || queued.user !== user) continue;
    try {
      const bytes = await crypto.subtle.decrypt({ name: 'AES-GCM', iv: queued.iv }, key, queued.sealed);
      await (await device()).put('acts', unpacked(bytes));
    } catch (error) {
      // Another key, or bytes that somebody changed.
      if (!(error instanceof Error) || error.name !== 'OperationError') throw error;
    }
  }
}
