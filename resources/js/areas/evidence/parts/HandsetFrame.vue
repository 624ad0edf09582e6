<script setup lang="ts">
import { useElementSize, useWindowSize } from '@vueuse/core';
import Button from 'primevue/button';
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue';
import type { Api } from '@/api/client';
import { keyNamed, useKeys } from '@/kit/keys';
import { saveLocal, loadLocal } from '@/offline/device';
import { captureFault, pngOf, stampedName } from '@/areas/evidence/useCapture';
import type { EvidenceTools } from '@/areas/evidence/useEvidence';
import { useFramedPage, type Network } from '@/areas/evidence/useFramedPage';
import { useWalkSetup } from '@/areas/setup/queries';
import KeyCap from '@/kit/KeyCap.vue';

/**
 * A simulated handset beside what is tested: the application under test at a small size, turned, on a slow network or none.
 * One key captures it as evidence. It shows what the project lists: a page around the frame lets nothing else load.
 */
const props = defineProps<{ tools: EvidenceTools; project: string }>();
const emit = defineEmits<{ close: [] }>();
const sizes = [
  { name: 'Small phone', width: 360, height: 640 },
  { name: 'Phone', width: 390, height: 844 },
  { name: 'Large phone', width: 430, height: 932 },
  { name: 'Small tablet', width: 600, height: 960 },
  { name: 'Tablet', width: 768, height: 1024 },
];
const nets: { value: Network; word: string }[] = [
  { value: 'full', word: 'Full network' },
  { value: 'slow', word: 'Slow network' },
  { value: 'none', word: 'No network' },
];
const { configuration: device = '', environment, build } = props.tools.target.tested();
const configuration = device.toLowerCase();
const size = ref(configuration.includes('tablet') ? 4 : 1);
const turned = ref(configuration.includes('sideways') || configuration.includes('landscape'));
const { data: setup } = useWalkSetup(() => props.project);
const listed = computed<Api['HandsetAddressLine'][]>(() => setup.value?.handset ?? []);
const address = ref('');
const shown = ref('');
const fault = ref('');
const away = ref(false);
const said = ref('');
const inner = ref<HTMLIFrameElement | null>(null);
const turn = ref(0);
const screen = computed(() => {
  const { width, height } = sizes[size.value] ?? sizes[1]!;
  return turned.value ? { width: height, height: width } : { width, height };
});
const { width: wide, height: high } = useWindowSize();
const head = ref<HTMLElement | null>(null);
const { height: above } = useElementSize(head);
/** What is left for the handset under its bars and within the window, in pixels. */
const room = computed(() => ({
  width: Math.min(860, wide.value * 0.6),
  height: Math.max(200, high.value - above.value - 70),
}));
const scale = computed(() =>
  Math.min(1, room.value.width / (screen.value.width + 24), room.value.height / (screen.value.height + 24)),
);
const origin = computed(() => (URL.canParse(shown.value) ? new URL(shown.value).origin : ''));
const { network, takesPart, tell } = useFramedPage(
  () => inner.value?.contentWindow?.[0],
  () => origin.value,
  (key) => {
    const named = keyNamed(key);
    if (named === 'h') void shoot();
    else if (named === 'o') turned.value = !turned.value;
  },
);
const source = computed(
  () => `/api/v1/projects/${props.project}/handset?address=${encodeURIComponent(shown.value)}`,
);
const isListed = (url: string): boolean =>
  URL.canParse(url) && listed.value.some((l) => l.origin === new URL(url).origin);
const before = loadLocal<string>(`handset:${props.project}`);
watch(
  listed,
  async () => {
    const last = await before;
    if (shown.value || listed.value.length === 0) return;
    // It opens where the attempt is walked, as one left it there; where nobody said so, where the build is that is walked.
    const here =
      listed.value.find((l) => l.environment_id !== null && l.name === environment) ??
      listed.value.find((l) => l.build !== null && l.build.id === build);
    const known = last && isListed(last) ? last : null;
    if (here) show(known && new URL(known).origin === here.origin ? known : here.address);
    else show(known ?? listed.value[0]!.address);
  },
  { immediate: true },
);
watch(network, async () => {
  await tell();
  reload();
});
function reload(): void {
  turn.value += 1;
}
function show(url: string): void {
  fault.value = '';
  takesPart.value = false;
  shown.value = address.value = url;
  reload();
}
function go(): void {
  const typed = address.value.trim();
  // A path alone leads on from where one is.
  const url = URL.canParse(typed, shown.value || undefined) ? new URL(typed, shown.value || undefined) : null;
  if (!url || !/^https?:$/.test(url.protocol)) {
    fault.value = 'Write an address, such as https://staging.example/booking.';
  } else if (!isListed(url.href)) {
    fault.value = `This project does not list ${url.host}. Leads list environments under Setup, Planning.`;
  } else {
    show(url.href);
    void saveLocal(`handset:${props.project}`, url.href);
  }
}
/** The page around the frame comes from the server: away, or signed out, it is not there. */
function opened(): void {
  let there = false;
  try {
    there = (inner.value?.contentWindow?.length ?? 0) > 0;
  } catch {
    // The browser's own page of a fault, which nobody may look into.
  }
  away.value = !there;
  fault.value = there ? '' : 'The handset does not open now: the server does not answer.';
}
/** What the frame shows right now, cut out of this very tab. */
async function shoot(): Promise<void> {
  fault.value = said.value = '';
  try {
    const options = { video: { displaySurface: 'browser' }, audio: false, preferCurrentTab: true };
    const stream =
      tab ?? (await navigator.mediaDevices.getDisplayMedia(options as DisplayMediaStreamOptions));
    tab = stream;
    stream.getVideoTracks()[0]?.addEventListener('ended', () => (tab = null));
    const video = document.createElement('video');
    video.srcObject = stream;
    video.muted = true;
    await video.play();
    await nextTick();
    await new Promise((r) => setTimeout(r, 250));
    const area = inner.value?.getBoundingClientRect();
    if (!area || video.videoWidth === 0) throw new DOMException('No picture came.', 'NotReadableError');
    const ratio = video.videoWidth / window.innerWidth;
    const canvas = document.createElement('canvas');
    canvas.width = Math.round(area.width * ratio);
    canvas.height = Math.round(area.height * ratio);
    canvas.getContext('2d')?.drawImage(video, -Math.round(area.left * ratio), -Math.round(area.top * ratio));
    video.srcObject = null;
    const { name } = sizes[size.value] ?? sizes[1]!;
    await props.tools.keepPicture(
      await pngOf(canvas),
      'handset',
      stampedName(`${name.toLowerCase().replaceAll(' ', '-')}${turned.value ? '-turned' : ''}`, 'png'),
    );
    said.value = `Captured onto ${props.tools.target.word}.`;
  } catch (error) {
    fault.value = error instanceof DOMException ? captureFault(error) : String((error as Error).message);
  }
}
let tab: MediaStream | null = null;
onBeforeUnmount(() => tab?.getTracks().forEach((t) => t.stop()));
useKeys('Handset', () => [
  { keys: ['h', 'Alt+H'], label: 'Capture the handset', run: () => void shoot() },
  { keys: ['o'], label: 'Turn the handset', run: () => (turned.value = !turned.value) },
]);
</script>

