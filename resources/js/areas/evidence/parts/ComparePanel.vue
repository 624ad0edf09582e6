<script setup lang="ts">
import OverAll from '@/kit/OverAll.vue';
import { useQuery } from '@tanstack/vue-query';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { Problem, type Api } from '@/api/client';
import { boxOf, type Point } from '@/kit/box';
import { toast } from '@/kit/notices';
import type { WalkEvidence } from '@/areas/walk/types';
import { readComparison, saveComparison, saveIgnoredRegions } from '@/areas/evidence/queries';

/** A captured picture against the one it should look like: beside it, under a slider, or only what differs. */
const props = defineProps<{
  item: WalkEvidence;
  references: { sha256: string; name: string }[];
  project: string;
  locked: boolean;
}>();
const emit = defineEmits<{ leave: [] }>();
type View = 'beside' | 'slider' | 'difference';
const views: { view: View; word: string }[] = [
  { view: 'beside', word: 'Side by side' },
  { view: 'slider', word: 'Slider' },
  { view: 'difference', word: 'Difference' },
];
const view = ref<View>('difference');
const reference = ref(props.references[0]?.sha256 ?? '');
const share = ref(50);
const problem = ref('');
const ignoring = ref(false);
const turn = ref(0);
const { data, error, refetch, isFetching } = useQuery({
  queryKey: computed(() => ['comparison', props.item.id, reference.value]),
  retry: false,
  queryFn: () => readComparison(props.item.id, reference.value),
});
const percent = computed(() => ((data.value?.share ?? 0) * 100).toFixed(2));
const difference = computed(() => `${data.value?.difference_url ?? ''}&n=${turn.value}`);
const drag = ref<Api['PictureRegion'] | null>(null);
let from: Point | null = null;
function at(event: PointerEvent): Point {
  const image = (event.currentTarget as HTMLElement).querySelector('img');
  const area = image?.getBoundingClientRect() ?? new DOMRect();
  const scale = (image?.naturalWidth ?? 1) / area.width;
  return {
    x: Math.max(0, Math.round((event.clientX - area.left) * scale)),
    y: Math.max(0, Math.round((event.clientY - area.top) * scale)),
  };
}
function down(event: PointerEvent): void {
  if (ignoring.value) from = at(event);
}
function moving(event: PointerEvent): void {
  if (from) drag.value = boxOf(from, at(event));
}
async function up(): Promise<void> {
  const region = drag.value;
  from = null;
  drag.value = null;
  if (region && region.width > 3 && region.height > 3) await ignore([...(data.value?.ignored ?? []), region]);
}
async function run(work: () => Promise<unknown>): Promise<void> {
  problem.value = '';
  try {
    await work();
  } catch (e) {
    problem.value = e instanceof Problem ? e.message : String(e);
  }
}
const ignore = (regions: Api['PictureRegion'][]): Promise<void> =>
  run(async () => {
    await saveIgnoredRegions(props.project, reference.value, regions);
    await refetch();
    turn.value += 1;
  });
const keep = (): Promise<void> =>
  run(async () => {
    await saveComparison(props.item.id, reference.value);
    toast(`${percent.value} % differ: written into the record.`);
    emit('leave');
  });
const styleOf = (r: Api['PictureRegion']): Record<string, string> => {
  const width = Math.max(data.value?.width ?? 1, data.value?.reference_width ?? 1);
  const height = Math.max(data.value?.height ?? 1, data.value?.reference_height ?? 1);
  return {
    left: `${(r.x / width) * 100}%`,
    top: `${(r.y / height) * 100}%`,
    width: `${(r.width / width) * 100}%`,
    height: `${(r.height / height) * 100}%`,
  };
};
</script>

