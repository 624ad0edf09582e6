import { computed, ref, watch } from 'vue';
import type { Walk, WalkStep } from './useWalk';

const SAID_MS = 1800;

/** A value in a text: what stands in it as code. */
const CODE = /(`+)(?!`)(.+?)(?<!`)\1(?!`)/g;

/** What can be copied out of a step: the values of its row, its data, and any value in its text. */
export function useCopying(walk: Walk, step: () => WalkStep) {
  const said = ref('');
  let next = 0;
  const data = computed(() =>
    step()
      .data.split('\n')
      .filter((d) => d.trim() !== ''),
  );
  /** The values of the row that stand in this step. */
  const values = computed(() => {
    const used = new Set(step().uses.map((u) => u.toLowerCase()));
    return (walk.round.value?.values ?? []).filter((v) => used.has(v.name.toLowerCase()));
  });
  /** Data that is not just a value of the row. */
  const chips = computed(() => data.value.filter((c) => !values.value.some((v) => v.value === c)));
  /** Values that stand in the words of the step and nowhere else. */
  const inText = computed(() => {
    const others = new Set([...values.value.map((v) => v.value), ...data.value, '(empty)']);
    const found = [...`${step().action}\n${step().expected}`.matchAll(CODE)].map((m) => (m[2] ?? '').trim());
    return [...new Set(found)].filter((text) => text !== '' && !others.has(text));
  });
  watch(
    () => [step().position, walk.roundAt.value],
    () => (next = 0),
  );
  function toast(words: string): void {
    said.value = words;
    setTimeout(() => (said.value = ''), SAID_MS);
  }
  async function copy(text: string, name = ''): Promise<void> {
    try {
      await navigator.clipboard.writeText(text);
      toast(`${name === '' ? '' : `${name} `}copied`);
    } catch {
      toast('The browser did not let it be copied. Select it and press Ctrl C.');
    }
  }
  /** Copies the values of the step one after another. */
  function copyNext(): void {
    const list = [
      ...values.value.map((v) => ({ name: v.name, text: v.hidden ? '' : v.value })),
      ...chips.value.map((text) => ({ name: 'data', text })),
      ...inText.value.map((text) => ({ name: 'value', text })),
    ];
    const at = next % Math.max(1, list.length);
    const one = list[at];
    next += 1;
    if (one) void copy(one.text, `${at + 1} of ${list.length}, ${one.name}`);
    else toast('There is no value in this step');
  }
  /** A value that stands in the text is copied by a click on it. */
  function onText(event: MouseEvent): void {
    const code = event.target instanceof HTMLElement ? event.target.closest('code') : null;
    if (code) void copy(code.textContent === '(empty)' ? '' : (code.textContent ?? ''));
  }
  return { data, values, chips, said, copy, copyNext, onText };
}
