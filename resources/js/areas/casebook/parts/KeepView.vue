<script setup lang="ts">
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { createFilter, createSuite, removeFilter } from '@/areas/casebook/queries';
import { toast } from '@/kit/notices';
import type { Filter } from '@/kit/criteria';

/** How the list is shown, and keeping it under a name: as a filter, or as a suite that stays live. */
const props = defineProps<{
  project: string;
  frame: Api['CasebookFrame'];
  filter: Filter;
  sort: string;
  group: string;
  columns: string[];
}>();
const emit = defineEmits<{ set: [name: string, value: string | undefined]; changed: [] }>();
const open = ref(false);
const name = ref('');
const problem = ref('');
const COLUMNS = [
  { value: 'state', label: 'State' },
  { value: 'priority', label: 'Priority' },
  { value: 'type', label: 'Type' },
  { value: 'estimate', label: 'Estimate' },
  { value: 'owner', label: 'Owner' },
  { value: 'labels', label: 'Labels' },
  { value: 'folder', label: 'Folder' },
  { value: 'steps', label: 'Steps' },
  { value: 'walked', label: 'Walked' },
  { value: 'changed', label: 'Changed' },
];
const choices = computed(() => [
  ...COLUMNS,
  ...props.frame.fields.map((f) => ({ value: `field.${f.id}`, label: f.name })),
]);
const GROUPS = [
  { value: '', label: 'No groups' },
  { value: 'state', label: 'State' },
  { value: 'priority', label: 'Priority' },
  { value: 'type', label: 'Type' },
  { value: 'owner', label: 'Owner' },
];
function column(value: string): void {
  const next = props.columns.includes(value)
    ? props.columns.filter((c) => c !== value)
    : choices.value.map((c) => c.value).filter((c) => c === value || props.columns.includes(c));
  emit('set', 'columns', next.join(',') || undefined);
}
async function keep(as: 'filter' | 'shared' | 'suite'): Promise<void> {
  problem.value = '';
  try {
    if (as === 'suite')
      await createSuite(props.project, { name: name.value, kind: 'rule', filter: props.filter });
    else {
      const filter: Filter = { ...props.filter };
      if (props.sort) filter.sort = props.sort;
      if (props.group) filter.group = props.group;
      await createFilter(props.project, { name: name.value, shared: as === 'shared', filter });
    }
    toast(as === 'suite' ? `The suite "${name.value}" stays live.` : `Kept as "${name.value}".`);
    name.value = '';
    open.value = false;
    emit('changed');
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
async function drop(f: Api['SavedFilterLine']): Promise<void> {
  try {
    await removeFilter(f.id);
    emit('changed');
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
</script>

<template>
  <div class="view" @keydown.esc.stop="open = false">
    <button type="button" class="link" :aria-expanded="open" @click="open = !open">View</button>
    <div v-if="open" class="menu sheet">
      <fieldset>
        <legend class="label">Columns</legend>
        <label v-for="c in choices" :key="c.value"
          ><input type="checkbox" :checked="columns.includes(c.value)" @change="column(c.value)" />
          {{ c.label }}</label
        >
      </fieldset>
      <fieldset>
        <legend class="label">Groups</legend>
        <label v-for="g in GROUPS" :key="g.value"
          ><input
            type="radio"
            name="group"
            :checked="group === g.value"
            @change="emit('set', 'group', g.value || undefined)"
          />
          {{ g.label }}</label
        >
      </fieldset>
      <form class="keep" @submit.prevent="keep('filter')">
        <label class="label" for="keep-name">Keep this under a name</label>
        <input id="keep-name" v-model="name" class="field" maxlength="120" />
        <p class="row">
          <button type="submit" class="link" :disabled="!name.trim()">For me</button>
          <button
            v-if="frame.may_write"
            type="button"
            class="link"
            :disabled="!name.trim()"
            @click="keep('shared')"
          >
            For everybody
          </button>
          <button
            v-if="frame.may_write"
            type="button"
            class="link"
            :disabled="!name.trim()"
            @click="keep('suite')"
          >
            As a live suite
          </button>
        </p>
        <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      </form>
      <p v-for="f in frame.filters.filter((x) => x.mine)" :key="f.id" class="row small">
        <span class="long">{{ f.name }}</span><button type="button" class="link soft" @click="drop(f)">
          Drop
        </button>
      </p>
    </div>
  </div>
</template>

<style scoped>
.view {
  position: relative;
}
.menu {
  position: absolute;
  right: 0;
  top: 30px;
  z-index: 12;
  width: 320px;
  padding: 14px 16px;
  display: grid;
  gap: 14px;
  box-shadow: var(--float);
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
}
legend {
  padding: 0;
}
.keep {
  display: grid;
  gap: 6px;
}
</style>
