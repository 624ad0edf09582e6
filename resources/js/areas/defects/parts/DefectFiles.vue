<script setup lang="ts">
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import FilesField from '@/areas/defects/parts/FilesField.vue';
import FileStrip from '@/areas/defects/parts/FileStrip.vue';
import { addFile, readDefect, removeFile } from '@/areas/defects/queries';
import { plural } from '@/kit/words';
import { useLocalFiles } from '@/offline/useLocalFiles';

/** Files that stand with the defect itself. Until they are sent they wait on the device. */
const props = defineProps<{ detail: Api['DefectDetail']; mayAdd: boolean; mayRemove: boolean }>();
const emit = defineEmits<{ changed: [Api['DefectDetail']] }>();
const { files, add, replace, drop } = useLocalFiles(computed(() => `defect:${props.detail.defect.id}`));
const problem = ref('');
const sending = ref(false);
async function send(): Promise<void> {
  if (sending.value || !props.mayAdd || files.value.length === 0) return;
  sending.value = true;
  problem.value = '';
  try {
    for (const f of [...files.value]) {
      await addFile(props.detail.defect.key, f);
      await drop(f.id);
    }
    emit('changed', await readDefect(props.detail.defect.key));
  } catch (error) {
    problem.value = errorMessage(error);
  }
  sending.value = false;
}
async function remove(file: string, reason: string): Promise<void> {
  emit('changed', await removeFile(file, reason));
}
</script>

<template>
  <section v-if="mayAdd || detail.files.length > 0" aria-label="Files">
    <h2>Files</h2>
    <FileStrip :files="detail.files" :may-remove="mayRemove" :remove="remove" />
    <FilesField v-if="mayAdd" label="Files to add" :files="files" :add="add" :replace="replace" :drop="drop">
      <template #acts>
        <button v-if="files.length > 0" type="button" class="link" :disabled="sending" @click="send">
          Add {{ plural(files.length, 'file') }}
        </button>
      </template>
    </FilesField>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </section>
</template>
