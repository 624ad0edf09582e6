<script setup lang="ts">
import Button from 'primevue/button';
import Textarea from 'primevue/textarea';
import { computed, nextTick, ref } from 'vue';
import type { Api } from '@/api/client';
import { useKeys } from '@/kit/keys';
import MarkdownText from '@/kit/MarkdownText.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { plural, wordOf } from '@/kit/words';
import type { FinalVerdict } from '@/areas/walk/types';
import { useReasons } from '@/areas/walk/reasons';
import ReasonChips from './ReasonChips.vue';
import { useEarlier } from '@/areas/walk/useEarlier';
import type { Walk, WalkStep } from '@/areas/walk/useWalk';
import KeyCap from '@/kit/KeyCap.vue';

/** All steps of the round at once; several are marked together and judged with one key. */
const props = defineProps<{ walk: Walk; project: string; locked: boolean }>();
const marked = ref<number[]>([]);
const at = ref<number | null>(null);
const asking = ref<'fail' | 'blocked' | null>(null);
const word = ref('');
const missing = ref('');
const reasons = useReasons(() => props.project, 'blocked');
const field = ref<{ $el: HTMLTextAreaElement } | null>(null);
const steps = computed(() => props.walk.steps.value);
const all = computed({
  get: () => steps.value.length > 0 && marked.value.length === steps.value.length,
  set: (on: boolean) => (marked.value = on ? steps.value.map((s) => s.position) : []),
});
/** What a verdict is for: the marked ones, else the one the light is on. */
const targets = computed(() =>
  marked.value.length > 0 ? marked.value : props.walk.lit.value === null ? [] : [props.walk.lit.value],
);
function mark(step: number, event: MouseEvent | KeyboardEvent): void {
  if (event.shiftKey && at.value !== null) {
    const [from, to] = [Math.min(at.value, step), Math.max(at.value, step)];
    const range = steps.value.map((s) => s.position).filter((p) => p >= from && p <= to);
    marked.value = [...new Set([...marked.value, ...range])];
  } else {
    marked.value = marked.value.includes(step)
      ? marked.value.filter((s) => s !== step)
      : [...marked.value, step];
  }
  at.value = step;
}
async function give(verdict: FinalVerdict): Promise<void> {
  if (props.locked || targets.value.length === 0) return;
  if (verdict === 'fail' || verdict === 'blocked') {
    asking.value = verdict;
    missing.value = '';
    await nextTick();
    field.value?.$el.focus();
    return;
  }
  await send(verdict);
}
async function send(verdict: FinalVerdict | 'not_run', words = ''): Promise<void> {
  const { walk } = props;
  const before = { lit: walk.lit.value, marked: marked.value };
  const order = steps.value.map((s) => s.position).filter((p) => targets.value.includes(p));
  const writing = walk.judgeAll(
    order,
    verdict,
    verdict === 'fail' ? { happened: words } : verdict === 'blocked' ? { reason: words } : {},
  );
  // The light moves on while the verdicts are being written on the device: the next key may come before they are.
  const next = steps.value.find((s) => s.record.verdict === 'not_run' && !order.includes(s.position));
  marked.value = [];
  if (verdict !== 'not_run' && next) walk.light(next.position);
  try {
    await writing;
  } catch (error) {
    marked.value = before.marked;
    walk.light(before.lit);
    throw error;
  }
  if (verdict !== 'not_run' && !next) walk.onwards();
}
async function record(): Promise<void> {
  const typed = word.value.trim();
  const words = asking.value === 'blocked' ? reasons.meant(typed) : typed;
  if (!words || asking.value === null) {
    if (asking.value === 'fail') missing.value = 'Say what happened instead.';
    else missing.value = typed === '' ? 'Say why it is blocked.' : reasons.none(typed);
    field.value?.$el.focus();
    return;
  }
  const verdict = asking.value;
  await send(verdict, words);
  asking.value = null;
  word.value = '';
}
useKeys('In the sheet', () =>
  props.locked
    ? []
    : [
        { keys: ['1'], label: 'Pass', run: () => void give('pass') },
        { keys: ['2'], label: 'Fail', run: () => void give('fail') },
        { keys: ['3'], label: 'Blocked', run: () => void give('blocked') },
        { keys: ['4'], label: 'Not applicable', run: () => void give('not_applicable') },
        { keys: ['0'], label: 'Take back', run: () => void send('not_run') },
        {
          keys: ['x'],
          label: 'Mark the step',
          run: () => props.walk.lit.value !== null && mark(props.walk.lit.value, new MouseEvent('click')),
        },
        {
          keys: ['X'],
          label: 'Mark up to the step',
          run: () =>
            props.walk.lit.value !== null &&
            mark(props.walk.lit.value, new MouseEvent('click', { shiftKey: true })),
        },
      ],
);
/** The last attempt before this one, beside it. */
const earlier = useEarlier(props.walk.id, () => props.walk.view.value?.attempt.number ?? 1);
const last = computed(() => earlier.value(0, 0)[0]?.attempt ?? null);
const then = (s: WalkStep): Api['EarlierStep'] | null =>
  earlier.value(props.walk.roundAt.value, s.position)[0]?.step ?? null;
