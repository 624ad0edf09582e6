<script setup lang="ts">
import { isWhyGiven } from '@/kit/why';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { useQuery } from '@tanstack/vue-query';
import { computed, nextTick, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { toast } from '@/kit/notices';
import VerdictMark from '@/kit/VerdictMark.vue';
import { plural, wordOf } from '@/kit/words';
import ReasonChips from './ReasonChips.vue';
import { readStopsOf, recordFromList } from '@/areas/walk/queries';

/** Verdicts given straight from the list: one note for all chosen, under the rules of the walk. */
const props = defineProps<{
  project: string;
  cycle: string;
  /** The chosen entries. */
  ids: string[];
  /** How many of them have a verdict already. */
  walked: number;
}>();
/** `done` says which stay chosen: those that were refused. */
const emit = defineEmits<{ all: []; done: [left: string[]] }>();
type Final = 'pass' | 'fail' | 'blocked' | 'not_applicable';
const verdict = ref<Final | null>(null);
const note = ref('');
const reason = ref('');
const waits = ref('');
const stop = ref(false);
/** What needs the pass of the chosen ones and would be stopped. */
const { data: stops } = useQuery({
  queryKey: computed(() => ['stops-of', props.cycle, props.ids]),
  enabled: computed(() => props.ids.length > 0 && (verdict.value === 'fail' || verdict.value === 'blocked')),
  retry: false,
  queryFn: () => readStopsOf(props.cycle, props.ids),
});
const problem = ref('');
const refused = ref<Api['RefusedEntry'][]>([]);
const busy = ref(false);
async function choose(v: Final): Promise<void> {
  verdict.value = v;
  reason.value = '';
  problem.value = '';
  await nextTick();
  document.getElementById('list-note')?.focus();
}
async function send(): Promise<void> {
  if (verdict.value === null || busy.value) return;
  if (!isWhyGiven(note.value)) {
    problem.value = 'Say in a few words why: nobody walks the steps.';
    document.getElementById('list-note')?.focus();
    return;
  }
  busy.value = true;
  problem.value = '';
  try {
    const done = await recordFromList(props.cycle, {
      ids: props.ids,
      verdict: verdict.value,
      note: note.value.trim(),
      reason: reason.value,
      waits_on: waits.value.trim(),
      stops: stop.value,
    });
    refused.value = done.refused;
    if (done.done.length > 0) {
      toast(
        `${plural(done.done.length, 'entry', 'entries')} judged ${wordOf(verdict.value).toLowerCase()} from the list.` +
          (done.stopped > 0 ? ` ${done.stopped} stopped.` : ''),
      );
      stop.value = false;
      note.value = waits.value = reason.value = '';
      verdict.value = null;
    }
    emit(
      'done',
      done.refused.map((r) => r.id),
    );
  } catch (error) {
    problem.value = errorMessage(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section class="judge sheet" aria-label="Judge the chosen entries">
    <div class="row">
      <span>{{
        ids.length > 0 ? `${plural(ids.length, 'entry', 'entries')} chosen` : 'Choose entries below'
      }}</span>
      <button type="button" class="link" @click="emit('all')">Choose all of the list</button>
      <span v-if="walked > 0" class="soft small"
        >{{ walked }} of them walked already: they get a new attempt, the old one stays</span
      >
    </div>
    <div class="row">
      <button
        v-for="v in ['pass', 'fail', 'blocked', 'not_applicable'] as const"
        :key="v"
        type="button"
        class="give"
        :aria-pressed="verdict === v"
        :disabled="ids.length === 0"
        @click="choose(v)"
      >
        <VerdictMark :shown="v" word :label="wordOf(v)" :size="11" />
      </button>
    </div>
    <form v-if="verdict && ids.length > 0" class="form" @submit.prevent="send">
      <label class="label" for="list-note">One note for all of them: what is it based on?</label>
      <InputText id="list-note" v-model="note" fluid maxlength="10000" :invalid="problem !== ''" />
      <ReasonChips v-model="reason" :project="project" :verdict="verdict" />
      <template v-if="verdict === 'blocked'">
        <label class="label" for="list-waits">Waits on …</label>
        <InputText id="list-waits" v-model="waits" fluid maxlength="2000" />
      </template>
      <label v-if="(verdict === 'fail' || verdict === 'blocked') && (stops?.stops.length ?? 0) > 0"
        ><input v-model="stop" type="checkbox" /> Stop what needs their pass, until they pass:
        {{ plural(stops?.stops.length ?? 0, 'entry', 'entries') }}
        <span class="soft small">{{
          stops?.stops
            .slice(0, 6)
            .map((e) => e.key)
            .join(', ')
        }}</span></label
      >
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      <div class="row">
        <Button
          type="submit"
          :disabled="busy"
          :label="`Judge ${plural(ids.length, 'entry', 'entries')} ${wordOf(verdict).toLowerCase()}`"
        />
        <span class="soft small"
          >Their steps stay not run, and their attempts say that they were judged from the list.</span
        >
      </div>
    </form>
    <ul v-if="refused.length > 0" class="small" role="alert">
      <li v-for="r in refused" :key="r.id">
        <span class="mono">{{ r.key }}</span> {{ r.title }}: <strong>{{ r.why }}</strong>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.judge {
  padding: 12px 16px;
  margin: 8px 0;
  display: grid;
  gap: 10px;
}
.form {
  display: grid;
  gap: 4px;
  max-width: 60rem;
}
</style>
