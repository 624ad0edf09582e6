<script setup lang="ts">
import { durationText } from '@/kit/duration';
import Button from 'primevue/button';
import Select from 'primevue/select';
import { computed, ref, watch } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { plural } from '@/kit/words';
import { conditionWords, type Line, type Plan } from '@/areas/cycles/usePlan';

/** What can be set on the chosen entries: whose they are, what they wait for, when. */
const props = defineProps<{
  project: string;
  plan: Plan;
  chosen: Line[];
  people: { id: string; name: string }[];
  act: (
    what: Api['BulkEditEntriesRequest']['act'],
    ids: string[],
    changes?: Record<string, unknown>,
  ) => Promise<Api['PlanActResult']>;
}>();
const emit = defineEmits<{ drift: [id: string] }>();
const ids = computed(() => props.chosen.map((e) => e.id));
const one = computed(() => (props.chosen.length === 1 ? props.chosen[0]! : null));
const assignee = ref<string | null>(null);
const note = ref('');
const needs = ref<string | null>(null);
const kind = ref<'after' | 'only_if_passed'>('only_if_passed');
const from = ref('');
const until = ref('');
const problem = ref('');
const local = (iso: string | null): string => {
  if (!iso) return '';
  const d = new Date(iso);
  return new Date(d.getTime() - d.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
};
watch(
  () => ids.value.join(),
  () => {
    assignee.value = one.value?.assignee_id ?? null;
    note.value = one.value?.handover ?? '';
    from.value = local(one.value?.not_before ?? null);
    until.value = local(one.value?.not_after ?? null);
    needs.value = null;
    problem.value = '';
  },
  { immediate: true },
);
const others = computed(() =>
  props.plan.entries
    .filter((e) => !ids.value.includes(e.id))
    .map((e) => ({ value: e.id, label: `#${e.position} ${e.case_key} ${e.title}` })),
);
const nameOf = (id: string): string => {
  const e = props.plan.entries.find((x) => x.id === id);
  return e ? `#${e.position} ${e.case_key}` : 'an entry that is gone';
};
async function run(
  what: Api['BulkEditEntriesRequest']['act'],
  changes: Record<string, unknown> = {},
): Promise<void> {
  problem.value = '';
  try {
    await props.act(what, ids.value, changes);
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
const utc = (text: string): string | null => (text ? new Date(text).toISOString() : null);
const walking = computed(() => props.chosen.filter((e) => e.walking_id).length);
</script>

<template>
  <section class="sheet tray" aria-label="The chosen entries">
    <h2 v-if="one" class="long">
      <RouterLink class="plain" :to="`/${project}/entries/${one.id}`"
        ><span class="mono soft">{{ one.case_key }}</span> {{ one.title }}</RouterLink
      >
    </h2>
    <h2 v-else>
      {{ plural(chosen.length, 'entry', 'entries') }} chosen,
      {{ durationText(1000 * chosen.reduce((s, e) => s + e.seconds, 0)) }}
    </h2>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <p v-if="one?.outdated" class="row">
      <span>Its case was changed since it was planned.</span>
      <button type="button" class="link" @click="emit('drift', one.id)">See what changed</button>
    </p>
    <form class="block" @submit.prevent="run('assign', { assignee_id: assignee, note })">
      <label
        ><span class="label">Assigned to</span
        ><Select
          v-model="assignee"
          :options="people.map((p) => ({ value: p.id, label: p.name }))"
          option-label="label"
          option-value="value"
          show-clear
          placeholder="Nobody"
          aria-label="Assigned to"
          fluid
      /></label>
      <label
        ><span class="label">A word to whoever gets it</span
        ><input v-model="note" class="field" maxlength="2000" placeholder="None"
      /></label>
      <p v-if="walking > 0" class="soft small">
        {{ walking === 1 ? 'It is' : `${walking} of them are` }} being walked: that goes on undisturbed until
        it is taken over.
      </p>
      <Button type="submit" size="small" outlined severity="secondary" label="Assign" />
    </form>
    <form class="block" @submit.prevent="needs && run('condition', { needs_id: needs, kind })">
      <span class="label">Waits for</span>
      <ul v-if="one && one.needs.length > 0" class="needs">
        <li v-for="n in one.needs" :key="n.needs_id">
          {{ conditionWords(n.kind, nameOf(n.needs_id)) }}
          <button
            type="button"
            class="link soft small"
            @click="run('no_condition', { needs_id: n.needs_id })"
          >
            Drop
          </button>
        </li>
      </ul>
      <div class="pair">
        <Select
          v-model="kind"
          :options="[
            { value: 'only_if_passed', label: 'Only if passed' },
            { value: 'after', label: 'After' },
          ]"
          option-label="label"
          option-value="value"
          aria-label="Kind of condition"
          size="small"
        />
        <Select
          v-model="needs"
          :options="others"
          option-label="label"
          option-value="value"
          filter
          placeholder="which entry"
          aria-label="The entry it waits for"
          size="small"
          :virtual-scroller-options="{ itemSize: 34 }"
        />
      </div>
      <Button
        type="submit"
        size="small"
        outlined
        severity="secondary"
        :disabled="!needs"
        label="Set the condition"
      />
    </form>
    <form class="block" @submit.prevent="run('window', { not_before: utc(from), not_after: utc(until) })">
      <div class="pair">
        <label
          ><span class="label">Not before</span><input v-model="from" class="field" type="datetime-local"
        /></label>
        <label
          ><span class="label">Not after</span><input v-model="until" class="field" type="datetime-local"
        /></label>
      </div>
      <Button type="submit" size="small" outlined severity="secondary" label="Set the window" />
    </form>
    <p class="row">
      <button
        v-if="chosen.some((e) => e.needs.length > 0) && !one"
        type="button"
        class="link"
        @click="run('no_condition')"
      >
        Drop their conditions
      </button>
      <button type="button" class="link" @click="run('remove')">Remove from the cycle</button>
    </p>
  </section>
</template>

<style scoped>
.tray {
  padding: 14px 16px;
  display: grid;
  gap: 12px;
}
h2 {
  font-size: 1rem;
}
.block {
  display: grid;
  gap: 8px;
  justify-items: start;
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
.block > * {
  max-width: 100%;
}
.block > label,
.pair {
  width: 100%;
}
.pair {
  display: grid;
  gap: 8px;
}
.needs li {
  display: flex;
  gap: 8px;
}
</style>
