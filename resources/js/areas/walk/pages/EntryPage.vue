<script setup lang="ts">
import { durationText } from '@/kit/duration';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import { computed, nextTick, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage, Problem } from '@/api/client';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';
import { may, mayLead, session } from '@/areas/people/session';
import StateBox from '@/kit/StateBox.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { ago, entryWords, exact, plainWords, reasonWords, shownOf, wordOf, type Shown } from '@/kit/words';
import { useStart } from '@/areas/walk/useStart';
import AttemptProtocol from '@/areas/walk/parts/AttemptProtocol.vue';
import EntryCare from '@/areas/walk/parts/EntryCare.vue';
import { askRetest, readEntry, takeOver } from '@/areas/walk/queries';

const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const id = computed(() => String(route.params.entry));
const { start, problem, busy } = useStart(project);
const { data, error, isPending, refetch, set } = useRead(
  'entry',
  () => ['entry', id.value],
  () => readEntry(id.value),
);
const chosen = computed(() =>
  typeof route.query.attempt === 'string' ? route.query.attempt : (data.value?.attempts[0]?.id ?? null),
);
const asking = ref(false);
const reason = ref('');
const refusal = ref('');
const word = ref('');
/** Conditions that only warn: walking it now asks for a word. */
const warned = computed(
  () =>
    (data.value?.entry.warnings.length ?? 0) > 0 &&
    data.value?.entry.open_attempt_id === null &&
    data.value.may_record,
);
const mineOpen = computed(
  () =>
    data.value?.entry.walking?.id === session.value?.user.id && data.value?.entry.open_attempt_id !== null,
);

async function ask(): Promise<void> {
  asking.value = true;
  refusal.value = '';
  await nextTick();
  document.getElementById('retest-reason')?.focus();
}
async function send(): Promise<void> {
  try {
    await set(await askRetest(id.value, reason.value));
    asking.value = false;
    reason.value = '';
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    refusal.value = e.errors.reason?.[0] ?? e.message;
  }
}
async function takeIt(): Promise<void> {
  const attempt = data.value?.entry.open_attempt_id;
  if (!attempt) return;
  try {
    await takeOver(attempt);
    await router.push(`/${project.value}/walk/${attempt}`);
  } catch (e) {
    toast(errorMessage(e));
  }
}
</script>

