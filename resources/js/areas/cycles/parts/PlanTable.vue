<script setup lang="ts">
import { durationText } from '@/kit/duration';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, ref } from 'vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { entryWords, reasonWords, shownOf } from '@/kit/words';
import type { Api } from '@/api/client';
import { conditionWords, type Line } from '@/areas/cycles/usePlan';

/** The entries of a plan in their order: any number of them, moved by drag or keys, several chosen at once. */
const props = defineProps<{
  lines: Line[];
  byId: Map<string, Line>;
  people: Map<string, string>;
  configurations: Map<string, string>;
  faults: Api['OrderFault'][];
  selected: ReadonlySet<string>;
  current: string;
  mayMove: boolean;
}>();
const emit = defineEmits<{
  select: [id: string, range: boolean];
  focus: [id: string];
  drop: [ids: string[], before: string | null];
  all: [];
}>();
const box = ref<HTMLElement | null>(null);
const virtual = useVirtualizer(
  computed(() => ({
    count: props.lines.length,
    getScrollElement: () => box.value,
    estimateSize: () => 34,
    overscan: 16,
  })),
);
const items = computed(() => virtual.value.getVirtualItems());
const measure = (el: unknown): void => {
  if (el instanceof HTMLElement) virtual.value.measureElement(el);
};
const faulty = computed(() => new Map(props.faults.map((f) => [f.entry_id, f])));
const dragged = ref<string[]>([]);
const over = ref<string | null>(null);
function start(event: DragEvent, id: string): void {
  if (!props.mayMove) return;
  dragged.value = props.selected.has(id) ? [...props.selected] : [id];
  event.dataTransfer?.setData('text/plain', id);
}
function drop(id: string): void {
  if (dragged.value.length > 0 && !dragged.value.includes(id)) emit('drop', dragged.value, id);
  dragged.value = [];
  over.value = null;
}
const nameOf = (id: string): string => {
  const e = props.byId.get(id);
  return e ? `#${e.position} ${e.case_key}` : 'an entry that is gone';
};
/** What is to be known of an entry beside its title. */
function notes(e: Line): string {
  const out: string[] = [];
  for (const n of e.needs) out.push(conditionWords(n.kind, nameOf(n.needs_id)));
  for (const s of e.stopped_by) out.push(`waits on ${nameOf(s)}, which did not pass`);
  if (e.not_before || e.not_after)
    out.push(
      e.reasons.find((r) => r.kind === 'too_early' || r.kind === 'too_late')
        ? reasonWords(e.reasons.find((r) => r.kind === 'too_early' || r.kind === 'too_late')!)
        : 'has a window',
    );
  if (e.rounds > 1) out.push(`${e.rounds} rounds`);
  return out.join(' · ');
}
defineExpose({
  show: (id: string) => {
    const at = props.lines.findIndex((e) => e.id === id);
    if (at >= 0) virtual.value.scrollToIndex(at);
  },
});
</script>

