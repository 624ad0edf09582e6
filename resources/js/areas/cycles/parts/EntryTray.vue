<script lang="ts">
import type { Line } from '@/areas/cycles/queries';

/** The chosen entries: what is known of all of them, and the one when it is one. */
export interface Chosen {
  ids: string[];
  one: Line | null;
  /** Likely, over all of them. */
  seconds: number;
  /** How many of them are open with somebody. */
  walking: number;
}
</script>

<script setup lang="ts">
import { durationText } from '@/kit/duration';
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { plural } from '@/kit/words';
import { momentOf, otherZone, typedTime } from '@/kit/zone';
import DateField from '@/kit/DateField.vue';
import SelectField from '@/kit/SelectField.vue';
import SearchField from '@/kit/SearchField.vue';
import { readEntries } from '@/areas/cycles/queries';
import { conditionWords } from '@/areas/cycles/usePlan';
import TermWord from '@/kit/TermWord.vue';

/** What can be set on the chosen entries: whose they are, what they wait for, when. */
const props = defineProps<{
  project: string;
  /** The key of their cycle. */
  cycle: string;
  chosen: Chosen;
  people: { id: string; name: string }[];
  act: (
    what: Api['BulkEditEntriesRequest']['act'],
    ids: string[],
    changes?: Record<string, unknown>,
  ) => Promise<Api['PlanActResult']>;
}>();
const KINDS = [
  { value: 'only_if_passed', label: 'Only if passed' },
  { value: 'after', label: 'After' },
] as const;
const emit = defineEmits<{ drift: [id: string] }>();
const ids = computed(() => props.chosen.ids);
const one = computed(() => props.chosen.one);
const assignee = ref<string | null>(null);
const note = ref('');
const needs = ref<string | null>(null);
const kind = ref<'after' | 'only_if_passed'>('only_if_passed');
const from = ref('');
const until = ref('');
const problem = ref('');
const local = (iso: string | null): string => (iso ? typedTime(iso) : '');
watch(
  () => ids.value.join(),
  () => {
    assignee.value = one.value?.assignee?.id ?? null;
    note.value = one.value?.handover ?? '';
    from.value = local(one.value?.not_before ?? null);
    until.value = local(one.value?.not_after ?? null);
    needs.value = null;
    problem.value = '';
  },
  { immediate: true },
);
/** Entries that the chosen ones can wait for. */
async function others(q: string): Promise<{ value: string; label: string }[]> {
  const page = await readEntries(props.cycle, { q, size: 40 });
  return page.items
    .filter((e) => !ids.value.includes(e.id))
    .map((e) => ({ value: e.id, label: `#${e.position} ${e.case_key} ${e.title}` }));
}
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
const utc = (text: string): string | null => (text ? momentOf(text) : null);
const walking = computed(() => props.chosen.walking);
</script>

<template>
  <section class="sheet tray" aria-label="The chosen entries">
    <h2 v-if="one" class="long">
      <RouterLink class="plain" :to="`/${project}/entries/${one.id}`"
        ><span class="mono soft">{{ one.case_key }}</span> {{ one.title }}</RouterLink
      >
    </h2>
    <h2 v-else>
      {{ plural(ids.length, 'entry', 'entries') }} chosen, {{ durationText(1000 * chosen.seconds) }}
    </h2>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <p v-if="one?.outdated" class="row">
      <span>Its case was changed since it was planned.</span>
      <button type="button" class="link" @click="emit('drift', one.id)">See what changed</button>
    </p>
    <form class="block" @submit.prevent="run('assign', { assignee_id: assignee, note })">
      <SelectField
        v-model="assignee"
        form
        label="Assigned to"
        none="Nobody"
        :options="people.map((p) => ({ value: p.id, label: p.name }))"
      />
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
      <span class="label"><TermWord of="held">Waits for</TermWord></span>
      <ul v-if="one && one.needs.length > 0" class="needs">
        <li v-for="n in one.needs" :key="n.needs_id">
          {{ conditionWords(n.kind, `#${n.position} ${n.case_key}`) }}
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
        <SelectField v-model="kind" hide-label small label="Kind of condition" :options="KINDS" />
        <SearchField
          v-model="needs"
          label="The entry it waits for"
          placeholder="which entry"
          small
          :find="others"
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
          ><span class="label">Not before</span><DateField v-model="from" time label="Not before"
        /></label>
        <label
          ><span class="label">Not after</span><DateField v-model="until" time label="Not after"
        /></label>
      </div>
      <p v-if="otherZone()" class="soft small">By the clocks of the project, {{ otherZone() }}.</p>
      <Button type="submit" size="small" outlined severity="secondary" label="Set the window" />
    </form>
    <p class="row">
      <button v-if="!one" type="button" class="link" @click="run('no_condition')">
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
