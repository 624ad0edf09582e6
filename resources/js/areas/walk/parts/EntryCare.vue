<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { toast } from '@/kit/notices';
import { mayLead, mayRecord, mayRemoveContent } from '@/areas/people/session';
import { vFocus } from '@/kit/focus';
import { plural } from '@/kit/words';
import NewVersionPanel from './NewVersionPanel.vue';
import { askLook, blockDependents, markLooked, readStops, removeEntryWords } from '@/areas/walk/queries';

/** What stands beside an entry: words handed over, a look asked for, a changed case, what its fail stops. */
const props = defineProps<{ project: string; entry: Api['EntryLine']; open: boolean; mayWalk: boolean }>();
const emit = defineEmits<{ changed: [now: Api['EntryDetail'] | undefined]; walk: [] }>();
const drift = ref(false);
const asking = ref(false);
const note = ref('');
const problem = ref('');
const stops = ref<Api['BlockPreview'] | null>(null);
const failed = computed(
  () => ['fail', 'blocked'].includes(props.entry.display_state) && props.entry.attempts > 0,
);
watch(
  () => [props.entry.id, props.entry.display_state],
  async () => {
    stops.value = null;
    if (!failed.value) return;
    stops.value = await readStops(props.entry.id);
  },
  { immediate: true },
);
async function run(work: () => Promise<Api['EntryDetail'] | undefined>, words: string): Promise<void> {
  problem.value = '';
  try {
    const now = await work();
    toast(words);
    asking.value = false;
    emit('changed', now);
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
/** Words that must not be there are taken out by an admin, with a word of why. */
const REMOVED = '(removed)';
const mayRemove = computed(
  () =>
    mayRemoveContent(props.project) &&
    [props.entry.handover, props.entry.look].some((words) => words && words !== REMOVED),
);
const removing = ref(false);
const why = ref('');
const remove = (): Promise<void> =>
  run(async () => {
    const now = await removeEntryWords(props.entry.id, why.value);
    removing.value = false;
    return now;
  }, 'The words are taken out.');
const ask = (): Promise<void> =>
  run(() => askLook(props.entry.id, note.value), 'A lead is asked to look at it.');
const looked = (): Promise<void> => run(() => markLooked(props.entry.id), 'Looked at.');
async function stop(): Promise<void> {
  await run(async () => {
    stops.value = await blockDependents(props.entry.id);
    return undefined;
  }, 'What needs its pass is stopped until it passes.');
}
</script>

<template>
  <div class="care">
    <p v-if="entry.handover" class="long">
      <span class="soft">Handed over with:</span> “{{ entry.handover }}”
    </p>
    <p v-if="entry.look" class="row">
      <span class="long"><span class="soft">A lead is asked to look at it:</span> “{{ entry.look }}”</span>
      <button v-if="mayLead(project)" type="button" class="link" @click="looked">Looked at</button>
    </p>
    <form v-if="removing" class="row" @submit.prevent="remove" @keydown.esc.stop="removing = false">
      <input
        v-model="why"
        v-focus
        class="field why"
        maxlength="2000"
        aria-label="Why these words are taken out"
        placeholder="Why? They go for good; the trace stays"
      />
      <button type="submit" class="link">Take the words out</button>
      <button type="button" class="link soft" @click="removing = false">Leave it</button>
    </form>
    <p v-else-if="mayRemove" class="small">
      <button type="button" class="link soft" @click="removing = true">Take the words out</button>
    </p>
    <p v-if="entry.outdated" class="row">
      <span>Its case was changed since it was planned.</span>
      <button type="button" class="link" :aria-expanded="drift" @click="drift = !drift">
        See what changed
      </button>
    </p>
    <NewVersionPanel
      v-if="drift"
      :entry="entry.id"
      :may-take="mayLead(project) || mayRecord(project)"
      :may-walk="mayWalk"
      @walk="emit('walk')"
      @taken="emit('changed', $event)"
      @close="drift = false"
    />
    <div v-if="stops && (stops.stops.length > 0 || stops.stopped.length > 0)" class="stops">
      <p v-if="stops.stopped.length > 0" class="soft">
        {{ plural(stops.stopped.length, 'entry waits', 'entries wait') }} on it:
        {{ stops.stopped.map((s) => s.key).join(', ') }}. They are let go when it passes, or the condition
        goes.
      </p>
      <p v-if="stops.stops.length > 0 && mayRecord(project) && open" class="row">
        <span
          >{{ plural(stops.stops.length, 'entry needs', 'entries need') }} its pass:
          {{
            stops.stops
              .slice(0, 4)
              .map((s) => s.key)
              .join(', ')
          }}<template v-if="stops.stops.length > 4"> …</template></span
        >
        <button type="button" class="link" @click="stop">
          Stop {{ stops.stops.length === 1 ? 'it' : 'them' }} until it passes
        </button>
      </p>
    </div>
    <p v-if="!entry.look && mayRecord(project) && !asking && open">
      <button type="button" class="link soft" @click="asking = true">Hand it to a lead for a look</button>
    </p>
    <form v-if="asking" class="ask" @submit.prevent="ask">
      <label class="label" for="look-note">What should a lead look at?</label>
      <textarea id="look-note" v-model="note" class="field" rows="2" maxlength="2000" />
      <p class="row">
        <Button type="submit" label="Hand it over" /><button
          type="button"
          class="link soft"
          @click="asking = false"
        >
          Leave it
        </button>
      </p>
    </form>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.why {
  flex: 1 1 16rem;
}
.care {
  display: grid;
  gap: 8px;
  margin-top: 10px;
}
.ask {
  max-width: 640px;
  display: grid;
  gap: 8px;
}
</style>
