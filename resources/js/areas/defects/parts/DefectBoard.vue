<script setup lang="ts">
import { useQueries } from '@tanstack/vue-query';
import { computed, nextTick, ref } from 'vue';
import { useRouter } from 'vue-router';
import { errorMessage, Problem, type Api } from '@/api/client';
import { MOVES, type Move, type State } from '@/areas/defects/life';
import { findDefects, moveDefect, readDefect } from '@/areas/defects/queries';
import DefectMove from '@/areas/defects/parts/DefectMove.vue';
import { toast } from '@/kit/notices';
import SelectField from '@/kit/SelectField.vue';
import { plainWords } from '@/kit/words';

/**
 * Defects by state. A card is dragged, moved by Alt and an arrow, or by its own list; what a move asks for is asked, and one that is
 * refused says why and stays.
 */
const props = defineProps<{
  project: string;
  filter: Record<string, string>;
  builds: Api['Named'][];
  mayWork: boolean;
}>();
const router = useRouter();
const OPEN: State[] = ['new', 'reopened', 'accepted', 'needs_information', 'in_work', 'fixed', 'verified'];
/** Asked for by the filter, or those that somebody has to act on, and what was proven. */
const states = computed<State[]>(() => {
  const asked = (props.filter.state ?? '').split(',').filter((s): s is State => s in MOVES);
  return asked.length > 0 ? asked : OPEN;
});
const columns = useQueries({
  queries: computed(() =>
    states.value.map((state) => ({
      queryKey: ['live', 'defect', 'defect-board', props.project, props.filter, state],
      queryFn: () => findDefects(props.project, { ...props.filter, state, sort: 'severity' }),
    })),
  ),
});
const problem = ref('');
const asking = ref<{ detail: Api['DefectDetail']; move: Move } | null>(null);
const dragged = ref<Api['DefectLine'] | null>(null);
const over = ref<State | null>(null);
const refetch = (): void => columns.value.forEach((c) => void c.refetch());

async function move(d: Api['DefectLine'], to: State): Promise<void> {
  if (to === d.state || !props.mayWork) return;
  problem.value = '';
  asking.value = null;
  try {
    const now = await moveDefect(d.key, { state: to, seen: d.state });
    moved(now);
  } catch (e) {
    // What is missing is asked for here; what is refused says why.
    if (e instanceof Problem && Object.keys(e.errors).length > 0)
      asking.value = { detail: await readDefect(d.key), move: { to, word: MOVES[to] } };
    else
      problem.value = `${d.key}: ${e instanceof Problem && e.status === 403 ? 'you may not move it there.' : errorMessage(e)}`;
    refetch();
  }
}
function moved(now: Api['DefectDetail']): void {
  asking.value = null;
  toast(`${now.defect.key}: ${plainWords(now.defect.state).toLowerCase()}.`);
  refetch();
  void nextTick(() => document.getElementById(`card-${now.defect.key}`)?.focus());
}
function step(d: Api['DefectLine'], by: number): void {
  const to = states.value[states.value.indexOf(d.state) + by];
  if (to) void move(d, to);
}
/** Up and down within a column, left and right to the next. */
function focus(column: number, row: number): void {
  const lines = columns.value[column]?.data?.items;
  const at = lines?.[Math.max(0, Math.min(row, lines.length - 1))];
  if (at) document.getElementById(`card-${at.key}`)?.focus();
}
function onKey(event: KeyboardEvent, d: Api['DefectLine'], column: number, row: number): void {
  const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  if (by !== undefined && event.altKey) step(d, by);
  else if (by !== undefined) focus(column + by, row);
  else if (event.key === 'ArrowDown') focus(column, row + 1);
  else if (event.key === 'ArrowUp') focus(column, row - 1);
  else if (event.key === 'Enter') void router.push(`/${props.project}/defects/${d.key}`);
  else return;
  event.preventDefault();
}
/** Some browsers carry nothing that holds nothing. */
function lift(event: DragEvent, d: Api['DefectLine']): void {
  dragged.value = d;
  event.dataTransfer?.setData('text/plain', d.key);
}
function drop(to: State): void {
  over.value = null;
  if (dragged.value) void move(dragged.value, to);
  dragged.value = null;
}
const others = (d: Api['DefectLine']) =>
  (Object.keys(MOVES) as State[])
    .filter((s) => s !== d.state)
    .map((s) => ({ value: s, label: plainWords(s) }));
