<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import type { Api } from '@/api/client';
import { errorMessage } from '@/api/client';
import CaseTrail from '@/areas/coverage/parts/CaseTrail.vue';
import RequirementRows from '@/areas/coverage/parts/RequirementRows.vue';
import { moveRequirement } from '@/areas/coverage/queries';
import { gapOf, isGap, moved, shownRows, type Lens, type Row } from '@/areas/coverage/tree';
import VerdictMark from '@/kit/VerdictMark.vue';
import { plural, wordOf } from '@/kit/words';

/** What must hold as a tree, each with what it shows, what it counts, its cases, and what is wanting. */
const props = defineProps<{
  project: string;
  data: Api['CoverageTree'];
  lens: Lens;
  gaps: boolean;
  turned: ReadonlySet<string>;
  mayWrite: boolean;
  /** Reads anew what was changed. */
  renew: () => Promise<unknown>;
}>();
const emit = defineEmits<{ turn: [id: string] }>();
const lit = defineModel<string>({ required: true });
const rows = computed(() => shownRows(props.data.rows, props.turned, props.gaps ? isGap : null));
const list = ref<{ light: (id: string) => Promise<void> } | null>(null);
const problem = ref('');
async function put(id: string, parent: string | null, before: string | null): Promise<void> {
  problem.value = '';
  try {
    await moveRequirement(id, parent, before);
    await props.renew();
    await nextTick();
    await list.value?.light(id);
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
function arrow(row: Row, key: string): void {
  const to = moved(props.data.rows, row, key);
  if (to) void put(row.id, to.parent, to.before);
}
/** What is dragged goes below what it is dropped on. */
function drop(id: string, on: string | null): void {
  const row = props.data.rows.find((r) => r.id === id);
  if (row && row.parent_id !== on) void put(id, on, null);
}
</script>

<template>
  <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  <RequirementRows
    ref="list"
    v-model="lit"
    class="tree"
    :project="project"
    :rows="rows"
    :lens="lens"
    label="Requirements"
    :moves="mayWrite"
    @turn="(id) => emit('turn', id)"
    @arrow="arrow"
    @put="drop"
  >
    <template #head>
      <span role="columnheader"><span class="unseen">Shows</span></span
      ><span role="columnheader">Walked</span><span class="wide" role="columnheader">Its cases</span
      ><span class="wide" role="columnheader">Look at</span>
    </template>
    <template #cells="{ line }">
      <span role="gridcell"><VerdictMark :shown="line.row.state" /></span>
      <span class="small" role="gridcell">{{
        line.row.cases === 0 ? wordOf('uncovered') : `${line.row.walked} of ${line.row.cases}`
      }}</span>
      <span class="wide" role="gridcell"><CaseTrail :counts="line.row.case_counts" /></span>
      <span class="wide small soft clip" role="gridcell" :title="gapOf(line.row)">
        <RouterLink
          v-if="line.row.cases === 0 && !line.hasBelow && mayWrite"
          :to="`/${project}/casebook/new?requirement=${line.row.id}`"
          >Write a case</RouterLink
        >
        <template v-else-if="line.row.cases > 0">{{ gapOf(line.row) }}</template>
      </span>
    </template>
    <template #foot>
      <p class="soft small foot">
        {{ plural(data.cases, 'linked case') }}, {{ data.walked }} walked. A requirement shows the worst of
        its cases and of those below it.
        <template v-if="mayWrite"><kbd>Alt</kbd> and an arrow key moves one.</template>
      </p>
    </template>
  </RequirementRows>
</template>

<style scoped>
.tree {
  --columns: minmax(0, 1fr) 20px 96px 220px 190px;
}
.clip {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.foot {
  padding: 8px;
}
@media (max-width: 900px) {
  .tree {
    --columns: minmax(0, 1fr) 16px 76px;
  }
  .wide {
    display: none;
  }
}
</style>
