<script setup lang="ts">
import { computed, defineAsyncComponent, onBeforeUnmount, ref, watch } from 'vue';
import { errorMessage } from '@/api/client';
import type { Markup } from '@/areas/evidence/types';
import { useGivenFiles } from '@/kit/useGivenFiles';
import { sizeWords } from '@/kit/words';
import type { LocalFile } from '@/offline/useLocalFiles';

/**
 * Files that will go with what is written inside: pasted, dropped or chosen, and drawn on or hidden in part before they leave the device.
 */
const props = defineProps<{
  files: LocalFile[];
  label: string;
  add: (files: Iterable<File>) => Promise<void>;
  replace: (id: string, file: File) => Promise<void>;
  drop: (id: string) => Promise<void>;
  /** What stands at the link that chooses. */
  word?: string;
}>();
const MarkUp = defineAsyncComponent(() => import('@/areas/evidence/parts/MarkUp.vue'));
const problem = ref('');
const { over, ...given } = useGivenFiles((files) => take(files));
const drawing = ref<string | null>(null);
const urls = ref<Record<string, string>>({});
function free(): void {
  Object.values(urls.value).forEach((u) => URL.revokeObjectURL(u));
}
watch(
  () => props.files,
  (now) => {
    free();
    urls.value = Object.fromEntries(
      now.filter((f) => f.file.type.startsWith('image/')).map((f) => [f.id, URL.createObjectURL(f.file)]),
    );
  },
  { immediate: true },
);
onBeforeUnmount(free);
const drawn = computed(() => props.files.find((f) => f.id === drawing.value) ?? null);

async function take(some: Iterable<File>): Promise<void> {
  problem.value = '';
  try {
    await props.add(some);
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
/** What was drawn or hidden becomes the picture: it goes as one sees it. */
async function save(result: { markup: Markup; drawn: Blob | null; plain: Blob | null }): Promise<void> {
  const of = drawn.value;
  drawing.value = null;
  const now = result.drawn ?? result.plain;
  if (of && now) await props.replace(of.id, new File([now], of.file.name, { type: now.type }));
}
</script>

<template>
  <div
    class="files"
    :class="{ over }"
    @paste="given.onPaste"
    @dragover="given.onDragover"
    @dragleave="given.onDragleave"
    @drop="given.onDrop"
  >
    <slot />
    <ul v-if="files.length > 0" :aria-label="label">
      <li v-for="f in files" :key="f.id">
        <img v-if="urls[f.id]" :src="urls[f.id]" :alt="f.file.name" />
        <span v-else class="mono long">{{ f.file.name }}, {{ sizeWords(f.file.size) }}</span>
        <span class="acts small">
          <button
            v-if="urls[f.id]"
            type="button"
            class="link"
            :aria-label="`Draw or hide: ${f.file.name}`"
            @click="drawing = f.id"
          >
            Draw or hide
          </button>
          <button
            type="button"
            class="link soft"
            :aria-label="`Take off: ${f.file.name}`"
            @click="drop(f.id)"
          >
            Take off
          </button>
        </span>
      </li>
    </ul>
    <p class="row small">
      <slot name="acts" />
      <label class="link choose"
        ><input
          type="file"
          multiple
          class="unseen"
          :aria-label="`${word ?? 'Add a file'}: ${label}`"
          @change="given.onChoose"
        />
        {{ word ?? 'Add a file' }}</label
      >
      <span class="soft">or paste, or drop it here</span>
    </p>
    <p v-if="problem" class="p-invalid-words small" role="alert">{{ problem }}</p>
    <Teleport v-if="drawn" to="body"
      ><MarkUp
        :source="urls[drawn.id] ?? ''"
        :name="drawn.file.name"
        :markup="null"
        still
        @save="save"
        @leave="drawing = null"
    /></Teleport>
  </div>
</template>

<style scoped>
.files {
  display: grid;
  gap: 6px;
  border-radius: 6px;
}
.over {
  outline: 2px dashed var(--ink-soft);
  outline-offset: 4px;
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
li {
  display: grid;
  gap: 2px;
  max-width: 100%;
}
img {
  display: block;
  height: 72px;
  max-width: 160px;
  object-fit: cover;
  object-position: top left;
  border: 1px solid var(--edge);
  border-radius: 4px;
}
.acts {
  display: flex;
  gap: 10px;
}
.choose {
  cursor: pointer;
  min-height: 24px;
}
.choose:focus-within {
  outline: 2px solid var(--ink);
  outline-offset: 2px;
}
</style>
