<script setup lang="ts">
import { durationText } from '@/kit/duration';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import { useQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { toast } from '@/kit/notices';
import type { Api } from '@/api/client';
import VerdictMark from '@/kit/VerdictMark.vue';
import { plural, wordOf } from '@/kit/words';
import { useKeys } from '@/kit/keys';
import { useLocalDraft } from '@/offline/useLocalDraft';
import { countedRounds, setsVerdict } from '@/areas/walk/rollUp';
import { DURATION_HINT, parseDuration } from '@/kit/duration';
import { isWhyGiven } from '@/kit/why';
import type { Walk } from '@/areas/walk/useWalk';
import { readStops, releaseDependents } from '@/areas/walk/queries';
import KeyCap from '@/kit/KeyCap.vue';

const props = defineProps<{ walk: Walk; locked: boolean }>();
const emit = defineEmits<{ finished: [after: Api['PolicySet']['after_finishing']]; next: [] }>();
type Final = 'pass' | 'fail' | 'blocked' | 'not_applicable';
const finals: Final[] = ['pass', 'fail', 'blocked', 'not_applicable'];
const view = computed(() => props.walk.view.value);
const { draft, clear } = useLocalDraft(
  computed(() => `${view.value?.attempt.id}.finish`),
  () => ({ note: '', time: '', chosen: '' as '' | Final, stop: false, remark: null as string | null }),
);
const notRun = computed(() =>
  countedRounds(props.walk.rounds.value)
    .filter((r) => r.skipped === null)
    .reduce((n, r) => n + r.steps.filter((s) => s.verdict === 'not_run').length, 0),
);
const rollUp = computed(() => view.value?.attempt.roll_up ?? 'not_run');
const suggested = computed<Final | ''>(() =>
  finals.includes(rollUp.value as Final) ? (rollUp.value as Final) : '',
);
const chosen = computed<Final | ''>(() => draft.value.chosen || suggested.value);
const needsWord = computed(() => chosen.value !== '' && chosen.value !== rollUp.value);
const measured = computed(() => (view.value?.attempt.active_ms ?? 0) + props.walk.clock.since.value);
/** What needs the pass of this entry and would be stopped. */
const { data: stops, isError: unseen } = useQuery({
  queryKey: computed(() => ['stops', view.value?.entry_id, 'as-if']),
  enabled: computed(
    () => view.value?.attempt.state === 'open' && (chosen.value === 'fail' || chosen.value === 'blocked'),
  ),
  retry: false,
  queryFn: () => readStops(view.value?.entry_id ?? '', true),
});
/** Away one cannot see what that would be, and may ask for it all the same. */
const mayStop = computed(() => (stops.value?.stops.length ?? 0) > 0 || (unseen.value && !stops.value));
async function saveRemark(): Promise<void> {
  const now = draft.value.remark?.trim();
  if (now !== undefined && now !== view.value?.attempt.remark)
    await props.walk.record({ kind: 'note', round: null, step: null, note: now });
  draft.value.remark = null;
}
/** A word of why is asked where the verdict is not what the steps say; one that is written is not hidden. */
const asksWhy = computed(() => needsWord.value || draft.value.note.trim() !== '');
const problem = ref<{ field: 'verdict' | 'note' | 'time'; words: string } | null>(null);
const busy = ref(false);

function complain(field: 'verdict' | 'note' | 'time', words: string): void {
  problem.value = { field, words };
  document.getElementById(field === 'verdict' ? 'final-pass' : `final-${field}`)?.focus();
}

async function finish(): Promise<void> {
  const detail = view.value;
  if (busy.value || !detail || detail.attempt.state !== 'open' || props.locked) return;
  if (props.walk.unlooked.value > 0)
    return complain(
      'verdict',
      [
        `${plural(props.walk.unlooked.value, 'picture')} of this attempt ${props.walk.unlooked.value === 1 ? 'was' : 'were'}`,
        'not looked over yet and would come too late.',
        `Hide what is secret in ${props.walk.unlooked.value === 1 ? 'it' : 'them'}, send as it is, or remove it.`,
      ].join(' '),
    );
  if (chosen.value === '')
    return complain('verdict', `${plural(notRun.value, 'step')} not run. Choose the verdict and say why.`);
  if (needsWord.value && !isWhyGiven(draft.value.note))
    return complain(
      'note',
      `The steps say ${wordOf(rollUp.value as Final).toLowerCase()}. Say in a few words why it is ${wordOf(chosen.value).toLowerCase()}.`,
    );
  const time = draft.value.time.trim();
  if (time !== '' && parseDuration(time) === null) return complain('time', DURATION_HINT);
  busy.value = true;
  await saveRemark();
  const setsItself =
    suggested.value !== '' && draft.value.chosen === '' && setsVerdict(detail.policies, suggested.value);
  await props.walk.record({
    kind: 'finish',
    verdict: setsItself ? null : chosen.value,
    note: draft.value.note.trim(),
    active_ms: props.walk.clock.take(),
    time: time || null,
  });
  if (draft.value.stop && mayStop.value && ['fail', 'blocked'].includes(chosen.value)) {
    const entry = detail.entry_id;
    const names = stops.value?.stops.map((e) => e.key).join(', ');
    await props.walk.record({ kind: 'stops', entry });
    if (names)
      toast(`Stopped until this one passes: ${names}.`, async () => {
        await releaseDependents(entry);
        return 'Let go again.';
      });
  }
  await clear();
  busy.value = false;
  emit('finished', detail.policies.after_finishing);
}
useKeys('Wrap-up', () => [
  {
    keys: ['Enter'],
    label: view.value?.attempt.state === 'open' ? 'Finish and go on' : 'Go on to the next entry',
    run: () => (view.value?.attempt.state === 'open' ? void finish() : emit('next')),
  },
]);
</script>

<template>
  <section v-if="view" class="wrap" aria-label="Wrap-up">
    <template v-if="view.attempt.state === 'open'">
      <h2>Finish this attempt</h2>
      <p class="soft">
        {{ notRun > 0 ? `${plural(notRun, 'step')} not run.` : 'Every step is judged.' }} The verdict, its
        steps and evidence become final and are sealed; time can still be corrected.
      </p>
      <fieldset :disabled="locked">
        <legend class="label">Verdict</legend>
        <label v-for="v in finals" :key="v" class="choice" :class="{ chosen: chosen === v }">
          <input
            :id="`final-${v}`"
            type="radio"
            name="final"
            :value="v"
            :checked="chosen === v"
            @change="draft.chosen = v === suggested ? '' : v"
          />
          <VerdictMark :shown="v" word /><span v-if="suggested === v" class="soft small">by the steps</span>
        </label>
      </fieldset>
      <p v-if="problem?.field === 'verdict'" class="p-invalid-words" role="alert">{{ problem.words }}</p>
      <div class="fields">
        <div v-if="asksWhy">
          <label class="label" for="final-note">{{
            needsWord ? `Why ${wordOf(chosen as Final).toLowerCase()}?` : 'Why'
          }}</label>
          <Textarea
            id="final-note"
            v-model="draft.note"
            fluid
            auto-resize
            rows="1"
            maxlength="10000"
            :invalid="problem?.field === 'note'"
            @keydown.enter.exact.prevent="finish"
          />
          <p v-if="problem?.field === 'note'" class="p-invalid-words" role="alert">{{ problem.words }}</p>
        </div>
        <div>
          <label class="label" for="attempt-remark">Note on this attempt</label>
          <Textarea
            id="attempt-remark"
            :model-value="draft.remark ?? view.attempt.remark"
            fluid
            auto-resize
            rows="1"
            maxlength="10000"
            :readonly="locked"
            @update:model-value="draft.remark = $event"
            @blur="saveRemark"
          />
        </div>
        <div>
          <label class="label" for="final-time">Time, if it was another</label>
          <InputText
            id="final-time"
            v-model="draft.time"
            fluid
            :placeholder="durationText(measured)"
            :invalid="problem?.field === 'time'"
            maxlength="40"
            @keydown.enter.prevent="finish"
          />
          <p v-if="problem?.field === 'time'" class="p-invalid-words" role="alert">{{ problem.words }}</p>
        </div>
      </div>
      <div v-if="(chosen === 'fail' || chosen === 'blocked') && mayStop" class="stops">
        <label
          ><input v-model="draft.stop" type="checkbox" /> Stop what needs the pass of this entry, until it
          passes:
          {{
            stops
              ? plural(stops.stops.length, 'entry', 'entries')
              : 'which ones shows when the server is back'
          }}</label
        >
        <ul class="small soft">
          <li v-for="e in stops?.stops.slice(0, 6)" :key="e.id" class="long">
            <span class="mono">{{ e.key }}</span> {{ e.title }} {{ e.why }}
          </li>
        </ul>
      </div>
      <div class="row">
        <Button :disabled="busy || locked" @click="finish">Finish and go on <kbd>Enter</kbd></Button>
        <span class="soft">Steps can be looked at again with <KeyCap of="k" /></span>
      </div>
    </template>
    <template v-else>
      <h2>
        <VerdictMark
          v-if="view.attempt.verdict"
          :shown="view.attempt.verdict as Final"
          word
          :size="14"
        /><template v-else>{{ view.attempt.state }}</template>
      </h2>
      <p class="soft">
        This attempt is {{ view.attempt.state
        }}<template v-if="view.attempt.overruled"
          >; the steps said {{ view.attempt.roll_up.replace('_', ' ') }}</template
        >. {{ view.attempt.note }}
      </p>
      <Button outlined @click="emit('next')">Next entry <kbd>Enter</kbd></Button>
    </template>
  </section>
</template>

<style scoped>
.wrap {
  margin: 12px 0 0 7px;
  padding: 18px 20px 20px 18px;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-left: 0;
  border-radius: 0 6px 6px 0;
  box-shadow:
    -6px 0 0 var(--lantern),
    -7px 0 0 var(--ink);
  display: grid;
  gap: 14px;
  justify-items: start;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.choice {
  display: inline-flex;
  gap: 8px;
  align-items: center;
  border: 1px solid var(--edge);
  border-radius: 6px;
  padding: 7px 12px;
  cursor: pointer;
}
.choice.chosen {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1px var(--ink);
}
.choice input {
  accent-color: var(--dusk);
}
.stops label {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.stops ul {
  padding-left: 28px;
}
.fields {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 12rem;
  gap: 16px;
  width: 100%;
}
@media (max-width: 640px) {
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
