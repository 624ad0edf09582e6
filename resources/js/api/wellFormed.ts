/** What no text can be stored with: U+0000, and halves of characters that stand alone. */
const UNSTORABLE =
  // eslint-disable-next-line no-control-regex
  /\u0000|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/**
 * The same value with U+FFFD in place of what cannot be stored, in every text of it, however deep. Files and dates stay what
 * they are.
 */
export function wellFormed<T>(value: T): T {
  if (typeof value === 'string') return value.replace(UNSTORABLE, '\ufffd') as T;
  if (Array.isArray(value)) return value.map((one: unknown) => wellFormed(one)) as T;
  if (value !== null && typeof value === 'object' && Object.getPrototypeOf(value) === Object.prototype)
    return Object.fromEntries(
      Object.entries(value).map(([key, one]) => [key, wellFormed(one as unknown)]),
    ) as T;
  return value;
}
