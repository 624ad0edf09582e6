<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import { createFilter, createSuite, removeFilter } from '@/areas/casebook/queries';
import type { Filter } from '@/kit/criteria';
import { toast } from '@/kit/notices';
import ViewMenu from '@/kit/ViewMenu.vue';

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
const ways = computed(() => [
  { value: 'filter', label: 'For me' },
  ...(props.frame.may_write
    ? [
        { value: 'shared', label: 'For everybody' },
        { value: 'suite', label: 'As a live suite' },
      ]
    : []),
]);
async function keep(as: string, name: string): Promise<void> {
  if (as === 'suite') await createSuite(props.project, { name, kind: 'rule', filter: props.filter });
  else {
    const filter: Filter = { ...props.filter };
    if (props.sort) filter.sort = props.sort;
    if (props.group) filter.group = props.group;
    await createFilter(props.project, { name, shared: as === 'shared', filter });
  }
  toast(as === 'suite' ? `The suite "${name}" stays live.` : `Kept as "${name}".`);
  emit('changed');
}
async function drop(id: string): Promise<void> {
  await removeFilter(id);
  emit('changed');
}
</script>

<template>
  <ViewMenu
    :choices="choices"
    :columns="columns"
    :groups="GROUPS"
    :group="group"
    :ways="ways"
    :kept="frame.filters.filter((f) => f.mine)"
    :keep="keep"
    :drop="drop"
    @set="(name, value) => emit('set', name, value)"
  />
</template>
