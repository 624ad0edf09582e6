<script setup lang="ts" generic="T extends Item">
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, ref } from 'vue';
import { useRouter } from 'vue-router';
import type { Item, Lens, TreeRow } from '@/areas/coverage/tree';
import { useKeys } from '@/kit/keys';

/**
 * Requirements in their tree, one below the other: folded, walked by keys, and of many those drawn that are in sight. What stands in a
 * row beside its name, and the head, come from outside (`--columns` says how wide).
 */
const props = defineProps<{
  project: string;
  rows: TreeRow<T>[];
  lens: Lens;
  label: string;
  /** Whether they can be dragged, and moved by Alt and an arrow key. */
  moves?: boolean;
}>();
const emit = defineEmits<{
  /** Opens or closes one. */
  turn: [id: string];
  /** Alt and an arrow key at one. */
  arrow: [row: T, key: string];
  /** One was dropped on another, or beside them all. */
  put: [id: string, on: string | null];
}>();
/** The id of the one that is lit. */
const lit = defineModel<string>({ required: true });
const router = useRouter();
const root = ref<HTMLElement | null>(null);
const virtual = useVirtualizer(
  computed(() => {
    // The rows come after the page: what they scroll in is looked for anew then.
    const scrolls = root.value;
    return {
      count: props.rows.length,
      getScrollElement: () => scrolls,
      estimateSize: () => 41,
      overscan: 12,
      getItemKey: (i: number) => props.rows[i]?.row.id ?? i,
    };
  }),
);
/** A few are all there, to be found and printed; of many those in sight. */
const MANY = 200;
const isMany = computed(() => props.rows.length > MANY);
const drawn = computed(() =>
  isMany.value
    ? virtual.value
        .getVirtualItems()
        .map((v) => ({ index: v.index, style: { transform: `translateY(${v.start}px)` } }))
    : props.rows.map((_, index) => ({ index, style: {} })),
);
const lines = computed(() =>
  drawn.value.flatMap((d) => {
    const line = props.rows[d.index];
    return line ? [{ ...d, line }] : [];
  }),
);
const at = computed(() => props.rows.findIndex((r) => r.row.id === lit.value));
async function light(index: number): Promise<void> {
  const row = props.rows[Math.max(0, Math.min(index, props.rows.length - 1))];
  if (!row) return;
  lit.value = row.row.id;
  if (isMany.value) virtual.value.scrollToIndex(props.rows.indexOf(row));
  await nextTick();
  root.value
    ?.querySelector<HTMLElement>(`[data-id="${row.row.id}"] a`)
    ?.focus({ preventScroll: isMany.value });
}
defineExpose({ light: (id: string) => light(props.rows.findIndex((r) => r.row.id === id)) });
const to = (row: T): { path: string; query: Record<string, string> } => ({
  path: `/${props.project}/coverage/${row.key}`,
  query: { ...props.lens },
});
function onKey(event: KeyboardEvent): void {
  const id = (event.target as HTMLElement).closest<HTMLElement>('[data-id]')?.dataset.id ?? lit.value;
  const here = props.rows.find((r) => r.row.id === id);
  if (!here || !event.key.startsWith('Arrow')) return;
  const { row } = here;
  if (event.altKey) {
    event.preventDefault();
    if (props.moves) emit('arrow', row, event.key);
    return;
  }
  if (event.key === 'ArrowRight' && here.hasBelow && !here.open) emit('turn', row.id);
  else if (event.key === 'ArrowLeft' && here.hasBelow && here.open) emit('turn', row.id);
  else if (event.key === 'ArrowLeft' && row.parent_id)
    void light(props.rows.findIndex((r) => r.row.id === row.parent_id));
  else return;
  event.preventDefault();
}
const over = ref('');
function drop(event: DragEvent, target: string | null): void {
  over.value = '';
  const id = event.dataTransfer?.getData('application/x-requirement');
  if (props.moves && id && id !== target) emit('put', id, target);
}
useKeys('Coverage', () => [
  { keys: ['j', 'ArrowDown'], label: 'Next', run: () => void light(at.value + 1) },
  { keys: ['k', 'ArrowUp'], label: 'Before', run: () => void light(Math.max(0, at.value - 1)) },
  {
    keys: ['Enter'],
    label: 'Open it',
    run: () => {
      const row = props.rows[at.value]?.row;
      if (row) void router.push(to(row));
    },
  },
]);
</script>

