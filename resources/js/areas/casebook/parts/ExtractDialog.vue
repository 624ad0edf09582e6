<script setup lang="ts">
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import { ref } from 'vue';
import { errorMessage } from '@/api/client';
import { extractRoutine } from '@/areas/casebook/queries';
import { toast } from '@/kit/notices';
import { plural } from '@/kit/words';

/** Makes a routine of steps of a case. */
const props = defineProps<{
  caseKey: string;
  positions: number[];
  /** Saves what is not saved yet; the revision then, null when that failed. */
  ready: () => Promise<number | null>;
}>();
const emit = defineEmits<{ close: []; made: [] }>();
const name = ref('');
async function make(): Promise<void> {
  const revision = await props.ready();
  if (revision === null) return;
  try {
    const made = await extractRoutine(props.caseKey, {
      name: name.value,
      positions: props.positions,
      revision,
    });
    toast(`"${made.routine.name}" is a routine now. Other cases can use it too.`);
    emit('close');
    emit('made');
  } catch (error) {
    toast(errorMessage(error));
  }
}
</script>

<template>
  <Dialog visible modal header="Make a routine" :style="{ width: '26rem' }" @update:visible="emit('close')">
    <form @submit.prevent="make">
      <p class="soft small">
        The {{ plural(positions.length, 'chosen step') }} move into it, and this case uses it from then on.
      </p>
      <label class="label" for="routine-name">Name of the routine</label>
      <input id="routine-name" v-model="name" class="field" maxlength="120" required autofocus />
      <div class="row buttons"><Button type="submit" label="Make it" :disabled="!name.trim()" /></div>
    </form>
  </Dialog>
</template>

<style scoped>
.buttons {
  margin-top: 18px;
}
</style>
