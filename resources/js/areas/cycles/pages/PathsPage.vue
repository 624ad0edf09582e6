<script setup lang="ts">
import { graphlib, layout } from '@dagrejs/dagre';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import StateBox from '@/kit/StateBox.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { entryWords, plural, shownOf } from '@/kit/words';
import CycleHead from '@/areas/cycles/parts/CycleHead.vue';
import { useRead } from '@/offline/useRead';
import { type Line, readEntries } from '@/areas/cycles/queries';
import { conditionWords, usePlan } from '@/areas/cycles/usePlan';

/** What waits for what, in layers from left to right: what is held, ready and done. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const key = computed(() => String(route.params.cycle));
const { data, error, isPending, refetch } = usePlan(key);
const [WIDTH, HEIGHT] = [224, 62];
const MOST = 400;
const { data: found } = useRead(
  'entry',
  () => ['paths', key.value],
  async () => readEntries(key.value, { joined: 'yes', size: MOST }),
);
const joined = computed(() => found.value?.items ?? []);
const total = computed(() => found.value?.total ?? 0);
const byId = computed(() => new Map(joined.value.map((e) => [e.id, e])));
const picture = computed(() => {
  const shown = joined.value;
  const ids = new Set(shown.map((e) => e.id));
  const graph = new graphlib.Graph();
  graph.setGraph({ rankdir: 'LR', nodesep: 16, ranksep: 90, marginx: 4, marginy: 4 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const e of shown) graph.setNode(e.id, { width: WIDTH, height: HEIGHT });
  for (const e of shown) for (const n of e.needs) if (ids.has(n.needs_id)) graph.setEdge(n.needs_id, e.id);
  layout(graph);
  const place = (id: string): { x: number; y: number } => {
    const node = graph.node(id) as { x?: number; y?: number };
    return { x: (node.x ?? 0) - WIDTH / 2, y: (node.y ?? 0) - HEIGHT / 2 };
  };
  const edges = shown.flatMap((e) =>
    e.needs
      .filter((n) => ids.has(n.needs_id))
      .map((n) => {
        const points =
          (graph.edge(n.needs_id, e.id) as { points?: { x: number; y: number }[] } | undefined)?.points ?? [];
        return {
          id: `${n.needs_id} ${e.id}`,
          kind: n.kind,
          path: points.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join(' '),
        };
      }),
  );
  const size = graph.graph() as { width?: number; height?: number };
  return {
    nodes: shown.map((e) => ({ e, ...place(e.id) })),
    edges,
    width: size.width ?? 0,
    height: size.height ?? 0,
  };
});
const word = (e: Line): string =>
  e.readiness === 'done'
    ? 'done'
    : e.readiness === 'held'
      ? 'held'
      : e.display_state === 'in_progress'
        ? 'walking'
        : 'ready';
const counts = computed(() => {
  const out = { done: 0, ready: 0, held: 0 };
  for (const e of joined.value) out[e.readiness]++;
  return out;
});
const nameOf = (id: string): string => byId.value.get(id)?.case_key ?? 'an entry that is gone';
</script>

<template>
  <div class="page">
    <StateBox v-if="!data || !found" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <CycleHead :project="project" :cycle="data.cycle.cycle" :next="data.cycle.next" @moved="refetch()" />
      <StateBox
        v-if="joined.length === 0"
        empty="No entry waits for another. Conditions are set in the plan: choose entries and say what they wait for."
      >
        <RouterLink v-if="data.may_plan" :to="`/${project}/cycles/${key}/plan`">To the plan</RouterLink>
      </StateBox>
      <template v-else>
        <p class="soft" role="status">
          {{ plural(total, 'entry', 'entries') }} joined by conditions<template v-if="total > joined.length"
            >; the first {{ joined.length }} are drawn, of them</template
          ><template v-else>:</template> {{ counts.done }} done, {{ counts.ready }} ready,
          {{ counts.held }} held.
          <span class="legend"
            ><svg width="34" height="8" aria-hidden="true"><path d="M0 4h34" class="edge" /></svg> only if
            passed
            <svg width="34" height="8" aria-hidden="true"><path d="M0 4h34" class="edge after" /></svg>
            after</span
          >
        </p>
        <div class="scroll box" tabindex="0" role="group" aria-label="What waits for what">
          <div class="canvas" :style="{ width: `${picture.width}px`, height: `${picture.height}px` }">
            <svg :width="picture.width" :height="picture.height" aria-hidden="true">
              <defs>
                <marker
                  id="tip"
                  viewBox="0 0 8 8"
                  refX="7"
                  refY="4"
                  markerWidth="7"
                  markerHeight="7"
                  orient="auto"
                >
                  <path d="M0 0 8 4 0 8z" class="tip" />
                </marker>
              </defs>
              <path
                v-for="e in picture.edges"
                :key="e.id"
                :d="e.path"
                class="edge"
                :class="{ after: e.kind === 'after' }"
                marker-end="url(#tip)"
              />
            </svg>
            <RouterLink
              v-for="n in picture.nodes"
              :key="n.e.id"
              class="node plain"
              :class="word(n.e)"
              :style="{ left: `${n.x}px`, top: `${n.y}px` }"
              :to="`/${project}/entries/${n.e.id}`"
              :title="
                n.e.needs.map((x) => conditionWords(x.kind, nameOf(x.needs_id))).join(', ') ||
                'waits for nothing'
              "
            >
              <span class="row small"
                ><VerdictMark :shown="shownOf(n.e)" :label="entryWords(n.e)" /><span class="mono"
                  >#{{ n.e.position }} {{ n.e.case_key }}</span
                ><span class="word">{{ word(n.e) }}</span></span
              >
              <span class="name">{{ n.e.title }}</span>
            </RouterLink>
          </div>
        </div>
      </template>
    </template>
  </div>
</template>

<style scoped>
.legend {
  margin-left: 16px;
  white-space: nowrap;
}
.box {
  margin-top: 12px;
  max-height: calc(100vh - 240px);
  overflow: auto;
}
.canvas {
  position: relative;
}
.canvas > svg {
  display: block;
}
.edge {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.5;
}
.edge.after {
  stroke-dasharray: 5 4;
}
.tip {
  fill: var(--ink-soft);
}
.node {
  position: absolute;
  width: 224px;
  height: 62px;
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-radius: 6px;
  padding: 6px 10px;
  display: grid;
  gap: 2px;
}
.node .row {
  gap: 6px;
  flex-wrap: nowrap;
}
.node .word {
  margin-left: auto;
}
.node.ready {
  border-color: var(--ink);
  border-width: 2px;
  padding: 5px 9px;
}
.node.held {
  border-style: dashed;
}
.node.done {
  background: var(--well);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
