<script setup lang="ts">
import { durationText } from '@/kit/duration';
import type { Api } from '@/api/client';
import VerdictMark from '@/kit/VerdictMark.vue';
import { entryWords, plural, reasonWords, shownOf, when } from '@/kit/words';

defineProps<{ entry: Api['EntryLine']; here?: boolean; onDevice?: boolean }>();
const emit = defineEmits<{ open: [] }>();
</script>

<template>
  <tr :class="{ here }">
    <td class="what">
      <span class="name"
        ><span class="mono soft key">{{ entry.case_key }}</span
        ><button type="button" class="title long" @click="emit('open')">{{ entry.title }}</button></span
      >
      <span v-if="entry.reasons.length > 0" class="soft small reasons">{{
        entry.reasons.map(reasonWords).join('; ')
      }}</span>
      <span v-if="entry.not_after && entry.readiness !== 'done'" class="soft small reasons"
        >not after {{ when(entry.not_after) }}</span
      >
      <span v-if="entry.walking && entry.walking.id !== entry.assignee?.id" class="soft small reasons"
        >{{ entry.walking.name }} is walking it</span
      >
    </td>
    <td class="shown"><VerdictMark :shown="shownOf(entry)" word :label="entryWords(entry)" /></td>
    <td class="soft where">
      {{ entry.configuration?.name
      }}<span v-if="entry.rounds > 1" class="small">, {{ plural(entry.rounds, 'round') }}</span>
    </td>
    <td class="soft number">
      {{
        entry.active_ms > 0
          ? durationText(entry.active_ms)
          : entry.estimate_seconds
            ? `about ${durationText(entry.estimate_seconds * 1000)}`
            : ''
      }}<span v-if="onDevice" class="unseen">, on this device</span>
    </td>
  </tr>
</template>

<style scoped>
.name {
  display: flex;
  align-items: baseline;
  gap: 4px;
}
.key {
  flex: none;
  width: 5.2rem;
}
tr td:first-child {
  padding-left: 12px;
}
tr.here td:first-child {
  box-shadow: inset 4px 0 0 var(--lantern);
}
.title {
  font: inherit;
  color: var(--ink);
  background: none;
  border: 0;
  padding: 0;
  text-align: left;
  cursor: pointer;
}
.title:hover {
  text-decoration: underline;
}
tr.here .title {
  font-weight: 700;
}
.reasons {
  display: block;
  padding-left: calc(5.2rem + 4px);
}
.shown {
  white-space: nowrap;
  width: 10rem;
}
.where {
  width: 11rem;
}
.number {
  width: 6.5rem;
  white-space: nowrap;
}
@media (max-width: 640px) {
  .where,
  .number {
    display: none;
  }
  .shown {
    width: auto;
  }
  .name {
    display: grid;
  }
  .reasons {
    padding-left: 0;
  }
}
</style>