const said = (r: Api['StepRecord']): string => r.happened || r.reason || r.note;
const first = (s: WalkStep): string => said(s.record);
</script>

<template>
  <div class="whole">
    <div v-if="!locked" class="bar row" role="toolbar" aria-label="Judge the marked steps">
      <span class="soft"
        >{{ marked.length > 0 ? plural(marked.length, 'step') + ' marked' : 'The lit step, or mark several' }}
        <KeyCap of="x"
      /></span>
      <button
        v-for="(v, n) in ['pass', 'fail', 'blocked', 'not_applicable'] as const"
        :key="v"
        type="button"
        class="give"
        :disabled="targets.length === 0"
        @click="give(v)"
      >
        <VerdictMark :shown="v" word :label="wordOf(v)" :size="11" /> <KeyCap :of="`${n + 1}`" />
      </button>
      <button type="button" class="link" :disabled="targets.length === 0" @click="send('not_run')">
        Take back <KeyCap of="0" />
      </button>
    </div>
    <form v-if="asking" class="ask" @submit.prevent="record">
      <label class="label" for="sheet-word">{{
        asking === 'fail' ? 'What happened instead?' : 'Why are they blocked?'
      }}</label>
      <Textarea
        id="sheet-word"
        ref="field"
        v-model="word"
        fluid
        auto-resize
        rows="1"
        maxlength="10000"
        :invalid="missing !== ''"
        @keydown.enter.exact.prevent="record"
        @keydown.esc.stop="asking = null"
      />
      <ReasonChips v-if="asking === 'blocked'" v-model="word" :project="project" verdict="blocked" />
      <p v-if="missing" class="p-invalid-words" role="alert">{{ missing }}</p>
      <div class="row">
        <Button
          type="submit"
          size="small"
          :label="`Record ${asking === 'fail' ? 'the fail' : 'the block'} on ${plural(targets.length, 'step')}`"
        />
        <Button
          type="button"
          size="small"
          text
          severity="secondary"
          label="Leave it"
          @click="asking = null"
        />
      </div>
    </form>
    <div class="scroll">
      <table class="lines">
        <thead>
          <tr>
            <th>
              <input
                v-if="!locked"
                v-model="all"
                type="checkbox"
                aria-label="Mark all"
                title="Mark all"
              /><span v-else class="unseen">Marked</span>
            </th>
            <th>#</th>
            <th>Action</th>
            <th>Data</th>
            <th>Expected</th>
            <th v-if="last">Attempt {{ last.number }}</th>
            <th>Verdict</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="s in steps"
            :key="s.position"
            :class="{ here: s.position === walk.lit.value }"
            @click="walk.light(s.position)"
          >
            <td>
              <input
                v-if="!locked"
                type="checkbox"
                :checked="marked.includes(s.position)"
                :aria-label="`Mark step ${s.position}`"
                @click.stop="mark(s.position, $event)"
              />
            </td>
            <td class="mono soft">{{ s.position }}</td>
            <td><MarkdownText :text="s.action" /></td>
            <td class="mono long">{{ s.data }}</td>
            <td><MarkdownText :text="s.expected" /></td>
            <td v-if="last" class="then">
              <template v-if="then(s)"
                ><VerdictMark :shown="then(s)!.record.verdict" word :size="11" />
                <span v-if="said(then(s)!.record)" class="soft small long">{{ said(then(s)!.record) }}</span>
                <span v-if="!then(s)!.same_text" class="soft small">said otherwise then</span></template
              ><span v-else class="soft">–</span>
            </td>
            <td class="verdict">
              <VerdictMark :shown="s.record.verdict" word :size="11" />
              <span v-if="first(s)" class="soft small long">{{ first(s) }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.bar {
  position: sticky;
  top: 0;
  z-index: 3;
  background: var(--paper);
  padding: 6px 0;
}
.ask {
  padding: 10px 0 14px;
  display: grid;
  gap: 6px;
}
.scroll {
  overflow-x: auto;
}
tr.here td {
  background: var(--sheet);
  font-weight: 500;
}
tr.here td:first-child {
  box-shadow:
    inset 6px 0 0 var(--lantern),
    inset 7px 0 0 var(--ink);
}
td:first-child,
th:first-child {
  padding-left: 14px;
}
td input,
th input {
  accent-color: var(--dusk);
  width: 16px;
  height: 16px;
}
.verdict {
  white-space: nowrap;
}
.verdict .soft,
.then .soft {
  display: block;
  white-space: normal;
  max-width: 22ch;
}
.give {
  display: inline-flex;
  gap: 8px;
  align-items: center;
  padding: 5px 9px;
}
@media (max-width: 640px) {
  kbd {
    display: none;
  }
  thead {
    display: none;
  }
  tr {
    display: grid;
    grid-template-columns: 34px 24px minmax(0, 1fr) auto;
    border-bottom: 1px solid var(--rule);
  }
  td {
    border: 0;
  }
  td:nth-child(4),
  td:nth-child(5) {
    grid-column: 3 / -1;
    padding-top: 0;
  }
  td.then {
    grid-column: 3 / -1;
  }
  td.verdict {
    grid-row: 1;
    grid-column: 4;
  }
}
</style>
