<script setup lang="ts">
import OverAll from '@/kit/OverAll.vue';
import Konva from 'konva';
import Button from 'primevue/button';
import { computed, nextTick, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue';
import { boxOf, type Box, type Point } from '@/kit/box';
import type { Markup, Shape } from '@/areas/evidence/types';
import { pngOf } from '@/areas/evidence/useCapture';
import KeyCap from '@/kit/KeyCap.vue';
import { keyNamed } from '@/kit/keys';

/**
 * Draws on a picture. What is drawn stays apart and can be changed later; what is hidden is burnt into the picture
 * itself, here on the device.
 */
const props = defineProps<{
  source: string;
  name: string;
  markup: Markup | null;
  /** The picture has not left the device: hiding says so. */
  still: boolean;
  /** It shows something secret: it begins with hiding, and goes once something was hidden or nothing is to be. */
  looksOver?: boolean;
}>();
const emit = defineEmits<{
  /** `plain` is the picture with what was hidden burnt in, when something was; `drawn` the picture with the shapes. */
  save: [result: { markup: Markup; drawn: Blob | null; plain: Blob | null }];
  leave: [];
}>();
type Tool = Shape['kind'] | 'hide' | 'crop';
const tools: { tool: Tool; word: string; key: string }[] = [
  { tool: 'arrow', word: 'Arrow', key: 'a' },
  { tool: 'box', word: 'Box', key: 'b' },
  { tool: 'pin', word: 'Pin', key: 'p' },
  { tool: 'text', word: 'Text', key: 't' },
  { tool: 'highlight', word: 'Highlight', key: 'h' },
  { tool: 'crop', word: 'Crop', key: 'c' },
  { tool: 'hide', word: 'Hide', key: 'x' },
];
const tool = ref<Tool>(props.looksOver ? 'hide' : 'arrow');
/** Asks whether nothing is to be hidden. */
const asking = ref(false);
const words = ref('');
const holder = ref<HTMLDivElement | null>(null);
const root = ref<InstanceType<typeof OverAll> | null>(null);
const failed = ref('');
const picture = shallowRef<HTMLImageElement | null>(null);
interface State {
  shapes: Shape[];
  hidden: Box[];
  crop: Markup['crop'] | null;
}
const state = ref<State>({
  shapes: props.markup?.shapes.map((s) => ({ ...s })) ?? [],
  hidden: [],
  crop: props.markup?.crop ?? null,
});
const past = ref<string[]>([]);
const changed = computed(() => past.value.length > 0);
let stage: Konva.Stage | null = null;
let layer: Konva.Layer | null = null;
let scale = 1;
const INK = '#C2334D';

onMounted(async () => {
  const image = new Image();
  image.crossOrigin = 'same-origin';
  image.src = props.source;
  try {
    await image.decode();
  } catch {
    failed.value = 'The picture cannot be opened here.';
    return;
  }
  picture.value = image;
  await nextTick();
  fit();
});
onBeforeUnmount(() => stage?.destroy());

function fit(): void {
  const image = picture.value;
  if (!image || !holder.value) return;
  const room = root.value?.root?.getBoundingClientRect() ?? new DOMRect(0, 0, 1000, 700);
  scale = Math.min(
    1,
    (room.width - 48) / image.naturalWidth,
    (window.innerHeight - 150) / image.naturalHeight,
  );
  stage = new Konva.Stage({
    container: holder.value,
    width: image.naturalWidth * scale,
    height: image.naturalHeight * scale,
    scaleX: scale,
    scaleY: scale,
  });
  layer = new Konva.Layer();
  stage.add(layer);
  stage.on('pointerdown', down);
  stage.on('pointermove', drag);
  stage.on('pointerup pointerleave', up);
  draw();
}
function draw(extra: Shape | State['hidden'][number] | null = null): void {
  if (!layer || !picture.value) return;
  layer.destroyChildren();
  layer.add(new Konva.Image({ image: picture.value, x: 0, y: 0 }));
  paint(layer, state.value, true);
  if (extra) {
    if ('kind' in extra) shapeNodes(extra).forEach((n) => layer?.add(n));
    else
      layer.add(
        new Konva.Rect({
          ...extra,
          fill: tool.value === 'hide' ? '#000' : undefined,
          stroke: '#2B3F66',
          strokeWidth: 2 / scale,
          dash: [6 / scale, 4 / scale],
        }),
      );
  }
  layer.batchDraw();
}
function paint(on: Konva.Layer, what: State, withCrop: boolean): void {
  for (const h of what.hidden) on.add(new Konva.Rect({ ...h, fill: '#000' }));
  for (const s of what.shapes) shapeNodes(s).forEach((n) => on.add(n));
  if (withCrop && what.crop)
    on.add(
      new Konva.Rect({
        ...what.crop,
        stroke: '#2B3F66',
        strokeWidth: 3 / scale,
        dash: [10 / scale, 6 / scale],
      }),
    );
}
function shapeNodes(s: Shape): (Konva.Shape | Konva.Group)[] {
  const unit = Math.max(1, (picture.value?.naturalWidth ?? 1000) / 1000);
  const { x, y, width = 0, height = 0 } = s;
  switch (s.kind) {
    case 'arrow':
      return [
        new Konva.Arrow({
          points: [x, y, x + width, y + height],
          stroke: INK,
          fill: INK,
          strokeWidth: 4 * unit,
          pointerLength: 14 * unit,
          pointerWidth: 12 * unit,
        }),
      ];
    case 'box':
      return [
        new Konva.Rect({ x, y, width, height, stroke: INK, strokeWidth: 4 * unit, cornerRadius: 3 * unit }),
      ];
    case 'highlight':
      return [new Konva.Rect({ x, y, width, height, fill: '#F6E05E', globalCompositeOperation: 'multiply' })];
    case 'pin': {
      const group = new Konva.Group({ x, y });
      group.add(new Konva.Circle({ radius: 15 * unit, fill: INK, stroke: '#fff', strokeWidth: 2 * unit }));
      group.add(
        new Konva.Text({
          text: String(s.number ?? 1),
          fontSize: 17 * unit,
          fontStyle: 'bold',
          fontFamily: 'Atkinson Hyperlegible Next Variable, sans-serif',
          fill: '#fff',
          width: 30 * unit,
          height: 30 * unit,
          offsetX: 15 * unit,
          offsetY: 15 * unit,
          align: 'center',
          verticalAlign: 'middle',
        }),
      );
      return [group];
    }
    case 'text': {
      const text = new Konva.Text({
        x: x + 6 * unit,
        y: y + 4 * unit,
        text: s.text ?? '',
        fontSize: 18 * unit,
        fontFamily: 'Atkinson Hyperlegible Next Variable, sans-serif',
        fill: '#1F2733',
      });
      return [
        new Konva.Rect({
          x,
          y,
          width: text.width() + 12 * unit,
          height: text.height() + 8 * unit,
          fill: '#FFFFFF',
          stroke: INK,
          strokeWidth: 2 * unit,
          cornerRadius: 3 * unit,
        }),
        text,
      ];
    }
  }
}
function at(): Point {
  const p = stage?.getPointerPosition() ?? { x: 0, y: 0 };
  return { x: Math.round(p.x / scale), y: Math.round(p.y / scale) };
}
let began: Point | null = null;
function change(next: (s: State) => void): void {
  past.value.push(JSON.stringify(state.value));
  const copy = JSON.parse(JSON.stringify(state.value)) as State;
  next(copy);
  state.value = copy;
  draw();
}
function down(): void {
  const p = at();
  if (tool.value === 'pin')
    change((s) =>
      s.shapes.push({ kind: 'pin', ...p, number: s.shapes.filter((x) => x.kind === 'pin').length + 1 }),
    );
  else if (tool.value === 'text') {
    if (words.value.trim() === '') document.getElementById('mark-words')?.focus();
    else
      change((s) => {
        s.shapes.push({ kind: 'text', ...p, text: words.value.trim() });
        words.value = '';
      });
  } else began = p;
}
function drag(): void {
  if (!began) return;
  const p = at();
  if (tool.value === 'arrow') draw({ kind: 'arrow', ...began, width: p.x - began.x, height: p.y - began.y });
  else if (tool.value === 'box' || tool.value === 'highlight') draw({ kind: tool.value, ...boxOf(began, p) });
  else draw(boxOf(began, p));
}
function up(): void {
  if (!began) return;
  const from = began;
  const p = at();
  began = null;
  const box = boxOf(from, p);
  if (Math.hypot(box.width, box.height) < 5) return draw();
  const now = tool.value;
  change((s) => {
    if (now === 'arrow') s.shapes.push({ kind: 'arrow', ...from, width: p.x - from.x, height: p.y - from.y });
    else if (now === 'box' || now === 'highlight') s.shapes.push({ kind: now, ...box });
    else if (now === 'hide') s.hidden.push(box);
    else if (now === 'crop') s.crop = box;
  });
}
function undo(): void {
  const before = past.value.pop();
  if (before === undefined) return;
  state.value = JSON.parse(before) as State;
  draw();
}
function onKey(event: KeyboardEvent): void {
  if (event.target instanceof HTMLInputElement) return;
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
    event.preventDefault();
    return undo();
  }
  const key = keyNamed(event.key);
  const chosen = tools.find((t) => t.key === key);
  if (chosen && !event.ctrlKey) tool.value = chosen.tool;
  else if (key === 'z') undo();
}
/** The picture at its own size with some of what was done to it. */
async function render(what: State): Promise<Blob> {
  const image = picture.value;
  if (!image) throw new DOMException('No picture.', 'NotReadableError');
  const crop = what.crop ?? { x: 0, y: 0, width: image.naturalWidth, height: image.naturalHeight };
  const whole = new Konva.Stage({
    container: document.createElement('div'),
    width: image.naturalWidth,
    height: image.naturalHeight,
  });
  const on = new Konva.Layer();
  whole.add(on);
  on.add(new Konva.Image({ image, x: 0, y: 0 }));
  paint(on, what, false);
  on.draw();
  const canvas = whole.toCanvas({ ...crop, pixelRatio: 1 });
  const blob = await pngOf(canvas);
  whole.destroy();
  return blob;
}
async function save(nothingToHide = false): Promise<void> {
  const image = picture.value;
  if (!image) return;
  if (props.looksOver && state.value.hidden.length === 0 && !nothingToHide) {
    asking.value = true;
    return;
  }
  // Plain data: what is drawn is kept on the device, which takes nothing else.
  const { shapes, hidden, crop } = JSON.parse(JSON.stringify(state.value)) as State;
  const markup: Markup = {
    shapes,
    width: image.naturalWidth,
    height: image.naturalHeight,
    ...(crop ? { crop } : {}),
  };
  emit('save', {
    markup,
    drawn: shapes.length > 0 || crop ? await render(state.value) : null,
    plain: hidden.length > 0 ? await render({ shapes: [], hidden, crop: null }) : null,
  });
}
</script>

