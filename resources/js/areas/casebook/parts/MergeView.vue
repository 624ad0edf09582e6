<script setup lang="ts">
import Button from 'primevue/button';
import { computed, reactive } from 'vue';
import type { Api } from '@/api/client';
import { ago } from '@/kit/words';
import { toRows } from '@/areas/casebook/steps';
import type { Form } from '@/areas/casebook/useCase';

/** Two people's changes beside each other, with what was there before: decided one by one, nothing dropped silently. */
const props = defineProps<{ merge: Api['CaseMerge']; routines: Api['RoutineText'][] }>();
const emit = defineEmits<{ decide: [form: Partial<Form>]; later: [] }>();
type Side = 'mine' | 'theirs' | 'both';
const texts = reactive<Record<string, 'mine' | 'theirs'>>(
  Object.fromEntries(props.merge.texts.map((t) => [t.field, t.outcome === 'theirs' ? 'theirs' : 'mine'])),
);
const steps = reactive<Side[]>(
  props.merge.steps.map((s) => (s.outcome === 'theirs' ? 'theirs' : s.outcome === 'both' ? 'both' : 'mine')),
);
const NAMES: Record<string, string> = {
  title: 'Title',
  objective: 'Objective',
  preconditions: 'Preconditions',
  postconditions: 'Postconditions',
  table: 'Data table',
};
const shownTexts = computed(() => props.merge.texts.filter((t) => t.outcome !== 'same'));
function result(): Partial<Form> {
  const of = (field: string): string => {
    const t = props.merge.texts.find((x) => x.field === field);
    return t ? (texts[field] === 'theirs' ? t.theirs : t.mine) : '';
  };
  const kept = props.merge.steps.flatMap((s, i) => {
    const step =
      s.outcome === 'conflict'
        ? steps[i] === 'theirs'
          ? s.theirs
          : s.mine
        : s.outcome === 'mine' || s.outcome === 'theirs'
          ? steps[i] === s.outcome
            ? s.result
            : (s.base ?? null)
          : s.result;
    return step ? [step] : [];
  });
  return {
    title: of('title'),
    objective: of('objective'),
    preconditions: of('preconditions'),
    postconditions: of('postconditions'),
    table: of('table') || null,
    rows: toRows(kept),
    files: [...props.merge.files],
  };
}
const said = (s: Api['StepEdit'] | null): string =>
  s === null
    ? '(taken out)'
    : s.routine
      ? `Routine: ${props.routines.find((r) => r.id === s.routine)?.name ?? ''}`
      : [s.action, s.data, s.expected].filter(Boolean).join('\n→ ');
</script>

<template>
  <section class="merge sheet" aria-label="Both changes beside each other">
    <p>
      <strong>{{ merge.by }} saved this case {{ ago(merge.at) }}, while you were writing.</strong>
      <template v-if="merge.conflicts === 0">
        You changed different things; below is what becomes of both.</template
      >
      <template v-else>
        {{ merge.conflicts }} {{ merge.conflicts === 1 ? 'place was' : 'places were' }} changed by both of
        you: choose there.</template
      >
    </p>
    <table class="lines">
      <thead>
        <tr>
          <th>What</th>
          <th>Before</th>
          <th>Yours</th>
          <th>{{ merge.by }}'s</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="t in shownTexts" :key="t.field">
          <td>
            {{ NAMES[t.field] }}<strong v-if="t.outcome === 'conflict'" class="small"> both changed</strong>
          </td>
          <td class="soft long">{{ t.base }}</td>
          <td class="long">
            <label
              ><input v-model="texts[t.field]" type="radio" :name="t.field" value="mine" />
              {{ t.mine }}</label
            >
          </td>
          <td class="long">
            <label
              ><input v-model="texts[t.field]" type="radio" :name="t.field" value="theirs" />
              {{ t.theirs }}</label
            >
          </td>
        </tr>
        <tr v-for="(s, i) in merge.steps" :key="i" :class="{ quiet: s.outcome === 'same' }">
          <td>
            Step<strong v-if="s.outcome === 'conflict'" class="small"> both changed</strong
            ><span v-else-if="s.outcome === 'both'" class="small soft"> both, in different places</span>
          </td>
          <td class="soft long pre">{{ s.base ? said(s.base) : '' }}</td>
          <template v-if="s.outcome === 'same' || s.outcome === 'both'">
            <td colspan="2" class="long pre">{{ said(s.result) }}</td>
          </template>
          <template v-else>
            <td class="long pre">
              <label v-if="s.mine || s.base"
                ><input v-model="steps[i]" type="radio" :name="`step-${i}`" value="mine" />
                {{ said(s.mine) }}</label
              >
              <label v-else
                ><input v-model="steps[i]" type="radio" :name="`step-${i}`" value="mine" /> without it</label
              >
            </td>
            <td class="long pre">
              <label v-if="s.theirs || s.base"
                ><input v-model="steps[i]" type="radio" :name="`step-${i}`" value="theirs" />
                {{ said(s.theirs) }}</label
              >
              <label v-else
                ><input v-model="steps[i]" type="radio" :name="`step-${i}`" value="theirs" /> without
                it</label
              >
            </td>
          </template>
        </tr>
      </tbody>
    </table>
    <p class="row">
      <Button label="Go on with this" @click="emit('decide', result())" />
      <button type="button" class="link soft" @click="emit('later')">Later; mine stays on this device</button>
      <span class="soft small">Nothing is saved until you save.</span>
    </p>
  </section>
</template>

<style scoped>
.merge {
  padding: 16px;
  margin-bottom: 16px;
  display: grid;
  gap: 12px;
  overflow-x: auto;
}
.pre {
  white-space: pre-line;
}
.quiet td {
  color: var(--ink-soft);
  padding-top: 3px;
  padding-bottom: 3px;
}
td {
  width: 28%;
}
td:first-child {
  width: 12%;
}
</style>
