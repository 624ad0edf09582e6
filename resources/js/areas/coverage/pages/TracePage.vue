<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import TraceName from '@/areas/coverage/parts/TraceName.vue';
import { readTrace } from '@/areas/coverage/queries';
import { addressOf, countWords, linesOf, markOf, nextPlace, type Kind } from '@/areas/coverage/trace';
import KeyCap from '@/kit/KeyCap.vue';
import StateBox from '@/kit/StateBox.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { useKeys } from '@/kit/keys';
import { ago, exact, plainWords, type Shown } from '@/kit/words';
import { useRead } from '@/offline/useRead';

/** All that a thing is tied to: from what must hold, over cases and walks, down to the step, its defect and the picture that shows it. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const kind = computed(() => String(route.params.kind) as Kind);
const id = computed(() => String(route.params.id));
const { data, error, isPending, refetch } = useRead(
  ['requirement', 'case', 'cycle', 'entry', 'defect', 'session'],
  () => [project.value, 'trace', kind.value, id.value],
  () => readTrace(project.value, kind.value, id.value),
  () => `trace:${project.value}:${kind.value}:${id.value}`,
);
/** What is shown belongs to the address, not to the one before. */
const trace = computed(() => (data.value?.kind === kind.value ? data.value : undefined));
const lines = computed(() => linesOf(trace.value?.rows ?? []));
const root = ref<HTMLElement | null>(null);
const links = (): HTMLElement[] => [...(root.value?.querySelectorAll<HTMLElement>('[data-kind]') ?? [])];
function go(key: string): void {
  const all = links();
  const at = all.indexOf(document.activeElement as HTMLElement);
  const middles = all.map((l) => {
    const box = l.getBoundingClientRect();
    return { x: box.left, y: box.top + box.height / 2 };
  });
  const next = at === -1 ? 0 : nextPlace(middles, at, key);
  all[next]?.focus();
}
useKeys('Trace', () => [
  { keys: ['ArrowDown', 'j'], label: 'Down', run: () => go('ArrowDown') },
  { keys: ['ArrowUp', 'k'], label: 'Up', run: () => go('ArrowUp') },
  { keys: ['ArrowRight'], label: 'Towards the evidence', run: () => go('ArrowRight') },
  { keys: ['ArrowLeft'], label: 'Towards what must hold', run: () => go('ArrowLeft') },
  {
    keys: ['t'],
    label: 'Trace from the one that is lit',
    run: () => {
      const at = document.activeElement as HTMLElement | null;
      const { kind: of, id: its } = at?.dataset ?? {};
      if (of && its) void router.push(`/${project.value}/trace/${of}/${its}`);
    },
  },
]);
const sheet = computed(
  () =>
    `/api/v1/projects/${project.value}/trace-export?kind=${kind.value}&id=${encodeURIComponent(id.value)}`,
);
const stepWords = (round: number, step: number, rounds: boolean): string =>
  rounds ? `round ${round}, step ${step}` : `step ${step}`;
const severalRounds = computed(() => lines.value.some((l) => (l.row.round ?? 1) > 1));
</script>

