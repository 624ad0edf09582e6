import { onBeforeUnmount, onMounted, reactive, ref } from 'vue';

/** A key and what it does, as the help shows it. */
export interface Binding {
  /** A single key as `KeyboardEvent.key` names it, or two in a row: "g t". */
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
const OFF = 'lucid-step-keys-off';
/** Whether single keys are switched off on this device. */
export const keysOff = ref(localStorage.getItem(OFF) === '1');
let first = '';
let firstAt = 0;

export function setKeysOff(off: boolean): void {
  keysOff.value = off;
  localStorage.setItem(OFF, off ? '1' : '0');
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

function onKey(event: KeyboardEvent): void {
  if (
    event.defaultPrevented ||
    event.ctrlKey ||
    event.metaKey ||
    event.altKey ||
    event.repeat ||
    keysOff.value
  )
    return;
  if (isTyping(event.target)) return;
  // A focused button or link answers Enter and space itself.
  if (
    (event.key === 'Enter' || event.key === ' ') &&
    event.target !== null &&
    'closest' in event.target &&
    (event.target as HTMLElement).closest('button, a, summary, input')
  )
    return;
  // A dialog keeps the keys of the page below it quiet.
  if (document.querySelector('[role=dialog][aria-modal=true]')) return;
  // When the keys were pressed, not when a busy page came to them.
  const pair = first && event.timeStamp - firstAt < 1200 ? `${first} ${event.key}` : '';
  for (const wanted of [pair, event.key]) {
    if (!wanted) continue;
    for (const group of [...groups].reverse()) {
      const binding = group.bindings().find((b) => b.keys.includes(wanted));
      if (binding) {
        event.preventDefault();
        first = '';
        binding.run();
        return;
      }
    }
  }
  first = event.key === 'g' ? 'g' : '';
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
