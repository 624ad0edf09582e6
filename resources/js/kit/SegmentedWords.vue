<script setup lang="ts" generic="T extends string">
/** A few words in one frame, of which one is chosen. */
defineProps<{ label: string; options: { value: T; word: string }[]; chosen: T; locked?: boolean }>();
const emit = defineEmits<{ choose: [value: T] }>();
</script>

<template>
  <span class="segments" role="group" :aria-label="label">
    <button
      v-for="o in options"
      :key="o.value"
      type="button"
      :aria-pressed="o.value === chosen"
      :disabled="locked"
      @click="o.value !== chosen && emit('choose', o.value)"
    >
      {{ o.word }}
    </button>
  </span>
</template>

<style scoped>
.segments {
  display: inline-flex;
  border: 1px solid var(--edge);
  border-radius: 6px;
  overflow: hidden;
}
button {
  font: inherit;
  font-size: 0.93rem;
  color: var(--ink-soft);
  background: var(--sheet);
  border: 0;
  border-left: 1px solid var(--rule);
  padding: 4px 11px;
  min-height: 30px;
  cursor: pointer;
}
button:first-child {
  border-left: 0;
}
button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--paper);
  font-weight: 600;
}
button:disabled {
  cursor: default;
}
button:focus-visible {
  outline: 2px solid var(--dusk);
  outline-offset: -3px;
}
</style>