<template>
  <div class="page">
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <p class="soft small crumbs">
        <RouterLink :to="`/${project}/cycles/${data.cycle.key}`">{{ data.cycle.name }}</RouterLink>
      </p>
      <div class="title-line">
        <RouterLink class="mono soft plain" :to="`/${project}/casebook/${data.entry.case_key}`">{{
          data.entry.case_key
        }}</RouterLink>
        <h1 class="long">{{ data.entry.title }}</h1>
        <span class="soft"
          >{{ data.entry.configuration?.name }} ·
          {{ data.entry.assignee?.name ?? 'assigned to nobody' }}</span
        >
        <RouterLink :to="`/${project}/trace/entry/${data.entry.id}`">Trace</RouterLink>
        <div class="actions">
          <Button
            v-if="
              mayLead(project) &&
              data.attempts.some((a) => a.state === 'finished') &&
              !data.entry.open_attempt_id
            "
            outlined
            severity="secondary"
            label="Ask for a retest"
            @click="ask"
          />
          <Button
            v-if="mineOpen && data.cycle.state === 'released'"
            outlined
            severity="secondary"
            label="Start again"
            title="Closes the open attempt as abandoned and starts a new one; what was recorded stays readable"
            @click="start(data.entry.id, { again: true })"
          />
          <Button
            v-if="data.entry.walking && !mineOpen && data.may_record"
            outlined
            :label="`Take over from ${data.entry.walking.name}`"
            @click="takeIt"
          />
          <Button
            v-else-if="data.cycle.state === 'released' && data.may_record && data.entry.readiness !== 'held'"
            :disabled="busy"
            :label="mineOpen ? 'Go on' : data.attempts.length > 0 ? 'Walk it again' : 'Walk it'"
            @click="start(data.entry.id, { word })"
          />
        </div>
      </div>
      <p class="row">
        <VerdictMark :shown="shownOf(data.entry)" word :label="entryWords(data.entry)" :size="14" />
        <span v-if="data.entry.reasons.length > 0" class="soft">{{
          data.entry.reasons.map(reasonWords).join('; ')
        }}</span>
        <span v-if="data.entry.retest_reason" class="long"
          >“{{ data.entry.retest_reason }}” <span class="soft">{{ data.entry.retest_by?.name }}</span></span
        >
      </p>
      <EntryCare
        :project="project"
        :entry="data.entry"
        :open="data.cycle.state === 'released'"
        :may-walk="data.may_record && data.cycle.state === 'released' && data.attempts.length > 0"
        @walk="start(data.entry.id, { word })"
        @changed="set"
      />
      <div v-if="warned" class="ask">
        <p>This entry {{ data.entry.warnings.map(reasonWords).join('; ') }}.</p>
        <label class="label" for="walk-word">Why walk it now?</label>
        <InputText id="walk-word" v-model="word" fluid maxlength="2000" :invalid="!!problem?.errors.word" />
        <p v-if="problem?.errors.word" class="p-invalid-words" role="alert">{{ problem.errors.word[0] }}</p>
      </div>
      <p v-if="problem && !problem.errors.word" class="p-invalid-words" role="alert">{{ problem.message }}</p>
      <form v-if="asking" class="ask" @submit.prevent="send">
        <label class="label" for="retest-reason">What should be looked at again?</label>
        <Textarea
          id="retest-reason"
          v-model="reason"
          fluid
          rows="2"
          maxlength="2000"
          :invalid="refusal !== ''"
        />
        <p v-if="refusal" class="p-invalid-words" role="alert">{{ refusal }}</p>
        <div class="row">
          <Button type="submit" label="Ask for the retest" /><Button
            text
            severity="secondary"
            label="Leave it"
            @click="asking = false"
          />
        </div>
      </form>
      <p v-if="data.defects.length > 0 || may(project, 'file_defects')" class="defects">
        <span v-if="data.defects.length > 0" class="label">Defects</span
        ><span v-for="d in data.defects" :key="d.id" class="row"
          ><RouterLink class="mono" :to="`/${project}/defects/${d.key}`">{{ d.key }}</RouterLink>
          <span class="long">{{ d.title }}</span>
          <span class="soft small">{{ plainWords(d.state) }}</span></span
        >
        <RouterLink
          v-if="may(project, 'file_defects')"
          class="small file"
          :to="`/${project}/defects/new?${chosen ? `attempt=${chosen}` : `case=${data.entry.case_key}`}`"
          >File a defect</RouterLink
        >
      </p>
      <StateBox v-if="data.attempts.length === 0" empty="Nobody has walked this entry yet." />
      <div v-else class="attempts">
        <nav aria-label="Attempts">
          <RouterLink
            v-for="a in data.attempts"
            :key="a.id"
            :to="{ query: { attempt: a.id } }"
            :aria-current="a.id === chosen ? 'true' : undefined"
          >
            <VerdictMark :shown="(a.verdict ?? (a.state === 'open' ? 'in_progress' : 'not_run')) as Shown" />
            <span
              >Attempt {{ a.number
              }}<span class="soft small"
                ><br />{{ a.verdict ? wordOf(a.verdict as Shown) : plainWords(a.state) }}, {{ a.tester.name
                }}<br /><span :title="exact(a.started_at)">{{ ago(a.started_at) }}</span
                >, {{ durationText(a.corrected_ms ?? a.active_ms) }}</span
              ></span
            >
          </RouterLink>
        </nav>
        <AttemptProtocol v-if="chosen" :key="chosen" :attempt="chosen" :project="project" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.crumbs {
  margin-bottom: 4px;
}
.ask {
  margin: 16px 0;
  max-width: 640px;
  display: grid;
  gap: 8px;
}
.file,
.defects a {
  display: inline-block;
  padding: 4px 0;
}
.defects {
  margin-top: 14px;
}
.attempts {
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr);
  gap: 28px;
  margin-top: 22px;
}
nav {
  display: grid;
  gap: 4px;
  align-content: start;
}
nav a {
  display: flex;
  gap: 10px;
  align-items: baseline;
  padding: 8px;
  color: var(--ink);
  text-decoration: none;
  border-radius: 6px;
}
nav a[aria-current] {
  background: var(--sheet);
  box-shadow: inset 3px 0 0 var(--ink);
}
@media (max-width: 760px) {
  .attempts {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
