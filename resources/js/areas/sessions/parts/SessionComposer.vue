<script setup lang="ts">
import Button from 'primevue/button';
import { useEventListener } from '@vueuse/core';
import { computed, ref } from 'vue';
import { errorMessage } from '@/api/client';
import { KINDS, type WrittenKind } from '@/areas/sessions/types';
import type { RunningSession } from '@/areas/sessions/useTestSession';
import { letterOf } from '@/kit/keys';
import { captureFault, stampedName, useCapture } from '@/areas/evidence/useCapture';
import { useGivenFiles } from '@/kit/useGivenFiles';
import { useLocalDraft } from '@/offline/useLocalDraft';

/** Always ready: Enter writes it down, Alt with a letter changes what it is. What is being written stays on the device. */
const props = defineProps<{ id: string; session: RunningSession }>();
const { draft } = useLocalDraft(
  computed(() => `session-line:${props.id}`),
  () => ({ words: '', kind: 'note' as WrittenKind }),
);
const field = ref<HTMLTextAreaElement | null>(null);
const problem = ref('');
const { over, ...given } = useGivenFiles((files) => keep(files));
const capture = useCapture();
/** Letters that a browser keeps for itself, or that no keyboard writes with Alt alone, have the first letter of their word too. */
const LETTERS: Record<string, WrittenKind> = {
  n: 'note',
  q: 'question',
  i: 'idea',
  r: 'risk',
  '!': 'issue',
  '1': 'issue',
  x: 'issue',
};

async function write(): Promise<void> {
  const words = draft.value.words.trim();
  if (words === '') return;
  const { kind } = draft.value;
  // The next one is a note again: what stands out is said each time. What is typed meanwhile stays.
  draft.value = { words: '', kind: 'note' };
  if (!(await props.session.write(kind, words)))
    draft.value = { words: [words, draft.value.words].filter(Boolean).join('\n'), kind };
}
async function keep(files: Iterable<File>): Promise<void> {
  problem.value = '';
  for (const file of files) {
    // Words that are being written go with the first picture.
    const words = draft.value.words.trim();
    const kept = await props.session.capture(file, file.name || stampedName('seen', 'png'), words);
    if (kept && draft.value.words.trim() === words) draft.value = { ...draft.value, words: '' };
  }
}
async function shoot(): Promise<void> {
  problem.value = '';
  try {
    const picture = await capture.frame();
    await keep([new File([picture], stampedName('screen', 'png'), { type: picture.type })]);
  } catch (error) {
    problem.value =
      error instanceof DOMException || error instanceof TypeError ? captureFault(error) : errorMessage(error);
  }
}
function onKey(event: KeyboardEvent): void {
  if (event.key !== 'Enter' || event.shiftKey || event.isComposing) return;
  event.preventDefault();
  void write();
}
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (!event.altKey || event.ctrlKey || event.metaKey) return;
  const letter = letterOf(event);
  if (letter === 'c') {
    event.preventDefault();
    void shoot();
    return;
  }
  const kind = LETTERS[letter];
  if (!kind) return;
  event.preventDefault();
  draft.value = { ...draft.value, kind };
  field.value?.focus();
});
defineExpose({ focus: () => field.value?.focus() });
</script>

<template>
  <form
    class="composer"
    :class="{ over }"
    aria-label="Write into the timeline"
    @submit.prevent="write"
    @paste="given.onPaste"
    @dragover="given.onDragover"
    @dragleave="given.onDragleave"
    @drop="given.onDrop"
  >
    <div class="kinds" role="radiogroup" aria-label="What it is">
      <button
        v-for="k in KINDS"
        :key="k.kind"
        type="button"
        role="radio"
        :aria-checked="draft.kind === k.kind"
        @click="((draft.kind = k.kind), field?.focus())"
      >
        <kbd>{{ k.letter }}</kbd> {{ k.word }}
      </button>
      <span class="soft small hint"><kbd>Alt</kbd> with its letter</span>
    </div>
    <label class="unseen" for="line">{{ KINDS.find((k) => k.kind === draft.kind)?.word }}</label>
    <textarea
      id="line"
      ref="field"
      v-model="draft.words"
      class="field"
      rows="2"
      maxlength="10000"
      :placeholder="draft.kind === 'issue' ? 'What is wrong?' : 'What do you see?'"
      @keydown="onKey"
    />
    <div class="row small">
      <button type="button" class="link soft" @click="shoot">Capture <kbd>Alt C</kbd></button>
      <label class="link soft file"
        ><input type="file" multiple class="unseen" aria-label="Add a file" @change="given.onChoose" />Add a
        file</label
      >
      <span class="soft">or paste, or drop it here</span>
      <span class="gap" />
      <Button type="submit" size="small" outlined :disabled="draft.words.trim() === ''"
        >Write it down <kbd>Enter</kbd></Button
      >
    </div>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </form>
</template>

<style scoped>
.composer {
  display: grid;
  gap: 8px;
  padding: 12px 16px;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-left: 6px solid var(--lantern);
  border-radius: 6px;
}
.over {
  outline: 2px dashed var(--ink-soft);
  outline-offset: 2px;
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
}
.kinds button {
  font: inherit;
  color: var(--ink-soft);
  background: none;
  border: 0;
  padding: 2px 0;
  min-height: 26px;
  cursor: pointer;
}
.kinds button[aria-checked='true'] {
  color: var(--ink);
  font-weight: 700;
}
.kinds button[aria-checked='true'] kbd {
  background: var(--dusk);
  color: var(--on-dusk);
  border-color: var(--dusk);
}
.hint {
  margin-left: auto;
}
.gap {
  flex: 1;
}
.file {
  cursor: pointer;
  min-height: 24px;
}
textarea {
  resize: vertical;
  padding: 8px 10px;
}
@media (max-width: 640px) {
  .hint {
    display: none;
  }
}
</style>
