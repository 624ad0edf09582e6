import { attribute, isUnderPrivate } from './privacy';

/** What people call a control: longer names are cut there. */
const LONGEST = 80;
export const FIELDS = 'input,select,textarea';
/** Of these the words are no part of a name. */
const CONTROLS = `${FIELDS},script,style,[data-private]`;

const tidy = (text: string): string => {
  const plain = text.replace(/\s+/g, ' ').trim();
  return plain.length > LONGEST ? `${plain.slice(0, LONGEST - 1)}…` : plain;
};

/** The words within an element: not those of controls, nor what is private. */
function wordsOf(el: Element): string {
  let text = '';
  for (const node of el.childNodes) {
    if (node.nodeType === 3) text += node.textContent ?? '';
    else if (node.nodeType === 1 && text.length < 400) {
      const child = node as Element;
      if (child.matches('img')) text += ` ${attribute(child, 'alt')} `;
      else if (!child.matches(CONTROLS) && attribute(child, 'aria-hidden') !== 'true')
        text += ` ${attribute(child, 'aria-label') || wordsOf(child)} `;
    }
  }
  return text;
}

/** By `aria-labelledby`, `aria-label`, label, `alt` (Accessible Name and Description Computation 1.2, in short), or what stands in it. */
export function nameOf(el: Element): string {
  if (isUnderPrivate(el)) return 'something private';
  const root = el.getRootNode() as Document | ShadowRoot;
  const by = attribute(el, 'aria-labelledby')
    .split(/\s+/)
    .map((id) => (id ? root.getElementById(id) : null))
    .map((of) => (of ? wordsOf(of) : ''))
    .join(' ');
  const labels = [...((el as HTMLInputElement).labels ?? [])].map(wordsOf).join(' ');
  const isField = el.matches(FIELDS);
  const isButton = /^(submit|button|reset)$/.test((el as HTMLInputElement).type) && isField;
  return (
    [
      by,
      attribute(el, 'aria-label'),
      labels,
      attribute(el, 'alt'),
      attribute(el, 'placeholder'),
      isButton ? (el as HTMLInputElement).value : isField ? '' : wordsOf(el),
      attribute(el, 'title'),
    ]
      .map(tidy)
      .find((text) => text !== '') ?? selectorOf(el)
  );
}

/** What a group of choices is called: its legend, else its name. */
export function groupOf(el: HTMLInputElement): string {
  const group = el.closest('fieldset,[role=radiogroup]');
  const legend = group?.querySelector('legend');
  return (
    tidy(legend ? wordsOf(legend) : group ? attribute(group, 'aria-label') : '') || el.name || nameOf(el)
  );
}

/** The shortest selector that is unique on the page. */
export function selectorOf(el: Element): string {
  const root = el.getRootNode() as Document | ShadowRoot;
  const isOne = (selector: string): boolean => root.querySelectorAll(selector).length === 1;
  const tag = el.localName;
  const name = attribute(el, 'name');
  const own = [
    el.id ? `#${CSS.escape(el.id)}` : '',
    tag,
    name ? `${tag}[name="${CSS.escape(name)}"]` : '',
    ...[...el.classList].map((c) => `${tag}.${CSS.escape(c)}`),
  ].filter(Boolean);
  const found = own.find(isOne);
  if (found) return tidy(found);
  let path = '';
  for (let at: Element | null = el; at; at = at.parentElement) {
    const same = [...(at.parentElement?.children ?? [])].filter((c) => c.localName === at!.localName);
    const step = same.length > 1 ? `${at.localName}:nth-of-type(${same.indexOf(at) + 1})` : at.localName;
    path = path ? `${step} > ${path}` : step;
    if (isOne(path)) break;
  }
  return tidy(path);
}
