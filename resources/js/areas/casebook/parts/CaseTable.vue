<script setup lang="ts">
import { durationText } from '@/kit/duration';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, ref, watch } from 'vue';
import type { Api } from '@/api/client';
import { ago, exact } from '@/kit/words';
import { stateWord } from '@/areas/casebook/filter';

/** Cases as a list of any length: only the rows in sight are drawn. */
const props = defineProps<{
  project: string;
  lines: Api['CaseLine'][];
  columns: string[];
  fields: Api['CustomFieldLine'][];
  sort: string;
  group: string;
  groups: Map<string, { label: string; cases: number }>;
  groupOf: (line: Api['CaseLine']) => string;
  selected: ReadonlySet<string>;
  current: string;
  nameOf: (kind: 'type' | 'priority', value: string) => string;
  pathOf: (folder: string | null) => string;
  mayWrite: boolean;
  ordered: boolean;
}>();
const emit = defineEmits<{
  sort: [name: string];
  more: [];
  select: [id: string, range: boolean];
  all: [on: boolean];
  focus: [key: string];
  open: [key: string];
  peek: [key: string];
  drop: [ids: string[], before: string];
}>();

type Line = { kind: 'group'; key: string } | { kind: 'case'; line: Api['CaseLine'] };
const rows = computed<Line[]>(() => {
  if (!props.group) return props.lines.map((line) => ({ kind: 'case' as const, line }));
  const out: Line[] = [];
  let last: string | null = null;
  for (const line of props.lines) {
    const key = props.groupOf(line);
    if (key !== last) out.push({ kind: 'group', key });
    last = key;
    out.push({ kind: 'case', line });
  }
  return out;
});
const box = ref<HTMLElement | null>(null);
const virtual = useVirtualizer(
  computed(() => ({
    count: rows.value.length,
    getScrollElement: () => box.value,
    estimateSize: () => 37,
    overscan: 12,
  })),
);
const items = computed(() => virtual.value.getVirtualItems());
watch(items, (now) => {
  if ((now[now.length - 1]?.index ?? 0) >= rows.value.length - 20) emit('more');
});
const measure = (el: unknown): void => {
  if (el instanceof HTMLElement) virtual.value.measureElement(el);
};
const HEADS: Record<string, string> = {
  state: 'State',
  priority: 'Priority',
  type: 'Type',
  estimate: 'Estimate',
  owner: 'Owner',
  labels: 'Labels',
  walked: 'Walked',
  changed: 'Changed',
  folder: 'Folder',
  steps: 'Steps',
};
const SORTED = ['state', 'priority', 'type', 'estimate', 'owner', 'walked', 'changed'];
const WIDTHS: Record<string, string> = {
  labels: '150px',
  folder: '150px',
  owner: '120px',
  estimate: '72px',
  state: '84px',
  priority: '76px',
  walked: '92px',
  steps: '60px',
};
const grid = computed(
  () => `28px 84px minmax(200px, 1fr) ${props.columns.map((c) => WIDTHS[c] ?? '96px').join(' ')}`,
);
const headOf = (column: string): string =>
  HEADS[column] ?? props.fields.find((f) => `field.${f.id}` === column)?.name ?? column;
function cell(c: Api['CaseLine'], column: string): string {
  switch (column) {
    case 'state':
      return stateWord(c.state);
    case 'priority':
      return props.nameOf('priority', c.priority);
    case 'type':
      return props.nameOf('type', c.type);
    case 'estimate':
      return c.estimate_seconds ? durationText(c.estimate_seconds * 1000) : '';
    case 'owner':
      return c.owner?.name ?? '';
    case 'labels':
      return c.labels.join(', ');
    case 'walked':
      return c.last_walked_at ? ago(c.last_walked_at) : 'never';
    case 'changed':
      return ago(c.updated_at);
    case 'folder':
      return props.pathOf(c.folder_id);
    case 'steps':
      return String(c.steps);
    default:
      return (c.custom as Record<string, string>)[column.replace('field.', '')] ?? '';
  }
}
function tip(c: Api['CaseLine'], column: string): string | undefined {
  if (column === 'walked') return c.last_walked_at ? exact(c.last_walked_at) : undefined;
  if (column === 'changed') return exact(c.updated_at);
  return undefined;
}
const sortedBy = (name: string): 'ascending' | 'descending' | undefined =>
  props.sort === name ? 'ascending' : props.sort === `-${name}` ? 'descending' : undefined;
const over = ref('');
function drag(event: DragEvent, c: Api['CaseLine']): void {
  const ids = props.selected.has(c.id) ? [...props.selected] : [c.id];
  event.dataTransfer?.setData('application/x-cases', JSON.stringify(ids));
}
function drop(event: DragEvent, c: Api['CaseLine']): void {
  over.value = '';
  const ids = event.dataTransfer?.getData('application/x-cases');
  if (ids && props.ordered) emit('drop', JSON.parse(ids) as string[], c.id);
}
/** Brings a case into sight. */
function show(key: string): void {
  const at = rows.value.findIndex((r) => r.kind === 'case' && r.line.key === key);
  if (at >= 0) void nextTick(() => virtual.value.scrollToIndex(at));
}
defineExpose({ show });
</script>

