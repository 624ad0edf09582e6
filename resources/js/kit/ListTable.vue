<script setup lang="ts" generic="T extends { id: string }">
import { useEventListener, useResizeObserver } from '@vueuse/core';
import { useWindowVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, ref, watch } from 'vue';
import { useKeys } from './keys';
import type { Column } from './list';

/**
 * Rows of any number: the page scrolls, and only those in sight are drawn. j and k go along them, x chooses, Enter opens,
 * Alt and an arrow moves where rows may be moved. A narrow window shows each row as a few lines.
 */
const props = withDefaults(
  defineProps<{
    /** What a row is, such as "case". */
    what: string;
    label: string;
    rows: T[];
    columns: Column<T>[];
    nameOf: (row: T) => string;
    /** How many there are on the server; without it the rows are all. */
    total?: number | undefined;
    sort?: string;
    /** Chosen rows; without it none can be chosen. */
    selected?: ReadonlySet<string> | null;
    /** Whether rows can be moved among each other. */
    movable?: boolean;
    /** What a dragged row is for other places of the page; without it rows are not dragged there. */
    dragAs?: string;
    groupOf?: ((row: T) => string) | null;
    /** The groups in their order, those without a row too; without it those that rows are in. */
    groups?: string[] | null;
    groupLabel?: ((key: string) => { label: string; count?: number | undefined }) | undefined;
  }>(),
  {
    total: undefined,
    selected: null,
    sort: '',
    dragAs: '',
    groupOf: null,
    groups: null,
    groupLabel: undefined,
  },
);
/** The id of the row one is on. */
const current = defineModel<string>('current', { default: '' });
const emit = defineEmits<{
  sort: [name: string];
  more: [];
  select: [id: string, range: boolean];
  all: [on: boolean];
  open: [row: T];
  move: [ids: string[], before: string | null];
}>();
defineSlots<
  Record<string, (props: { row: T }) => unknown> & { group?: (props: { id: string }) => unknown }
>();

type Line = { id: string; group: string | null; row: T | null };
const lines = computed<Line[]>(() => {
  const out: Line[] = [];
  const head = (group: string): number => out.push({ id: `group ${group}`, group, row: null });
  const { groupOf, groups } = props;
  if (groupOf && groups) {
    for (const group of groups) {
      head(group);
      out.push(
        ...props.rows.filter((r) => groupOf(r) === group).map((row) => ({ id: row.id, group: null, row })),
      );
    }
    return out;
  }
  let last: string | null = null;
  for (const row of props.rows) {
    const group = groupOf?.(row) ?? null;
    if (group !== null && group !== last) head(group);
    last = group;
    out.push({ id: row.id, group: null, row });
  }
  return out;
});
const body = ref<HTMLElement | null>(null);
const margin = ref(0);
const place = (): void => {
  if (body.value) margin.value = Math.round(body.value.getBoundingClientRect().top + window.scrollY);
};
useResizeObserver(
  () => document.body,
  () => place(),
);
watch(body, place, { flush: 'post' });
const virtual = useWindowVirtualizer(
  computed(() => ({
    count: lines.value.length,
    estimateSize: () => 37,
    overscan: 16,
    scrollMargin: margin.value,
    scrollPaddingStart: 40,
    scrollPaddingEnd: 40,
    getItemKey: (i: number) => lines.value[i]?.id ?? i,
  })),
);
const drawn = computed(() =>
  virtual.value.getVirtualItems().flatMap((item) => {
    const line = lines.value[item.index];
    return line ? [{ ...line, index: item.index, start: item.start - margin.value }] : [];
  }),
);
watch(
  drawn,
  (now) => {
    if ((now.at(-1)?.index ?? 0) >= lines.value.length - 30) emit('more');
  },
  { immediate: true },
);
const measure = (el: unknown): void => {
  // What is not laid out has no height to go by.
  if (el instanceof HTMLElement && el.offsetHeight > 0) virtual.value.measureElement(el);
};
const grid = computed(() => ({
  '--columns': `${props.selected ? '28px ' : ''}${props.columns.map((c) => c.width).join(' ')}`,
  '--narrow': `${props.selected ? '28px ' : ''}${props.columns
    .filter((c) => !c.wide)
    .map((c) => c.width)
    .join(' ')}`,
}));
const sortedBy = (name: string): 'ascending' | 'descending' | undefined =>
  props.sort === name ? 'ascending' : props.sort === `-${name}` ? 'descending' : undefined;

