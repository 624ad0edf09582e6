<script setup lang="ts">
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { editDefect } from '@/areas/defects/queries';
import { session } from '@/areas/people/session';
import SelectField from '@/kit/SelectField.vue';
import { plainWords } from '@/kit/words';

/** Who has it, how grave it is and when it is to be mended: chosen in place, saved at once. */
const props = defineProps<{ detail: Api['DefectDetail']; mayWork: boolean }>();
const emit = defineEmits<{ changed: [Api['DefectDetail']]; stale: [] }>();
const problem = ref('');
const defect = computed(() => props.detail.defect);
const choices = (values: readonly string[]) => values.map((value) => ({ value, label: plainWords(value) }));
const SEVERITIES = choices(['critical', 'major', 'minor', 'trivial']);
const PRIORITIES = choices(['now', 'soon', 'later']);

async function save(
  field: 'severity' | 'priority' | 'assignee_id',
  was: string | null,
  is: unknown,
): Promise<void> {
  const to = typeof is === 'string' && is !== '' ? is : null;
  if (to === was) return;
  problem.value = '';
  try {
    emit('changed', await editDefect(defect.value.key, { [field]: to, was: { [field]: was } }));
  } catch (e) {
    problem.value = errorMessage(e);
    emit('stale');
  }
}
/** Who could have it, and who has it though they left. */
const people = computed(() => {
  const has = defect.value.assignee;
  const all = props.detail.people;
  return (has && !all.some((p) => p.id === has.id) ? [...all, has] : all).map((p) => ({
    value: p.id,
    label: p.name,
  }));
});
const mine = computed(() => defect.value.assignee?.id === session.value?.user.id);
</script>

<template>
  <section aria-label="Who has it">
    <SelectField
      label="With"
      none="Nobody"
      :disabled="!mayWork"
      :options="people"
      :model-value="defect.assignee?.id ?? null"
      @update:model-value="save('assignee_id', defect.assignee?.id ?? null, $event)"
    />
    <p v-if="mayWork && !mine" class="mine">
      <button
        type="button"
        class="link small"
        @click="save('assignee_id', defect.assignee?.id ?? null, session?.user.id)"
      >
        Give it to me
      </button>
    </p>
    <div class="two">
      <SelectField
        label="Severity"
        :disabled="!mayWork"
        :options="SEVERITIES"
        :model-value="defect.severity"
        @update:model-value="save('severity', defect.severity, $event)"
      />
      <SelectField
        label="To be mended"
        none="Nobody said"
        :disabled="!mayWork"
        :options="PRIORITIES"
        :model-value="defect.priority"
        @update:model-value="save('priority', defect.priority, $event)"
      />
    </div>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
.mine {
  margin-top: -4px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
