import { zone } from '@/kit/zone';
import { computed, onBeforeUnmount, ref, shallowRef } from 'vue';

/** The longest recording, in ms. */
export const LONGEST_RECORDING = 120_000;

/** Why a capture did not come about, in words for the tester. */
export function captureFault(error: unknown, of: 'screen' | 'camera' = 'screen'): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError' || name === 'SecurityError')
    return (
      'The browser did not allow it. Nothing was captured; allow it in the address bar and ' +
      `${of === 'screen' ? 'press c again' : 'try again'}, or paste a picture.`
    );
  if (name === 'NotFoundError' || name === 'OverconstrainedError')
    return `There is no ${of} to capture here. Choose a file, or paste a picture.`;
  if (name === 'NotReadableError') return `Another program keeps the ${of}. Close it there and try again.`;
  if (of === 'screen' && typeof navigator.mediaDevices?.getDisplayMedia !== 'function')
    return 'This browser cannot capture the screen. Paste a picture, or choose a file.';
  return 'It could not be captured. Paste a picture, or choose a file.';
}

export const stampedName = (what: string, extension: string, at = new Date()): string =>
  `${what}-${at.toLocaleTimeString('en-GB', { timeZone: zone.value }).replaceAll(':', '')}.${extension}`;

/**
 * A shared screen, window or tab: asked for once, captured by key as often as one likes, recorded, or taken at an interval.
 */
export function useCapture() {
  const stream = shallowRef<MediaStream | null>(null);
  const label = computed(() => stream.value?.getVideoTracks()[0]?.label ?? '');
  const recordingSince = ref<number | null>(null);
  const recordedMs = ref(0);
  let video: HTMLVideoElement | null = null;
  /** From the wish to record until the recording is there, also while the browser asks or the recorder warms up. */
  const recording = ref(false);
  let recorder: MediaRecorder | null = null;
  let enough = false;
  let timer: ReturnType<typeof setInterval> | undefined;

  /** Asks which screen, window or tab; throws what the browser says when it may not. */
  async function share(): Promise<MediaStream> {
    if (stream.value) return stream.value;
    const options = { video: { displaySurface: 'window' }, audio: false, preferCurrentTab: false };
    const shared = await navigator.mediaDevices.getDisplayMedia(options as DisplayMediaStreamOptions);
    shared.getVideoTracks()[0]?.addEventListener('ended', stop);
    video = document.createElement('video');
    video.srcObject = shared;
    video.muted = true;
    await video.play();
    stream.value = shared;
    return shared;
  }
  function stop(): void {
    if (recorder?.state === 'recording') recorder.stop();
    stream.value?.getTracks().forEach((t) => t.stop());
    stream.value = null;
    video = null;
  }
  /** The picture of this moment. */
  async function frame(): Promise<Blob> {
    await share();
    // The first frame may not be there yet.
    for (let n = 0; n < 40 && (!video || video.videoWidth === 0); n += 1)
      await new Promise((r) => setTimeout(r, 50));
    if (!video || video.videoWidth === 0) throw new DOMException('No picture came.', 'NotReadableError');
    const canvas = document.createElement('canvas');
    canvas.width = video.videoWidth;
    canvas.height = video.videoHeight;
    canvas.getContext('2d')?.drawImage(video, 0, 0);
    return pngOf(canvas);
  }
  /**
   * Records until stopped, at most two minutes.
   *
   * @returns the recording; empty where sharing ended before the first picture
   * @throws DOMException what the browser says when it may not
   */
  async function record(): Promise<Blob> {
    recording.value = true;
    enough = false;
    try {
      return await recordFrom(await share());
    } finally {
      clearInterval(timer);
      recordingSince.value = null;
      recording.value = false;
    }
  }
  async function recordFrom(from: MediaStream): Promise<Blob> {
    const type = ['video/webm;codecs=vp9', 'video/webm', 'video/mp4'].find((t) =>
      MediaRecorder.isTypeSupported(t),
    );
    recorder = new MediaRecorder(from, {
      ...(type ? { mimeType: type } : {}),
      videoBitsPerSecond: 2_500_000,
    });
    const mine = recorder;
    const parts: Blob[] = [];
    mine.ondataavailable = (e) => e.data.size > 0 && parts.push(e.data);
    return new Promise((resolve) => {
      // A recorder is asked to start long before it has its first picture; stopped in between it would hold nothing.
      mine.onstart = () => {
        const began = Date.now();
        recordingSince.value = began;
        recordedMs.value = 0;
        timer = setInterval(() => {
          recordedMs.value = Date.now() - began;
          if (recordedMs.value >= LONGEST_RECORDING) stopRecording();
        }, 250);
        if (enough) stopRecording();
      };
      mine.onstop = () =>
        resolve(new Blob(parts, { type: (mine.mimeType || 'video/webm').split(';')[0] ?? 'video/webm' }));
      mine.start(1000);
    });
  }
  /** Ends the recording; one that has not begun yet ends with its first picture. */
  function stopRecording(): void {
    enough = true;
    if (recordingSince.value !== null && recorder?.state === 'recording') recorder.stop();
  }
  onBeforeUnmount(() => {
    clearInterval(timer);
    stop();
  });
  return { stream, label, share, stop, frame, record, stopRecording, recording, recordingSince, recordedMs };
}

export function pngOf(canvas: HTMLCanvasElement): Promise<Blob> {
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new DOMException('Too large a picture.', 'NotReadableError'))),
      'image/png',
    ),
  );
}
export type Capture = ReturnType<typeof useCapture>;
