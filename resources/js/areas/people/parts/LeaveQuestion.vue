<script setup lang="ts">
import Button from 'primevue/button';
import { useLeaving, wouldLose } from '@/areas/people/useLeaving';
import OverAll from '@/kit/OverAll.vue';

/** Asks before something that was being written is lost by signing out. */
const leave = useLeaving();
</script>

<template>
  <OverAll v-if="wouldLose" label="Sign out?" @leave="wouldLose = null" @take="wouldLose = null">
    <div class="sheet">
      <h2>Sign out?</h2>
      <p>
        {{ wouldLose }} would be lost: at this address the browser cannot lock it for you. Save it first, or
        go without it. What you recorded stays until it is sent.
      </p>
      <p class="row">
        <Button label="Stay" @click="wouldLose = null" />
        <Button text severity="danger" label="Sign out without it" @click="leave(true)" />
      </p>
    </div>
  </OverAll>
</template>

<style scoped>
.sheet {
  background: var(--sheet);
  border-radius: 6px;
  padding: 24px 28px;
  max-width: 30rem;
  margin: 18vh auto 0;
  display: grid;
  gap: 12px;
}
</style>
