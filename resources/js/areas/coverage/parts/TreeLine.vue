<script setup lang="ts">
import type { RouteLocationRaw } from 'vue-router';
import CaseTrail from '@/areas/coverage/parts/CaseTrail.vue';
import { gapOf, type TreeRow } from '@/areas/coverage/tree';
import VerdictMark from '@/kit/VerdictMark.vue';
import { wordOf } from '@/kit/words';

/** A requirement as a row of the tree: what it shows, what it counts, its cases, and what is wanting. */
defineProps<{ line: TreeRow; project: string; to: RouteLocationRaw; lit: boolean; mayWrite: boolean }>();
const emit = defineEmits<{ turn: []; light: [] }>();
</script>

<template>
  <div
    class="line"
    :class="{ lit }"
    role="row"
    :aria-level="line.depth + 1"
    :aria-expanded="line.hasBelow ? line.open : undefined"
    :data-id="line.row.id"
  >
    <span class="name" role="gridcell" :style="{ paddingLeft: `${line.depth * 22}px` }">
      <button
        v-if="line.hasBelow"
        type="button"
        class="fold"
        :aria-label="`${line.open ? 'Close' : 'Open'} ${line.row.title}`"
        @click="emit('turn')"
      >
        {{ line.open ? '−' : '+' }}
      </button>
      <span v-else class="fold" />
      <span class="mono soft">{{ line.row.key }}</span>
      <RouterLink :to="to" :class="{ top: line.hasBelow }" :title="line.row.title" @focus="emit('light')">{{
        line.row.title
      }}</RouterLink>
    </span>
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
  </div>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: var(--columns);
  gap: 12px;
  align-items: center;
  min-height: 41px;
  padding: 4px 8px;
  border-bottom: 1px solid var(--rule);
}
.lit {
  box-shadow: inset 3px 0 0 var(--lantern);
  background: var(--sheet);
}
.name {
  display: flex;
  gap: 8px;
  align-items: center;
  min-width: 0;
}
.name a {
  color: var(--ink);
  text-decoration: none;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.name a:hover {
  text-decoration: underline;
}
.name a.top {
  font-weight: 700;
}
.mono {
  font-size: 0.87rem;
  white-space: nowrap;
}
.fold {
  width: 24px;
  min-height: 24px;
  flex: none;
  border: 0;
  background: none;
  font: inherit;
  color: var(--ink-soft);
  padding: 0;
  cursor: pointer;
}
.clip {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 900px) {
  .line {
    gap: 8px;
  }
  .wide,
  .name .mono {
    display: none;
  }
  .name a {
    white-space: normal;
  }
}
</style>