<template>
  <OverAll class="compare" :label="`Compare ${item.name} with its reference`" @leave="emit('leave')">
    <div class="head">
      <div role="group" aria-label="How to compare" class="row">
        <button
          v-for="v in views"
          :key="v.view"
          type="button"
          class="tool"
          :aria-pressed="view === v.view"
          @click="view = v.view"
        >
          {{ v.word }}
        </button>
        <select v-if="references.length > 1" v-model="reference" class="field" aria-label="Reference picture">
          <option v-for="r in references" :key="r.sha256" :value="r.sha256">{{ r.name }}</option>
        </select>
      </div>
      <p v-if="data" role="status">
        <strong>{{ percent }} % differ</strong>
        <span class="soft">
          {{ data.differing.toLocaleString('en-GB') }} of
          {{ data.compared.toLocaleString('en-GB') }} pixels<template
            v-if="data.width !== data.reference_width || data.height !== data.reference_height"
            >; {{ data.width }} × {{ data.height }} against {{ data.reference_width }} ×
            {{ data.reference_height }}</template
          ></span
        >
      </p>
      <span class="end">
        <Button v-if="data && !locked" outlined label="Write it into the record" @click="keep" />
        <Button text severity="secondary" @click="emit('leave')">Close <kbd>Esc</kbd></Button>
      </span>
    </div>
    <p v-if="error || problem" class="p-invalid-words" role="alert">{{ problem || error?.message }}</p>
    <p v-else-if="isFetching && !data" class="soft" role="status">Comparing …</p>
    <template v-if="data">
      <div v-if="view === 'beside'" class="beside">
        <figure>
          <figcaption class="label">How it should look</figcaption>
          <img :src="data.reference_url" alt="How it should look" />
        </figure>
        <figure>
          <figcaption class="label">How it looked</figcaption>
          <img :src="data.seen_url" alt="How it looked" />
        </figure>
      </div>
      <div v-else-if="view === 'slider'">
        <label class="label" for="compare-share">Left of the line: how it should look</label>
        <input id="compare-share" v-model.number="share" type="range" min="0" max="100" class="range" />
        <div class="stack">
          <img :src="data.seen_url" alt="How it looked" />
          <img
            class="over"
            :src="data.reference_url"
            alt="How it should look"
            :style="{ clipPath: `inset(0 ${100 - share}% 0 0)` }"
          />
          <span class="line" :style="{ left: `${share}%` }"></span>
        </div>
      </div>
      <div v-else>
        <p class="small soft row">
          Red differs, blue is left out.
          <button type="button" class="link" :aria-pressed="ignoring" @click="ignoring = !ignoring">
            {{ ignoring ? 'Done leaving out' : 'Leave a part out' }}
          </button>
          <button v-if="data.ignored.length > 0" type="button" class="link" @click="ignore([])">
            Look at everything again
          </button>
          <span v-if="ignoring"
            >Drag over what may differ: it is left out for this reference from now on.</span
          >
        </p>
        <div
          class="stack"
          :class="{ ignoring }"
          @pointerdown.prevent="down"
          @pointermove="moving"
          @pointerup="up"
        >
          <img :src="difference" alt="What differs, in red" draggable="false" />
          <span v-if="drag" class="region" :style="styleOf(drag)"></span>
        </div>
      </div>
    </template>
  </OverAll>
</template>

<style scoped>
.head {
  display: flex;
  gap: 18px;
  align-items: center;
  flex-wrap: wrap;
  margin-bottom: 10px;
}
.end {
  margin-left: auto;
  display: flex;
  gap: 8px;
}
.beside {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
}
img {
  display: block;
  max-width: 100%;
  border: 1px solid var(--edge);
}
.stack {
  position: relative;
  display: inline-block;
  max-width: 100%;
}
.stack.ignoring {
  cursor: crosshair;
  touch-action: none;
}
.over {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.line {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  background: var(--ink);
}
.region {
  position: absolute;
  border: 2px solid var(--dusk);
  background: rgb(43 63 102 / 15%);
}
.range {
  width: min(600px, 100%);
  accent-color: var(--dusk);
}
@media (max-width: 640px) {
  .beside {
    grid-template-columns: 1fr;
  }
}
</style>
