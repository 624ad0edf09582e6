<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue';
import { api, Problem, take } from '@/api/client';
import { keep, kept } from './device';
import { outbox } from './outbox';

/** Notes that follow one through the day: kept on the device as one types, and on the server for other devices. */
const props = defineProps<{ project: string }>();
const text = ref('');
const state = ref<'kept' | 'here'>('kept');
const key = (): string => `scratch:${props.project}`;
let timer: ReturnType<typeof setTimeout> | undefined;
let loaded = false;

void load();
async function load(): Promise<void> {
  const here = await kept<{ text: string; sent: boolean }>(key());
  if (here) text.value = here.text;
  try {
    const there = take(
      await api.GET('/projects/{project}/scratch', { params: { path: { project: props.project } } }),
    );
    // What was typed here and not yet sent is the newer one.
    if (here && !here.sent) await send();
    else text.value = there.text;
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    state.value = 'here';
  }
  loaded = true;
}
async function send(): Promise<void> {
  const now = text.value;
  try {
    await api.PUT('/projects/{project}/scratch', {
      params: { path: { project: props.project } },
      body: { text: now },
    });
    if (text.value === now) {
      await keep(key(), { text: now, sent: true });
      state.value = 'kept';
    }
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    state.value = 'here';
  }
}
watch(text, async (now) => {
  if (!loaded) return;
  state.value = 'here';
  await keep(key(), { text: now, sent: false });
  clearTimeout(timer);
  timer = setTimeout(() => void send(), 600);
});
// Sent again once the server is back.
watch(
  () => outbox.state.awaySince,
  (away) => {
    if (away === null && state.value === 'here' && loaded) void send();
  },
);
onBeforeUnmount(() => {
  clearTimeout(timer);
  if (state.value === 'here' && loaded) void send();
});
</script>

<template>
  <section class="scratch">
    <h2>
      <label for="scratch">Scratch notes</label>
      <span class="soft small" role="status">{{ state === 'kept' ? '' : 'On this device' }}</span>
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
