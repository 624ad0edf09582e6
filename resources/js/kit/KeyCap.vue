<script setup lang="ts">
import { keyCap, keysOff } from '@/kit/keys';

/** The key that does what stands beside it, as this person chose; nothing where single keys are off. */
defineProps<{
  /** The key as pages name it: "c", "g t". */
  of: string;
}>();
</script>

<template>
  <kbd v-if="!keysOff">{{ keyCap(of) }}</kbd>
</template>
