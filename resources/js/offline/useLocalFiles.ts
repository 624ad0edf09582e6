import { v7 as uuid7 } from 'uuid';
import { ref, toRaw, watch, type Ref } from 'vue';
import { loadLocal, removeLocal, saveLocal } from './device';
import { checkFile } from './files';

/** A file that was chosen and not sent: it has the id that it will have. */
export interface LocalFile {
  id: string;
  file: File;
}
const named = (key: string): string => `draft:files:${key}`;

/** Hands files over to another key, such as from what was being written to what was found to be the same. */
export async function moveLocalFiles(from: string, to: string): Promise<void> {
  const files = await loadLocal<LocalFile[]>(named(from));
  if (!files || files.length === 0) return;
  await saveLocal(named(to), [...((await loadLocal<LocalFile[]>(named(to))) ?? []), ...files]);
  await removeLocal(named(from));
}

/** Files that survive reload, crash and leaving until they are sent: kept on the device as they are. */
export function useLocalFiles(key: Ref<string>): {
  files: Ref<LocalFile[]>;
  /** Whether those that were kept before are there. */
  ready: Ref<boolean>;
  add: (some: Iterable<File>) => Promise<void>;
  replace: (id: string, file: File) => Promise<void>;
  drop: (id: string) => Promise<void>;
} {
  const files = ref<LocalFile[]>([]) as Ref<LocalFile[]>;
  const ready = ref(false);
  watch(
    key,
    async (now) => {
      ready.value = false;
      const before = files.value;
      files.value = [];
      const kept = (await loadLocal<LocalFile[]>(named(now))) ?? [];
      if (key.value !== now) return;
      // What was added before they were there is not lost.
      const added = files.value.filter((f) => !before.includes(f) && !kept.some((k) => k.id === f.id));
      files.value = [...kept, ...added];
      ready.value = true;
    },
    { immediate: true },
  );
  async function keep(now: LocalFile[]): Promise<void> {
    files.value = now;
    const plain = now.map((f) => ({ id: f.id, file: toRaw(f.file) }));
    if (plain.length === 0) await removeLocal(named(key.value));
    else await saveLocal(named(key.value), plain);
  }
  return {
    files,
    ready,
    async add(some) {
      const more: LocalFile[] = [];
      for (const file of some) {
        await checkFile(file, file.name);
        more.push({ id: uuid7(), file });
      }
      await keep([...files.value, ...more]);
    },
    replace: (id, file) => keep(files.value.map((f) => (f.id === id ? { id, file } : f))),
    drop: (id) => keep(files.value.filter((f) => f.id !== id)),
  };
}
