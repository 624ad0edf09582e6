<script setup lang="ts">
import { v7 as uuid7 } from 'uuid';
import { computed, nextTick, ref, watch } from 'vue';
import type { Api } from '@/api/client';
import { rowsOf, type ReproDraft, type ReproRow } from '@/areas/sessions/repro';
import KeyCap from '@/kit/KeyCap.vue';
import MarkdownText from '@/kit/MarkdownText.vue';
import { useKeys } from '@/kit/keys';
import { clock } from '@/kit/words';

/** What led to a fault: sentences numbered, those left out struck with why, and brought back by a key. */
const draft = defineModel<ReproDraft>({ required: true });
const props = defineProps<{ stretch: Api['StretchDetail']; mayChange: boolean }>();
const emit = defineEmits<{ beginAt: [line: string]; before: [] }>();
const rows = computed(() => rowsOf(props.stretch.lines, draft.value));
const at = ref(0);
const mending = ref('');
/** A page that came of a step is what one sees then, and nothing to be done. */
const pageOf = (words: string): string => words.replace(/^Open /, '');
const list = ref<HTMLElement | null>(null);
const lit = computed<ReproRow | undefined>(() => rows.value[Math.min(at.value, rows.value.length - 1)]);
function move(by: number): void {
  at.value = Math.max(0, Math.min(rows.value.length - 1, at.value + by));
}
watch(at, async () => {
  await nextTick();
  list.value?.querySelector('.lit')?.scrollIntoView({ block: 'nearest' });
});
function toggle(row: ReproRow | undefined): void {
  if (!row || !props.mayChange) return;
  draft.value = { ...draft.value, stays: { ...draft.value.stays, [row.id]: !row.stays } };
}
async function mend(row: ReproRow | undefined): Promise<void> {
  if (!row || !props.mayChange || !row.stays) return;
  mending.value = row.id;
  await nextTick();
  list.value?.querySelector<HTMLInputElement>('input.mend')?.select();
}
function say(row: ReproRow, event: Event): void {
  const words = (event.target as HTMLInputElement).value.trim();
  mending.value = '';
  if (row.line === null && words === '')
    draft.value = { ...draft.value, added: draft.value.added.filter((a) => a.id !== row.id) };
  else if (words !== '' && words !== row.words)
    draft.value = { ...draft.value, words: { ...draft.value.words, [row.id]: words } };
}
async function putIn(): Promise<void> {
  if (!props.mayChange) return;
  const id = uuid7();
  draft.value = {
    ...draft.value,
    added: [{ id, behind: lit.value?.id ?? '', words: '' }, ...draft.value.added],
  };
  await nextTick();
  at.value = rows.value.findIndex((r) => r.id === id);
  await mend(rows.value[at.value]);
}
useKeys('What led there', () => [
  { keys: ['j', 'ArrowDown'], label: 'Next line', run: () => move(1) },
  { keys: ['k', 'ArrowUp'], label: 'Line before', run: () => move(-1) },
  ...(props.mayChange
    ? [
        { keys: ['x'], label: 'Leave it out, or bring it back', run: () => toggle(lit.value) },
        { keys: ['e'], label: 'Change the sentence', run: () => void mend(lit.value) },
        { keys: ['i'], label: 'Put one in behind it', run: () => void putIn() },
        {
          keys: ['b'],
          label: 'Begin with this one',
          run: () => lit.value?.line && emit('beginAt', lit.value.line.id),
        },
      ]
    : []),
]);
</script>

<template>
  <section ref="list" aria-label="What led there">
    <button v-if="stretch.before > 0" type="button" class="link soft small more" @click="emit('before')">
      {{ stretch.before }} lines before it
    </button>
    <ol>
      <li
        v-for="(row, i) in rows"
        :key="row.id"
        :class="{ lit: i === at, out: !row.stays, by: row.stays && row.number === 0 }"
        @click="at = i"
      >
        <span class="mono soft number">{{ row.number || '' }}</span>
        <div class="long">
          <input
            v-if="mending === row.id"
            class="field mend"
            maxlength="2000"
            :value="row.words"
            :aria-label="`Step ${row.number}`"
            @keydown.enter.prevent="say(row, $event)"
            @keydown.esc.stop="mending = ''"
            @blur="say(row, $event)"
          />
          <s v-else-if="!row.stays">{{ row.words }}</s>
          <template v-else-if="row.line?.kind === 'visit' && !row.number"
            >opens {{ pageOf(row.words) }}</template
          >
          <MarkdownText v-else-if="row.line && !row.number" :text="row.words || 'A picture'" />
          <template v-else>{{ row.words }}</template>
        </div>
        <span class="small soft note">
          {{ row.why || (row.line?.pinned ? 'pinned' : '') }}
          {{ ' ' }}
          <button
            v-if="mayChange && (row.number > 0 || !row.stays)"
            type="button"
            class="link"
            :aria-label="`${row.stays ? 'Leave out' : 'Keep'}: ${row.words}`"
            @click.stop="((at = i), toggle(row))"
          >
            {{ row.stays ? 'leave out' : 'keep' }}
          </button>
          {{ ' ' }}
          <KeyCap v-if="mayChange && i === at && (row.number > 0 || !row.stays)" of="x" />
        </span>
      </li>
    </ol>
    <div class="marked sheet">
      <span class="mono soft">{{ clock(stretch.marked.at_ms) }}</span>
      <MarkdownText :text="stretch.marked.words || stretch.marked.name" />
    </div>
    <p v-if="mayChange" class="soft small keys">
      <KeyCap of="j" /> <KeyCap of="k" /> move · <KeyCap of="x" /> leave out or keep ·
      <KeyCap of="e" /> change the sentence · <KeyCap of="i" /> put one in · <KeyCap of="b" /> begin here
    </p>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 2rem minmax(0, 1fr) auto;
  gap: 12px;
  align-items: baseline;
  padding: 7px 8px 7px 6px;
  border-bottom: 1px solid var(--rule);
  border-left: 3px solid transparent;
}
.lit {
  border-left-color: var(--lantern);
  background: var(--well);
}
.out,
.by {
  color: var(--ink-soft);
}
.by {
  font-size: 0.93rem;
}
.number {
  text-align: right;
}
.note {
  text-align: right;
}
li:not(.lit):not(.out) .note .link:not(:focus-visible) {
  opacity: 0;
}
li:hover .note .link {
  opacity: 1 !important;
}
.more {
  margin-bottom: 6px;
}
.marked {
  display: flex;
  gap: 12px;
  align-items: baseline;
  margin-top: 12px;
  padding: 12px 14px;
  border-left: 7px solid var(--lantern);
  font-weight: 600;
}
.keys {
  margin-top: 12px;
}
@media (max-width: 640px) {
  li {
    grid-template-columns: 1.6rem minmax(0, 1fr);
  }
  .note {
    grid-column: 2;
    text-align: left;
  }
  /* A touch lights a line, and shows what can be done with it. */
  li:not(.lit):not(.out) .note {
    display: none;
  }
}
</style>
