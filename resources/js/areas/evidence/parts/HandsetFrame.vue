<script setup lang="ts">
import Button from 'primevue/button';
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { isTyping, useKeys } from '@/kit/keys';
import { saveLocal, loadLocal } from '@/offline/device';
import { captureFault, pngOf, stampedName } from '@/areas/evidence/useCapture';
import type { EvidenceTools } from '@/areas/evidence/useEvidence';
import type { Walk } from '@/areas/walk/useWalk';

/**
 * A simulated handset beside the step: the application under test at a small size, turned, on a slow network or none.
 * One key captures it as evidence.
 */
const props = defineProps<{ walk: Walk; tools: EvidenceTools; project: string }>();
const emit = defineEmits<{ close: [] }>();
const sizes = [
  { name: 'Small phone', width: 360, height: 640 },
  { name: 'Phone', width: 390, height: 844 },
  { name: 'Large phone', width: 430, height: 932 },
  { name: 'Small tablet', width: 600, height: 960 },
  { name: 'Tablet', width: 768, height: 1024 },
];
const nets = [
  { value: 'full', word: 'Full network' },
  { value: 'slow', word: 'Slow network' },
  { value: 'none', word: 'No network' },
] as const;
const configuration = (props.walk.view.value?.attempt.configuration?.name ?? '').toLowerCase();
const size = ref(configuration.includes('tablet') ? 4 : 1);
const turned = ref(configuration.includes('sideways') || configuration.includes('landscape'));
const net = ref<'full' | 'slow' | 'none'>('full');
const address = ref('/practice/');
const shown = ref('/practice/');
const fault = ref('');
const said = ref('');
const inner = ref<HTMLIFrameElement | null>(null);
const turn = ref(0);
const screen = computed(() => {
  const { width, height } = sizes[size.value] ?? sizes[1]!;
  return turned.value ? { width: height, height: width } : { width, height };
});
const room = ref({ width: 392, height: 700 });
const scale = computed(() =>
  Math.min(1, room.value.width / (screen.value.width + 24), room.value.height / (screen.value.height + 24)),
);
const own = computed(() => new URL(shown.value, location.href).origin === location.origin);
function measure(): void {
  room.value = { width: Math.min(860, window.innerWidth * 0.6), height: window.innerHeight - 230 };
}
onMounted(async () => {
  measure();
  window.addEventListener('resize', measure);
  const before = await loadLocal<string>(`handset:${props.project}`);
  if (before) shown.value = address.value = before;
  void tell();
});
/** The worker of the page holds back what the frame asks for; it only reaches addresses of this server. */
async function tell(): Promise<void> {
  const ready = await navigator.serviceWorker?.ready.catch(() => null);
  ready?.active?.postMessage({ kind: 'network', network: net.value });
}
const heartbeat = setInterval(() => void tell(), 4000);
watch(net, async () => {
  await tell();
  reload();
});
onBeforeUnmount(() => {
  clearInterval(heartbeat);
  window.removeEventListener('resize', measure);
  void navigator.serviceWorker?.ready.then((r) =>
    r.active?.postMessage({ kind: 'network', network: 'full' }),
  );
});
function reload(): void {
  turn.value += 1;
}
function go(): void {
  fault.value = '';
  const url = URL.canParse(address.value, location.href) ? new URL(address.value, location.href) : null;
  if (!url || !/^https?:$/.test(url.protocol)) {
    fault.value = 'Write an address, such as /practice/ or https://…';
    return;
  }
  shown.value = url.href;
  void saveLocal(`handset:${props.project}`, url.href);
  reload();
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
    said.value = 'Captured onto the step.';
  } catch (error) {
    fault.value = error instanceof DOMException ? captureFault(error) : String((error as Error).message);
  }
}
/** While one works in the frame the keys go there: its own two are heard in it too, where the address lets us listen. */
function listen(): void {
  try {
    inner.value?.contentWindow?.addEventListener('keydown', (event) => {
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === 'h') void shoot();
      else if (event.key === 'o') turned.value = !turned.value;
    });
  } catch {
    // Another server's page: there is the button.
  }
}
let tab: MediaStream | null = null;
onBeforeUnmount(() => tab?.getTracks().forEach((t) => t.stop()));
useKeys('Handset', () => [
  { keys: ['h'], label: 'Capture the handset', run: () => void shoot() },
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
      <div class="row small">
        <select v-model.number="size" class="field inline" aria-label="Size">
          <option v-for="(s, i) in sizes" :key="s.name" :value="i">
            {{ s.name }}, {{ s.width }} × {{ s.height }}
          </option>
        </select>
        <select v-model="net" class="field inline" aria-label="Network">
          <option v-for="n in nets" :key="n.value" :value="n.value">{{ n.word }}</option>
        </select>
        <button type="button" class="link" :aria-pressed="turned" @click="turned = !turned">
          Turn it <kbd>o</kbd>
        </button>
        <Button size="small" @click="shoot">Capture it <kbd>h</kbd></Button>
        <button type="button" class="link" @click="emit('close')">Put it away</button>
      </div>
      <form class="row small" @submit.prevent="go">
        <input v-model="address" aria-label="Address" class="field mono" />
        <button type="submit" class="link">Open</button>
        <button type="button" class="link" @click="reload">Load again</button>
      </form>
      <p v-if="net !== 'full' && !own" class="small soft">
        The network is only simulated for addresses of this server.
      </p>
      <p v-if="fault" class="p-invalid-words" role="alert">{{ fault }}</p>
      <p class="small soft" role="status">{{ said }}</p>
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
            ref="inner"
            :key="turn"
            :src="shown"
            title="The application under test"
            :width="screen.width"
            :height="screen.height"
            @load="listen"
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
.row {
  gap: 10px;
  width: 100%;
}
select {
  flex: 1 1 40%;
}
input {
  flex: 1;
  min-width: 8rem;
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
</style>
