<script setup lang="ts">
import { durationText } from '@/kit/duration';
import { useQuery } from '@tanstack/vue-query';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { computed, ref, toRef } from 'vue';
import { Problem, type Api } from '@/api/client';
import { vFocus } from '@/kit/focus';
import MarkdownText from '@/kit/MarkdownText.vue';
import { useRead } from '@/offline/useRead';
import { may, mayLead, mayRecord, session } from '@/areas/people/session';
import StateBox from '@/kit/StateBox.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { ago, exact, plural, wordOf, type Shown } from '@/kit/words';
import EarlierLines from './EarlierLines.vue';
import EvidenceCard from '@/areas/evidence/parts/EvidenceCard.vue';
import { useEarlier } from '@/areas/walk/useEarlier';
import AttemptRecord from './AttemptRecord.vue';
import { correctTime, readAttempt, verifyAttempt } from '@/areas/walk/queries';

/** An attempt as it was walked, step by step, with what was seen. */
const props = defineProps<{ attempt: string; project: string }>();
const { data, error, isPending, refetch, set } = useRead(
  'entry',
  () => ['attempt', props.attempt],
  () => readAttempt(props.attempt),
);
const { data: check } = useQuery({
  queryKey: computed(() => ['check', props.attempt, data.value?.attempt.state]),
  queryFn: () => verifyAttempt(props.attempt),
});
const checkWords = computed(() => {
  if (!check.value) return '';
  const { state, events, at, why, head } = check.value;
  if (state === 'broken') return `The record is broken at event ${at}: ${why}.`;
  const gone = check.value.removed.length;
  const taken = gone > 0 ? `; ${plural(gone, 'part')} taken out, with its trace` : '';
  return `${state === 'open' ? 'Open, not sealed' : 'Sealed'}: ${events} events fit, head ${head?.slice(0, 12)}…${taken}`;
});
const mayCorrect = computed(
  () =>
    data.value?.attempt.state === 'finished' &&
    (mayLead(props.project) ||
      (mayRecord(props.project) && data.value.attempt.tester.id === session.value?.user.id)),
);
const isBad = (verdict: string): boolean => verdict === 'fail' || verdict === 'blocked';
const correcting = ref(false);
const time = ref('');
const refusal = ref('');
async function correct(): Promise<void> {
  refusal.value = '';
  try {
    await set(await correctTime(props.attempt, time.value));
    correcting.value = false;
    time.value = '';
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    refusal.value = e.errors.time?.[0] ?? e.message;
  }
}
/** A retest is read beside the attempt before it. */
const earlier = useEarlier(
  toRef(() => props.attempt),
  () => (data.value?.attempt.id === props.attempt ? data.value.attempt.number : 1),
);
const beside = ref(true);
/** The step as its round reads it. */
function textOf(r: Api['RoundRecord'], position: number): Api['StepText'] | undefined {
  return (
    r.texts.find((t) => t.position === position) ?? data.value?.steps.find((t) => t.position === position)
  );
}
const general = computed(() => data.value?.evidence.filter((e) => e.step === null) ?? []);
</script>

