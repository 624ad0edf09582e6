<script setup lang="ts">
import SetupSection from '@/areas/setup/parts/SetupSection.vue';
import Button from 'primevue/button';
import { computed, reactive, ref, watch } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import {
  checkAxes,
  createConfigurations,
  removeConfiguration,
  renameConfiguration,
  saveAxes,
} from '@/areas/setup/queries';
import { useSaving } from '@/areas/setup/useSaving';
import { useEditable } from '@/kit/useEditable';
import { useAnswer } from '@/kit/useAnswer';
import { useSeen } from '@/kit/useSeen';
import { plural } from '@/kit/words';

/** Axes with values, pairs that cannot meet, and the configurations made of them, with what they leave untested. */
const props = defineProps<{ project: string; setup: Api['PlanningSetup'] }>();
const emit = defineEmits<{ saved: [now: Api['PlanningSetup'] | undefined] }>();
interface Axis {
  id: string | null;
  name: string;
  values: { id: string | null; name: string }[];
}
const { problem, run } = useSaving<Api['PlanningSetup']>((now) => emit('saved', now));
const { form, dirty, follow } = useEditable(() => ({
  axes: props.setup.axes.map((a): Axis => ({
    id: a.id,
    name: a.name,
    values: a.values.map((v) => ({ id: v.id, name: v.name })),
  })),
  forbidden: props.setup.forbidden.map((f) => ({ ...f })),
}));
const send = useSeen(() => props.setup.seen.axes ?? '', dirty);
const axes = computed({ get: () => form.value.axes, set: (now) => (form.value.axes = now) });
const forbidden = computed({ get: () => form.value.forbidden, set: (now) => (form.value.forbidden = now) });
const body = computed(() => ({
  axes: axes.value
    .filter((a) => a.name.trim())
    .map((a) => ({ ...a, values: a.values.filter((v) => v.name.trim()) })),
  forbidden: forbidden.value,
}));
// Asked at a pause, not with every key.
const asked = ref(body.value);
let timer = 0;
watch(
  body,
  (now) => {
    clearTimeout(timer);
    timer = window.setTimeout(() => (asked.value = JSON.parse(JSON.stringify(now)) as typeof now), 250);
  },
  { deep: true },
);
const { answer: check, refusal } = useAnswer(
  'axes',
  // What the present configurations leave untested changes with them too.
  () => [asked.value, props.setup.configurations.map((c) => c.id)],
  () => checkAxes(props.project, asked.value),
  () => asked.value.axes.length > 0,
);
async function save(): Promise<void> {
  const written = await run(
    () => send((seen) => saveAxes(props.project, { ...body.value, seen })),
    'Axes saved.',
  );
  if (written) await follow();
}
const make = (how: 'all' | 'pairs' | 'one'): Promise<boolean> =>
  run(
    () => createConfigurations(props.project, { how, ...(how === 'one' ? { values: { ...one } } : {}) }),
    'Configurations made.',
  );
const rename = (c: Api['ConfigurationLine'], name: string): Promise<boolean> =>
  run(() => renameConfiguration(c.id, { name }), 'Renamed.');
const remove = (c: Api['ConfigurationLine']): Promise<boolean> =>
  run(() => removeConfiguration(c.id), `${c.name} is gone.`);
const one = reactive<Record<string, string>>({});
const pair = reactive({ a: '', b: '' });
const options = computed(() =>
  axes.value.flatMap((a) =>
    a.values.map((v) => ({ value: `${a.name}\n${v.name}`, label: `${a.name}: ${v.name}` })),
  ),
);
function forbid(): void {
  const [axis, value] = pair.a.split('\n');
  const [other_axis, other_value] = pair.b.split('\n');
  if (!axis || !value || !other_axis || !other_value || axis === other_axis) {
    problem.value = 'Choose values of two different axes.';
    return;
  }
  forbidden.value = [...forbidden.value, { axis, value, other_axis, other_value }];
  pair.a = pair.b = '';
}
const showUntested = ref(false);
</script>

