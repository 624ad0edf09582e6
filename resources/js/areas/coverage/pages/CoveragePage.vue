<script setup lang="ts">
import Button from 'primevue/button';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage } from '@/api/client';
import LensBar from '@/areas/coverage/parts/LensBar.vue';
import NewRequirement from '@/areas/coverage/parts/NewRequirement.vue';
import TreeLine from '@/areas/coverage/parts/TreeLine.vue';
import { moveRequirement, readCoverage } from '@/areas/coverage/queries';
import { answer, lensOf, moved, shownRows, type Row } from '@/areas/coverage/tree';
import { may } from '@/areas/people/session';
import KeyCap from '@/kit/KeyCap.vue';
import StateBox from '@/kit/StateBox.vue';
import { useKeys } from '@/kit/keys';
import { useListState } from '@/kit/useListState';
import { exact, plural } from '@/kit/words';
import { useRead } from '@/offline/useRead';

/** What must hold, as a tree, each with what is proven of it; walked and moved by keys. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { filter, set } = useListState();
const lens = computed(() => lensOf(filter.value));
const gaps = computed(() => filter.value.gaps !== undefined);
const { data, error, isPending, refetch } = useRead(
  // What is walked meanwhile is seen too.
  ['requirement', 'entry'],
  () => [project.value, 'coverage', lens.value],
  () => readCoverage(project.value, lens.value),
  () => `coverage:${project.value}:${JSON.stringify(lens.value)}`,
);
const mayWrite = computed(() => may(project.value, 'write_cases'));
const turned = ref(new Set<string>());
const rows = computed(() => shownRows(data.value?.rows ?? [], turned.value, gaps.value));
const lit = ref('');
const problem = ref('');

const root = ref<HTMLElement | null>(null);
const virtual = useVirtualizer(
  computed(() => {
    // The rows come after the page: what they scroll in is looked for anew then.
    const scrolls = root.value;
    return {
      count: rows.value.length,
      getScrollElement: () => scrolls,
      estimateSize: () => 41,
      overscan: 12,
      getItemKey: (i: number) => rows.value[i]?.row.id ?? i,
    };
  }),
);
/** A few are all there, to be found and printed; of many those in sight. */
const MANY = 200;
const isMany = computed(() => rows.value.length > MANY);
const drawn = computed(() =>
  isMany.value
    ? virtual.value
        .getVirtualItems()
        .map((v) => ({ index: v.index, style: { transform: `translateY(${v.start}px)` } }))
    : rows.value.map((_, index) => ({ index, style: {} })),
);
const at = computed(() => rows.value.findIndex((r) => r.row.id === lit.value));
async function light(index: number): Promise<void> {
  const row = rows.value[Math.max(0, Math.min(index, rows.value.length - 1))];
  if (!row) return;
  lit.value = row.row.id;
  if (isMany.value) virtual.value.scrollToIndex(rows.value.indexOf(row));
  await nextTick();
  root.value
    ?.querySelector<HTMLElement>(`[data-id="${row.row.id}"] a`)
    ?.focus({ preventScroll: isMany.value });
}
function turn(id: string): void {
  const next = new Set(turned.value);
  if (!next.delete(id)) next.add(id);
  turned.value = next;
}
async function put(row: Row, parent: string | null, before: string | null): Promise<void> {
  problem.value = '';
  try {
    await moveRequirement(row.id, parent, before);
    await refetch();
    await light(rows.value.findIndex((r) => r.row.id === row.id));
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
function onKey(event: KeyboardEvent): void {
  const here = rows.value[at.value];
  if (!here || !event.key.startsWith('Arrow')) return;
  const { row } = here;
  if (event.altKey) {
    const to = mayWrite.value ? moved(data.value?.rows ?? [], row, event.key) : null;
    event.preventDefault();
    if (to) void put(row, to.parent, to.before);
    return;
  }
  if (event.key === 'ArrowRight' && here.hasBelow && !here.open) turn(row.id);
  else if (event.key === 'ArrowLeft' && here.hasBelow && here.open) turn(row.id);
  else if (event.key === 'ArrowLeft' && row.parent_id)
    void light(rows.value.findIndex((r) => r.row.id === row.parent_id));
  else return;
  event.preventDefault();
}
/** What is dragged goes below what it is dropped on. */
const over = ref('');
function drop(event: DragEvent, target: Row | null): void {
  over.value = '';
  const id = event.dataTransfer?.getData('application/x-requirement');
  const row = data.value?.rows.find((r) => r.id === id);
  if (row && row.id !== target?.id && row.parent_id !== (target?.id ?? null))
    void put(row, target?.id ?? null, null);
}

const writing = ref(false);
/** The one that was lit when writing began. */
const below = ref<Row>();
const form = ref<InstanceType<typeof NewRequirement> | null>(null);
function begin(): void {
  if (!mayWrite.value) return;
  if (!writing.value) below.value = rows.value[at.value]?.row;
  writing.value = true;
  form.value?.focus();
}
const to = (row: Row): { path: string; query: Record<string, string> } => ({
  path: `/${project.value}/coverage/${row.key}`,
  query: { ...lens.value },
});
watch(project, () => (lit.value = ''));
useKeys('Coverage', () => [
  { keys: ['j', 'ArrowDown'], label: 'Next', run: () => void light(at.value + 1) },
  { keys: ['k', 'ArrowUp'], label: 'Before', run: () => void light(Math.max(0, at.value - 1)) },
  {
    keys: ['Enter'],
    label: 'Open it',
    run: () => {
      const row = rows.value[at.value]?.row;
      if (row) void router.push(to(row));
    },
  },
  { keys: ['w'], label: 'Only what is wanting', run: () => set('gaps', gaps.value ? undefined : 'yes') },
  ...(mayWrite.value ? [{ keys: ['n'], label: 'New requirement, below the lit one', run: begin }] : []),
]);
</script>

<template>
  <div class="page coverage">
    <div class="title-line">
      <h1>Coverage</h1>
      <span v-if="data" class="soft" :title="`As of ${exact(data.as_of)}`">{{ answer(data) }}</span>
      <div class="actions row">
        <RouterLink v-if="mayWrite" :to="`/${project}/coverage/import`">Bring in</RouterLink>
        <a
          v-for="f in ['CSV', 'XLSX', 'ReqIF', 'JSON']"
          :key="f"
          class="soft small"
          :href="`/api/v1/projects/${project}/requirement-export?format=${f.toLowerCase()}`"
          :aria-label="`Take out as ${f}`"
          >{{ f }}</a
        >
        <Button v-if="mayWrite" outlined severity="secondary" @click="begin"
          >New requirement <KeyCap of="n"
        /></Button>
      </div>
    </div>
    <div v-if="data" class="row tools">
      <LensBar
        :lenses="data.lenses"
        :lens="lens"
        @set="(name, value) => set(name, value === '' ? undefined : value)"
      />
      <button
        type="button"
        class="link gaps"
        :aria-pressed="gaps"
        @click="set('gaps', gaps ? undefined : 'yes')"
      >
        {{ gaps ? 'All requirements' : 'Only what is wanting' }} <KeyCap of="w" />
      </button>
    </div>
    <NewRequirement
      v-if="writing"
      ref="form"
      :project="project"
      :below="below"
      @made="refetch()"
      @leave="writing = false"
    />
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <StateBox
      v-else-if="data.rows.length === 0"
      empty="Nothing is required yet. Write what must hold, or bring it in; cases linked to it show what is proven."
    >
      <Button v-if="mayWrite" @click="begin">Write the first</Button>
    </StateBox>
    <StateBox
      v-else-if="rows.length === 0"
      empty="Nothing is wanting here: every requirement is proven through this lens."
    />
    <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions -->
    <div v-else class="board" @keydown="onKey" @dragover.prevent @drop.prevent="drop($event, null)">
      <div class="head soft small" aria-hidden="true">
        <span>Requirement</span><span /><span>Walked</span><span class="wide">Its cases</span
        ><span class="wide">Look at</span>
      </div>
      <div ref="root" class="rows" role="treegrid" aria-label="Requirements" tabindex="-1">
        <div
          :style="isMany ? { height: `${virtual.getTotalSize()}px` } : {}"
          class="all"
          :class="{ many: isMany }"
          role="rowgroup"
        >
          <div
            v-for="v in drawn"
            :key="rows[v.index]!.row.id"
            :ref="(el) => isMany && virtual.measureElement(el as Element)"
            class="place"
            :class="{ over: rows[v.index]!.row.id === over }"
            :data-index="v.index"
            role="presentation"
            :style="v.style"
            :draggable="mayWrite"
            @dragstart="$event.dataTransfer?.setData('application/x-requirement', rows[v.index]!.row.id)"
            @dragover.prevent.stop="over = rows[v.index]!.row.id"
            @dragleave="over = ''"
            @drop.prevent.stop="drop($event, rows[v.index]!.row)"
          >
            <TreeLine
              :line="rows[v.index]!"
              :project="project"
              :to="to(rows[v.index]!.row)"
              :lit="rows[v.index]!.row.id === lit"
              :may-write="mayWrite"
              @turn="turn(rows[v.index]!.row.id)"
              @light="lit = rows[v.index]!.row.id"
            />
          </div>
        </div>
      </div>
      <p class="soft small foot">
        {{ plural(data.cases, 'linked case') }}, {{ data.walked }} walked. A requirement shows the worst of
        its cases and of those below it.
        <template v-if="mayWrite"><kbd>Alt</kbd> and an arrow key moves one.</template>
      </p>
    </div>
  </div>
</template>

<style scoped>
.coverage {
  --columns: minmax(0, 1fr) 20px 96px 220px 190px;
  display: flex;
  flex-direction: column;
  height: calc(100dvh - 49px);
  padding-bottom: 8px;
}
.tools {
  justify-content: space-between;
  margin: 4px 0 10px;
}
.board {
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
}
.head {
  display: grid;
  grid-template-columns: var(--columns);
  gap: 12px;
  overflow: hidden;
  scrollbar-gutter: stable;
  padding: 4px 8px;
  border-bottom: 1px solid var(--ink);
}
.rows {
  overflow: auto;
  scrollbar-gutter: stable;
  min-height: 0;
  flex: 1;
}
.all {
  position: relative;
}
.many .place {
  position: absolute;
  top: 0;
  left: 0;
  width: 100%;
}
.place.over {
  outline: 2px solid var(--dusk);
  outline-offset: -2px;
}
.foot {
  padding: 8px;
}
@media (max-width: 900px) {
  .coverage {
    --columns: minmax(0, 1fr) 16px 76px;
    height: auto;
  }
  .head {
    gap: 8px;
  }
  .wide {
    display: none;
  }
  .rows {
    flex: none;
    height: 70dvh;
  }
}
</style>