<template>
  <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
  <article v-else class="sheet">
    <header>
      <p>
        <VerdictMark
          v-if="data.attempt.verdict"
          :shown="data.attempt.verdict as Shown"
          word
          :size="14"
        /><span v-else>{{ data.attempt.state }}</span>
        <span v-if="data.attempt.overruled" class="soft">
          the steps said {{ wordOf(data.attempt.roll_up as Shown).toLowerCase() }}</span
        >
      </p>
      <p class="soft small">
        {{ data.attempt.tester.name }} · {{ exact(data.attempt.started_at)
        }}<template v-if="data.attempt.finished_at"> to {{ exact(data.attempt.finished_at) }}</template> ·
        build {{ data.attempt.build?.name }} · {{ data.attempt.configuration?.name }} · version
        {{ data.case_version }} of the case
      </p>
      <p class="soft small">
        {{ durationText(data.attempt.corrected_ms ?? data.attempt.active_ms)
        }}<template v-if="data.attempt.corrected_ms !== null"
          >, corrected from {{ durationText(data.attempt.active_ms) }}</template
        >
        <Button
          v-if="mayCorrect && !correcting"
          size="small"
          text
          label="Correct the time"
          @click="correcting = true"
        />
      </p>
      <form v-if="correcting" class="correct" @submit.prevent="correct">
        <label class="label" for="correct-time">Time it really took</label>
        <InputText
          id="correct-time"
          v-model="time"
          v-focus
          maxlength="40"
          placeholder="1h 20m"
          :invalid="refusal !== ''"
        />
        <Button type="submit" label="Correct it" />
        <Button text severity="secondary" label="Leave it" @click="correcting = false" />
        <p v-if="refusal" class="p-invalid-words" role="alert">{{ refusal }}</p>
      </form>
      <p v-if="data.attempt.number > 1">
        <button type="button" class="link small" :aria-pressed="beside" @click="beside = !beside">
          {{ beside ? 'This attempt alone' : 'Beside the attempt before' }}
        </button>
      </p>
      <p v-if="data.attempt.named_environment || data.attempt.environment" class="soft small long">
        On
        {{ [data.attempt.named_environment?.name, data.attempt.environment].filter(Boolean).join(', ') }}
      </p>
      <p v-if="data.attempt.from_list"><strong>Judged from the list:</strong> nobody walked its steps.</p>
      <p v-if="data.attempt.parallel_reason">
        <strong>Stands beside another attempt:</strong> {{ data.attempt.parallel_reason }}
      </p>
      <p v-if="data.attempt.note" class="long">{{ data.attempt.note }}</p>
      <p v-if="data.attempt.remark" class="long">{{ data.attempt.remark }}</p>
    </header>
    <template v-for="r in data.rounds" :key="r.position">
      <h3 v-if="data.rounds.length > 1 || r.values.length > 0" class="round">
        <VerdictMark :shown="(r.skipped === null ? r.roll_up : 'not_applicable') as Shown" />
        Round {{ r.position }}<template v-if="r.repeats">, once more {{ r.repeats }}</template>
        <span v-if="r.skipped !== null" class="soft">left out: {{ r.skipped }}</span>
        <span v-for="v in r.values" :key="v.name" class="soft small"
          >{{ v.name }} <span class="mono">{{ v.value || '(empty)' }}</span></span
        >
      </h3>
      <ol v-if="r.skipped === null">
        <li v-for="s in data.steps" :key="s.position">
          <template v-for="rec in r.steps.filter((x) => x.position === s.position)" :key="rec.position">
            <span class="mono soft">{{ s.position }}</span>
            <VerdictMark :shown="rec.verdict" />
            <div class="what">
              <MarkdownText :text="textOf(r, s.position)?.action ?? s.action" />
              <p v-if="s.data" class="mono small long data">{{ textOf(r, s.position)?.data ?? s.data }}</p>
              <div class="soft small">
                <MarkdownText :text="textOf(r, s.position)?.expected ?? s.expected" />
              </div>
              <p v-if="rec.happened" class="long"><strong>Instead:</strong> {{ rec.happened }}</p>
              <p v-if="rec.reason" class="long">
                <strong>{{ rec.verdict === 'blocked' ? 'Blocked' : 'Reason' }}:</strong> {{ rec.reason
                }}<template v-if="rec.waits_on">, waits on {{ rec.waits_on }}</template>
              </p>
              <p v-if="rec.tries > 0">
                <strong>Tried:</strong> failed {{ rec.tries_failed }} of {{ rec.tries }}
              </p>
              <p v-if="rec.note" class="long"><strong>Note:</strong> {{ rec.note }}</p>
              <EarlierLines
                v-if="beside"
                :all="earlier(r.position, s.position)"
                :entry="data.entry_id"
                :project="project"
              />
              <p
                v-for="d in data.defects.filter(
                  (x) => x.step === s.position && (x.round ?? 1) === r.position,
                )"
                :key="d.id"
              >
                <RouterLink class="mono" :to="`/${project}/defects/${d.key}`">{{ d.key }}</RouterLink>
                {{ d.title }}
              </p>
              <p v-if="isBad(rec.verdict) && may(project, 'file_defects')">
                <RouterLink
                  class="small file"
                  :to="`/${project}/defects/new?attempt=${data.attempt.id}&round=${r.position}&step=${s.position}`"
                  >File a defect</RouterLink
                >
              </p>
            </div>
            <div class="evidence">
              <EvidenceCard
                v-for="e in data.evidence.filter(
                  (x) => x.step === s.position && (x.round ?? 1) === r.position,
                )"
                :key="e.id"
                :item="e"
                :project="project"
                :references="(s.files ?? []).map((f) => ({ ...f }))"
                locked
              />
            </div>
            <span class="soft small time">{{ rec.active_ms > 0 ? durationText(rec.active_ms) : '' }}</span>
          </template>
        </li>
      </ol>
    </template>
    <div v-if="general.length > 0" class="general">
      <EvidenceCard v-for="e in general" :key="e.id" :item="e" locked />
    </div>
    <section v-if="data.late.length > 0" class="came" aria-label="Arrived too late">
      <h3>
        Arrived too late <span class="soft">{{ data.late.length }}</span>
      </h3>
      <ol>
        <li v-for="l in data.late" :key="l.id">
          <span class="long">{{ l.words }}</span>
          <span class="soft small"
            >{{ l.by.name }}, {{ ago(l.received_at) }} ·
            <template v-if="l.state === 'waiting'">waits for a lead: {{ l.why }}</template
            ><template v-else-if="l.state === 'set_aside'">set aside by {{ l.judged_by?.name }}</template
            ><template v-else
              >accepted by {{ l.judged_by?.name
              }}<template v-if="l.applied_to_id && l.applied_to_id !== attempt"
                >,
                <RouterLink :to="`/${project}/entries/${data.entry_id}?attempt=${l.applied_to_id}`"
                  >in an attempt of its own</RouterLink
                ></template
              ></template
            ></span
          >
        </li>
      </ol>
    </section>
    <p class="soft small record" role="status">{{ checkWords }}</p>
    <AttemptRecord :attempt="attempt" :project="project" :detail="data" @changed="refetch()" />
  </article>
