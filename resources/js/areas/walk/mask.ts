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

/** A text file with the values hidden; any other as it is. */
export async function maskFile(file: Blob, name: string, secrets: readonly string[]): Promise<Blob> {
  if (!file.type.startsWith('text/') && !/\.(txt|log)$/i.test(name)) return file;
  const text = await file.text();
  const masked = maskText(text, secrets);
  return masked === text ? file : new File([masked], maskText(name, secrets), { type: file.type });
}