/** The rows in the order in which they are shown. */
const shown = computed(() => lines.value.flatMap((l) => l.row ?? []));
const at = computed(() => shown.value.findIndex((r) => r.id === current.value));
const here = computed(() => shown.value[at.value]);
/** Brings a row into sight. */
function show(id: string): void {
  const index = lines.value.findIndex((l) => l.id === id);
  if (index >= 0) void nextTick(() => virtual.value.scrollToIndex(index));
}
function step(by: number): void {
  const next = shown.value[Math.max(0, Math.min(shown.value.length - 1, at.value + by))];
  if (!next) return;
  current.value = next.id;
  show(next.id);
}
useKeys('Lists', () => [
  { keys: ['j', 'ArrowDown'], label: `Next ${props.what}`, run: () => step(1) },
  { keys: ['k', 'ArrowUp'], label: `The ${props.what} before`, run: () => step(-1) },
  ...(props.selected
    ? [
        {
          keys: ['x'],
          label: `Choose the ${props.what}`,
          run: () => here.value && emit('select', here.value.id, false),
        },
      ]
    : []),
  {
    keys: ['Enter'],
    label: `Open the ${props.what}`,
    run: () => here.value && emit('open', here.value),
  },
]);

/** The rows that an act on the one in hand means: all that are chosen, when it is one of them. */
const together = (id: string): string[] =>
  props.selected?.has(id) ? props.rows.filter((r) => props.selected?.has(r.id)).map((r) => r.id) : [id];
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (!event.altKey || !props.movable || !here.value) return;
  if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
  const moved = together(here.value.id);
  const rest = props.rows.filter((r) => !moved.includes(r.id));
  const first = props.rows.findIndex((r) => moved.includes(r.id));
  const to =
    props.rows.slice(0, first).filter((r) => !moved.includes(r.id)).length +
    (event.key === 'ArrowUp' ? -1 : 1);
  if (to < 0 || to > rest.length) return;
  // What follows the last row that is here is not known.
  if (to === rest.length && props.rows.length < (props.total ?? 0)) return;
  event.preventDefault();
  emit('move', moved, rest[to]?.id ?? null);
});
const dragged = ref<string[]>([]);
const over = ref('');
function drag(event: DragEvent, row: T): void {
  dragged.value = together(row.id);
  if (props.dragAs) event.dataTransfer?.setData(props.dragAs, JSON.stringify(dragged.value));
  else event.dataTransfer?.setData('text/plain', row.id);
}
function drop(row: T): void {
  if (props.movable && dragged.value.length > 0 && !dragged.value.includes(row.id))
    emit('move', dragged.value, row.id);
  dragged.value = [];
  over.value = '';
}
defineExpose({ show });
</script>

