<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import type { Api } from '@/api/client';
import MarkdownText from '@/kit/MarkdownText.vue';
import { say } from '@/kit/notices';
import { plural } from '@/kit/words';
import { asCases, asRows, cells, isTable, type PastedCase } from './paste';
import RoutineRow from './RoutineRow.vue';
import StepPictures from './StepPictures.vue';
import {
  blank,
  COLUMNS,
  duplicate,
  insertAt,
  isEmpty,
  moveBy,
  moveTo,
  split,
  toRows,
  type Column,
  type Row,
} from './steps';

/** Steps as a grid for the keyboard: type, Enter for the next row, Tab across; rows are moved, doubled, split and undone. */
const props = defineProps<{
  project: string;
  rows: Row[];
  routines: Api['RoutineText'][];
  shelf: Api['RoutineLine'][];
  /** Names that places may have, in lower case. */
  known: string[];
  columns: string[];
  problems: Api['ProblemLine'][];
  mayWrite: boolean;
  mayCases?: boolean;
  mayExtract?: boolean;
}>();
const emit = defineEmits<{
  change: [rows: Row[]];
  cases: [found: PastedCase[]];
  extract: [positions: number[]];
}>();
const LABELS: Record<Column, string> = { action: 'Action', data: 'Data', expected: 'Expected' };
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

