<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import CallLines from '@/areas/defects/parts/CallLines.vue';
import { leaveCallOut, sendCallAgain, sendToTracker } from '@/areas/defects/queries';
import { ago, exact } from '@/kit/words';

/** Where a defect stands in the tracker outside: here only, waiting, sent, refused, or changed there. */
const props = defineProps<{ defect: string; outside: Api['OutsideStand']; maySend: boolean }>();
const emit = defineEmits<{ changed: [Api['DefectDetail']] }>();
const WORDS = {
  here: 'Only here',
  waiting: 'Waits to be sent',
  sent: 'Sent',
  refused: 'Refused there',
  changed: 'Changed there',
};
const problem = ref('');
const words = computed(() =>
  [props.outside.outside_state, props.outside.outside_assignee].filter(Boolean).join(', with '),
);
async function run(work: () => Promise<Api['DefectDetail']>): Promise<void> {
  problem.value = '';
  try {
    emit('changed', await work());
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
</script>

<template>
  <section aria-label="In the tracker outside">
    <h2>In the tracker</h2>
    <p>
      <strong>{{ WORDS[outside.state] }}</strong>
      <template v-if="outside.key"
        >{{ ' '
        }}<a v-if="outside.url" class="mono" :href="outside.url" target="_blank" rel="noreferrer noopener">{{
          outside.key
        }}</a
        ><span v-else class="mono">{{ outside.key }}</span
        ><span v-if="words">: {{ words }}</span
        ><span v-if="outside.seen_at" class="soft small" :title="exact(outside.seen_at)">{{
          ` ${ago(outside.seen_at)}`
        }}</span></template
      >
    </p>
    <CallLines
      v-if="outside.calls.length > 0"
      :calls="outside.calls"
      :may-send="maySend"
      @again="(id) => run(() => sendCallAgain(id))"
      @leave="(id) => run(() => leaveCallOut(id))"
    />
    <Button
      v-else-if="outside.state === 'here' && maySend"
      size="small"
      outlined
      label="Send it there"
      @click="run(() => sendToTracker(defect))"
    />
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  justify-items: start;
}
</style>