<template>
  <div role="table" class="list" :style="grid" :aria-label="label" :aria-rowcount="total ?? rows.length">
    <div role="rowgroup" class="head">
      <div role="row" class="cells">
        <span v-if="selected" role="columnheader" class="tick"
          ><input
            type="checkbox"
            aria-label="Choose all that are shown"
            :checked="selected.size > 0 && selected.size >= rows.length"
            @change="emit('all', ($event.target as HTMLInputElement).checked)"
        /></span>
        <span
          v-for="c in columns"
          :key="c.name"
          role="columnheader"
          :aria-sort="sortedBy(c.name)"
          :class="{ number: c.number, wide: c.wide, sorted: c.sorted }"
          ><button v-if="c.sorted" type="button" :title="`Order by ${c.word}`" @click="emit('sort', c.name)">
            {{ c.word }}</button
          ><template v-else>{{ c.word }}</template></span
        >
      </div>
    </div>
    <div ref="body" role="rowgroup" class="body" :style="{ height: `${virtual.getTotalSize()}px` }">
      <div
        v-for="line in drawn"
        :key="line.id"
        :ref="measure"
        :data-index="line.index"
        role="row"
        class="at"
        :aria-rowindex="line.index + 1"
        :style="{ transform: `translateY(${line.start}px)` }"
      >
        <div v-if="line.row === null" class="group" role="cell">
          <slot :id="line.group ?? ''" name="group"
            >{{ groupLabel?.(line.group ?? '').label ?? line.group }}
            <span class="soft">{{ groupLabel?.(line.group ?? '').count }}</span></slot
          >
        </div>
        <div
          v-else
          role="none"
          class="cells line"
          :class="{
            current: line.id === current,
            chosen: selected?.has(line.id),
            over: over === line.id,
          }"
          :draggable="movable || dragAs !== ''"
          @dragstart="drag($event, line.row)"
          @dragover.prevent="over = movable ? line.id : ''"
          @dragleave="over = ''"
          @dragend="
            over = '';
            dragged = [];
          "
          @drop.prevent="drop(line.row)"
          @click="current = line.id"
        >
          <span v-if="selected" role="cell" class="tick"
            ><input
              type="checkbox"
              :aria-label="`Choose ${nameOf(line.row)}`"
              :checked="selected.has(line.id)"
              @click.stop="emit('select', line.id, ($event as MouseEvent).shiftKey)"
          /></span>
          <span
            v-for="c in columns"
            :key="c.name"
            role="cell"
            class="cell"
            :class="{ number: c.number, soft: c.soft, wide: c.wide, main: c.width.includes('fr') }"
            :title="c.tip?.(line.row)"
            ><slot :name="c.name" :row="line.row">{{ c.text?.(line.row) }}</slot></span
          >
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.list {
  min-width: 0;
}
.head {
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--paper);
  border-bottom: 1px solid var(--rule);
}
.cells {
  display: grid;
  grid-template-columns: var(--columns);
  gap: 0 12px;
  align-items: baseline;
}
.head .cells {
  font-size: 0.8rem;
  color: var(--ink-soft);
  padding: 5px 6px 5px 0;
}
.head button {
  font: inherit;
  color: inherit;
  border: 0;
  background: none;
  padding: 2px 0;
  cursor: pointer;
}
.head button:hover {
  color: var(--ink);
  text-decoration: underline;
}
[aria-sort='ascending'] button::after {
  content: ' ↑';
}
[aria-sort='descending'] button::after {
  content: ' ↓';
}
.body {
  position: relative;
}
.at {
  position: absolute;
  top: 0;
  left: 0;
  width: 100%;
}
.line {
  padding: var(--line) 6px var(--line) 0;
  border-bottom: 1px solid var(--rule);
}
.line.chosen {
  background: var(--well);
}
.line.current {
  box-shadow: inset 2px 0 0 var(--ink);
  background: var(--well);
}
.line.over {
  box-shadow: inset 0 2px 0 var(--dusk);
}
.tick,
.cells > :first-child {
  padding-left: 8px;
}
.cell {
  min-width: 0;
  overflow-wrap: anywhere;
}
.number {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.group {
  padding: 14px 0 4px 8px;
  font-weight: 700;
}
@media (max-width: 1000px) {
  .cells {
    grid-template-columns: var(--narrow);
  }
  .wide {
    display: none;
  }
}
@media (max-width: 640px) {
  .head .cells,
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
  }
  .head span:not(.sorted, .tick) {
    display: none;
  }
  .line {
    padding: 9px 4px 9px 0;
  }
  .line .main :deep(a) {
    display: inline-block;
    min-height: 24px;
  }
  .tick input {
    width: 24px;
    height: 24px;
  }
  .line .main {
    flex-basis: calc(100% - 52px);
  }
  .line .cell:empty {
    display: none;
  }
  .number {
    text-align: left;
  }
}
</style>