function put(rows: Row[], remember = true): void {
  if (remember) {
    undone.push(props.rows.map((r) => ({ ...r })));
    if (undone.length > 50) undone.shift();
  }
  if (rows.some((r) => r.id === tail.value.id)) tail.value = blank();
  emit('change', rows);
}
function undo(): void {
  const before = undone.pop();
  if (before) emit('change', before);
}
function type(id: string, column: Column, text: string): void {
  const rows = shown.value.map((r) => (r.id === id ? { ...r, [column]: text } : r));
  const kept = id === tail.value.id ? rows : rows.filter((r) => r.id !== tail.value.id);
  if (id === tail.value.id) tail.value = blank();
  emit('change', kept);
}
async function go(row: number, column: Column, caret: 'start' | 'end' | 'all' = 'end'): Promise<void> {
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
  if (field && caret !== 'all')
    field.setSelectionRange(
      caret === 'end' ? field.value.length : 0,
      caret === 'end' ? field.value.length : 0,
    );
}
async function open(id: string, column: Column): Promise<void> {
  if (!props.mayWrite) return;
  await go(at(id), column);
}
function remove(from: number, count = 1): void {
  const gone = props.rows.slice(from, from + count);
  if (gone.length === 0) return;
  put([...props.rows.slice(0, from), ...props.rows.slice(from + count)]);
  const before = undone[undone.length - 1] as Row[];
  say(
    gone.length === 1 ? `Step ${from + 1} deleted.` : `${plural(gone.length, 'step')} deleted.`,
    async () => {
      emit('change', before);
      return 'The steps are back.';
    },
  );
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
    say('Put the caret into a cell first.');
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
function list(): void {
  place('\n- ');
}
function onPaste(event: ClipboardEvent, row: Row, column: Column): void {
  const text = event.clipboardData?.getData('text/plain') ?? '';
  if (!isTable(text)) return;
  event.preventDefault();
  const pasted = cells(text);
  const cases = props.mayCases ? asCases(pasted) : null;
  if (cases) {
    emit('cases', cases);
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
  say(`${plural(some.length, 'step')} pasted.`, async () => {
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
  emit('extract', positions.value);
  chosen.value = new Set();
}
function removeChosen(): void {
  const kept = props.rows.filter((r) => !chosen.value.has(r.id));
  const before = props.rows;
  put(kept);
  say(`${plural(before.length - kept.length, 'step')} deleted.`, async () => {
    emit('change', before);
    return 'The steps are back.';
  });
  chosen.value = new Set();
}
const problemsOf = (i: number, field?: string): Api['ProblemLine'][] =>
  props.problems.filter((p) => p.step === i + 1 && (field === undefined || p.field === field));
defineExpose({ go, undo });
</script>

<template>
  <div class="grid">
    <div v-if="mayWrite" class="bar row" role="toolbar" aria-label="Formatting" @mousedown.prevent>
      <button type="button" title="Bold (Ctrl B)" @click="place('', '**')"><b>B</b></button>
      <button type="button" title="Colour mark (Ctrl M)" @click="place('', '==')"><mark>M</mark></button>
      <button type="button" title="Code (Ctrl E)" @click="place('', '`')"><code>code</code></button>
      <button type="button" title="List" @click="list">List</button>
      <button type="button" title="Link" @click="place('[words](https://)')">Link</button>
      <template v-if="columns.length > 0">
        <span class="soft small">Values:</span>
        <button
          v-for="c in columns.slice(0, 12)"
          :key="c"
          type="button"
          class="chip"
          :title="`Put {{${c}}} where the caret is`"
          @click="place(`{{${c}}}`)"
        >
          {{ c }}
        </button>
      </template>
      <span class="gap" />
      <template v-if="chosen.size > 0">
        <button v-if="mayExtract" type="button" class="link" @click="extract">
          Make a routine of {{ plural(chosen.size, 'step') }}
        </button>
        <button type="button" class="link" @click="removeChosen">Delete</button>
      </template>
      <select
        v-if="shelf.length > 0"
        class="field shelf"
        aria-label="Put a routine in"
        @mousedown.stop
        @change="
          routine(($event.target as HTMLSelectElement).value);
          ($event.target as HTMLSelectElement).value = '';
        "
      >
        <option value="">Put a routine in …</option>
        <option v-for="r in shelf" :key="r.id" :value="r.id">{{ r.name }}</option>
      </select>
    </div>
    <div role="table" aria-label="Steps">
      <div class="cells head" role="row">
        <span role="columnheader"><span class="unseen">Step</span></span>
        <span v-for="c in COLUMNS" :key="c" role="columnheader">{{ LABELS[c] }}</span>
      </div>
      <div
        v-for="(row, i) in shown"
        :key="row.id"
        class="cells step"
        role="row"
        :class="{ chosen: chosen.has(row.id), tail: i >= rows.length, over: dragged >= 0 && dragged !== i }"
        :data-row="row.id"
        :tabindex="row.routine ? 0 : undefined"
        @dragover.prevent
        @drop.prevent="
          put(moveTo(rows, dragged, i));
          dragged = -1;
        "
      >
        <span role="rowheader" class="number">
          <button
            v-if="mayWrite && i < rows.length"
            type="button"
            class="handle mono"
            draggable="true"
            :aria-label="`Step ${i + 1}: choose it, or drag it elsewhere`"
            :aria-pressed="chosen.has(row.id)"
            title="Click to choose, drag to move (Alt ↑ ↓)"
            @click="choose(row.id)"
            @dragstart="dragged = i"
            @dragend="dragged = -1"
          >
            {{ i + 1 }}
          </button>
          <span v-else class="mono soft"
            >{{ i < rows.length ? i + 1 : ''
            }}<span v-if="i >= rows.length" class="unseen">New step</span></span
          >
        </span>
        <RoutineRow
          v-if="row.routine"
          role="cell"
          class="whole"
          :row="row"
          :routine="routines.find((r) => r.id === row.routine) ?? null"
          :project="project"
          :known="known"
          :problems="problemsOf(i)"
          :may-write="mayWrite"
          @values="(values) => put(rows.map((r) => (r.id === row.id ? { ...r, values } : r)))"
          @write-out="(steps) => writeOut(row, steps)"
          @remove="remove(i)"
        />
        <template v-else>
          <div v-for="c in COLUMNS" :key="c" role="cell" class="cell" :class="c">
            <textarea
              v-if="active?.id === row.id && active.column === c"
              :id="`cell-${row.id}-${c}`"
              :value="row[c]"
              rows="1"
              :aria-label="`${LABELS[c]} of step ${i + 1}`"
              maxlength="20000"
              @input="type(row.id, c, ($event.target as HTMLTextAreaElement).value)"
              @keydown="onKey($event, row, c)"
              @paste="onPaste($event, row, c)"
              @blur="active?.id === row.id && active.column === c && (active = null)"
            />
            <div
              v-else
              :id="`show-${row.id}-${c}`"
              class="show"
              :class="{ mono: c === 'data' }"
              :tabindex="mayWrite ? 0 : undefined"
              :role="mayWrite ? 'textbox' : undefined"
              :aria-label="mayWrite ? `${LABELS[c]} of step ${i + 1}` : undefined"
              @focus="open(row.id, c)"
              @click="open(row.id, c)"
            >
              <MarkdownText v-if="row[c]" :text="row[c]" :known="known" />
              <span v-else-if="i >= rows.length && c === 'action'" class="soft">{{
                rows.length === 0 ? 'Write the first step, or paste rows from a spreadsheet' : 'Next step'
              }}</span>
            </div>
            <p v-for="p in problemsOf(i, c)" :key="p.message" class="p-invalid-words small">
              {{ p.message }}
              <button
                v-if="p.nearest && mayWrite"
                type="button"
                class="link"
                @click="
                  type(
                    row.id,
                    c,
                    row[c].replace(/\{\{\s*([^}]+?)\s*\}\}/g, (w, n) =>
                      n.toLowerCase() === p.message.match(/\{\{(.+?)\}\}/)?.[1]?.toLowerCase()
                        ? `{{${p.nearest}}}`
                        : w,
                    ),
                  )
                "
              >
                Put it in
              </button>
            </p>
            <StepPictures
              v-if="c === 'expected'"
              :project="project"
              :files="row.files"
              :label="`step ${i + 1}`"
              :may-write="mayWrite && i < rows.length"
              :pasting="active?.id === row.id"
              @change="(files) => put(rows.map((r) => (r.id === row.id ? { ...r, files } : r)))"
            />
          </div>
        </template>
      </div>
    </div>
  </div>
</template>

<style scoped>
.bar {
  position: sticky;
  top: 0;
  z-index: 3;
  background: var(--paper);
  padding: 6px 0;
  gap: 6px 8px;
}
.bar button:not(.link):not(.chip) {
  font: inherit;
  font-size: 0.87rem;
  border: 1px solid transparent;
  border-radius: 4px;
  background: none;
  color: var(--ink-soft);
  padding: 2px 7px;
  cursor: pointer;
}
.bar button:not(.link):hover {
  border-color: var(--edge);
  color: var(--ink);
}
.bar .chip {
  cursor: pointer;
  color: var(--ink);
}
.gap {
  flex: 1;
}
.shelf {
  width: auto;
  max-width: 220px;
  padding: 3px 8px;
  font-size: 0.87rem;
}
.cells {
  display: grid;
  grid-template-columns: 36px minmax(0, 5fr) minmax(0, 3fr) minmax(0, 5fr);
  gap: 0 14px;
}
.head {
  font-size: 0.8rem;
  color: var(--ink-soft);
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
.head > span:not(:first-child) {
  padding-left: 9px;
}
.step {
  border-bottom: 1px solid var(--rule);
  padding: 3px 0;
}
.step.chosen {
  background: var(--well);
}
.step.over:hover {
  box-shadow: inset 0 2px 0 var(--dusk);
}
.whole {
  grid-column: 2 / -1;
}
.handle {
  border: 0;
  background: none;
  color: var(--ink-soft);
  padding: 7px 4px;
  width: 100%;
  cursor: grab;
}
.cell {
  position: relative;
}
.handle[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 700;
}
.number > span {
  display: block;
  padding: 7px 4px;
  text-align: center;
}
.show,
textarea {
  display: block;
  width: 100%;
  min-height: 34px;
  padding: 6px 8px;
  border: 1px solid transparent;
  border-radius: 5px;
  font: inherit;
  line-height: 1.45;
}
.show {
  cursor: text;
}
.show:hover {
  border-color: var(--rule);
}
textarea {
  resize: none;
  field-sizing: content;
  color: var(--ink);
  background: var(--sheet);
  border-color: var(--edge);
  overflow: hidden;
}
textarea:focus-visible {
  outline: 2px solid var(--dusk);
  outline-offset: 0;
}
.data textarea {
  font-family: var(--mono);
  font-size: 0.87em;
}
@media (max-width: 700px) {
  .cells {
    grid-template-columns: 30px minmax(0, 1fr);
  }
  .cell {
    grid-column: 2;
  }
  .head span:not(:first-child) {
    display: none;
  }
}
</style>