<template>
  <Teleport to="body">
    <section
      class="handset"
      aria-label="Handset"
      :style="{ width: `${Math.max(380, (screen.width + 24) * scale + 32)}px` }"
    >
      <div ref="head" class="head">
        <div class="row small">
          <select v-model.number="size" class="field inline" aria-label="Size">
            <option v-for="(s, i) in sizes" :key="s.name" :value="i">
              {{ s.name }}, {{ s.width }} × {{ s.height }}
            </option>
          </select>
          <select v-model="network" class="field inline" aria-label="Network">
            <option v-for="n in nets" :key="n.value" :value="n.value">{{ n.word }}</option>
          </select>
          <button type="button" class="link" :aria-pressed="turned" @click="turned = !turned">
            Turn it <KeyCap of="o" />
          </button>
          <Button size="small" @click="shoot">Capture it <KeyCap of="h" /></Button>
          <button type="button" class="link" @click="reload">Load again</button>
          <button type="button" class="link" @click="emit('close')">Put it away</button>
        </div>
        <select
          v-if="listed.length > 1"
          class="field small"
          aria-label="Application"
          @change="show(($event.target as HTMLSelectElement).value)"
        >
          <option v-for="l in listed" :key="l.address" :value="l.address" :selected="l.origin === origin">
            {{ l.build ? `${l.name}, build ${l.build.name}` : l.name }}
          </option>
        </select>
        <form class="row small address" @submit.prevent="go">
          <input v-model="address" aria-label="Address" class="field mono" />
          <button type="submit" class="link">Open</button>
        </form>
        <p v-if="setup && listed.length === 0" class="small soft">
          No environment of this project has an address. Leads list them under Setup, Planning.
        </p>
        <p v-if="network !== 'full' && !takesPart" class="small soft">
          This page does not say that it takes part: its network stays as it is.
        </p>
        <p v-if="fault" class="p-invalid-words" role="alert">{{ fault }}</p>
        <p v-show="said" class="small soft" role="status">{{ said }}</p>
      </div>
      <div
        class="body"
        :style="{ width: `${(screen.width + 24) * scale}px`, height: `${(screen.height + 24) * scale}px` }"
      >
        <div
          class="case"
          :style="{
            transform: `scale(${scale})`,
            width: `${screen.width + 24}px`,
            height: `${screen.height + 24}px`,
          }"
        >
          <iframe
            v-if="shown"
            ref="inner"
            :key="turn"
            :class="{ away }"
            :src="source"
            title="The application under test"
            :width="screen.width"
            :height="screen.height"
            @load="opened"
          ></iframe>
        </div>
      </div>
    </section>
  </Teleport>
</template>

<style scoped>
.handset {
  position: fixed;
  right: 16px;
  bottom: 16px;
  z-index: 30;
  background: var(--paper);
  border: 1px solid var(--edge);
  border-radius: 6px;
  box-shadow: var(--float);
  padding: 10px 14px 14px;
  display: grid;
  gap: 6px;
  justify-items: center;
  max-width: calc(100vw - 32px);
  max-height: calc(100vh - 32px);
  overflow: auto;
}
.head {
  width: 100%;
  display: grid;
  gap: 6px;
}
.row {
  gap: 10px;
  width: 100%;
}
.address {
  flex-wrap: nowrap;
}
select {
  flex: 1 1 40%;
}
input {
  flex: 1;
  min-width: 0;
}
.body {
  overflow: hidden;
}
.case {
  transform-origin: top left;
  padding: 12px;
  background: var(--ink);
  border-radius: 26px;
}
iframe {
  display: block;
  border: 0;
  border-radius: 14px;
  background: #fff;
}
iframe.away {
  visibility: hidden;
}
</style>
