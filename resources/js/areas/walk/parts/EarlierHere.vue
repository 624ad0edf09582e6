<script setup lang="ts">
import { computed } from 'vue';
import EarlierLines from './EarlierLines.vue';
import { useEarlier } from '@/areas/walk/useEarlier';
import type { Walk, WalkStep } from '@/areas/walk/useWalk';

/** The lit step in the attempts before. */
const props = defineProps<{ walk: Walk; step: WalkStep; project: string }>();
const earlier = useEarlier(props.walk.id, () => props.walk.view.value?.attempt.number ?? 1);
const all = computed(() => earlier.value(props.walk.roundAt.value, props.step.position));
</script>

<template>
  <EarlierLines class="here" :all="all" :entry="walk.view.value?.entry_id ?? ''" :project="project" />
</template>

<style scoped>
.here {
  margin-top: 14px;
}
</style>
