<script setup lang="ts">
import { computed } from 'vue';
import RequirementRows from '@/areas/coverage/parts/RequirementRows.vue';
import { readCoverageGrid } from '@/areas/coverage/queries';
import { isOpen, shownRows, type Lens } from '@/areas/coverage/tree';
import StateBox from '@/kit/StateBox.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { plural, wordOf } from '@/kit/words';
import { useRead } from '@/offline/useRead';

/** What each requirement shows on each build or configuration: the tree down, a mark for each across. */
const props = defineProps<{
  project: string;
  by: 'build' | 'configuration';
  lens: Lens;
  gaps: boolean;
  turned: ReadonlySet<string>;
}>();
const emit = defineEmits<{ turn: [id: string] }>();
const lit = defineModel<string>({ required: true });
const { data, error, isPending, refetch } = useRead(
  ['requirement', 'entry'],
  () => [props.project, 'coverage grid', props.by, props.lens],
  () => readCoverageGrid(props.project, props.by, props.lens),
  () => `coverage-grid:${props.project}:${props.by}:${JSON.stringify(props.lens)}`,
);
const grid = computed(() => (data.value?.by === props.by ? data.value : undefined));
const rows = computed(() => shownRows(grid.value?.rows ?? [], props.turned, props.gaps ? isOpen : null));
const width = computed(() => (props.by === 'build' ? 76 : 118));
const columns = computed(() => {
  const n = grid.value?.columns.length ?? 0;
  return {
    '--columns': `minmax(13rem, 1fr) repeat(${n}, ${width.value}px)`,
    '--least': `calc(13rem + ${n * (width.value + 12) + 20}px)`,
  };
});
const left = computed(() => (grid.value ? grid.value.all_columns - grid.value.columns.length : 0));
const cell = (key: string, column: string): { path: string; query: Record<string, string> } => ({
  path: `/${props.project}/coverage/${key}`,
  query: { ...props.lens, [props.by]: column },
});
</script>

<template>
  <StateBox v-if="!grid" :loading="isPending" :error="error" @again="refetch()" />
  <StateBox
    v-else-if="grid.columns.length === 0"
    :empty="`There is no ${by} through this lens. An admin names them in Setup.`"
  />
  <StateBox
    v-else-if="rows.length === 0"
    :empty="gaps ? 'Nothing is wanting here.' : 'Nothing was required yet.'"
  />
  <RequirementRows
    v-else
    v-model="lit"
    class="grid"
    :style="columns"
    :project="project"
    :rows="rows"
    :lens="lens"
    :label="by === 'build' ? 'Requirements by build' : 'Requirements by configuration'"
    @turn="(id) => emit('turn', id)"
  >
    <template #head>
      <span v-for="c in grid.columns" :key="c.id" role="columnheader" class="column" :title="c.name">{{
        c.name
      }}</span>
    </template>
    <template #cells="{ line }">
      <span v-for="(c, i) in grid.columns" :key="c.id" role="gridcell" class="column">
        <RouterLink
          :to="cell(line.row.key, c.id)"
          tabindex="-1"
          :title="`${c.name}: ${wordOf(line.row.states[i]!)}`"
          ><VerdictMark
            :shown="line.row.states[i]!"
            :label="`${line.row.key} on ${c.name}: ${wordOf(line.row.states[i]!)}`"
        /></RouterLink>
      </span>
    </template>
    <template #foot>
      <p class="soft small foot">
        Each column is the tree through this {{ by }} alone; a case that was not walked there counts as not
        run.
        <template v-if="left > 0"
          >{{ by === 'build' ? 'The newest are shown' : 'The first are shown' }}; {{ plural(left, by) }} more
          through a lens.</template
        >
      </p>
    </template>
  </RequirementRows>
</template>

<style scoped>
.column {
  text-align: center;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.column a {
  display: inline-grid;
  place-items: center;
  min-width: 32px;
  min-height: 28px;
  border-radius: 4px;
}
.column a:hover {
  background: var(--well);
}
.foot {
  padding: 8px;
}
</style>
