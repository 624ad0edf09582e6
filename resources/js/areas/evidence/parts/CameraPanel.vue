<script setup lang="ts">
import OverAll from '@/kit/OverAll.vue';
import Button from 'primevue/button';
import { onBeforeUnmount, onMounted, ref } from 'vue';
import { captureFault, pngOf } from '@/areas/evidence/useCapture';
import type { EvidenceTools } from '@/areas/evidence/useEvidence';

/** A camera of this device, live: of a handset on the desk, a reader, a printout. Enter takes a picture. */
const props = defineProps<{ tools: EvidenceTools }>();
const emit = defineEmits<{ leave: [] }>();
const video = ref<HTMLVideoElement | null>(null);
const cameras = ref<MediaDeviceInfo[]>([]);
const chosen = ref('');
const fault = ref('');
const ready = ref(false);
const said = ref('');
let stream: MediaStream | null = null;
let closed = false;

function close(): void {
  stream?.getTracks().forEach((t) => t.stop());
  stream = null;
}
async function open(device = ''): Promise<void> {
  close();
  fault.value = '';
  ready.value = false;
  try {
    if (typeof navigator.mediaDevices?.getUserMedia !== 'function')
      throw new DOMException('No camera can be reached.', 'NotFoundError');
    const opened = await navigator.mediaDevices.getUserMedia({
      audio: false,
      video: {
        width: { ideal: 1920 },
        height: { ideal: 1080 },
        ...(device ? { deviceId: { exact: device } } : { facingMode: 'environment' }),
      },
    });
    if (closed) {
      opened.getTracks().forEach((t) => t.stop());
      return;
    }
    stream = opened;
    const [track] = opened.getVideoTracks();
    track?.addEventListener('ended', () => {
      ready.value = false;
      fault.value = 'The camera is gone. Plug it in again, or choose another one.';
    });
    if (video.value) {
      video.value.srcObject = opened;
      await video.value.play();
    }
    // Their names are told only once one of them was allowed.
    cameras.value = (await navigator.mediaDevices.enumerateDevices()).filter((d) => d.kind === 'videoinput');
    chosen.value = track?.getSettings().deviceId ?? '';
    ready.value = true;
  } catch (error) {
    fault.value = captureFault(error, 'camera');
  }
}
async function shoot(): Promise<void> {
  const from = video.value;
  if (!ready.value || !from || from.videoWidth === 0) return;
  const canvas = document.createElement('canvas');
  canvas.width = from.videoWidth;
  canvas.height = from.videoHeight;
  canvas.getContext('2d')?.drawImage(from, 0, 0);
  try {
    await props.tools.photo(await pngOf(canvas));
    fault.value = props.tools.fault.value;
    said.value = fault.value === '' ? `Taken onto ${props.tools.target.word}.` : '';
  } catch (error) {
    fault.value = captureFault(error, 'camera');
  }
}
onMounted(() => {
  void open();
});
onBeforeUnmount(() => {
  closed = true;
  close();
});
</script>

<template>
  <OverAll class="camera" label="Camera" @leave="emit('leave')" @take="shoot">
    <div class="row">
      <Button :disabled="!ready" @click="shoot">Take a picture <kbd>Enter</kbd></Button>
      <select
        v-if="cameras.length > 1"
        v-model="chosen"
        class="field inline"
        aria-label="Which camera"
        @change="open(chosen)"
      >
        <option v-for="(c, i) in cameras" :key="c.deviceId" :value="c.deviceId">
          {{ c.label || `Camera ${i + 1}` }}
        </option>
      </select>
      <span class="soft" role="status">{{ said }}</span>
      <Button class="end" text severity="secondary" @click="emit('leave')">Close <kbd>Esc</kbd></Button>
    </div>
    <p v-if="fault" class="p-invalid-words" role="alert">
      {{ fault }} <button type="button" class="link" @click="open()">Try again</button>
    </p>
    <p v-else-if="!ready" class="soft" role="status">Opening the camera …</p>
    <video v-show="ready" ref="video" muted playsinline aria-label="What the camera sees"></video>
  </OverAll>
</template>

<style scoped>
.camera {
  display: grid;
  grid-template-rows: auto auto 1fr;
  gap: 12px;
}
.end {
  margin-left: auto;
}
video {
  max-width: 100%;
  max-height: calc(100vh - 90px);
  border: 1px solid var(--rule);
  background: var(--ink);
}
</style>
