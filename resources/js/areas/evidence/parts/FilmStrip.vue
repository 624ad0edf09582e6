<script setup lang="ts">
import { zone } from '@/kit/zone';
import Button from 'primevue/button';
import { computed, onBeforeUnmount, ref } from 'vue';
import { device } from '@/offline/device';
import { captureFault, stampedName } from '@/areas/evidence/useCapture';
import type { EvidenceTools } from '@/areas/evidence/useEvidence';

/** Pictures at an interval, on this device only: what matters is kept as evidence, the rest is let go. */
const timeOf = (iso: string): string => new Date(iso).toLocaleTimeString('en-GB', { timeZone: zone.value });
const props = defineProps<{ tools: EvidenceTools }>();
interface Frame {
  id: number;
  at: string;
  picture: Blob;
  url: string;
}
const MOST = 240;
const frames = ref<Frame[]>([]);
const seconds = ref(10);
const running = ref(false);
const chosen = ref<number[]>([]);
/** Where the chosen ones go, counted in the places there are. */
const { target } = props.tools;
const places = computed(() => target.places());
const onto = ref(
  Math.max(
    0,
    places.value.findIndex((p) => p.place.step === target.here().step),
  ),
);
const fault = ref('');
const name = computed(() => `film:${target.id}`);
let timer: ReturnType<typeof setInterval> | undefined;
let next = 1;

void restore();
/** A reload loses no frame: they lie on the device until they are let go. */
async function restore(): Promise<void> {
  const store = await device();
  const keys = (await store.getAllKeys('kept')).filter((k) => k.startsWith(`${name.value}:`));
  for (const key of keys.sort()) {
    const kept = (await store.get('kept', key)) as { id: number; at: string; picture: Blob } | undefined;
    if (kept) {
      frames.value.push({ ...kept, url: URL.createObjectURL(kept.picture) });
      next = Math.max(next, kept.id + 1);
    }
  }
}
const keyOf = (id: number): string => `${name.value}:${String(id).padStart(6, '0')}`;
async function unwrap(): Promise<void> {
  try {
    const picture = await props.tools.capture.frame();
    const frame = { id: next++, at: new Date().toISOString(), picture };
    await (await device()).put('kept', frame, keyOf(frame.id));
    frames.value.push({ ...frame, url: URL.createObjectURL(picture) });
    const old = frames.value.filter((f) => !chosen.value.includes(f.id));
    if (frames.value.length > MOST && old[0]) await drop([old[0].id]);
  } catch (error) {
    stop();
    fault.value =
      error instanceof DOMException && error.name === 'QuotaExceededError'
        ? 'This device is full. The filmstrip stopped; what it has is kept. Let frames go that do not matter.'
        : captureFault(error);
  }
}
async function start(): Promise<void> {
  fault.value = '';
  running.value = true;
  await unwrap();
  if (running.value) timer = setInterval(() => void unwrap(), Math.max(2, seconds.value) * 1000);
}
function stop(): void {
  running.value = false;
  clearInterval(timer);
}
async function drop(ids: number[]): Promise<void> {
  const store = await device();
  for (const id of ids) {
    await store.delete('kept', keyOf(id));
    const at = frames.value.findIndex((f) => f.id === id);
    const [gone] = at >= 0 ? frames.value.splice(at, 1) : [];
    if (gone) URL.revokeObjectURL(gone.url);
  }
  chosen.value = chosen.value.filter((id) => !ids.includes(id));
}
async function keep(): Promise<void> {
  fault.value = '';
  try {
    for (const frame of frames.value.filter((f) => chosen.value.includes(f.id))) {
      await target.attach(
        frame.picture,
        stampedName('film', 'png', new Date(frame.at)),
        'filmstrip',
        places.value[onto.value]?.place,
      );
      await drop([frame.id]);
    }
  } catch (error) {
    fault.value = error instanceof Error ? error.message : String(error);
  }
}
function choose(id: number): void {
  chosen.value = chosen.value.includes(id) ? chosen.value.filter((x) => x !== id) : [...chosen.value, id];
}
onBeforeUnmount(() => {
  stop();
  frames.value.forEach((f) => URL.revokeObjectURL(f.url));
});
</script>

<template>
  <section class="film" aria-label="Filmstrip">
    <div class="row small">
      <label
        >Every
        <select v-model.number="seconds" class="field inline" :disabled="running" aria-label="Interval">
          <option v-for="s in [2, 5, 10, 30, 60]" :key="s" :value="s">{{ s }} s</option>
        </select></label
      >
      <Button v-if="!running" size="small" outlined label="Start the filmstrip" @click="start" />
      <Button v-else size="small" outlined label="Stop it" @click="stop" />
      <span role="status" class="soft"
        >{{ running ? 'Running, ' : '' }}{{ frames.length }} on this device only</span
      >
    </div>
    <p v-if="fault" class="p-invalid-words" role="alert">{{ fault }}</p>
    <ul v-if="frames.length > 0">
      <li v-for="f in frames" :key="f.id">
        <button
          type="button"
          :aria-pressed="chosen.includes(f.id)"
          :title="`Frame of ${timeOf(f.at)}`"
          @click="choose(f.id)"
        >
          <img :src="f.url" :alt="`Frame of ${timeOf(f.at)}`" />
          <span class="small mono">{{ timeOf(f.at) }}</span>
        </button>
      </li>
    </ul>
    <div v-if="frames.length > 0" class="row small">
      <label v-if="places.length > 1"
        >Onto
        <select v-model.number="onto" class="field inline" aria-label="Where the chosen go">
          <option v-for="(p, n) in places" :key="n" :value="n">{{ p.word }}</option>
        </select></label
      >
      <Button size="small" :disabled="chosen.length === 0" :label="`Keep ${chosen.length}`" @click="keep" />
      <button type="button" class="link" @click="chosen = frames.map((f) => f.id)">Choose all</button>
      <button
        type="button"
        class="link"
        @click="drop(frames.filter((f) => !chosen.includes(f.id)).map((f) => f.id))"
      >
        Let the others go
      </button>
    </div>
  </section>
</template>

<style scoped>
.film {
  display: grid;
  gap: 8px;
}
ul {
  display: flex;
  gap: 6px;
  overflow-x: auto;
  padding-bottom: 6px;
}
li button {
  display: block;
  width: 104px;
  padding: 2px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
}
li button[aria-pressed='true'] {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 2px var(--ink);
}
img {
  width: 100%;
  height: 60px;
  object-fit: cover;
  display: block;
}
</style>
