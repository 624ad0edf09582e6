<script setup lang="ts">
import type { Api } from '@/api/client';
import MarkdownText from '@/kit/MarkdownText.vue';
import GridBar from './GridBar.vue';
import type { PastedCase } from '@/areas/casebook/paste';
import RoutineRow from './RoutineRow.vue';
import StepPictures from './StepPictures.vue';
import { COLUMNS, moveTo, type Column, type Row } from '@/areas/casebook/steps';
import { useGrid } from '@/areas/casebook/useGrid';

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
const {
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
} = useGrid(props, {
  change: (rows) => emit('change', rows),
  cases: (found) => emit('cases', found),
  extract: (positions) => emit('extract', positions),
});
/** Puts the name that was probably meant in place of the one that is not known. */
function mend(row: Row, column: Column, problem: Api['ProblemLine']): void {
  const unknown = problem.name?.toLowerCase();
  type(
    row.id,
    column,
    row[column].replace(/\{\{\s*([\p{L}\p{N}_]+)\s*\}\}/gu, (whole, name: string) =>
      name.toLowerCase() === unknown ? `{{${problem.nearest}}}` : whole,
    ),
  );
}
const problemsOf = (i: number, field?: string): Api['ProblemLine'][] =>
  props.problems.filter((p) => p.step === i + 1 && (field === undefined || p.field === field));
defineExpose({ go });
</script>

<template>
  <div class="grid">
    <GridBar
      v-if="mayWrite"
      :columns="columns"
      :shelf="shelf"
      :chosen="chosen.size"
      :may-extract="mayExtract"
      @place="place"
      @routine="routine"
      @extract="extract"
      @remove="removeChosen"
    />
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
              <button v-if="p.nearest && mayWrite" type="button" class="link" @click="mend(row, c, p)">
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
