<script setup lang="ts">
import { computed, ref } from 'vue';
import VerdictMark from './VerdictMark.vue';
import type { Shown } from './words';

/** One mark of a trail. Marks with another group stand a small gap apart. */
export interface TrailMark {
  id: string;
  shown: Shown;
  label: string;
  group?: string;
}
const props = withDefaults(
  defineProps<{ marks: TrailMark[]; current?: string | null; label: string; longest?: number }>(),
  { current: null, longest: 48 },
);
const emit = defineEmits<{ choose: [id: string] }>();
const KEPT = new Set<Shown>(['fail', 'blocked', 'retest']);
const row = ref<HTMLElement | null>(null);
const opened = ref<Set<string>>(new Set());

interface Piece {
  key: string;
  mark: TrailMark;
  count: number;
  gap: boolean;
}
/** Long trails condense to runs with counts, never across a fail, blocked, retest or the current mark. */
const pieces = computed<Piece[]>(() => {
  const condense = props.marks.length > props.longest;
  const list: Piece[] = [];
  for (const mark of props.marks) {
    const before = list.at(-1);
    const gap = before !== undefined && before.mark.group !== mark.group;
    const alone =
      KEPT.has(mark.shown) || mark.id === props.current || opened.value.has(`${mark.group}${mark.shown}`);
    if (
      condense &&
      before &&
      !gap &&
      !alone &&
      before.mark.shown === mark.shown &&
      before.mark.id !== props.current
    )
      before.count += 1;
    else list.push({ key: mark.id, mark, count: 1, gap });
  }
  return list;
});

function step(event: KeyboardEvent, by: number): void {
  const buttons = [...(row.value?.querySelectorAll('button') ?? [])];
  const to = buttons[buttons.indexOf(event.target as HTMLButtonElement) + by];
  if (to) {
    event.preventDefault();
    event.stopPropagation();
    to.focus();
  }
}
function choose(piece: Piece): void {
  if (piece.count > 1) opened.value = new Set([...opened.value, `${piece.mark.group}${piece.mark.shown}`]);
  else emit('choose', piece.mark.id);
}
</script>

<template>
  <div
    ref="row"
    class="trail"
    role="group"
    :aria-label="label"
    @keydown.right="step($event as KeyboardEvent, 1)"
    @keydown.left="step($event as KeyboardEvent, -1)"
  >
    <button
      v-for="piece in pieces"
      :key="piece.key"
      type="button"
      :class="{ here: piece.mark.id === current, gap: piece.gap, run: piece.count > 1 }"
      :aria-current="piece.mark.id === current ? 'step' : undefined"
      :title="piece.count > 1 ? `${piece.count} × ${piece.mark.label}` : piece.mark.label"
      @click="choose(piece)"
    >
      <VerdictMark
        :shown="piece.mark.shown"
        :size="piece.mark.id === current ? 17 : 12"
        :label="piece.mark.label"
      />
      <span v-if="piece.count > 1" class="count">{{ piece.count }}</span>
    </button>
  </div>
</template>

<style scoped>
.trail {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
}
button {
  min-width: 24px;
  height: 28px;
  padding: 0 3px;
  border: 0;
  border-bottom: 4px solid transparent;
  background: none;
  color: inherit;
  cursor: pointer;
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 3px;
  font: 0.8rem var(--text);
}
button:hover {
  background: var(--well);
}
button.gap {
  margin-left: 16px;
}
button.here {
  min-width: 32px;
  border-bottom-color: var(--lantern);
  box-shadow: 0 1px 0 var(--ink);
}
.count {
  color: var(--ink-soft);
  font-variant-numeric: tabular-nums;
}
</style>
