<script setup lang="ts">
import { defineAsyncComponent, ref } from 'vue';
import type { Api } from '@/api/client';
import RemoveWords from '@/kit/RemoveWords.vue';
import { ago, exact, sizeWords } from '@/kit/words';

/** Files that stand with a defect or with what somebody said of it: pictures are seen, anything else is taken by its name. */
defineProps<{
  files: Api['DefectFileLine'][];
  mayRemove: boolean;
  remove: (file: string, reason: string) => Promise<void>;
}>();
const Dialog = defineAsyncComponent(() => import('primevue/dialog'));
const full = ref<Api['DefectFileLine'] | null>(null);
</script>

<template>
  <ul v-if="files.length > 0" class="strip">
    <li v-for="f in files" :key="f.id">
      <span v-if="f.removed" class="soft small">
        {{ f.removed.by?.name ?? 'Lucid Step' }} took a file out,
        <span :title="exact(f.removed.at)">{{ ago(f.removed.at) }}</span>: {{ f.removed.reason }}
      </span>
      <template v-else>
        <button v-if="f.thumbnail_url" type="button" :title="`Look at ${f.name}`" @click="full = f">
          <img :src="f.thumbnail_url" :alt="f.name" loading="lazy" />
        </button>
        <a v-else class="mono long" :href="f.url">{{ f.name }}, {{ sizeWords(f.bytes) }}</a>
        <RemoveWords
          v-if="mayRemove"
          :of="f.name"
          thing="the file"
          :remove="(reason) => remove(f.id, reason)"
        />
      </template>
    </li>
  </ul>
  <Dialog
    v-if="full"
    visible
    modal
    dismissable-mask
    :header="full.name"
    :style="{ width: '92vw', maxWidth: '1400px' }"
    @update:visible="full = null"
    ><img class="whole" :src="full.url" :alt="full.name"
  /></Dialog>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 10px;
  align-items: flex-start;
  margin-top: 6px;
}
li {
  display: grid;
  gap: 2px;
  max-width: 100%;
}
li > button:first-child {
  padding: 0;
  border: 1px solid var(--edge);
  border-radius: 4px;
  overflow: hidden;
  background: var(--well);
  cursor: zoom-in;
}
img {
  display: block;
  height: 84px;
  max-width: 200px;
  object-fit: cover;
  object-position: top left;
}
.whole {
  height: auto;
  max-width: 100%;
}
</style>
