<script setup lang="ts">
import OverAll from '@/kit/OverAll.vue';
import { computed, onBeforeUnmount, ref } from 'vue';
import { boxOf, type Box, type Point } from '@/kit/box';
import { pngOf } from '@/areas/evidence/useCapture';

/** A captured picture over the whole page: the part that is dragged is kept. Enter keeps all of it. */
const props = defineProps<{ picture: Blob }>();
const emit = defineEmits<{ keep: [part: Blob]; leave: [] }>();
const url = URL.createObjectURL(props.picture);
const image = ref<HTMLImageElement | null>(null);
const box = ref<Box | null>(null);
let from: Point | null = null;
const style = computed(() =>
  box.value
    ? {
        left: `${box.value.x}px`,
        top: `${box.value.y}px`,
        width: `${box.value.width}px`,
        height: `${box.value.height}px`,
      }
    : {},
);
onBeforeUnmount(() => URL.revokeObjectURL(url));
function point(event: PointerEvent): Point {
  const area = image.value?.getBoundingClientRect() ?? new DOMRect();
  return {
    x: Math.max(0, Math.min(area.width, event.clientX - area.left)),
    y: Math.max(0, Math.min(area.height, event.clientY - area.top)),
  };
}
function down(event: PointerEvent): void {
  from = point(event);
  box.value = { ...from, width: 0, height: 0 };
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
}
function drag(event: PointerEvent): void {
  if (from) box.value = boxOf(from, point(event));
}
async function up(): Promise<void> {
  from = null;
  if (box.value && box.value.width > 4 && box.value.height > 4) await cut();
  else box.value = null;
}
async function cut(): Promise<void> {
  const of = image.value;
  if (!of || !box.value) return;
  const scale = of.naturalWidth / of.getBoundingClientRect().width;
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(box.value.width * scale));
  canvas.height = Math.max(1, Math.round(box.value.height * scale));
  canvas.getContext('2d')?.drawImage(of, -Math.round(box.value.x * scale), -Math.round(box.value.y * scale));
  emit('keep', await pngOf(canvas));
}
</script>

<template>
  <OverAll
    class="pick"
    label="Drag over the part to keep"
    @leave="emit('leave')"
    @take="emit('keep', picture)"
  >
    <p>
      Drag over the part to keep. <kbd>Enter</kbd> keeps all of it, <kbd>Esc</kbd> none.
      <button type="button" class="link" @click="emit('keep', picture)">Keep all</button>
      <button type="button" class="link" @click="emit('leave')">Leave it</button>
    </p>
    <div class="area" @pointerdown.prevent="down" @pointermove="drag" @pointerup="up">
      <img ref="image" :src="url" alt="What was captured" draggable="false" />
      <span v-if="box" class="box" :style="style"></span>
    </div>
  </OverAll>
</template>

<style scoped>
.pick {
  display: grid;
  grid-template-rows: auto 1fr;
  gap: 10px;
}
.pick p {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
}
.area {
  position: relative;
  justify-self: start;
  align-self: start;
  cursor: crosshair;
  touch-action: none;
  border: 1px solid var(--edge);
}
.area img {
  display: block;
  max-width: calc(100vw - 50px);
  max-height: calc(100vh - 80px);
  user-select: none;
}
.box {
  position: absolute;
  border: 2px solid var(--dusk);
  background: rgb(43 63 102 / 12%);
  pointer-events: none;
}
</style>
