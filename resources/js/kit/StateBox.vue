<script setup lang="ts">
import { errorMessage, Problem } from '@/api/client';

/** What a page says while it loads, when it failed, and when there is nothing. */
defineProps<{ loading?: boolean; error?: Problem | Error | null; empty?: string | null }>();
const emit = defineEmits<{ again: [] }>();
</script>

<template>
  <div v-if="error" class="state" role="alert">
    <p class="words">{{ error instanceof Problem ? errorMessage(error) : error.message }}</p>
    <button type="button" class="link" @click="emit('again')">Try again</button>
  </div>
  <p v-else-if="loading" class="state soft late" role="status">Loading …</p>
  <div v-else-if="empty" class="state">
    <p class="words">{{ empty }}</p>
    <slot />
  </div>
</template>

<style scoped>
.state {
  padding: 32px 0;
  max-width: 60ch;
}
.words {
  margin-bottom: 12px;
}
.link {
  font: inherit;
  color: var(--dusk);
  background: none;
  border: 0;
  padding: 0;
  text-decoration: underline;
  cursor: pointer;
}
.late {
  animation: late 0.3s step-end;
}
@keyframes late {
  from {
    opacity: 0;
  }
}
</style>
