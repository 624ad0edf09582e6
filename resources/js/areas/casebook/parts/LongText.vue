<script setup lang="ts">
import { nextTick, ref } from 'vue';
import MarkdownText from '@/kit/MarkdownText.vue';

/** A longer text of a case: shown as Markdown, written on a click. */
const text = defineModel<string>({ required: true });
const props = defineProps<{ label: string; mayWrite: boolean; known: string[] }>();
const writing = ref(false);
const id = `text-${props.label.toLowerCase()}`;
async function write(): Promise<void> {
  if (!props.mayWrite) return;
  writing.value = true;
  await nextTick();
  document.querySelector<HTMLTextAreaElement>(`#${id}`)?.focus();
}
</script>

<template>
  <section v-if="text || mayWrite" class="long-text">
    <template v-if="writing || text">
      <label v-if="writing" class="label" :for="id">{{ label }}</label>
      <span v-else class="label">{{ label }}</span>
      <textarea
        v-if="writing"
        :id="id"
        v-model="text"
        class="field"
        maxlength="20000"
        rows="2"
        @blur="writing = false"
        @keydown.esc="writing = false"
      />
      <div
        v-else
        class="show"
        :tabindex="mayWrite ? 0 : undefined"
        :role="mayWrite ? 'textbox' : undefined"
        :aria-label="mayWrite ? label : undefined"
        @focus="write"
        @click="write"
      >
        <MarkdownText :text="text" :known="known" />
      </div>
    </template>
    <button v-else type="button" class="link soft small" @click="write">Add {{ label.toLowerCase() }}</button>
  </section>
</template>

<style scoped>
.long-text {
  max-width: 90ch;
}
textarea {
  field-sizing: content;
  resize: vertical;
}
.show {
  border: 1px solid transparent;
  border-radius: 5px;
  padding: 4px 8px;
  margin-left: -8px;
  cursor: text;
}
.show[tabindex]:hover {
  border-color: var(--rule);
}
</style>
