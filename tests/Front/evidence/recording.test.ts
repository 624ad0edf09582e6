// @vitest-environment happy-dom
import { createApp, type App, defineComponent, h } from 'vue';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useCapture, type Capture } from '@/areas/evidence/useCapture';

/** Begins 50 ms after it is asked to, and holds something only from then on, as browsers do. */
class SlowRecorder {
  static isTypeSupported = (): boolean => true;
  state = 'inactive';
  mimeType = 'video/webm;codecs=vp9';
  onstart: (() => void) | null = null;
  onstop: (() => void) | null = null;
  ondataavailable: ((event: { data: Blob }) => void) | null = null;
  private held = '';

  start(): void {
    this.state = 'recording';
    setTimeout(() => {
      if (this.state !== 'recording') return;
      this.held = 'picture';
      this.onstart?.();
    }, 50);
  }
  stop(): void {
    this.state = 'inactive';
    this.ondataavailable?.({ data: new Blob([this.held]) });
    this.onstop?.();
  }
}

describe('a recording of the screen', () => {
  let capture: Capture;
  let asked: ReturnType<typeof vi.fn>;
  const track = { label: 'Quay', addEventListener: () => undefined, stop: () => undefined };
  let app: App;

  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal('MediaRecorder', SlowRecorder);
    const shared = { getVideoTracks: () => [track], getTracks: () => [track] };
    asked = vi.fn(() => new Promise((resolve) => setTimeout(() => resolve(shared), 30)));
    vi.stubGlobal('navigator', { ...navigator, mediaDevices: { getDisplayMedia: asked } });
    const video = { play: () => Promise.resolve(), videoWidth: 10, videoHeight: 10 };
    const create = document.createElement.bind(document);
    vi.spyOn(document, 'createElement').mockImplementation((name: string) =>
      name === 'video' ? (video as unknown as HTMLVideoElement) : create(name),
    );
    app = createApp(defineComponent({ setup: () => ((capture = useCapture()), () => h('i')) }));
    app.mount(create('div'));
  });
  afterEach(() => {
    app.unmount();
    vi.useRealTimers();
    vi.unstubAllGlobals();
    vi.restoreAllMocks();
  });

  it('holds a picture, whenever it is stopped', async () => {
    for (const after of [0, 10, 40, 79, 81, 200, 5000]) {
      const clip = capture.record();
      await vi.advanceTimersByTimeAsync(after);
      expect(capture.recording.value).toBe(true);
      capture.stopRecording();
      await vi.advanceTimersByTimeAsync(100);
      expect((await clip).size, `stopped after ${after} ms`).toBeGreaterThan(0);
      expect([capture.recording.value, capture.recordingSince.value]).toEqual([false, null]);
    }
    expect(asked).toHaveBeenCalledTimes(1);
  });

  it('ends by itself after two minutes, and as soon as nothing is shared any more', async () => {
    const long = capture.record();
    await vi.advanceTimersByTimeAsync(121_000);
    expect((await long).size).toBeGreaterThan(0);

    const none = capture.record();
    await vi.advanceTimersByTimeAsync(10);
    capture.stop();
    expect((await none).size).toBe(0);
    expect(capture.recording.value).toBe(false);
  });
});
