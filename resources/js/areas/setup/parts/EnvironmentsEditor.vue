<script setup lang="ts">
import SetupSection from '@/areas/setup/parts/SetupSection.vue';
import type { Api } from '@/api/client';
import EditorFoot from '@/areas/setup/parts/EditorFoot.vue';
import { saveEnvironments } from '@/areas/setup/queries';
import { useReplacing } from '@/areas/setup/useReplacing';
import SelectField from '@/kit/SelectField.vue';
import { useEditable } from '@/kit/useEditable';

/** The named places where builds run. The handset beside a step shows their addresses, and nothing else. */
const props = defineProps<{ project: string; setup: Api['PlanningSetup'] }>();
const emit = defineEmits<{ saved: [now: Api['PlanningSetup']] }>();
interface Row {
  id: string | null;
  name: string;
  address: string;
  build_id: string | null;
  notes: string;
  observed: boolean;
}
const {
  form: rows,
  dirty,
  follow,
} = useEditable<Row[]>(() =>
  props.setup.environments.map(({ id, name, address, build, notes, observed }) => ({
    id,
    name,
    address,
    build_id: build?.id ?? null,
    notes,
    observed,
  })),
);
const { problem, replace } = useReplacing<Api['PlanningSetup']>(
  () => props.setup.seen.environments ?? '',
  dirty,
  follow,
  (now) => emit('saved', now),
);
const FIELDS = ['id', 'name', 'address', 'build_id', 'notes', 'observed'];
const wrong = (at: number): string =>
  FIELDS.flatMap((field) => problem.value?.errors[`environments.${at}.${field}`] ?? []).join(' ');
/** What is said of none of the lines. */
const said = (): string => {
  if (!problem.value) return '';
  const whole = Object.entries(problem.value.errors).filter(([field]) => !/^environments\.\d/.test(field));
  if (whole.length > 0) return whole.map(([, words]) => words[0]).join(' ');
  return Object.keys(problem.value.errors).length > 0 ? '' : problem.value.message;
};
function save(): Promise<void> {
  rows.value = rows.value.filter((r) => r.id !== null || r.name.trim() !== '' || r.address.trim() !== '');
  const environments = rows.value;
  return replace((seen) => saveEnvironments(props.project, { environments, seen }), 'Environments saved.');
}
</script>

<template>
  <SetupSection
    title="Environments"
    term="environment"
    wide
    what="Where builds run: chosen for a cycle, and for what was walked elsewhere. The handset shows their addresses and nothing else."
  >
    <div v-if="rows.length > 0" class="head label" aria-hidden="true">
      <span>Name</span><span>Address of what is tested</span><span>Deployed there</span><span>Notes</span
      ><span>Observed</span>
    </div>
    <template v-for="(r, i) in rows" :key="r.id ?? `new-${i}`">
      <div class="line" role="group" :aria-label="r.name || `Environment ${i + 1}`">
        <input
          v-model="r.name"
          class="field"
          maxlength="60"
          placeholder="Staging"
          :aria-label="`Name of environment ${i + 1}`"
          :disabled="!setup.may_plan"
        />
        <input
          v-model="r.address"
          class="field mono"
          maxlength="500"
          placeholder="https://staging.example/"
          :aria-label="`Address of environment ${i + 1}`"
          :disabled="!setup.may_plan"
        />
        <SelectField
          v-model="r.build_id"
          hide-label
          :label="`Deployed in environment ${i + 1}`"
          none="Not said"
          :disabled="!setup.may_plan"
          :options="[...setup.builds].reverse().map((b) => ({ value: b.id, label: b.name }))"
        />
        <input
          v-model="r.notes"
          class="field"
          maxlength="2000"
          placeholder="What to know of it"
          :aria-label="`Notes on environment ${i + 1}`"
          :disabled="!setup.may_plan"
        />
        <label class="observed"
          ><input
            v-model="r.observed"
            type="checkbox"
            :aria-label="`Pages of environment ${i + 1} may be observed`"
            :disabled="!setup.may_plan"
          />
          <span class="narrow-only">May be observed</span></label
        >
        <button v-if="setup.may_plan" type="button" class="link soft" @click="rows.splice(i, 1)">
          Take out
        </button>
      </div>
      <p v-if="wrong(i)" class="p-invalid-words" role="alert">{{ wrong(i) }}</p>
    </template>
    <p v-if="rows.length > 0" class="soft small">
      Where one is observed, the script in its pages may report what is done on them to a running session.
    </p>
    <p v-if="rows.length === 0 && !setup.may_plan" class="soft">None yet.</p>
    <p v-if="said()" class="p-invalid-words" role="alert">{{ said() }}</p>
    <EditorFoot
      v-if="setup.may_plan"
      :dirty="dirty"
      more="Add an environment"
      @add="rows.push({ id: null, name: '', address: '', build_id: null, notes: '', observed: false })"
      @save="save"
      @leave="follow()"
    />
  </SetupSection>
</template>

<style scoped>
.head,
.line {
  display: grid;
  grid-template-columns: minmax(7rem, 2fr) minmax(8rem, 4fr) 7.5rem minmax(8rem, 4fr) 4.5rem 4.5rem;
  gap: 8px;
  align-items: center;
}
.line > * {
  min-width: 0;
}
.narrow-only {
  display: none;
}
.observed {
  min-height: 24px;
  display: flex;
  align-items: center;
  gap: 6px;
}
.line :deep(select) {
  width: 100%;
}
@media (max-width: 860px) {
  .head {
    display: none;
  }
  .narrow-only {
    display: inline;
  }
  .line {
    grid-template-columns: 1fr 1fr;
    padding-bottom: 10px;
    border-bottom: 1px solid var(--rule);
  }
}
</style>
