import { computed, onBeforeUnmount, onMounted, ref, type Ref } from 'vue';
import { Problem } from '@/api/client';
import { isTyping } from '@/kit/keys';
import { captureFault, stampedName, useCapture } from './useCapture';
import type { EvidenceTarget, Source } from '@/areas/evidence/types';

/**
 * Everything that brings evidence to an attempt or a session: capture of the screen, whole or a part, recording, paste, drop, files,
 * camera, log text and links. What goes wrong is said in `fault`, and nothing else is touched.
 */
export function useEvidence(target: EvidenceTarget, mayRecord: Ref<boolean>) {
  const capture = useCapture();
  const fault = ref('');
  /** A captured picture of which a part is being chosen. */
  const choosing = ref<Blob | null>(null);
  /** Whether the camera's picture is looked at. */
  const filming = ref(false);
  const busy = ref(false);

  async function safely(work: () => Promise<unknown>): Promise<void> {
    fault.value = '';
    busy.value = true;
    try {
      await work();
    } catch (error) {
      fault.value = error instanceof Problem ? error.message : captureFault(error);
    } finally {
      busy.value = false;
    }
  }
  async function keepPicture(
    picture: Blob,
    source: Source,
    name = stampedName('capture', 'png'),
  ): Promise<void> {
    await target.attach(picture, name, source);
  }
  const photo = (picture: Blob): Promise<void> =>
    safely(() => keepPicture(picture, 'camera', stampedName('camera', 'png')));
  const screen = (): Promise<void> => safely(async () => keepPicture(await capture.frame(), 'capture'));
  const part = (): Promise<void> => safely(async () => void (choosing.value = await capture.frame()));
  async function record(): Promise<void> {
    if (capture.recording.value) return capture.stopRecording();
    const at = target.here();
    await safely(async () => {
      const clip = await capture.record();
      if (clip.size === 0)
        throw new Problem(422, 'file', 'Nothing was recorded: it ended before its first picture.');
      await target.attach(
        clip,
        stampedName('recording', clip.type.includes('mp4') ? 'mp4' : 'webm'),
        'recording',
        at,
      );
    });
  }
  async function addAll(list: Iterable<File> | null | undefined, source: Source): Promise<void> {
    const faults: string[] = [];
    for (const file of list ?? []) {
      await safely(() => target.attach(file, file.name || stampedName('picture', 'png'), source));
      if (fault.value) faults.push(fault.value);
    }
    fault.value = faults.join(' ');
  }
  const log = (text: string): Promise<void> =>
    safely(() => target.attach(new Blob([text], { type: 'text/plain' }), stampedName('log', 'log'), 'log'));
  const link = (address: string): Promise<void> =>
    safely(async () => {
      const url = URL.canParse(address) ? new URL(address) : null;
      if (url === null || !/^https?:$/.test(url.protocol))
        throw new Problem(422, 'link', 'Write the whole address, beginning with https:// or http://.');
      await target.attach(url.href, url.href.slice(0, 200), 'link');
    });

  function onPaste(event: ClipboardEvent): void {
    // What a field of another window took already is not taken twice.
    if (!mayRecord.value || event.defaultPrevented) return;
    const found = [...(event.clipboardData?.files ?? [])];
    if (found.length === 0) {
      if (isTyping(event.target)) return;
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (/^https?:\/\/\S+$/.test(text.trim())) void link(text.trim());
      else if (text.trim() !== '') void log(text);
      else
        fault.value =
          'There is nothing in the clipboard that can be evidence. Copy a picture, a text or an address, then paste again.';
      event.preventDefault();
      return;
    }
    event.preventDefault();
    void addAll(
      found.map((f) =>
        f.name && f.name !== 'image.png'
          ? f
          : new File([f], stampedName('pasted', f.type.split('/')[1] ?? 'png'), { type: f.type }),
      ),
      'paste',
    );
  }
  onMounted(() => window.addEventListener('paste', onPaste));
  onBeforeUnmount(() => window.removeEventListener('paste', onPaste));

  return {
    target,
    capture,
    fault,
    busy: computed(() => busy.value),
    choosing,
    filming,
    film: (): void => void (filming.value = true),
    paste: onPaste,
    photo,
    screen,
    part,
    record,
    addAll,
    keepPicture,
    log,
    link,
  };
}
export type EvidenceTools = ReturnType<typeof useEvidence>;
