<script setup lang="ts">
import Button from 'primevue/button';
import { computed } from 'vue';
import { importCapacity } from '@/areas/setup/queries';
import LinesField from '@/kit/LinesField.vue';
import { toast } from '@/kit/notices';
import { plural } from '@/kit/words';
import { useLines } from '@/offline/useLines';

/** Takes people's time from pasted lines or a table. What cannot be taken stays in the field, with why. */
const props = defineProps<{ project: string }>();
const emit = defineEmits<{ taken: [] }>();
const { form, refused, problem, busy, go } = useLines(
  computed(() => `capacity:${props.project}`),
  () => ({ text: '' }),
  (lines) => importCapacity(props.project, lines.text),
);
async function take(): Promise<void> {
  const taken = await go();
  if (taken === 0) return;
  toast(`Took ${plural(taken, 'line')}.`);
  emit('taken');
}
</script>

<template>
  <form @submit.prevent="take">
    <label class="label" for="capacity-lines"
      >Many at once: a line each, with a name or mail address, the time a day, and days off</label
    >
    <LinesField
      id="capacity-lines"
      v-model="form.text"
      :placeholder="'Ana Bell, 6h\nben@bakery.example, 2026-12-24..2027-01-02'"
      :problem="problem"
      :refused="refused"
    >
      <Button
        type="submit"
        outlined
        severity="secondary"
        label="Take them in"
        :disabled="busy || form.text.trim() === ''"
      />
    </LinesField>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  margin-top: 12px;
}
</style>
