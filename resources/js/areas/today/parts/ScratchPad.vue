<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue';
import { Problem } from '@/api/client';
import { saveLocal, loadLocal } from '@/offline/device';
import { outbox } from '@/offline/outbox';
import { readScratch, saveScratch } from '@/areas/today/queries';

/** Notes that follow one through the day: kept on the device as one types, and on the server for other devices. */
const props = defineProps<{ project: string }>();
const text = ref('');
/** Whether something was typed here that the server does not have yet. */
const typed = ref(false);
const key = (): string => `scratch:${props.project}`;
let timer: ReturnType<typeof setTimeout> | undefined;
/** What was put there without being typed. */
let put = '';
/** Whether the server was asked: until then nobody knows what other devices wrote. */
let asked = false;

function show(words: string): void {
  put = words;
  text.value = words;
}
void load();
async function load(): Promise<void> {
  const here = await loadLocal<{ text: string; sent: boolean }>(key());
  if (here && !typed.value) {
    show(here.text);
    typed.value = !here.sent;
  }
  try {
    const there = await readScratch(props.project);
    asked = true;
    // What was typed here and not yet sent is the newer one.
    if (typed.value) await send();
    else show(there.text);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
  }
}
async function send(): Promise<void> {
  const now = text.value;
  try {
    await saveScratch(props.project, now);
    if (text.value === now) {
      typed.value = false;
      await saveLocal(key(), { text: now, sent: true });
    }
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
  }
}
watch(text, async (now) => {
  if (now === put && !typed.value) return;
  typed.value = true;
  await saveLocal(key(), { text: now, sent: false });
  clearTimeout(timer);
  timer = setTimeout(() => void send(), 600);
});
// The server is back: what was typed meanwhile goes there; who typed nothing reads what is there.
watch(
  () => outbox.state.awaySince,
  (away) => {
    if (away !== null) return;
    if (typed.value) void send();
    else if (!asked) void load();
  },
);
onBeforeUnmount(() => {
  clearTimeout(timer);
  if (typed.value) void send();
});
</script>

<template>
  <section class="scratch">
    <h2>
      <label for="scratch">Scratch notes</label>
      <span class="soft small" role="status">{{ typed ? 'On this device' : '' }}</span>
    </h2>
    <textarea
      id="scratch"
      v-model="text"
      rows="3"
      maxlength="20000"
      placeholder="For yourself; they follow you through the day"
    ></textarea>
  </section>
</template>

<style scoped>
.scratch {
  display: grid;
  gap: 8px;
}
h2 {
  font-size: 0.93rem;
  display: flex;
  justify-content: space-between;
}
textarea {
  width: 100%;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-radius: 6px;
  padding: 6px 10px;
  resize: vertical;
}
</style>
