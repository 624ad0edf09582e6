<script setup lang="ts">
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import { errorMessage } from '@/api/client';
import { createCase } from '@/areas/casebook/queries';
import { toast } from '@/kit/notices';
import { plural } from '@/kit/words';
import type { PastedCase } from '@/areas/casebook/paste';
import { toSteps, type Row } from '@/areas/casebook/steps';
import { body, type Form } from '@/areas/casebook/useCase';

/** Rows whose first column is a title: cases of their own, or all steps of this one. */
const props = defineProps<{ project: string; cases: PastedCase[]; as: Form }>();
const emit = defineEmits<{ close: []; steps: [rows: Row[]] }>();
async function make(): Promise<void> {
  emit('close');
  const keys: string[] = [];
  try {
    for (const one of props.cases) {
      const saved = await createCase(props.project, {
        ...body(props.as),
        title: one.title,
        steps: toSteps(one.steps),
      });
      keys.push(saved.case.key);
    }
    toast(`Made ${keys[0]} to ${keys[keys.length - 1]}.`);
  } catch (error) {
    toast(`${keys.length} of ${plural(props.cases.length, 'case')} were made. ${errorMessage(error)}`);
  }
}
function all(): void {
  emit(
    'steps',
    props.cases.flatMap((c) => c.steps),
  );
  emit('close');
}
</script>

<template>
  <Dialog
    visible
    modal
    :header="`These rows look like ${plural(cases.length, 'case')}`"
    :style="{ width: '30rem' }"
    @update:visible="emit('close')"
  >
    <ul class="small">
      <li v-for="c in cases.slice(0, 8)" :key="c.title" class="long">
        {{ c.title }} <span class="soft">{{ plural(c.steps.length, 'step') }}</span>
      </li>
    </ul>
    <div class="row buttons">
      <Button :label="`Make ${plural(cases.length, 'case')}`" @click="make" />
      <Button label="All as steps of this one" outlined severity="secondary" @click="all" />
    </div>
  </Dialog>
</template>

<style scoped>
.buttons {
  margin-top: 18px;
}
</style>
