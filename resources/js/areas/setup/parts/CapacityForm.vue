<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { importCapacity } from '@/areas/setup/queries';
import LinesField from '@/kit/LinesField.vue';
import { toast } from '@/kit/notices';
import { plural } from '@/kit/words';
import { useLocalDraft } from '@/offline/useLocalDraft';

/** Takes people's time from pasted lines or a table. What cannot be taken stays in the field, with why. */
const props = defineProps<{ project: string }>();
const emit = defineEmits<{ taken: [] }>();
const { draft: form, clear } = useLocalDraft(
  computed(() => `capacity:${props.project}`),
  () => ({ text: '' }),
);
const refused = ref<Api['CapacityResult'][]>([]);
const problem = ref('');
const busy = ref(false);
async function take(): Promise<void> {
  problem.value = '';
  refused.value = [];
  busy.value = true;
  try {
    const lines = await importCapacity(props.project, form.value.text);
    refused.value = lines.filter((l) => l.problem !== null);
    form.value.text = refused.value.map((l) => l.text).join('\n');
    if (form.value.text === '') await clear();
    if (lines.length > refused.value.length) {
      toast(`Took ${plural(lines.length - refused.value.length, 'line')}.`);
      emit('taken');
    }
  } catch (error) {
    problem.value = errorMessage(error);
  } finally {
    busy.value = false;
  }
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
