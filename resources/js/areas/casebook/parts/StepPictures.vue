<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { uploadFile } from '@/areas/casebook/queries';

/** Reference pictures: pasted, dropped or chosen. */
const props = defineProps<{
  project: string;
  files: Api['FileRef'][];
  label: string;
  mayWrite: boolean;
  /** Whether a picture on the clipboard is meant for here. */
  pasting: boolean;
  /** Whether texts and logs are taken too. */
  texts?: boolean;
}>();
const isText = (f: Api['FileRef']): boolean => /\.(txt|log)$/i.test(f.name);
const emit = defineEmits<{ change: [files: Api['FileRef'][]] }>();
const problem = ref('');
const busy = ref(false);
const large = ref<string | null>(null);
const address = (f: Api['FileRef'], small: boolean): string =>
  `/api/v1/projects/${props.project}/files/${f.sha256}${small ? '/thumbnail' : ''}`;

async function add(some: Iterable<File>): Promise<void> {
  problem.value = '';
  let files = [...props.files];
  busy.value = true;
  try {
    for (const file of some) {
      const stored = await uploadFile(props.project, file, file.name || 'picture.png');
      if (!files.some((f) => f.sha256 === stored.sha256))
        files = [...files, { sha256: stored.sha256, name: stored.name }];
    }
    emit('change', files);
  } catch (error) {
    problem.value = errorMessage(error);
  } finally {
    busy.value = false;
  }
}
function onPaste(event: ClipboardEvent): void {
  const pictures = [...(event.clipboardData?.files ?? [])].filter((f) => f.type.startsWith('image/'));
  if (!props.pasting || !props.mayWrite || pictures.length === 0) return;
  event.preventDefault();
  void add(pictures);
}
onMounted(() => document.addEventListener('paste', onPaste));
onBeforeUnmount(() => document.removeEventListener('paste', onPaste));
</script>

<template>
  <div
    v-if="files.length > 0 || mayWrite"
    class="pictures"
    :class="{ texts }"
    @dragover.prevent
    @drop.prevent.stop="mayWrite && $event.dataTransfer?.files.length && add($event.dataTransfer.files)"
  >
    <figure v-for="f in files" :key="f.sha256">
      <a v-if="isText(f)" :href="address(f, false)" class="small long">{{ f.name }}</a>
      <button v-else type="button" class="look" :aria-label="`${f.name}, larger`" @click="large = f.sha256">
        <img :src="address(f, true)" :alt="f.name" loading="lazy" />
      </button>
      <button
        v-if="mayWrite"
        type="button"
        class="link soft small"
        @click="
          emit(
            'change',
            files.filter((x) => x.sha256 !== f.sha256),
          )
        "
      >
        Take off
      </button>
    </figure>
    <label v-if="mayWrite" class="add small">
      <input
        type="file"
        :accept="`image/png,image/jpeg,image/webp${texts ? ',.txt,.log' : ''}`"
        multiple
        class="unseen"
        tabindex="-1"
        :aria-label="`Add a ${texts ? 'file' : 'reference picture'} to ${label}`"
        @change="add(($event.target as HTMLInputElement).files ?? [])"
      />
      {{ busy ? 'Keeping …' : texts ? 'Add a file' : 'Picture' }}
    </label>
    <p v-if="problem" class="p-invalid-words small" role="alert">{{ problem }}</p>
    <div v-if="large" class="large" role="dialog" aria-label="Reference picture" @click="large = null">
      <img :src="address({ sha256: large, name: '' }, false)" alt="" />
      <button type="button" class="link" @click="large = null" @keydown.esc="large = null">Close</button>
    </div>
  </div>
</template>

<style scoped>
.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  padding: 0 8px;
  align-items: flex-end;
}
.pictures .link {
  opacity: 0;
}
figure:hover .link,
figure:focus-within .link {
  opacity: 1;
}
.look {
  padding: 0;
  border: 1px solid var(--rule);
  border-radius: 4px;
  background: none;
  cursor: zoom-in;
  display: block;
  overflow: hidden;
}
.look img {
  display: block;
  height: 64px;
  max-width: 140px;
  object-fit: cover;
}
.add {
  position: absolute;
  right: 4px;
  top: 6px;
  background: var(--paper);
  color: var(--ink-soft);
  text-decoration: underline;
  cursor: pointer;
  opacity: 0;
  padding-bottom: 4px;
}
.step:hover .add,
.pictures:focus-within .add,
.add:focus-within {
  opacity: 1;
}
.texts {
  padding: 0;
}
.texts .add {
  position: static;
  opacity: 1;
}
.large {
  position: fixed;
  inset: 0;
  z-index: 40;
  background: rgb(20 27 38 / 70%);
  display: grid;
  place-content: center;
  gap: 12px;
}
.large img {
  max-width: 92vw;
  max-height: 84vh;
  background: var(--sheet);
}
.large .link {
  color: #fff;
}
</style>
