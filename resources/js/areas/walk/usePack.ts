import { onBeforeUnmount, onMounted, reactive, watch, type Ref } from 'vue';
import { Problem, type Api } from '@/api/client';
import { mayRecord, stillThere } from '@/areas/people/session';
import { saveLocal, loadLocal } from '@/offline/device';
import { outbox } from '@/offline/outbox';
import { readPack } from '@/areas/walk/queries';

/** Which entries can be walked while the server is away, by project. */
export const packed = reactive<Record<string, string[]>>({});
const EVERY = 4 * 60_000;

/** Fetches my next entries beforehand, again and again, so that they can be begun without the server. */
export function usePack(project: Ref<string>): void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let stopped = false;
  async function fetchIt(): Promise<void> {
    clearTimeout(timer);
    const of = project.value;
    if (!mayRecord(of)) return;
    try {
      const pack = await readPack(of);
      await saveLocal(`pack:${of}`, pack);
      await stillThere();
      packed[of] = pack.entries.map((e) => e.entry_id);
      // Pictures of how it should look come along; the browser keeps them.
      for (const { sha256 } of pack.entries.flatMap((e) => e.walk.steps.flatMap((s) => s.files)))
        void fetch(`/api/v1/projects/${of}/files/${sha256}/thumbnail`).catch(() => undefined);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      await recall(of);
    }
    if (!stopped) timer = setTimeout(() => void fetchIt(), EVERY);
  }
  /** What the device has already counts at once; the server may be away. */
  async function recall(of: string): Promise<void> {
    const old = await loadLocal<Api['WalkPack']>(`pack:${of}`);
    packed[of] ??= old?.entries.map((e) => e.entry_id) ?? [];
  }
  onMounted(() => {
    void recall(project.value);
    // After the page itself: what one looks at comes first.
    timer = setTimeout(() => void fetchIt(), 1500);
  });
  watch(project, () => void fetchIt());
  watch(
    () => outbox.state.savedAt,
    () => {
      clearTimeout(timer);
      timer = setTimeout(() => void fetchIt(), 3000);
    },
  );
  onBeforeUnmount(() => {
    stopped = true;
    clearTimeout(timer);
  });
}
