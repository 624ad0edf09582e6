<script setup lang="ts">
import { computed } from 'vue';
import { useWalkSetup } from '@/areas/setup/queries';

/** The project's short reasons behind a verdict, one to choose. */
const props = defineProps<{
  project: string;
  verdict: 'pass' | 'fail' | 'blocked' | 'not_applicable';
  modelValue: string;
}>();
const emit = defineEmits<{ 'update:modelValue': [reason: string] }>();
const { data } = useWalkSetup(() => props.project);
const reasons = computed(() => data.value?.[`reasons_${props.verdict}`] ?? []);
</script>

<template>
  <div class="offered" role="group" aria-label="Reasons">
    <button
      v-for="r in reasons"
      :key="r.value"
      type="button"
      class="chip"
      :aria-pressed="modelValue === r.name"
      @click="emit('update:modelValue', modelValue === r.name ? '' : r.name)"
    >
      {{ r.name }}
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
