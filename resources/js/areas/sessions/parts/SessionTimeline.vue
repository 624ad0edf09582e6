<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { useRouter } from 'vue-router';
import CaptureLine from '@/areas/sessions/parts/CaptureLine.vue';
import { removeLine } from '@/areas/sessions/queries';
import { foldRows, pagesOf } from '@/areas/sessions/folds';
import { KINDS, type ShownLine } from '@/areas/sessions/types';
import type { RunningSession } from '@/areas/sessions/useTestSession';
import type { Api } from '@/api/client';
import MarkdownText from '@/kit/MarkdownText.vue';
import { useKeys } from '@/kit/keys';
import RemoveWords from '@/kit/RemoveWords.vue';
import { ago, clock, exact } from '@/kit/words';

/** What happened, oldest above. An issue stands out by its shape; what was observed is quieter. */
const props = defineProps<{
  session: RunningSession;
  lines: ShownLine[];
  /** Observed acts are folded into runs. */
  folded: boolean;
  /** Where what led to a line is shown. */
  linesAt: string;
  /** What came of lines. */
  repros: Api['ReproDetail'][];
  mayMend: boolean;
  mayRemove: boolean;
}>();
const router = useRouter();
const root = ref<HTMLElement | null>(null);
const cameOf = (line: ShownLine): Api['ReproDetail'] | undefined =>
  props.repros.find((r) => r.line_id === line.id && (r.defect || r.case_key));
const letterOf = (line: ShownLine): string => KINDS.find((k) => k.kind === line.kind)?.letter ?? '';
const wordOf = (line: ShownLine): string =>
  KINDS.find((k) => k.kind === line.kind)?.word ?? (line.kind === 'capture' ? 'Capture' : 'Observed');
const opened = ref(new Set<string>());
const shown = computed(() =>
  props.folded
    ? foldRows(props.lines, opened.value)
    : props.lines.map((line) => ({ key: line.id, line, fold: undefined })),
);
const virtual = useVirtualizer(
  computed(() => ({
    count: shown.value.length,
    getScrollElement: () => root.value,
    estimateSize: () => 40,
    overscan: 12,
    getItemKey: (i: number) => shown.value[i]?.key ?? i,
  })),
);
const rows = computed(() => virtual.value.getVirtualItems());
/** The newest line is in sight while one stands at the foot. */
let atFoot = true;
const seeFoot = (): void => {
  const el = root.value;
  if (el) atFoot = el.scrollHeight - el.scrollTop - el.clientHeight < 60;
};
watch(
  () => shown.value.length,
  async () => {
    if (!atFoot) return;
    await nextTick();
    virtual.value.scrollToIndex(shown.value.length - 1, { align: 'end' });
  },
  { immediate: true, flush: 'post' },
);

function open(run: string): void {
  opened.value = new Set([...opened.value, run]);
}

/** One key leads from the last issue to what led there. */
const lastIssue = computed(
  () => props.lines.filter((l) => l.kind === 'issue' && !l.waiting && !l.removed).at(-1)?.id ?? '',
);
const project = computed(() => props.linesAt.split('/sessions/')[0]!);
useKeys('Timeline', () =>
  lastIssue.value && props.mayMend
    ? [
        {
          keys: ['Alt+D'],
          label: 'What led to the last issue',
          run: () => void router.push(`${props.linesAt}/${lastIssue.value}`),
        },
      ]
    : [],
);

const mending = ref('');
const mended = ref('');
async function save(line: ShownLine): Promise<void> {
  if (await props.session.mend(line.id, { words: mended.value.trim() })) mending.value = '';
}
</script>