</template>

<style scoped>
.file {
  display: inline-block;
  padding: 4px 0;
}
.came {
  padding: 12px 0 14px;
}
.came h3 {
  font-size: 1rem;
}
.came li {
  display: block;
  padding: 5px 0;
  border: 0;
}
.came li > span {
  display: block;
}
.round {
  font-size: 1rem;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  padding: 14px 18px 4px;
}
article {
  padding: 16px 20px;
  min-width: 0;
}
header {
  display: grid;
  gap: 3px;
  margin-bottom: 10px;
}
li {
  display: grid;
  grid-template-columns: 1.4rem 14px minmax(0, 1fr) minmax(0, 240px) 3rem;
  gap: 12px;
  border-top: 1px solid var(--rule);
  padding: 10px 0;
  align-items: start;
}
li > .verdict {
  padding-top: 5px;
}
.what {
  display: grid;
  gap: 4px;
}
.data {
  white-space: pre-line;
}
.time {
  text-align: right;
}
.evidence,
.general {
  display: grid;
  gap: 10px;
}
.general {
  grid-template-columns: repeat(auto-fill, 220px);
}
.correct {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
}
.record {
  border-top: 1px solid var(--rule);
  padding-top: 10px;
}
@media (max-width: 900px) {
  li {
    grid-template-columns: 1.4rem 14px minmax(0, 1fr);
  }
  .evidence {
    grid-column: 3;
  }
  .time {
    display: none;
  }
}
</style>
