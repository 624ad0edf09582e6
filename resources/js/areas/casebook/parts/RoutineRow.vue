<script setup lang="ts">
import { ref } from 'vue';
import type { Api } from '@/api/client';
import MarkdownText from '@/kit/MarkdownText.vue';
import type { Row } from '@/areas/casebook/steps';

/** The use of a routine among the steps: its values, and what stands in it. */
const props = defineProps<{
  project: string;
  row: Row;
  routine: Api['RoutineText'] | null;
  known: string[];
  problems: Api['ProblemLine'][];
  mayWrite: boolean;
}>();
const emit = defineEmits<{
  values: [values: Record<string, string>];
  writeOut: [steps: Api['StepEdit'][]];
  remove: [];
}>();
const open = ref(false);
/** What a parameter stands for here. */
function valueOf(name: string): string {
  return props.row.values[name.toLowerCase()] ?? '';
}
function set(name: string, value: string): void {
  emit('values', { ...props.row.values, [name.toLowerCase()]: value });
}
function filled(text: string): string {
  return text.replace(/(\\?)\{\{\s*([\p{L}\p{N}_]+)\s*\}\}/gu, (whole, slash: string, name: string) => {
    const parameter = props.routine?.parameters.find((p) => p.name.toLowerCase() === name.toLowerCase());
    if (slash || !parameter) return whole;
    return name.toLowerCase() in props.row.values ? valueOf(name) : parameter.default;
  });
}
function writeOut(): void {
  emit(
    'writeOut',
    (props.routine?.steps ?? []).map((s) => ({
      ...s,
      action: filled(s.action),
      data: filled(s.data),
      expected: filled(s.expected),
      values: Object.fromEntries(
        Object.entries(s.values as Record<string, string>).map(([n, v]) => [n, filled(v)]),
      ),
    })),
  );
}
</script>

<template>
  <div class="routine">
    <p class="row">
      <span class="soft small">Routine</span>
      <RouterLink v-if="routine" :to="`/${project}/casebook/routines/${routine.id}`"
        ><strong>{{ routine.name }}</strong></RouterLink
      >
      <strong v-else>gone</strong>
      <button v-if="routine" type="button" class="link" :aria-expanded="open" @click="open = !open">
        {{ open ? 'Hide' : 'Show' }} {{ routine.steps.length }}
        {{ routine.steps.length === 1 ? 'step' : 'steps' }}
      </button>
      <span class="gap" />
      <template v-if="mayWrite">
        <button v-if="routine" type="button" class="link soft" @click="writeOut">Write out here</button>
        <button type="button" class="link soft" @click="emit('remove')">Take out</button>
      </template>
    </p>
    <div v-if="routine && routine.parameters.length > 0" class="values">
      <label v-for="p in routine.parameters" :key="p.name">
        <span class="label">{{ p.name }}</span>
        <input
          class="field small"
          :value="valueOf(p.name)"
          :placeholder="p.default"
          :disabled="!mayWrite"
          @change="set(p.name, ($event.target as HTMLInputElement).value)"
        />
      </label>
    </div>
    <ol v-if="open && routine" class="steps small">
      <li v-for="(s, i) in routine.steps" :key="i">
        <span v-if="s.routine" class="soft">a routine within it</span>
        <template v-else
          ><MarkdownText :text="filled(s.action)" :known="known" /><span class="soft"
            ><MarkdownText :text="filled(s.expected)" :known="known" /></span
        ></template>
      </li>
    </ol>
    <p v-for="p in problems" :key="p.field + p.message" class="p-invalid-words small">{{ p.message }}</p>
  </div>
</template>

<style scoped>
.routine {
  margin: 4px 0;
  padding: 8px 12px;
  border: 1px dashed var(--edge);
  border-radius: 6px;
}
.gap {
  flex: 1;
}
.values {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 8px 12px;
  margin-top: 6px;
}
.values .field {
  padding: 3px 8px;
}
.steps {
  list-style: decimal;
  padding-left: 22px;
  margin-top: 8px;
  display: grid;
  gap: 6px;
}
</style>