<template>
  <OverAll
    ref="root"
    class="mark"
    :label="`Draw on ${name}`"
    @leave="emit('leave')"
    @take="save()"
    @keydown="onKey"
  >
    <div class="tools" role="toolbar" aria-label="Tools">
      <button
        v-for="t in tools"
        :key="t.tool"
        type="button"
        class="tool"
        :aria-pressed="tool === t.tool"
        @click="tool = t.tool"
      >
        {{ t.word }} <KeyCap :of="t.key" />
      </button>
      <input
        v-if="tool === 'text'"
        id="mark-words"
        v-model="words"
        class="field inline words"
        maxlength="200"
        placeholder="Words, then click where they go"
        aria-label="Words to put on the picture"
      />
      <button type="button" class="link" :disabled="!changed" @click="undo">Undo <KeyCap of="z" /></button>
      <span class="end">
        <Button text severity="secondary" @click="emit('leave')">Leave it <kbd>Esc</kbd></Button>
        <Button @click="save()">Save it <kbd>Enter</kbd></Button>
      </span>
    </div>
    <p class="small soft hint">
      <template v-if="tool === 'hide'"
        >What you drag over is painted black in the picture itself{{
          still
            ? ', before it leaves this device'
            : '; the picture on the server is replaced and its content taken out'
        }}. It cannot be brought back.</template
      >
      <template v-else-if="state.hidden.length > 0">{{ state.hidden.length }} hidden for good.</template>
      <template v-else>What you draw can be changed later.</template>
    </p>
    <p v-if="asking && state.hidden.length === 0" class="p-invalid-words" role="alert">
      Nothing is hidden, and this step shows secret values. Drag over what is secret, or
      <button type="button" class="link" @click="save(true)">there is nothing to hide</button>.
    </p>
    <p v-if="failed" class="p-invalid-words" role="alert">{{ failed }}</p>
    <div ref="holder" class="holder"></div>
  </OverAll>
</template>

<style scoped>
.tools {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
}
.end {
  margin-left: auto;
  display: flex;
  gap: 8px;
}
.words {
  width: 18rem;
}
.hint {
  margin: 8px 0;
}
.holder {
  touch-action: none;
  cursor: crosshair;
  display: inline-block;
  border: 1px solid var(--edge);
  background: var(--sheet);
}
</style>
