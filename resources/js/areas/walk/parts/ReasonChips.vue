<script setup lang="ts">
import { computed } from 'vue';
import { useReasons, type Reasoned } from '@/areas/walk/reasons';

/** The project's short reasons behind a verdict, one to choose. What is typed beside them lights the one that is meant. */
const props = defineProps<{ project: string; verdict: Reasoned; modelValue: string }>();
const emit = defineEmits<{ 'update:modelValue': [reason: string] }>();
const { names, meant } = useReasons(
  () => props.project,
  () => props.verdict,
);
const lit = computed(() => meant(props.modelValue));
</script>

<template>
  <div class="offered" role="group" aria-label="Reasons">
    <button
      v-for="name in names"
      :key="name"
      type="button"
      class="chip"
      :aria-pressed="lit === name"
      @click="emit('update:modelValue', modelValue === name ? '' : name)"
    >
      {{ name }}
    </button>
  </div>
</template>

<style scoped>
.offered {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 8px 0 12px;
}
</style>