<template>
  <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions -->
  <div class="board" @keydown="onKey" @dragover.prevent @drop.prevent="drop($event, null)">
    <div ref="root" class="rows" role="treegrid" :aria-label="label" tabindex="-1">
      <div class="head soft small" role="rowgroup">
        <div role="row" class="cells"><span role="columnheader">Requirement</span><slot name="head" /></div>
      </div>
      <div
        :style="isMany ? { height: `${virtual.getTotalSize()}px` } : {}"
        class="all"
        :class="{ many: isMany }"
        role="rowgroup"
      >
        <div
          v-for="{ line, index, style } in lines"
          :key="line.row.id"
          :ref="(el) => isMany && virtual.measureElement(el as Element)"
          class="place"
          :class="{ over: line.row.id === over }"
          :data-index="index"
          role="presentation"
          :style="style"
          :draggable="moves"
          @dragstart="$event.dataTransfer?.setData('application/x-requirement', line.row.id)"
          @dragover.prevent.stop="over = line.row.id"
          @dragleave="over = ''"
          @drop.prevent.stop="drop($event, line.row.id)"
        >
          <div
            class="line cells"
            :class="{ lit: line.row.id === lit }"
            role="row"
            :aria-level="line.depth + 1"
            :aria-expanded="line.hasBelow ? line.open : undefined"
            :data-id="line.row.id"
          >
            <span class="name" role="gridcell" :style="{ paddingLeft: `${line.depth * 22}px` }">
              <button
                v-if="line.hasBelow"
                type="button"
                class="fold"
                :aria-label="`${line.open ? 'Close' : 'Open'} ${line.row.title}`"
                @click="emit('turn', line.row.id)"
              >
                {{ line.open ? '−' : '+' }}
              </button>
              <span v-else class="fold" />
              <span class="mono soft">{{ line.row.key }}</span>
              <RouterLink
                :to="to(line.row)"
                :class="{ top: line.hasBelow }"
                :title="line.row.title"
                @focus="lit = line.row.id"
                >{{ line.row.title }}</RouterLink
              >
            </span>
            <slot name="cells" :line="line" />
          </div>
        </div>
      </div>
    </div>
    <slot name="foot" />
  </div>
</template>

<style scoped>
.board {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
}
.rows {
  overflow: auto;
  scrollbar-gutter: stable;
  min-height: 0;
  flex: 1;
}
.cells {
  display: grid;
  grid-template-columns: var(--columns);
  gap: 12px;
  align-items: center;
  min-width: var(--least, 0);
}
.head {
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--paper);
  border-bottom: 1px solid var(--ink);
  min-width: var(--least, 0);
}
.head .cells {
  padding: 4px 8px;
}
.all {
  position: relative;
}
.many .place {
  position: absolute;
  top: 0;
  left: 0;
  width: 100%;
}
.place.over {
  outline: 2px solid var(--dusk);
  outline-offset: -2px;
}
.line {
  min-height: 41px;
  padding: 4px 8px;
  border-bottom: 1px solid var(--rule);
}
.lit {
  box-shadow: inset 3px 0 0 var(--lantern);
  background: var(--sheet);
}
.name {
  display: flex;
  gap: 8px;
  align-items: center;
  min-width: 0;
}
.name a {
  color: var(--ink);
  text-decoration: none;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.name a:hover {
  text-decoration: underline;
}
.name a.top {
  font-weight: 700;
}
.mono {
  font-size: 0.87rem;
  white-space: nowrap;
}
.fold {
  width: 24px;
  min-height: 24px;
  flex: none;
  border: 0;
  background: none;
  font: inherit;
  color: var(--ink-soft);
  padding: 0;
  cursor: pointer;
}
@media (max-width: 900px) {
  .cells {
    gap: 8px;
  }
  .rows {
    flex: none;
    height: 70dvh;
  }
  .name .mono {
    display: none;
  }
  .name a {
    white-space: normal;
  }
}
</style>