</script>

<template>
  <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  <p v-if="asking" class="hint long">
    <span class="mono">{{ asking.detail.defect.key }}</span> {{ asking.detail.defect.title }}
  </p>
  <DefectMove
    v-if="asking"
    :key="`${asking.detail.defect.key}${asking.move.to}`"
    :detail="asking.detail"
    :builds="builds"
    :move="asking.move"
    @moved="moved"
    @leave="asking = null"
    @stale="refetch"
  />
  <p v-if="mayWork" class="soft small hint">
    Drag a card, or move it by <kbd>Alt</kbd> with <kbd>←</kbd> or <kbd>→</kbd>.
  </p>
  <div class="board" :style="{ '--columns': states.length }">
    <section
      v-for="(state, at) in states"
      :key="state"
      :aria-label="plainWords(state)"
      :class="{ over: over === state }"
      @dragover.prevent="over = state"
      @dragleave="over = null"
      @drop.prevent="drop(state)"
    >
      <h2>
        {{ plainWords(state) }} <span class="soft">{{ columns[at]?.data?.total ?? '' }}</span>
      </h2>
      <p v-if="columns[at]?.error" class="p-invalid-words small" role="alert">
        {{ errorMessage(columns[at]!.error) }}
      </p>
      <ul>
        <li v-for="(d, row) in columns[at]?.data?.items ?? []" :key="d.id">
          <article
            :id="`card-${d.key}`"
            class="sheet"
            tabindex="0"
            :draggable="mayWork"
            :aria-label="`${d.key} ${d.title}`"
            @dragstart="lift($event, d)"
            @dragend="dragged = null"
            @keydown.self="onKey($event, d, at, row)"
          >
            <span class="row first"
              ><RouterLink class="mono" :to="`/${project}/defects/${d.key}`">{{ d.key }}</RouterLink
              ><span class="soft small">{{ plainWords(d.severity) }}</span></span
            >
            <span class="title">{{ d.title }}</span>
            <span class="row last"
              ><span class="soft small">{{ d.assignee?.name ?? 'nobody' }}</span
              ><SelectField
                v-if="mayWork"
                small
                hide-label
                :label="`Move ${d.key}`"
                none="Move"
                :options="others(d)"
                :model-value="null"
                @update:model-value="$event && move(d, $event as State)"
            /></span>
          </article>
        </li>
      </ul>
      <p v-if="(columns[at]?.data?.total ?? 0) > (columns[at]?.data?.items.length ?? 0)" class="soft small">
        and {{ columns[at]!.data!.total - columns[at]!.data!.items.length }} more; narrow them
      </p>
    </section>
  </div>
</template>

<style scoped>
.board {
  display: grid;
  grid-template-columns: repeat(var(--columns), minmax(10rem, 1fr));
  gap: 10px;
  overflow-x: auto;
  padding-bottom: 10px;
}
section {
  background: var(--well);
  border-radius: 6px;
  padding: 10px 8px;
  min-width: 0;
  min-height: 12rem;
}
.over {
  box-shadow: inset 0 0 0 2px var(--dusk);
}
h2 {
  font-size: 1rem;
  margin: 0 4px 8px;
}
ul,
article {
  display: grid;
  gap: 8px;
}
article {
  padding: 8px 10px;
  gap: 4px;
}
article[draggable='true'] {
  cursor: grab;
}
.first,
.last {
  justify-content: space-between;
  flex-wrap: nowrap;
  gap: 6px;
}
.last {
  flex-wrap: wrap;
}
.last :deep(.alone) {
  flex: none;
}
.hint {
  margin: 8px 0;
}
.title {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 4;
  line-clamp: 4;
  overflow: hidden;
  overflow-wrap: anywhere;
}
</style>
