<script setup lang="ts">
import { computed, ref } from 'vue';
import { condense } from './condense';
import VerdictMark from './VerdictMark.vue';
import type { Shown } from './words';

/** One mark of a trail, or a run of several. Marks with another group stand a small gap apart. */
export interface TrailMark {
  id: string;
  shown: Shown;
  label: string;
  group?: string;
  /** More than one: it was condensed already, and choosing it is told as a run. */
  count?: number;
}
const props = withDefaults(
  defineProps<{ marks: TrailMark[]; current?: string | null; label: string; longest?: number }>(),
  { current: null, longest: 48 },
);
const emit = defineEmits<{ choose: [id: string]; run: [mark: TrailMark] }>();
const row = ref<HTMLElement | null>(null);
const opened = ref<Set<string>>(new Set());

interface Piece {
  key: string;
  mark: TrailMark;
  count: number;
  gap: boolean;
}
const kind = (mark: TrailMark): string => `${mark.group}${mark.shown}`;
const pieces = computed<Piece[]>(() =>
  condense(
    props.marks,
    props.longest,
    (m) => m.id === props.current || opened.value.has(kind(m)) || (m.count ?? 1) > 1,
  ).map((p) => ({ ...p, count: p.mark.count ?? p.count, key: p.mark.id })),
);

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
  if ((piece.mark.count ?? 1) > 1) emit('run', piece.mark);
  else if (piece.count > 1) opened.value = new Set([...opened.value, kind(piece.mark)]);
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
