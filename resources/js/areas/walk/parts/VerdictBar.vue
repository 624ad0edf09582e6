<script setup lang="ts">
import VerdictMark from '@/kit/VerdictMark.vue';
import type { FinalVerdict, StepVerdict } from '@/areas/walk/types';
import KeyCap from '@/kit/KeyCap.vue';
import { tip } from '@/kit/keys';

/** The verdicts of the lit step, and what is done beside them. */
defineProps<{
  verdict: StepVerdict;
  /** The form that is open; its verdict stands out. */
  form: string;
  /** Whether a try was counted already. */
  tried: boolean;
}>();
const emit = defineEmits<{
  choose: [verdict: FinalVerdict];
  capture: [];
  ask: [];
  tried: [failed: boolean];
}>();
const verdicts: { verdict: FinalVerdict; word: string; key: string }[] = [
  { verdict: 'pass', word: 'Pass', key: '1' },
  { verdict: 'fail', word: 'Fail', key: '2' },
  { verdict: 'blocked', word: 'Blocked', key: '3' },
  { verdict: 'not_applicable', word: 'Not applicable', key: '4' },
];
</script>

<template>
  <div class="bar">
    <button
      v-for="v in verdicts"
      :key="v.verdict"
      type="button"
      class="give"
      :class="{
        chosen: form === v.verdict || (form === '' && verdict === v.verdict),
        fails: v.verdict === 'fail',
      }"
      :title="tip(v.word, v.key)"
      @click="emit('choose', v.verdict)"
    >
      <VerdictMark :shown="v.verdict" word :label="v.word" :size="12" /> <KeyCap :of="v.key" />
    </button>
    <span class="beside">
      <button type="button" class="quiet" :title="tip('Capture the screen', 'c')" @click="emit('capture')">
        Capture <KeyCap of="c" />
      </button>
      <button
        type="button"
        class="quiet"
        :title="`${tip('Count a try that failed', 't')}, ${tip('or one that went well', 'T')}`"
        @click="emit('tried', true)"
      >
        Try failed <KeyCap of="t" />
      </button>
      <button v-if="tried" type="button" class="quiet" @click="emit('tried', false)">
        Try went well <KeyCap of="T" />
      </button>
      <button
        type="button"
        class="quiet"
        :title="tip('A question, or a better wording', 'a')"
        @click="emit('ask')"
      >
        Ask <KeyCap of="a" />
      </button>
    </span>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 18px;
}
.give {
  padding: 8px 12px;
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
.give:hover {
  background: var(--well);
}
.give.chosen {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1px var(--ink);
}
.give.chosen.fails {
  background: var(--fail-tint);
}
.beside {
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
.quiet {
  padding: 4px 0;
  font: inherit;
  color: var(--ink-soft);
  background: none;
  border: 0;
  cursor: pointer;
}
@media (max-width: 640px) {
  .give {
    white-space: nowrap;
    font-size: 0.93rem;
    flex: 1 1 40%;
    justify-content: center;
    padding: 12px 8px;
  }
  kbd {
    display: none;
  }
}
</style>