<template>
  <div class="table" role="table" aria-label="Entries in order" :aria-rowcount="lines.length">
    <div class="head row-grid" role="row">
      <span role="columnheader"
        ><input
          type="checkbox"
          :checked="selected.size > 0 && selected.size === lines.length"
          aria-label="Choose all"
          @change="emit('all')"
      /></span>
      <span role="columnheader">#</span><span role="columnheader">Entry</span
      ><span role="columnheader">Configuration</span><span role="columnheader">Shows</span
      ><span role="columnheader">Assigned to</span><span role="columnheader" class="number">Time</span>
    </div>
    <div ref="box" class="box" role="rowgroup" tabindex="0">
      <div role="presentation" :style="{ height: `${virtual.getTotalSize()}px`, position: 'relative' }">
        <div
          v-for="item in items"
          :key="lines[item.index]!.id"
          :ref="measure"
          :data-index="item.index"
          class="line row-grid"
          role="row"
          :aria-rowindex="item.index + 1"
          :class="{
            current: current === lines[item.index]!.id,
            chosen: selected.has(lines[item.index]!.id),
            over: over === lines[item.index]!.id,
          }"
          :style="{ transform: `translateY(${item.start}px)` }"
          :draggable="mayMove"
          @dragstart="start($event, lines[item.index]!.id)"
          @dragover.prevent="over = lines[item.index]!.id"
          @dragend="
            over = null;
            dragged = [];
          "
          @drop.prevent="drop(lines[item.index]!.id)"
          @click="emit('focus', lines[item.index]!.id)"
        >
          <span role="cell"
            ><input
              type="checkbox"
              :checked="selected.has(lines[item.index]!.id)"
              :aria-label="`Choose ${nameOf(lines[item.index]!.id)}`"
              @click.stop="emit('select', lines[item.index]!.id, ($event as MouseEvent).shiftKey)"
          /></span>
          <span role="cell" class="soft number">{{ lines[item.index]!.position }}</span>
          <span role="cell" class="title">
            <span class="top"
              ><span class="mono soft">{{ lines[item.index]!.case_key }}</span>
              <span class="name">{{ lines[item.index]!.title }}</span><span
                v-if="lines[item.index]!.outdated"
                class="flag"
                title="Its case was changed since"
                >changed</span
              ><span v-if="lines[item.index]!.case_gone" class="flag">{{ lines[item.index]!.case_gone }}</span
              ><span
                v-if="faulty.get(lines[item.index]!.id)"
                class="flag"
                :title="`It stands before ${nameOf(faulty.get(lines[item.index]!.id)!.needs_id)}, which it depends on`"
                >too early</span
              ></span
            >
            <span v-if="notes(lines[item.index]!)" class="soft small notes">{{
              notes(lines[item.index]!)
            }}</span>
          </span>
          <span role="cell" class="soft small cut">{{
            configurations.get(lines[item.index]!.configuration_id ?? '') ?? ''
          }}</span>
          <span role="cell"
            ><VerdictMark :shown="shownOf(lines[item.index]!)" word :label="entryWords(lines[item.index]!)"
          /></span>
          <span role="cell" class="cut" :class="{ soft: !lines[item.index]!.assignee_id }"
            >{{ people.get(lines[item.index]!.assignee_id ?? '') ?? 'nobody'
            }}<span v-if="lines[item.index]!.walking_id" class="soft small"> · walking</span></span
          >
          <span role="cell" class="number">{{ durationText(1000 * lines[item.index]!.seconds) }}</span>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.table {
  border-top: 1px solid var(--rule);
  min-width: 0;
}
.row-grid {
  display: grid;
  grid-template-columns: 24px 34px minmax(180px, 1fr) 136px 138px 116px 54px;
  gap: 8px;
  align-items: start;
  padding: 6px 4px;
}
.top .mono {
  white-space: nowrap;
}
.head {
  overflow: hidden;
  scrollbar-gutter: stable;
  font-size: 0.8rem;
  color: var(--ink-soft);
  border-bottom: 1px solid var(--rule);
}
.box {
  overflow: auto;
  height: max(320px, calc(100vh - 300px));
  scrollbar-gutter: stable;
}
.line {
  position: absolute;
  top: 0;
  left: 0;
  right: 0;
  border-bottom: 1px solid var(--rule);
  cursor: default;
}
.line.current {
  background: var(--well);
  box-shadow: inset 3px 0 0 var(--ink);
}
.line.chosen {
  background: color-mix(in srgb, var(--dusk) 9%, var(--paper));
}
.line.over {
  box-shadow: inset 0 2px 0 var(--dusk);
}
.number {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.title {
  min-width: 0;
  display: grid;
}
.top {
  display: flex;
  gap: 8px;
  align-items: baseline;
  min-width: 0;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.cut {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.notes {
  overflow-wrap: anywhere;
}
.flag {
  font-size: 0.8rem;
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 0 5px;
  white-space: nowrap;
}
@media (max-width: 900px) {
  .row-grid {
    grid-template-columns: 24px 30px minmax(140px, 1fr) 100px 58px;
  }
  .row-grid > :nth-child(4),
  .row-grid > :nth-child(6) {
    display: none;
  }
  .box {
    height: 60vh;
  }
}
</style>
