import { onBeforeUnmount, onMounted, reactive, ref, shallowRef } from 'vue';

/** A key and what it does, as the help shows it. */
export interface Binding {
  /** A single key as `KeyboardEvent.key` names it, two in a row ("g t"), or one with Alt ("Alt+C"), also while one types. */
  keys: string[];
  label: string;
  run: () => void;
  /** Not shown in the help. */
  quiet?: boolean;
}
interface Group {
  title: string;
  bindings: () => Binding[];
}

const groups = reactive<Group[]>([]);
/** A key that a person presses for the one that pages name. */
export interface KeyChoice {
  key: string;
  pressed: string;
}
/** Whether this person switched single keys off. */
export const keysOff = ref(false);
const pressedFor = shallowRef(new Map<string, string>());
const namedBy = shallowRef(new Map<string, string>());
let first = '';
let firstAt = 0;

/** Says which keys this person presses: those that changed, exchanged among each other. */
export function setKeys(single: boolean, changed: readonly KeyChoice[]): void {
  keysOff.value = !single;
  pressedFor.value = new Map(changed.map((c) => [c.key, c.pressed]));
  namedBy.value = new Map(changed.map((c) => [c.pressed, c.key]));
}

/** What pages name the key that was pressed. */
export const keyNamed = (pressed: string): string => namedBy.value.get(pressed) ?? pressed;

/** What is pressed for a key, or for two in a row. */
export const keyCap = (named: string): string =>
  named
    .split(' ')
    .map((key) => pressedFor.value.get(key) ?? key)
    .join(' ');

/** What something does, with its key in brackets. */
export const tip = (words: string, named: string): string =>
  keysOff.value ? words : `${words} (${keyCap(named)})`;

/** Whether a key can be given to something else: it writes one letter, digit or sign. `?` shows the keys and stays. */
export const canChange = (key: string): boolean => /^[\p{L}\p{N}\p{P}\p{S}]$/u.test(key) && key !== '?';

/** The keys with `pressed` standing for `named` from now on; whatever it stood for before gets the other. */
export function exchanged(named: string, pressed: string): KeyChoice[] {
  const now = new Map(pressedFor.value);
  const other = keyNamed(pressed);
  now.set(other, keyCap(named));
  now.set(named, pressed);
  return [...now].filter(([key, cap]) => key !== cap).map(([key, cap]) => ({ key, pressed: cap }));
}

export function isTyping(target: EventTarget | null): boolean {
  return (
    target !== null &&
    'closest' in target &&
    (target as HTMLElement).closest(
      'input:not([type=checkbox]):not([type=radio]), textarea, select, [contenteditable], [role=combobox], [role=listbox]',
    ) !== null
  );
}

/** The letter of a key that is pressed together with Alt, which on some keyboards writes another sign with it. */
const letterOf = (event: KeyboardEvent): string =>
  /^[a-z!1]$/i.test(event.key)
    ? event.key.toLowerCase()
    : (/^Key([A-Z])$/.exec(event.code)?.[1] ?? event.key).toLowerCase();

/** Does what the last group says about one of these keys; true when one did. A dialog keeps the page below it quiet. */
function act(event: KeyboardEvent, ...wanted: string[]): boolean {
  if (document.querySelector('[role=dialog][aria-modal=true]')) return false;
  for (const key of wanted)
    for (const group of [...groups].reverse()) {
      const binding = group.bindings().find((b) => b.keys.includes(key));
      if (binding) {
        event.preventDefault();
        first = '';
        binding.run();
        return true;
      }
    }
  return false;
}

function onKey(event: KeyboardEvent): void {
  if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.repeat) return;
  if (event.altKey) {
    act(event, `Alt+${event.shiftKey ? 'Shift+' : ''}${letterOf(event).toUpperCase()}`);
    return;
  }
  if (
    // Whoever speaks to the machine switches off what a single letter does; Enter, Escape and arrows are nobody's words.
    keysOff.value &&
    event.key.length === 1
  )
    return;
  if (isTyping(event.target)) return;
  const key = keyNamed(event.key);
  // A focused button or link answers Enter and space itself.
  if (
    (event.key === 'Enter' || event.key === ' ') &&
    event.target !== null &&
    'closest' in event.target &&
    (event.target as HTMLElement).closest('button, a, summary, input')
  )
    return;
  // When the keys were pressed, not when a busy page came to them.
  const pair = first && event.timeStamp - firstAt < 1200 ? [`${first} ${key}`] : [];
  if (act(event, ...pair, key)) return;
  first = key === 'g' ? 'g' : '';
  firstAt = event.timeStamp;
}

/** Lets the keys of the page work in another window of it too; call what it returns when that is closed. */
export function forwardKeys(other: Window): () => void {
  other.addEventListener('keydown', onKey);
  return () => other.removeEventListener('keydown', onKey);
}

let listening = false;

/** Binds keys while the component is there. Later groups win over earlier ones. */
export function useKeys(title: string, bindings: () => Binding[]): void {
  const group: Group = { title, bindings };
  onMounted(() => {
    if (!listening) {
      listening = true;
      window.addEventListener('keydown', onKey);
    }
    groups.push(group);
  });
  onBeforeUnmount(() => {
    const at = groups.findIndex((g) => g.title === title && g.bindings === bindings);
    if (at >= 0) groups.splice(at, 1);
  });
}

/** All keys in force, for the help. */
export function keyHelp(): { title: string; bindings: Binding[] }[] {
  return [...groups]
    .reverse()
    .map((g) => ({ title: g.title, bindings: g.bindings().filter((b) => !b.quiet) }))
    .filter((g) => g.bindings.length > 0);
}
