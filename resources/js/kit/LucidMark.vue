<script setup lang="ts">
/** The mark of the application. */
withDefaults(defineProps<{ size?: number }>(), { size: 24 });
</script>

<template>
  <svg :width="size" :height="size" viewBox="0 0 24 24" aria-hidden="true">
    <path d="M3 21h6v-6h6V9h5" fill="none" stroke="currentColor" stroke-width="2.2" stroke-linejoin="round" />
    <circle cx="18" cy="4.6" r="3.4" fill="#F0A81C" />
  </svg>
</template>
