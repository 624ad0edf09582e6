<script setup lang="ts">
import vFocustrap from 'primevue/focustrap';
import { onMounted, ref } from 'vue';
import { vReturnFocus } from './focus';

/**
 * A dialog that takes the whole window for a moment. It has the focus, keeps it, and gives it back to what opened it. Esc
 * leaves it; Enter takes what it shows, unless something inside has the focus that Enter means already.
 */
defineProps<{ label: string }>();
const emit = defineEmits<{ leave: []; take: [] }>();
const root = ref<HTMLElement | null>(null);
function onEnter(event: KeyboardEvent): void {
  if ((event.target as HTMLElement).closest('a, button, input, select, textarea')) return;
  event.preventDefault();
  emit('take');
}
onMounted(() => root.value?.focus());
defineExpose({ root });
</script>

<template>
  <div
    ref="root"
    v-focustrap
    v-return-focus
    class="over-all"
    role="dialog"
    aria-modal="true"
    :aria-label="label"
    tabindex="-1"
    @keydown.esc.stop="emit('leave')"
    @keydown.enter="onEnter"
  >
    <slot />
  </div>
</template>
