<script setup lang="ts">
import { Problem } from '@/api/client';
import { dismiss, notices, toast, type Notice } from './notices';

/** What was just done, with a way to take it back, at the foot of the page. */
async function undo(notice: Notice): Promise<void> {
  dismiss(notice.id);
  try {
    const said = await notice.undo?.();
    toast(said || 'Undone.');
  } catch (error) {
    toast(error instanceof Problem ? error.message : 'It could not be undone.');
  }
}
</script>

<template>
  <div class="bar" role="status" aria-live="polite">
    <p v-for="n in notices" :key="n.id" class="sheet">
      <span class="long">{{ n.text }}</span>
      <button v-if="n.undo" type="button" class="link" @click="undo(n)">Undo</button>
      <button type="button" class="link soft" aria-label="Put this notice away" @click="dismiss(n.id)">
        ×
      </button>
    </p>
  </div>
</template>

<style scoped>
.bar {
  position: fixed;
  left: 50%;
  bottom: 20px;
  transform: translateX(-50%);
  z-index: 30;
}
p {
  display: flex;
  gap: 16px;
  align-items: baseline;
  padding: 10px 16px;
  box-shadow: var(--float);
  max-width: min(640px, 92vw);
}
</style>
