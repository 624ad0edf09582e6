<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';
import { api, Problem, take } from '@/api/client';
import MarkdownText from '@/kit/MarkdownText.vue';
import { useRead } from '@/kit/read';
import { mayLead, mayRecord, session } from '@/kit/session';
import StateBox from '@/kit/StateBox.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { exact, length, wordOf, type Shown } from '@/kit/words';
import EvidenceCard from '@/walk/EvidenceCard.vue';

/** An attempt as it was walked, step by step, with what was seen. */
const props = defineProps<{ attempt: string; project: string }>();
const { data, error, isPending, refetch } = useRead(
  'entry',
  () => ['attempt', props.attempt],
  async () => take(await api.GET('/attempts/{attempt}', { params: { path: { attempt: props.attempt } } })),
);
const { data: check } = useQuery({
  queryKey: computed(() => ['check', props.attempt, data.value?.attempt.state]),
  queryFn: async () =>
    take(await api.GET('/attempts/{attempt}/verification', { params: { path: { attempt: props.attempt } } })),
});
const checkWords = computed(() => {
  if (!check.value) return '';
  const { state, events, at, why, head } = check.value;
  if (state === 'broken') return `The record is broken at event ${at}: ${why}.`;
  return `${state === 'open' ? 'Open, not sealed' : 'Sealed'}: ${events} events fit, head ${head?.slice(0, 12)}…`;
});
const mayCorrect = computed(
  () =>
    data.value?.attempt.state === 'finished' &&
    (mayLead(props.project) ||
      (mayRecord(props.project) && data.value.attempt.tester.id === session.value?.user.id)),
);
const correcting = ref(false);
const time = ref('');
const refusal = ref('');
async function correct(): Promise<void> {
  refusal.value = '';
  try {
    await api.POST('/attempts/{attempt}/time', {
      params: { path: { attempt: props.attempt } },
      body: { time: time.value },
    });
    correcting.value = false;
    time.value = '';
    await refetch();
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    refusal.value = e.errors.time?.[0] ?? e.message;
  }
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
        {{ length(data.attempt.corrected_ms ?? data.attempt.active_ms)
        }}<template v-if="data.attempt.corrected_ms !== null"
          >, corrected from {{ length(data.attempt.active_ms) }}</template
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
          autofocus
          maxlength="40"
          placeholder="1h 20m"
          :invalid="refusal !== ''"
        />
        <Button type="submit" label="Correct it" />
        <Button text severity="secondary" label="Leave it" @click="correcting = false" />
        <p v-if="refusal" class="p-invalid-words" role="alert">{{ refusal }}</p>
      </form>
      <p v-if="data.attempt.note" class="long">{{ data.attempt.note }}</p>
    </header>
    <template v-for="r in data.rounds" :key="r.position">
      <ol>
        <li v-for="s in data.steps" :key="s.position">
          <template v-for="rec in r.steps.filter((x) => x.position === s.position)" :key="rec.position">
            <span class="mono soft">{{ s.position }}</span>
            <VerdictMark :shown="rec.verdict" />
            <div class="what">
              <MarkdownText :text="s.action" />
              <p v-if="s.data" class="mono small long data">{{ s.data }}</p>
              <div class="soft small"><MarkdownText :text="s.expected" /></div>
              <p v-if="rec.happened" class="long"><strong>Instead:</strong> {{ rec.happened }}</p>
              <p v-if="rec.reason" class="long">
                <strong>Blocked:</strong> {{ rec.reason
                }}<template v-if="rec.waits_on">, waits on {{ rec.waits_on }}</template>
              </p>
              <p v-if="rec.note" class="long"><strong>Note:</strong> {{ rec.note }}</p>
              <p v-for="d in data.defects.filter((x) => x.step === s.position)" :key="d.id">
                <RouterLink class="mono" :to="`/${project}/defects/${d.key}`">{{ d.key }}</RouterLink>
                {{ d.title }}
              </p>
            </div>
            <div class="evidence">
              <EvidenceCard
                v-for="e in data.evidence.filter((x) => x.step === s.position)"
                :key="e.id"
                :item="e"
                locked
              />
            </div>
            <span class="soft small time">{{ rec.active_ms > 0 ? length(rec.active_ms) : '' }}</span>
          </template>
        </li>
      </ol>
    </template>
    <div v-if="general.length > 0" class="general">
      <EvidenceCard v-for="e in general" :key="e.id" :item="e" locked />
    </div>
    <p class="soft small record" role="status">{{ checkWords }}</p>
  </article>
</template>

<style scoped>
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
