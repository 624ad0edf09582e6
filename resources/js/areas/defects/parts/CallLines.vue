<script setup lang="ts">
import type { Api } from '@/api/client';
import { ago, exact } from '@/kit/words';

/** What waits to be told to the tracker outside, or was refused there, with what can be done about it. */
defineProps<{ calls: Api['TrackerCallLine'][]; maySend: boolean; named?: boolean }>();
const emit = defineEmits<{ again: [string]; leave: [string] }>();
const ACTS = { file: 'the report', comment: 'a comment', attach: 'a capture', move: 'where it stands' };
</script>

<template>
  <ul>
    <li v-for="c in calls" :key="c.id">
      <span class="long"
        ><span v-if="named" class="mono">{{ c.defect }}{{ ' ' }}</span
        >{{ ACTS[c.act] }}: <strong v-if="c.state === 'refused'">refused</strong
        ><template v-else
          >waits since <span :title="exact(c.since)">{{ ago(c.since) }}</span><template
            v-if="c.tries > 0 && c.next_at"
            >, tried {{ c.tries }} {{ c.tries === 1 ? 'time' : 'times' }}, next
            <span :title="exact(c.next_at)">{{ exact(c.next_at).slice(-8) }}</span></template
          ></template
        ></span
      >
      <p v-if="c.problem" class="soft small long">{{ c.problem }}</p>
      <p v-if="maySend" class="row small">
        <button type="button" class="link" @click="emit('again', c.id)">
          {{ c.state === 'refused' ? 'Send it again' : 'Send it now' }}
        </button>
        <button type="button" class="link soft" @click="emit('leave', c.id)">Leave it out</button>
      </p>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 8px;
}
</style>
