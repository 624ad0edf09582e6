/** What is never read of a page. Keeps to `tests/shared/private-fields.json`, like `core/Sessions/PrivateField.php`. */
const WORDS = new RegExp(
  'pass(word|wort|code|phrase)|\\bpasswd|\\bpwd|kennwort|mot.?de.?passe|contrase|wachtwoord|senha' +
    '|one.?time|\\botp\\b|einmal|\\bpin\\b|\\btan\\b|(security|verification|sicherheits|pr(ü|ue)f).?(code|nummer|number|ziffer)|2fa' +
    '|\\bcv[cv]2?\\b|\\bcsc\\b|\\biban\\b|(credit|debit|bank|payment).?card|kredit.?karte|karten.?nummer' +
    '|card.?(number|no\\b|num\\b|nr\\b|code|holder|expir)|\\bcc.?(num|number|no|csc|exp|name)|carte.?(bancaire|bleue)|tarjeta',
  'i',
);
const KEYS =
  /token|secret|passw|\bpwd\b|api.?key|\bkey\b|\bcode\b|session|\bsid\b|\bauth|signature|\bsig\b|jwt|otp/i;
/** What `autocomplete` says of such fields (HTML, 4.10.18.7). */
const AUTOFILL = /\b(current-password|new-password|one-time-code|cc-[a-z-]+)\b/;
/** Fields that were of passwords once: a button may have made their letters visible. */
const passwords = new WeakSet<Element>();

/** An attribute, empty where it is not there. */
export const attribute = (el: Element, name: string): string => el.getAttribute(name) ?? '';

export const isCalledPrivate = (called: string): boolean => WORDS.test(called);

/** Whether a text is the number of a payment card: 13 to 19 digits with the check digit of ISO/IEC 7812-1, Annex B. */
export function isCardNumber(text: string): boolean {
  const digits = text.trim().replace(/[ -]/g, '');
  if (!/^\d{13,19}$/.test(digits)) return false;
  const sum = [...digits].reverse().reduce((all, digit, at) => {
    const twice = Number(digit) * (at % 2 === 1 ? 2 : 1);
    return all + (twice > 9 ? twice - 9 : twice);
  }, 0);
  return sum % 10 === 0;
}

/** An address without the values of its parameters that let somebody in. */
export const withoutKeys = (address: string): string =>
  address.replace(/([?&#;])([^=&#;?/]+)=([^&#;]*)/g, (all, before: string, key: string) =>
    KEYS.test(key) ? `${before}${key}=…` : all,
  );

/** Whether it lies under `data-private`, also across shadow roots. */
export function isUnderPrivate(el: Element): boolean {
  for (let at: Element | null = el; at; at = at.parentElement ?? hostOf(at))
    if (at.hasAttribute('data-private')) return true;
  return false;
}

function hostOf(el: Element): Element | null {
  const root = el.getRootNode();
  return 'host' in root ? (root as ShadowRoot).host : null;
}

/**
 * Whether what a field holds is never read.
 * @param called what people call it
 */
export function isPrivateField(el: Element, called: string): boolean {
  if (attribute(el, 'type').toLowerCase() === 'password') passwords.add(el);
  return (
    passwords.has(el) ||
    AUTOFILL.test(attribute(el, 'autocomplete').toLowerCase()) ||
    [called, attribute(el, 'name'), el.id].some(isCalledPrivate) ||
    isUnderPrivate(el)
  );
}