<template>
  <div ref="box" class="box" role="region" aria-label="Cases" tabindex="-1">
    <div role="table" aria-label="Cases" :aria-rowcount="lines.length">
      <div role="rowgroup" class="head">
        <div role="row" class="cells" :style="{ gridTemplateColumns: grid }">
          <span role="columnheader"
            ><input
              type="checkbox"
              aria-label="Choose all that are shown"
              :checked="selected.size > 0 && selected.size >= lines.length"
              @change="emit('all', ($event.target as HTMLInputElement).checked)"
          /></span>
          <span role="columnheader" :aria-sort="sortedBy('key')"
            ><button type="button" @click="emit('sort', 'key')">Key</button></span
          >
          <span role="columnheader" :aria-sort="sortedBy('title')"
            ><button type="button" @click="emit('sort', 'title')">Title</button></span
          >
          <span v-for="c in columns" :key="c" role="columnheader" :aria-sort="sortedBy(c)">
            <button v-if="SORTED.includes(c)" type="button" @click="emit('sort', c)">{{ headOf(c) }}</button>
            <template v-else>{{ headOf(c) }}</template>
          </span>
        </div>
      </div>
      <div role="rowgroup" :style="{ height: `${virtual.getTotalSize()}px`, position: 'relative' }">
        <div
          v-for="item in items"
          :key="String(item.key)"
          :ref="measure"
          :data-index="item.index"
          role="row"
          class="at"
          :style="{ transform: `translateY(${item.start}px)` }"
        >
          <template v-for="row in [rows[item.index]]" :key="row?.kind ?? ''">
            <div v-if="row?.kind === 'group'" class="group" role="cell">
              {{ groups.get(row.key)?.label ?? row.key }}
              <span class="soft">{{ groups.get(row.key)?.cases }}</span>
            </div>
            <div
              v-else-if="row"
              class="cells line"
              :class="{
                current: row.line.key === current,
                chosen: selected.has(row.line.id),
                over: over === row.line.id,
              }"
              role="none"
              :style="{ gridTemplateColumns: grid }"
              :draggable="mayWrite"
              @dragstart="drag($event, row.line)"
              @dragover.prevent="over = ordered ? row.line.id : ''"
              @dragleave="over = ''"
              @drop.prevent="drop($event, row.line)"
              @click="emit('focus', row.line.key)"
            >
              <span role="cell"
                ><input
                  type="checkbox"
                  :aria-label="`Choose ${row.line.key}`"
                  :checked="selected.has(row.line.id)"
                  @click.stop="emit('select', row.line.id, $event.shiftKey)"
              /></span>
              <span role="cell" class="mono soft">{{ row.line.key }}</span>
              <span role="cell" class="title">
                <RouterLink class="plain long" :to="`/${project}/casebook/${row.line.key}`"
                  ><template v-if="row.line.title_parts.length > 0"
                    ><component
                      :is="p.hit ? 'mark' : 'span'"
                      v-for="(p, i) in row.line.title_parts"
                      :key="i"
                      >{{ p.text }}</component
                    ></template
                  ><template v-else>{{ row.line.title }}</template></RouterLink
                >
                <span v-if="row.line.is_template" class="soft small"> template</span>
                <span v-if="row.line.words.length > 0" class="soft small found"
                  ><component :is="p.hit ? 'mark' : 'span'" v-for="(p, i) in row.line.words" :key="i">{{
                    p.text
                  }}</component></span
                >
              </span>
              <span
                v-for="c in columns"
                :key="c"
                role="cell"
                class="long"
                :class="{ soft: c !== 'state' && c !== 'priority' }"
                :title="tip(row.line, c)"
                >{{ cell(row.line, c) }}</span
              >
            </div>
          </template>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.box {
  overflow: auto;
  min-height: 240px;
  padding-bottom: 12px;
  contain: strict;
  height: calc(100vh - 176px);
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
  gap: 0 10px;
  align-items: baseline;
  min-width: 640px;
}
.head .cells {
  font-size: 0.8rem;
  color: var(--ink-soft);
  padding: 4px 6px 4px 0;
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
.at {
  position: absolute;
  top: 0;
  left: 0;
  width: 100%;
}
.line {
  padding: 7px 6px 7px 0;
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
.line > span:first-child,
.head span:first-child {
  padding-left: 8px;
}
.found {
  display: block;
}
.group {
  padding: 14px 0 4px 8px;
  font-weight: 700;
}
input[type='checkbox'] {
  margin: 0;
}
</style>
