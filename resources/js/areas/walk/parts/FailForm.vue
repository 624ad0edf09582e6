<script setup lang="ts">
import Button from 'primevue/button';
import Textarea from 'primevue/textarea';
import { defineAsyncComponent, nextTick, onMounted, ref } from 'vue';
import type { Api } from '@/api/client';
import KnownDefects from '@/areas/defects/parts/KnownDefects.vue';
import ReasonChips from './ReasonChips.vue';
import type { Walk, WalkStep } from '@/areas/walk/useWalk';

/** What happened instead, beside what was expected; defects that the step has already come before a new one. */
const SideBySide = defineAsyncComponent(() => import('@/areas/evidence/parts/SideBySide.vue'));
const props = defineProps<{ walk: Walk; step: WalkStep; project: string; missing: string }>();
const happened = defineModel<string>('happened', { required: true });
const reason = defineModel<string>('reason', { required: true });
const emit = defineEmits<{ record: []; draft: []; link: [defect: Api['DefectLine']]; leave: [] }>();
const field = ref<{ $el: HTMLTextAreaElement } | null>(null);
async function focus(): Promise<void> {
  await nextTick();
  field.value?.$el.focus();
}
onMounted(focus);
defineExpose({ focus });
</script>

<template>
  <form class="more" @submit.prevent="emit('record')">
    <label class="label" for="happened">What happened instead?</label>
    <Textarea
      id="happened"
      ref="field"
      v-model="happened"
      auto-resize
      rows="1"
      fluid
      :invalid="missing !== ''"
      maxlength="10000"
      aria-describedby="missing"
      @keydown.enter.exact.prevent="emit('record')"
      @keydown.ctrl.enter.prevent="emit('draft')"
    />
    <p v-if="missing" id="missing" class="p-invalid-words" role="alert">{{ missing }}</p>
    <SideBySide
      v-if="happened.trim() !== '' && props.step.expected !== ''"
      :expected="props.step.expected"
      :actual="happened"
    />
    <ReasonChips v-model="reason" :project="project" verdict="fail" />
    <KnownDefects :walk="walk" :step="step.position" @link="emit('link', $event)" />
    <div class="row">
      <Button type="submit" label="Record the fail" />
      <Button type="button" outlined @click="emit('draft')"
        >Record and draft a defect <kbd>Ctrl Enter</kbd></Button
      >
      <Button type="button" text severity="secondary" label="Leave it" @click="emit('leave')" />
      <span class="soft hint">Enter records and goes on</span>
    </div>
  </form>
</template>
