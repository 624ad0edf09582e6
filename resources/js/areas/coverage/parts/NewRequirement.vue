<script setup lang="ts">
import Button from 'primevue/button';
import { computed, onMounted, ref } from 'vue';
import { errorMessage } from '@/api/client';
import { createRequirement } from '@/areas/coverage/queries';
import type { Row } from '@/areas/coverage/tree';
import { useLocalDraft } from '@/offline/useLocalDraft';

/** Requirements written one after the other, below the one that was lit. What is being written stays on the device. */
const props = defineProps<{ project: string; below: Row | undefined }>();
const emit = defineEmits<{ made: []; leave: [] }>();
const { draft } = useLocalDraft(
  computed(() => `requirement-new:${props.project}`),
  () => ({ title: '' }),
);
const under = ref(props.below?.id ?? '');
const field = ref<HTMLInputElement | null>(null);
const problem = ref('');

async function write(): Promise<void> {
  const title = draft.value.title.trim();
  problem.value = title === '' ? 'Say what must hold.' : '';
  if (title === '') return;
  try {
    await createRequirement(props.project, { title, parent_id: under.value || null });
    draft.value = { title: '' };
    emit('made');
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
onMounted(() => field.value?.focus());
defineExpose({ focus: () => field.value?.focus() });
</script>

<template>
  <form class="row new" @submit.prevent="write" @keydown.esc="emit('leave')">
    <label class="grow"
      ><span class="label">What must hold</span
      ><input
        ref="field"
        v-model="draft.title"
        class="field"
        maxlength="300"
        placeholder="Fares follow the age of who travels"
    /></label>
    <label
      ><span class="label">Below</span
      ><select v-model="under" class="field">
        <option value="">nothing: on top</option>
        <option v-if="below" :value="below.id">{{ below.key }}</option>
      </select></label
    >
    <Button type="submit">Write it down <kbd>Enter</kbd></Button>
    <button type="button" class="link soft" @click="emit('leave')">Leave it</button>
    <p v-if="problem" class="p-invalid-words whole" role="alert">{{ problem }}</p>
  </form>
</template>

<style scoped>
.new {
  align-items: end;
  gap: 12px;
  margin-bottom: 10px;
}
.grow {
  flex: 1 1 16rem;
}
.grow .field {
  width: 100%;
}
.whole {
  flex-basis: 100%;
}
</style>