<template>
  <div role="group" aria-label="Axes and configurations">
    <SetupSection
      title="Axes"
      what="What configurations differ in, such as the device, with the values that are tested."
    >
      <div v-for="(a, i) in axes" :key="i" class="axis">
        <input
          v-model="a.name"
          class="field name"
          :aria-label="`Name of axis ${i + 1}`"
          maxlength="80"
          placeholder="Axis"
          :disabled="!setup.may_plan"
        />
        <span v-for="(v, j) in a.values" :key="j" class="value"
          ><input
            v-model="v.name"
            class="field"
            :aria-label="`Value ${j + 1} of ${a.name}`"
            maxlength="80"
            :disabled="!setup.may_plan"
            :size="Math.max(6, v.name.length)"
          /><button
            v-if="setup.may_plan"
            type="button"
            class="link soft"
            :aria-label="`Take out ${v.name}`"
            @click="a.values.splice(j, 1)"
          >
            ×
          </button></span
        >
        <template v-if="setup.may_plan">
          <button type="button" class="link" @click="a.values.push({ id: null, name: '' })">
            Add a value
          </button>
          <button type="button" class="link soft" @click="axes.splice(i, 1)">Take out the axis</button>
        </template>
      </div>
      <p v-if="setup.may_plan">
        <button
          type="button"
          class="link"
          @click="axes.push({ id: null, name: '', values: [{ id: null, name: '' }] })"
        >
          Add an axis
        </button>
      </p>
    </SetupSection>
    <SetupSection
      title="Pairs that cannot meet"
      what="Two values that no configuration may have together. The smallest set of pairs goes around them."
    >
      <p v-if="forbidden.length === 0" class="soft">None.</p>
      <ul class="pairs">
        <li v-for="(f, i) in forbidden" :key="i">
          {{ f.value }} with {{ f.other_value }}
          <button
            v-if="setup.may_plan"
            type="button"
            class="link soft"
            :aria-label="`Allow ${f.value} with ${f.other_value}`"
            @click="forbidden.splice(i, 1)"
          >
            ×
          </button>
        </li>
      </ul>
      <form v-if="setup.may_plan && axes.length > 1" class="row" @submit.prevent="forbid">
        <select v-model="pair.a" class="field pick" aria-label="One value">
          <option value="">One value</option>
          <option v-for="o in options" :key="o.value" :value="o.value">{{ o.label }}</option>
        </select>
        <select v-model="pair.b" class="field pick" aria-label="The other value">
          <option value="">The other value</option>
          <option v-for="o in options" :key="o.value" :value="o.value">{{ o.label }}</option>
        </select>
        <button type="submit" class="link">Forbid</button>
      </form>
      <p v-if="problem || refusal" class="p-invalid-words" role="alert">
        {{ problem || errorMessage(refusal) }}
      </p>
      <p v-if="dirty && setup.may_plan" class="row">
        <Button label="Save the axes" @click="save" />
        <button type="button" class="link soft" @click="follow()">Leave them as they were</button>
      </p>
    </SetupSection>
    <SetupSection
      title="Configurations"
      term="configuration"
      :count="setup.configurations.length"
      what="One value of each axis, as entries are walked on them."
    >
      <p v-if="check" class="small" role="status">
        All combinations: <strong>{{ check.all_more ? `more than ${check.all}` : check.all }}</strong>. Every
        pair of values at least once: <strong>{{ check.pairs }}</strong>.
        {{ check.impossible.length > 0 ? `${plural(check.impossible.length, 'pair')} cannot meet.` : '' }}
      </p>
      <p v-if="check" class="small">
        The configurations below leave
        <button
          type="button"
          class="link"
          :disabled="check.untested.length === 0"
          :aria-expanded="showUntested"
          @click="showUntested = !showUntested"
        >
          {{ plural(check.untested.length, 'pair') }}
        </button>
        untested.
      </p>
      <p v-if="showUntested && check" class="small soft untested">{{ check.untested.join(' · ') }}</p>
      <table class="lines">
        <tbody>
          <tr v-for="c in setup.configurations" :key="c.id">
            <td>
              <input
                class="field quiet"
                :value="c.name"
                :aria-label="`Name of ${c.name}`"
                :disabled="!setup.may_plan"
                maxlength="200"
                @change="rename(c, ($event.target as HTMLInputElement).value)"
              />
            </td>
            <td class="soft small">
              {{ c.values.map((v) => `${v.axis}: ${v.name}`).join(', ') || 'without axes' }}
            </td>
            <td class="soft small nowrap">{{ c.entries ? plural(c.entries, 'entry', 'entries') : '' }}</td>
            <td>
              <button v-if="setup.may_plan" type="button" class="link soft" @click="remove(c)">
                Take out
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="setup.may_plan && setup.axes.length > 0" class="row">
        <button type="button" class="link" :disabled="dirty" @click="make('pairs')">
          Make those for all pairs
        </button>
        <button type="button" class="link" :disabled="dirty || check?.all_more" @click="make('all')">
          Make all combinations
        </button>
        <span v-if="dirty" class="soft small">Save the axes first.</span>
      </p>
      <form v-if="setup.may_plan && setup.axes.length > 0" class="row" @submit.prevent="make('one')">
        <select
          v-for="a in setup.axes"
          :key="a.id"
          v-model="one[a.name]"
          class="field pick"
          :aria-label="a.name"
        >
          <option :value="undefined">{{ a.name }}</option>
          <option v-for="v in a.values" :key="v.id" :value="v.name">{{ v.name }}</option>
        </select>
        <button type="submit" class="link">Make one</button>
      </form>
    </SetupSection>
  </div>
</template>

<style scoped>
.axis {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  padding-bottom: 10px;
}
.axis .name {
  width: 130px;
  font-weight: 700;
}
.value {
  display: inline-flex;
  align-items: center;
  gap: 4px;
}
.value .field {
  width: auto;
}
.value .link,
.pairs .link {
  min-width: 24px;
}
.pairs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
.pick {
  width: auto;
  max-width: 200px;
}
.quiet {
  border-color: transparent;
  background: none;
  padding-left: 0;
}
.quiet:hover,
.quiet:focus {
  border-color: var(--edge);
}
.untested {
  max-height: 120px;
  overflow: auto;
}
table.lines td {
  vertical-align: baseline;
}
.nowrap {
  white-space: nowrap;
}
</style>
