<script setup lang="ts">
import Button from 'primevue/button';
import { computed, toRef } from 'vue';
import type { RunningSession } from '@/areas/sessions/useTestSession';
import { useAway } from '@/areas/sessions/useAway';
import { exact, span } from '@/kit/words';

/** On return after a long time without a sign: whether it was part of the session. Nothing is left out silently, nor counted. */
const props = defineProps<{ id: string; session: RunningSession }>();
const { away, decided } = useAway(
  toRef(props, 'id'),
  computed(() => {
    const view = props.session.view.value;
    const from = view?.state === 'running' ? view.runs.at(-1)?.[0] : undefined;
    // By the clock of this device, which may be hours off.
    return from === undefined ? 0 : from - props.session.ahead.value;
  }),
  computed(() => props.session.lines.value.length),
);
async function leaveOut(): Promise<void> {
  const of = away.value;
  if (!of) return;
  // It was paused then, and goes on now.
  if (await props.session.move('paused', new Date(of.from))) await props.session.move('running');
  decided();
}
</script>

<template>
  <p v-if="away" class="asks" role="alert">
    <span
      >Nothing was done for <strong>{{ span(away.to - away.from) }}</strong>, since
      {{ exact(new Date(away.from).toISOString()) }}.</span
    >
    <Button size="small" label="Leave it out" @click="leaveOut" />
    <Button size="small" outlined severity="secondary" label="It counts" @click="decided" />
  </p>
</template>

<style scoped>
.asks {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  padding: 8px 24px;
  background: var(--well);
  border-bottom: 1px solid var(--rule);
}
</style>
