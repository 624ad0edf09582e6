<script setup lang="ts">
import { TERMS, type Term } from './terms';

/** A word that has one meaning here: underlined, told in its tip, and on the page of words. */
defineProps<{ of: Term }>();
</script>

<template>
  <RouterLink class="term" :to="`/words#${of}`" :title="TERMS[of][1]"><slot /></RouterLink>
</template>

<style scoped>
.term {
  color: inherit;
  text-decoration: underline dotted 1px;
  text-underline-offset: 3px;
}
</style>