<template>
  <div ref="root" class="timeline" tabindex="0" aria-label="Timeline" role="log" @scroll.passive="seeFoot">
    <ol :style="{ height: `${virtual.getTotalSize()}px` }">
      <li
        v-for="row in rows"
        :key="String(row.key)"
        :ref="(el) => virtual.measureElement(el as Element)"
        :data-index="row.index"
        :style="{ transform: `translateY(${row.start}px)` }"
      >
        <div
          v-for="run in [shown[row.index]!.fold].filter((f) => f !== undefined)"
          :key="run[0]!.id"
          class="line seen"
        >
          <span class="mono soft at">{{ clock(run[0]!.at_ms) }}</span>
          <span class="kind bar" />
          <p class="said">
            {{ run.length }} acts on <span class="mono">{{ pagesOf(run) }}</span>{{ ' ' }}
            <button type="button" class="link" @click="open(run[0]!.id)">show</button>
          </p>
        </div>
        <div
          v-for="line in [shown[row.index]!.line].filter((l) => l !== undefined)"
          :key="line.id"
          class="line"
          :class="[line.kind, { pinned: line.pinned, seen: !letterOf(line) && line.kind !== 'capture' }]"
        >
          <span class="mono soft at">{{ clock(line.at_ms) }}</span>
          <kbd v-if="letterOf(line)" class="kind" :title="wordOf(line)">{{ letterOf(line) }}</kbd>
          <span v-else class="kind bar" :title="wordOf(line)" />
          <div class="said">
            <span class="unseen">{{ wordOf(line) }}:</span>
            <form v-if="mending === line.id" @submit.prevent="save(line)" @keydown.esc.stop="mending = ''">
              <textarea
                v-model="mended"
                class="field"
                rows="2"
                maxlength="10000"
                aria-label="What it says"
                @keydown.enter.exact.prevent="save(line)"
              />
              <p class="row small">
                <button type="submit" class="link">Save</button>
                <button type="button" class="link soft" @click="mending = ''">Leave it</button>
              </p>
            </form>
            <p v-else-if="line.removed" class="soft small">
              {{ line.removed.by?.name ?? 'Lucid Step' }} took the words out,
              <span :title="exact(line.removed.at)">{{ ago(line.removed.at) }}</span>:
              {{ line.removed.reason }}
            </p>
            <template v-else>
              <MarkdownText v-if="line.words" :text="line.words" />
              <CaptureLine
                v-if="line.kind === 'capture'"
                :session="session"
                :line="line"
                :may-draw="mayMend && !line.refused"
              />
              <details v-if="line.former.length > 0" class="small soft">
                <summary>Changed</summary>
                <p v-for="(f, i) in line.former" :key="i" class="long">{{ f }}</p>
              </details>
            </template>
            <p
              v-if="!line.waiting && !line.removed && (cameOf(line) || line.kind === 'issue')"
              class="row small led"
            >
              <template v-if="cameOf(line)">
                <RouterLink
                  v-if="cameOf(line)!.defect"
                  class="mono"
                  :to="`${project}/defects/${cameOf(line)!.defect!.key}`"
                  :title="cameOf(line)!.defect!.title"
                  >{{ cameOf(line)!.defect!.key }}</RouterLink
                >
                <RouterLink
                  v-if="cameOf(line)!.case_key"
                  class="mono"
                  :to="`${project}/casebook/${cameOf(line)!.case_key}`"
                  :title="cameOf(line)!.case_title ?? ''"
                  >{{ cameOf(line)!.case_key }}</RouterLink
                >
              </template>
              <RouterLink :to="`${linesAt}/${line.id}`"
                >What led here <kbd v-if="line.id === lastIssue && mayMend">Alt D</kbd></RouterLink
              >
            </p>
            <p v-if="line.refused" class="p-invalid-words small" role="alert">{{ line.refused }}</p>
          </div>
          <span class="acts small">
            <span v-if="line.waiting && !line.refused" class="soft">{{
              line.held ? 'on this device only' : 'waiting'
            }}</span>
            <template v-if="mayMend && !line.removed && !line.waiting">
              <RouterLink v-if="line.kind !== 'issue'" class="link soft" :to="`${linesAt}/${line.id}`"
                >What led here</RouterLink
              >
              <button
                type="button"
                class="link soft"
                :aria-pressed="line.pinned"
                @click="session.mend(line.id, { pinned: !line.pinned })"
              >
                {{ line.pinned ? 'Pinned' : 'Pin' }}
              </button>
              <button
                v-if="letterOf(line) || line.kind === 'capture'"
                type="button"
                class="link soft"
                @click="((mending = line.id), (mended = line.words))"
              >
                Change
              </button>
            </template>
            <RemoveWords
              v-if="mayRemove && !line.removed && !line.waiting"
              :of="line.words || line.name"
              :remove="async (reason) => session.setLine(await removeLine(line.id, reason))"
            />
          </span>
        </div>
      </li>
    </ol>
    <p v-if="lines.length === 0" class="soft empty">
      Nothing is written yet. What you write below stands here with its time.
    </p>
  </div>
</template>

<style scoped>
.timeline {
  overflow: auto;
  min-height: 0;
  position: relative;
  padding: 10px 4px 10px 0;
}
ol {
  position: relative;
}
li {
  position: absolute;
  top: 0;
  left: 0;
  width: 100%;
}
.line {
  display: grid;
  grid-template-columns: 62px 24px minmax(0, 1fr) auto;
  gap: 10px;
  align-items: baseline;
  padding: 6px 12px 6px 8px;
}
.at {
  text-align: right;
}
.kind {
  text-align: center;
}
.bar {
  justify-self: center;
  width: 0;
  border-left: 2px solid var(--rule);
  height: 1.2em;
}
.issue {
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-left: 3px solid var(--ink);
  border-radius: 6px;
  margin: 4px 0;
  font-weight: 600;
}
.issue .kind {
  background: var(--ink);
  color: var(--paper);
  border-color: var(--ink);
}
.seen {
  color: var(--ink-soft);
  font-size: 0.93rem;
}
.pinned .at {
  color: var(--ink);
  font-weight: 700;
}
.led {
  margin-top: 4px;
  font-weight: 400;
}
.led a {
  min-height: 24px;
}
.acts {
  display: flex;
  gap: 10px;
  font-weight: 400;
}
.acts .link:not([aria-pressed='true']) {
  opacity: 0;
}
.line:hover .acts .link,
.line:focus-within .acts .link {
  opacity: 1;
}
.empty {
  padding: 20px 12px;
}
@media (hover: none) {
  .acts .link:not([aria-pressed='true']) {
    opacity: 1;
  }
}
@media (max-width: 640px) {
  .line {
    grid-template-columns: 46px 22px minmax(0, 1fr);
    gap: 8px;
  }
  .acts {
    grid-column: 3;
  }
}
</style>
