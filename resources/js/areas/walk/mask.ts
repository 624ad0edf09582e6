import type { Api } from '@/api/client';

const DOTS = '••••';
/** A shorter value would turn up by chance. */
const SHORTEST = 4;

/** The secret values that an attempt is walked with, as far as the device knows them. */
export function secretsOf(rounds: readonly Pick<Api['RoundRecord'], 'values'>[]): string[] {
  return rounds.flatMap((r) => r.values.filter((v) => v.secret && !v.hidden).map((v) => v.value));
}

/** Hides secret values in text that leaves the walk, as the server does (`core/Data/Mask`). */
export function maskText(text: string, secrets: readonly string[]): string {
  const long = [...new Set(secrets)].filter((s) => [...s].length >= SHORTEST);
  if (long.length === 0) return text;
  // The longest first, so that no part of one stays behind when it holds another.
  long.sort((a, b) => b.length - a.length);
  const any = new RegExp(long.map((s) => s.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|'), 'g');
  return text.replace(any, DOTS);
}

/** Whether it is text in one of the usual character sets, as far as its first bytes tell; the server tells it alike. */
export async function isText(file: Blob): Promise<boolean> {
  const head = new Uint8Array(await file.slice(0, 4096).arrayBuffer());
  const marked = (head[0] === 0xff && head[1] === 0xfe) || (head[0] === 0xfe && head[1] === 0xff);
  return marked || !head.includes(0);
}

/** A text file with the values hidden; any other as it is. */
export async function maskFile(file: Blob, name: string, secrets: readonly string[]): Promise<Blob> {
  if (/^(image|video)\//.test(file.type) || !(await isText(file))) return file;
  const text = await file.text();
  const masked = maskText(text, secrets);
  return masked === text ? file : new File([masked], maskText(name, secrets), { type: file.type });
}
