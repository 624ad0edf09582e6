<script setup lang="ts">
import Button from 'primevue/button';
import { computed, defineAsyncComponent, nextTick, onMounted, ref } from 'vue';
import { Problem } from '@/api/client';
import CaptureTools from '@/areas/evidence/parts/CaptureTools.vue';
import type { EvidenceTarget } from '@/areas/evidence/types';
import { useEvidence } from '@/areas/evidence/useEvidence';
import { KINDS, type WrittenKind } from '@/areas/sessions/types';
import type { RunningSession } from '@/areas/sessions/useTestSession';
import { useKeys } from '@/kit/keys';
import { useGivenFiles } from '@/kit/useGivenFiles';
import { loadLocal, saveLocal } from '@/offline/device';
import { useLocalDraft } from '@/offline/useLocalDraft';

/** Always ready: Enter writes it down, Alt with a letter changes what it is. What is being written stays on the device. */
const props = defineProps<{ id: string; project: string; session: RunningSession }>();
const CameraPanel = defineAsyncComponent(() => import('@/areas/evidence/parts/CameraPanel.vue'));
const PickPart = defineAsyncComponent(() => import('@/areas/evidence/parts/PickPart.vue'));
const { draft } = useLocalDraft(
  computed(() => `session-line:${props.id}`),
  () => ({ words: '', kind: 'note' as WrittenKind }),
);
const narrow = window.innerWidth <= 640;
const field = ref<HTMLTextAreaElement | null>(null);
const files = ref<HTMLInputElement | null>(null);
/** Letters that a browser keeps for itself, or that no keyboard writes with Alt alone, have the first letter of their word too. */
const LETTERS: Record<WrittenKind, string[]> = {
  note: ['Alt+N'],
  question: ['Alt+Q'],
  idea: ['Alt+I'],
  risk: ['Alt+R'],
  issue: ['Alt+X', 'Alt+1', 'Alt+!', 'Alt+Shift+!'],
};
/** Pictures and recordings are looked over before they leave the device; remembered on this device. */
const looksOver = ref(false);
onMounted(async () => (looksOver.value = (await loadLocal<boolean>('session-looks-over')) ?? false));
function turnLooksOver(): void {
  looksOver.value = !looksOver.value;
  void saveLocal('session-looks-over', looksOver.value);
}

async function write(): Promise<void> {
  const words = draft.value.words.trim();
  if (words === '') return;
  const { kind } = draft.value;
  // The next one is a note again: what stands out is said each time. What is typed meanwhile stays.
  draft.value = { words: '', kind: 'note' };
  if (!(await props.session.write(kind, words)))
    draft.value = { words: [words, draft.value.words].filter(Boolean).join('\n'), kind };
}
const target: EvidenceTarget = {
  get id() {
    return props.id;
  },
  word: 'the timeline',
  here: () => ({ step: null }),
  places: () => [],
  tested: () => {
    const known = props.session.detail.value;
    return {
      configuration: known?.configuration?.name,
      environment: known?.environment,
      build: known?.build?.id,
    };
  },
  /** Words that are being written go with it. */
  async attach(what, name) {
    const words = draft.value.words.trim();
    if (typeof what === 'string') {
      if (!(await props.session.write('note', [words, `<${what}>`].filter(Boolean).join('\n\n'))))
        throw new Problem(422, 'link', props.session.problem.value);
    } else
      await props.session.capture(what, name, words, looksOver.value && /^(image|video)\//.test(what.type));
    if (draft.value.words.trim() === words) draft.value = { ...draft.value, words: '' };
  },
};
const tools = useEvidence(
  target,
  computed(() => true),
);
const { fault } = tools;
const { over, ...given } = useGivenFiles((list) => tools.addAll(list, 'drop'));
function onKey(event: KeyboardEvent): void {
  if (event.key !== 'Enter' || event.shiftKey || event.isComposing) return;
  event.preventDefault();
  void write();
}
function become(kind: WrittenKind): void {
  draft.value = { ...draft.value, kind };
  field.value?.focus();
}
const KEYS = { capture: 'Alt C', part: 'Alt Shift C', record: 'Alt V', camera: 'Alt K' };
useKeys('Composer', () => [
  ...KINDS.map((k) => ({ keys: LETTERS[k.kind], label: k.word, run: () => become(k.kind) })),
  { keys: ['Alt+C'], label: 'Capture', run: () => void tools.screen() },
  { keys: ['Alt+Shift+C'], label: 'Capture a part', run: () => void tools.part() },
  { keys: ['Alt+V'], label: 'Record, or end it', run: () => void tools.record() },
  { keys: ['Alt+K'], label: 'Camera', run: () => tools.film() },
]);
async function keepPart(part: Blob): Promise<void> {
  tools.choosing.value = null;
  await tools.keepPicture(part, 'capture');
  await nextTick();
  field.value?.focus();
}
defineExpose({ focus: () => field.value?.focus() });
</script>

<template>
  <form
    class="composer"
    :class="{ over }"
    aria-label="Write into the timeline"
    @submit.prevent="write"
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
        @click="become(k.kind)"
      >
        <kbd>{{ k.letter }}</kbd> {{ k.word }}
      </button>
      <span class="soft small hint"><kbd>Alt</kbd> with its letter</span>
    </div>
    <div class="writing">
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
        @paste="tools.paste"
      />
      <Button type="submit" size="small" outlined :disabled="draft.words.trim() === ''"
        >Write it down <kbd>Enter</kbd></Button
      >
    </div>
    <CaptureTools :tools="tools" :project="project" :keys="KEYS" @choose="files?.click()">
      <button v-if="!narrow" type="button" class="link" @click="files?.click()">Add a file</button>
      <template #beside>
        <label
          class="looks small"
          title="Pictures and recordings stay on this device until you have drawn on them, hidden parts, or let them go"
          ><input type="checkbox" :checked="looksOver" @change="turnLooksOver" /> Look over before
          sending</label
        >
      </template>
    </CaptureTools>
    <input
      ref="files"
      type="file"
      multiple
      class="unseen"
      tabindex="-1"
      aria-label="Add a file"
      @change="given.onChoose"
    />
    <p v-if="fault" class="p-invalid-words" role="alert">{{ fault }}</p>
    <Teleport v-if="tools.choosing.value" to="body"
      ><PickPart
        :picture="tools.choosing.value"
        @leave="tools.choosing.value = null"
        @keep="(part: Blob) => void keepPart(part)"
    /></Teleport>
    <Teleport v-if="tools.filming.value" to="body"
      ><CameraPanel :tools="tools" @leave="tools.filming.value = false"
    /></Teleport>
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
.writing {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 10px;
  align-items: end;
}
.looks {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  margin-left: auto;
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