<template>
  <div class="page trace">
    <StateBox v-if="!trace" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <div class="title-line">
        <h1>Trace</h1>
        <span class="long">
          <RouterLink
            v-if="kind !== 'evidence' && kind !== 'attempt'"
            :to="addressOf(project, kind, trace.of)"
            ><span class="mono">{{ trace.of.key }}</span> {{ trace.of.title }}</RouterLink
          >
          <template v-else
            ><span class="mono">{{ trace.of.key }}</span> {{ trace.of.title }}</template
          >
        </span>
        <div class="actions row">
          <a :href="sheet" class="soft small" aria-label="Take out as CSV">CSV</a>
        </div>
      </div>
      <p class="soft">
        {{ countWords(trace) || 'It is tied to nothing yet.' }}
        <template v-if="!trace.whole"> Defects and evidence are not for readers here.</template>
      </p>
      <div v-if="lines.length > 0" ref="root" class="scroll" tabindex="0" role="region" aria-label="Trace">
        <table>
          <thead class="soft small">
            <tr>
              <th scope="col">Must hold</th>
              <th scope="col">Case</th>
              <th scope="col">Walked in</th>
              <th scope="col">Attempt</th>
              <th scope="col">Step</th>
              <th scope="col">Defects</th>
              <th scope="col">Evidence</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="({ row, spans }, i) in lines" :key="i" :class="{ begins: spans.requirement > 0 }">
              <td v-if="spans.requirement > 0" :rowspan="spans.requirement">
                <TraceName
                  v-if="row.requirement"
                  :project="project"
                  kind="requirement"
                  :link="row.requirement"
                />
                <span v-else class="soft">–</span>
              </td>
              <td v-if="spans.case > 0" class="case" :rowspan="spans.case">
                <TraceName v-if="row.case" :project="project" kind="case" :link="row.case" />
                <span v-else class="soft">no case of its own</span>
              </td>
              <td v-if="spans.entry > 0" class="entry" :rowspan="spans.entry">
                <TraceName
                  v-if="row.entry"
                  :project="project"
                  kind="entry"
                  :link="row.entry"
                  :named="row.entry.key"
                  ><VerdictMark :shown="row.entry.state as Shown" />
                </TraceName>
                <span v-if="row.entry?.title" class="soft small">{{ row.entry.title }}</span>
                <span v-else-if="row.case" class="soft">in no cycle</span>
              </td>
              <td v-if="spans.attempt > 0" class="attempt" :rowspan="spans.attempt">
                <TraceName
                  v-if="row.attempt"
                  :project="project"
                  kind="attempt"
                  :link="row.attempt"
                  :entry="row.entry?.id ?? ''"
                  :named="`${row.attempt.key}. ${row.attempt.title ? `on ${row.attempt.title}` : ''}`"
                  ><VerdictMark v-if="markOf(row.attempt.state)" :shown="markOf(row.attempt.state)!" />
                </TraceName>
                <span v-if="row.attempt?.state === 'abandoned'" class="soft small">given up</span>
                <span v-if="row.finished_at" class="soft small" :title="exact(row.finished_at)">{{
                  ago(row.finished_at)
                }}</span>
              </td>
              <td class="step">
                <template v-if="row.step !== null"
                  ><VerdictMark :shown="row.step_verdict as Shown" />
                  {{ stepWords(row.round ?? 1, row.step, severalRounds) }}</template
                >
              </td>
              <td class="defects">
                <span v-for="d in row.defects" :key="d.id" class="one">
                  <TraceName :project="project" kind="defect" :link="d" />
                  <span class="soft small">{{ plainWords(d.state ?? '') }}</span>
                </span>
              </td>
              <td class="evidence">
                <TraceName
                  v-for="e in row.evidence"
                  :key="e.id"
                  class="one"
                  :project="project"
                  kind="evidence"
                  :link="e"
                  :entry="`${row.entry?.id}?attempt=${row.attempt?.id}`"
                />
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="trace.more" class="soft small">There is more than is shown here; the sheet has all of it.</p>
      <section v-if="trace.sessions.length > 0" aria-label="Sessions">
        <h2>Explored in</h2>
        <ul>
          <li v-for="s in trace.sessions" :key="s.charter.id">
            <TraceName :project="project" kind="session" :link="s.charter" />
            <span class="soft small"
              >{{ plainWords(s.charter.state ?? '') }}, {{ ago(s.started_at)
              }}<template v-if="s.requirement">
                · {{ s.requirement.key }} {{ s.requirement.title }}</template
              ></span
            >
            <span v-if="s.cases.length + s.defects.length > 0" class="came small"
              >of it came
              <TraceName v-for="c in s.cases" :key="c.id" :project="project" kind="case" :link="c" />
              <TraceName v-for="d in s.defects" :key="d.id" :project="project" kind="defect" :link="d" />
            </span>
          </li>
        </ul>
      </section>
      <p class="soft small foot">
        Arrow keys walk it, <KeyCap of="Enter" /> opens what is lit, <KeyCap of="t" /> traces from there.
      </p>
    </template>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  margin: 8px -4px 0;
  padding: 0 4px;
}
table {
  border-collapse: collapse;
  width: 100%;
  min-width: 60rem;
  table-layout: fixed;
}
th:nth-child(1),
th:nth-child(2) {
  width: 19%;
}
th:nth-child(3) {
  width: 18%;
}
th:nth-child(4) {
  width: 10%;
}
th:nth-child(5) {
  width: 8%;
}
th:nth-child(7) {
  width: 11%;
}
/* What goes over many rows stays in sight as long as they do. */
td > .name:first-child {
  position: sticky;
  top: 8px;
}
th {
  text-align: left;
  font-weight: 400;
  padding: 4px 12px 4px 0;
  border-bottom: 1px solid var(--ink);
}
td {
  vertical-align: top;
  padding: 8px 12px 8px 0;
  border-bottom: 1px solid var(--rule);
}
.begins > td {
  border-top: 1px solid var(--edge);
}
.step {
  white-space: nowrap;
}
.one + .one {
  margin-top: 6px;
}
.one {
  display: block;
}
section {
  margin-top: 26px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: baseline;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
.came {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
}
.foot {
  margin-top: 14px;
}
/* As an outline: each thing below what it belongs to. */
@media (max-width: 760px) {
  table,
  tbody,
  tr,
  td {
    display: block;
    min-width: 0;
  }
  thead,
  td:empty {
    display: none;
  }
  td {
    border: 0;
    padding: 4px 0;
  }
  tr {
    border-bottom: 1px solid var(--rule);
    padding: 4px 0;
  }
  tr.begins {
    border-top: 1px solid var(--edge);
  }
  td > .name:first-child {
    position: static;
  }
  .begins > td {
    border-top: 0;
  }
  td.case {
    padding-left: 14px;
  }
  td.entry {
    padding-left: 28px;
  }
  td.attempt,
  td.step,
  td.defects,
  td.evidence {
    padding-left: 42px;
  }
}
</style>
