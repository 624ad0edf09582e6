import { computed, nextTick, ref } from 'vue';
import type { Api } from '@/api/client';
import { toast } from '@/kit/notices';
import { plural } from '@/kit/words';
import { asCases, asRows, cells, isTable, type PastedCase } from './paste';
import {
  blank,
  COLUMNS,
  duplicate,
  insertAt,
  isEmpty,
  moveBy,
  split,
  toRows,
  type Column,
  type Row,
} from './steps';

/** What happens with the grid. */
export interface GridEvents {
  change: (rows: Row[]) => void;
  cases: (found: PastedCase[]) => void;
  extract: (positions: number[]) => void;
}

/** The grid of steps by keyboard: which cell is written in, and what each key and each paste does to the rows. */
export function useGrid(
  props: Readonly<{ rows: Row[]; mayWrite: boolean; mayCases?: boolean }>,
  on: GridEvents,
) {
  const active = ref<{ id: string; column: Column } | null>(null);
  const chosen = ref(new Set<string>());
  const undone: Row[][] = [];
  const dragged = ref(-1);
  const shown = computed(() =>
    props.mayWrite && (props.rows.length === 0 || !isEmpty(props.rows[props.rows.length - 1] as Row))
      ? [...props.rows, tail.value]
      : props.rows,
  );
  // A row to write in always stands at the end; it becomes a step with its first letter.
  const tail = ref(blank());
  const at = (id: string): number => shown.value.findIndex((r) => r.id === id);

  function put(rows: Row[]): void {
    undone.push(props.rows.map((r) => ({ ...r })));
    if (undone.length > 50) undone.shift();
    if (rows.some((r) => r.id === tail.value.id)) tail.value = blank();
    on.change(rows);
  }
  function undo(): void {
    const before = undone.pop();
    if (before) on.change(before);
  }
  function type(id: string, column: Column, text: string): void {
    const rows = shown.value.map((r) => (r.id === id ? { ...r, [column]: text } : r));
    const kept = id === tail.value.id ? rows : rows.filter((r) => r.id !== tail.value.id);
    if (id === tail.value.id) tail.value = blank();
    on.change(kept);
  }
  async function go(row: number, column: Column, caret: 'start' | 'end' = 'end'): Promise<void> {
    const target = shown.value[row];
    if (!target) return;
    if (target.routine) {
      document.querySelector<HTMLElement>(`[data-row="${target.id}"]`)?.focus();
      return;
    }
    active.value = { id: target.id, column };
    await nextTick();
    const field = document.querySelector<HTMLTextAreaElement>(`#cell-${target.id}-${column}`);
    field?.focus();
    const end = caret === 'end' ? (field?.value.length ?? 0) : 0;
    field?.setSelectionRange(end, end);
  }
  async function open(id: string, column: Column): Promise<void> {
    if (!props.mayWrite) return;
    await go(at(id), column);
  }
  function remove(from: number, count = 1): void {
    const gone = props.rows.slice(from, from + count);
    if (gone.length === 0) return;
    put([...props.rows.slice(0, from), ...props.rows.slice(from + count)]);
    sayGone(gone.length === 1 ? `Step ${from + 1} deleted.` : `${plural(gone.length, 'step')} deleted.`);
  }
  /** Says that steps went; the way back stays open. */
  function sayGone(text: string): void {
    const before = undone[undone.length - 1] as Row[];
    toast(text, async () => {
      on.change(before);
      return 'The steps are back.';
    });
  }
  function onKey(event: KeyboardEvent, row: Row, column: Column): void {
    const i = at(row.id);
    const field = event.target as HTMLTextAreaElement;
    const ctrl = event.ctrlKey || event.metaKey;
    const done = (): void => {
      event.preventDefault();
      event.stopPropagation();
    };
    if (event.key === 'Escape') {
      done();
      active.value = null;
      void nextTick(() => document.querySelector<HTMLElement>(`#show-${row.id}-${column}`)?.focus());
    } else if (event.key === 'Enter' && ctrl && event.shiftKey) {
      done();
      const [one, two] = split(row, column, field.selectionStart);
      put([...props.rows.slice(0, i), one, two, ...props.rows.slice(i + 1)]);
      void nextTick(() => go(i + 1, column, 'start'));
    } else if (event.key === 'Enter' && ctrl) {
      done();
      put(insertAt(props.rows, i + 1, [blank()]));
      void nextTick(() => go(i + 1, 'action'));
    } else if (event.key === 'Enter' && !event.shiftKey) {
      done();
      if (i === shown.value.length - 1 && isEmpty(row)) return;
      void nextTick(() => go(i + 1, 'action'));
    } else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      done();
      put(moveBy(props.rows, i, i, event.key === 'ArrowUp' ? -1 : 1));
      void nextTick(() => go(at(row.id), column));
    } else if (ctrl && event.shiftKey && event.key.toLowerCase() === 'd') {
      done();
      put(insertAt(props.rows, i + 1, [duplicate(row)]));
      void nextTick(() => go(i + 1, column));
    } else if (ctrl && event.shiftKey && event.key === 'Backspace') {
      done();
      remove(i);
      void nextTick(() => go(Math.min(i, shown.value.length - 1), 'action'));
    } else if (ctrl && ['b', 'e', 'm'].includes(event.key.toLowerCase())) {
      done();
      wrap(field, { b: '**', e: '`', m: '==' }[event.key.toLowerCase()] ?? '', row, column);
    } else if (event.key === 'ArrowDown' && field.selectionStart === field.value.length && !event.shiftKey) {
      done();
      void go(i + 1, column, 'start');
    } else if (event.key === 'ArrowUp' && field.selectionEnd === 0 && !event.shiftKey) {
      done();
      void go(i - 1, column);
    } else if (
      event.key === 'Backspace' &&
      isEmpty(row) &&
      column === 'action' &&
      i > 0 &&
      i < props.rows.length
    ) {
      done();
      put(props.rows.filter((r) => r.id !== row.id));
      void nextTick(() => go(i - 1, 'expected'));
    }
  }
  function wrap(field: HTMLTextAreaElement, mark: string, row: Row, column: Column): void {
    const { selectionStart: from, selectionEnd: to, value } = field;
    type(row.id, column, value.slice(0, from) + mark + value.slice(from, to) + mark + value.slice(to));
    void nextTick(() => field.setSelectionRange(from + mark.length, to + mark.length));
  }
  /** Puts text where the caret is. */
  function place(text: string, around = ''): void {
    const now = active.value;
    const field = now && document.querySelector<HTMLTextAreaElement>(`#cell-${now.id}-${now.column}`);
    const row = now && shown.value.find((r) => r.id === now.id);
    if (!now || !field || !row) {
      toast('Put the caret into a cell first.');
      return;
    }
    if (around) wrap(field, around, row, now.column);
    else {
      const { selectionStart: from, selectionEnd: to, value } = field;
      type(row.id, now.column, value.slice(0, from) + text + value.slice(to));
      void nextTick(() => {
        field.focus();
        field.setSelectionRange(from + text.length, from + text.length);
      });
    }
  }
  function onPaste(event: ClipboardEvent, row: Row, column: Column): void {
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (!isTable(text)) return;
    event.preventDefault();
    const pasted = cells(text);
    const cases = props.mayCases ? asCases(pasted) : null;
    if (cases) {
      on.cases(cases);
      return;
    }
    const i = at(row.id);
    const some = asRows(pasted, column);
    const first = some[0];
    const rest = some.slice(1);
    const merged = shown.value.map((r, n) =>
      n === i && first
        ? {
            ...r,
            ...Object.fromEntries(
              COLUMNS.filter((c) => first[c] !== '').map((c) => [
                c,
                r[c] === '' ? first[c] : `${r[c]}${first[c]}`,
              ]),
            ),
          }
        : r,
    );
    put(insertAt(merged, i + 1, rest).filter((r, n, all) => !(isEmpty(r) && n === all.length - 1)));
    toast(`${plural(some.length, 'step')} pasted.`, async () => {
      undo();
      return 'Taken back.';
    });
    void nextTick(() => go(i + rest.length, column));
  }
  function routine(id: string): void {
    if (!id) return;
    const now = active.value ? at(active.value.id) : props.rows.length;
    const where =
      now < props.rows.length && isEmpty(props.rows[now] as Row) ? now : Math.min(now + 1, props.rows.length);
    put(insertAt(props.rows, where, [blank({ routine: id })]));
  }
  /** Writes a routine out as steps of this case. */
  function writeOut(row: Row, steps: Api['StepEdit'][]): void {
    const i = at(row.id);
    put([...props.rows.slice(0, i), ...toRows(steps), ...props.rows.slice(i + 1)]);
  }
  function choose(id: string): void {
    const next = new Set(chosen.value);
    if (!next.delete(id)) next.add(id);
    chosen.value = next;
  }
  const positions = computed(() => props.rows.flatMap((r, i) => (chosen.value.has(r.id) ? [i + 1] : [])));
  function extract(): void {
    on.extract(positions.value);
    chosen.value = new Set();
  }
  function removeChosen(): void {
    const kept = props.rows.filter((r) => !chosen.value.has(r.id));
    const gone = props.rows.length - kept.length;
    put(kept);
    sayGone(`${plural(gone, 'step')} deleted.`);
    chosen.value = new Set();
  }
  return {
    active,
    chosen,
    dragged,
    shown,
    put,
    type,
    go,
    open,
    remove,
    onKey,
    place,
    onPaste,
    routine,
    writeOut,
    choose,
    extract,
    removeChosen,
  };
}
