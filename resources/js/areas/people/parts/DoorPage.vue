<script setup lang="ts">
import LucidMark from '@/kit/LucidMark.vue';

/** A page before one is in: the mark, what it is about, and a narrow form. */
defineProps<{ title: string }>();
</script>

<template>
  <main class="page door">
    <LucidMark :size="44" />
    <h1>{{ title }}</h1>
    <slot />
  </main>
</template>

<style scoped>
.door,
.door > :slotted(form) {
  display: grid;
  gap: 14px;
}
.door {
  max-width: 420px;
  padding-top: 13vh;
}
@media (max-width: 860px) {
  .door {
    padding-top: 32px;
  }
}
</style>
