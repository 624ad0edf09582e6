/**
 * Several names in one text, between commas, semicolons or line ends; one that holds one of these stands in quotes, as in
 * CSV. The same as the server reads them.
 *
 * @returns the names without space around them, none empty
 */
export function readItems(text: string): string[] {
  const names: string[] = [];
  for (const [, quoted, plain] of text.matchAll(
    /\s*(?:"((?:[^"]|"")*)"(?=\s*(?:[,;\n]|$))|([^,;\n]*))\s*(?:[,;\n]|$)/gu,
  )) {
    const name = (quoted?.replaceAll('""', '"') ?? plain ?? '').trim();
    if (name !== '') names.push(name);
  }
  return names;
}

/**
 * Names as one text that {@link readItems} reads again.
 *
 * @param between what stands between them
 */
export function writeItems(names: readonly string[], between = ', '): string {
  return names.map((n) => (/[,;\n]|^"/u.test(n) ? `"${n.replaceAll('"', '""')}"` : n)).join(between);
}
