<script setup lang="ts">
import VerdictMark from '@/kit/VerdictMark.vue';
import { plural } from '@/kit/words';
import type { WalkStep } from '@/areas/walk/useWalk';

/** What is behind the lit step, in one line: how each ended. */
defineProps<{ steps: WalkStep[] }>();
const emit = defineEmits<{ unfold: [] }>();
</script>

<template>
  <li>
    <button type="button" aria-expanded="false" @click="emit('unfold')">
      <span class="soft small">{{ plural(steps.length, 'step') }} behind</span>
      <span class="marks"
        ><VerdictMark v-for="s in steps" :key="s.position" :shown="s.record.verdict" :size="10"
      /></span>
    </button>
  </li>
</template>

<style scoped>
button {
  width: 100%;
  min-height: 32px;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 4px 0;
  font: inherit;
  color: var(--ink);
  background: none;
  border: 0;
  text-align: left;
  cursor: pointer;
}
.soft {
  white-space: nowrap;
}
.marks {
  display: flex;
  gap: 6px;
  overflow: hidden;
}
</style>
