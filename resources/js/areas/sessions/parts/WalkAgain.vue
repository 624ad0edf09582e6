<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import type { Api } from '@/api/client';
import { useKeys } from '@/kit/keys';

/** What leads to a fault, walked again to see whether it shows: one step is lit, and at the end one says what one saw. */
const props = defineProps<{ steps: Api['ReproStep'][]; seen: string; busy: boolean }>();
const emit = defineEmits<{ seen: [shown: boolean]; leave: [] }>();
const at = ref(0);
const isThere = computed(() => at.value >= props.steps.length);
const next = (): void => void (at.value = Math.min(props.steps.length, at.value + 1));
const back = (): void => void (at.value = Math.max(0, at.value - 1));
function say(shown: boolean): void {
  if (!isThere.value || props.busy) return;
  emit('seen', shown);
  at.value = 0;
}
useKeys('Walk it again', () => [
  {
    keys: ['1'],
    label: isThere.value ? 'It showed' : 'Done, the next step',
    run: () => (isThere.value ? say(true) : next()),
  },
  { keys: ['2'], label: 'It did not show', run: () => say(false) },
  { keys: ['k', 'ArrowUp'], label: 'One step back', run: back },
  { keys: ['Escape'], label: 'Leave it', run: () => emit('leave') },
]);
</script>

<template>
  <section class="again" aria-label="Walk it again">
    <ol>
      <li
        v-for="(s, i) in steps"
        :key="i"
        :class="{ lit: i === at, done: i < at }"
        :aria-current="i === at ? 'step' : undefined"
      >
        <span class="mono soft">{{ i + 1 }}</span>
        <span class="long">{{ s.words }}</span>
        <Button v-if="i === at" size="small" outlined @click="next">Done <kbd>1</kbd></Button>
      </li>
    </ol>
    <div class="end" :class="{ lit: isThere }">
      <p>
        <strong>{{ seen }}</strong>
      </p>
      <div class="row">
        <Button size="small" :disabled="!isThere || busy" @click="say(true)">It showed <kbd>1</kbd></Button>
        <Button size="small" outlined severity="secondary" :disabled="!isThere || busy" @click="say(false)"
          >It did not <kbd>2</kbd></Button
        >
        <button type="button" class="link soft" @click="emit('leave')">Leave it</button>
      </div>
    </div>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 2rem minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  min-height: 44px;
  padding: 6px 12px 6px 6px;
  border-bottom: 1px solid var(--rule);
  border-left: 7px solid transparent;
}
.lit {
  background: var(--sheet);
  border-left-color: var(--lantern);
  font-weight: 600;
}
.done {
  color: var(--ink-soft);
}
.end {
  margin-top: 12px;
  padding: 12px 14px;
  border: 1px solid var(--rule);
  border-left: 7px solid var(--rule);
  border-radius: 6px;
  display: grid;
  gap: 10px;
}
.end.lit {
  border-left-color: var(--lantern);
}
</style>
