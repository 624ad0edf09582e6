<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref, toRef } from 'vue';
import { errorMessage, Problem, type Api } from '@/api/client';
import CallLines from '@/areas/defects/parts/CallLines.vue';
import {
  leaveCallOut,
  readTracker,
  removeTracker,
  renewTrackerSecret,
  saveTracker,
  sendCallAgain,
  tryTracker,
} from '@/areas/defects/queries';
import { toast } from '@/kit/notices';
import StateBox from '@/kit/StateBox.vue';
import { useEditable } from '@/kit/useEditable';
import { ago, plainWords, plural } from '@/kit/words';
import { useRead } from '@/offline/useRead';

/** The tracker outside that defects are filed into: where it is, how it is spoken to, what waits for it. */
const props = defineProps<{ project: string }>();
const project = toRef(props, 'project');
const { data, error, isPending, refetch, set } = useRead(
  'defect',
  () => ['tracker', project.value],
  () => readTracker(project.value),
);
type Part = keyof Api['TrackerFields'];
const PARTS: { part: Part; title: string; about: string }[] = [
  { part: 'paths', title: 'Addresses', about: 'Method and path of each act, behind the address above.' },
  { part: 'fields', title: 'Fields that go out', about: 'How the tracker calls each.' },
  {
    part: 'answers',
    title: 'Fields that come in',
    about: 'Where each stands in an answer, names between dots.',
  },
  { part: 'states', title: 'Our states there', about: 'What each of ours is called there.' },
  { part: 'back', title: 'Their states here', about: 'What each of theirs is here.' },
  { part: 'headers', title: 'Headers', about: '{token} stands for the token.' },
];
const { form, dirty, follow } = useEditable(() => ({
  address: data.value?.address || data.value?.shipped || '',
  token: '',
  enabled: data.value?.enabled ?? true,
  sends_each: data.value?.sends_each ?? true,
  mapping: JSON.parse(JSON.stringify(data.value?.mapping ?? {})) as Record<Part, Record<string, string>>,
}));
const problem = ref('');
const wrong = ref<Record<string, string[]>>({});
const tried = ref<Api['TrackerTry'] | null>(null);
const secret = ref('');
const busy = ref(false);
async function run<T>(work: () => Promise<T>, words = ''): Promise<T | null> {
  [problem.value, wrong.value, busy.value] = ['', {}, true];
  try {
    const done = await work();
    if (words) toast(words);
    return done;
  } catch (e) {
    if (e instanceof Problem && Object.keys(e.errors).length > 0) wrong.value = e.errors;
    else problem.value = errorMessage(e);
    return null;
  } finally {
    busy.value = false;
  }
}
async function save(): Promise<void> {
  const { token, ...rest } = form.value;
  const now = await run(
    () => saveTracker(project.value, { ...rest, ...(token ? { token } : {}) }),
    'The tracker is set up.',
  );
  if (now) {
    await set(now);
    follow();
  }
}
async function attempt(): Promise<void> {
  tried.value = await run(() => tryTracker(project.value));
}
async function drop(): Promise<void> {
  const now = await run(() => removeTracker(project.value), 'No tracker outside is used any more.');
  if (now) {
    await set(now);
    follow();
  }
}
async function renew(): Promise<void> {
  secret.value = (await run(() => renewTrackerSecret(project.value))) ?? '';
}
const act = (work: () => Promise<unknown>): Promise<void> => run(work).then(() => void refetch());
const state = computed(() =>
  data.value
    ? [
        data.value.problem,
        data.value.resting_until ? 'It rests for a minute.' : '',
        data.value.polled_at ? `Asked for changes ${ago(data.value.polled_at)}.` : '',
      ].filter(Boolean)
    : [],
);
</script>

<template>
  <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
  <template v-else>
    <form aria-label="The tracker" @submit.prevent="save">
      <label
        ><span class="label">Where its API begins</span
        ><input
          v-model="form.address"
          class="field"
          maxlength="500"
          placeholder="https://tracker.example/api"
      /></label>
      <p v-if="wrong.address" class="p-invalid-words" role="alert">{{ wrong.address[0] }}</p>
      <label
        ><span class="label">Token{{ data.has_token ? ', kept; another one replaces it' : '' }}</span
        ><input v-model="form.token" class="field" type="password" autocomplete="off" maxlength="2000"
      /></label>
      <label class="check"><input v-model="form.enabled" type="checkbox" /> It is used</label>
      <label class="check"
        ><input v-model="form.sends_each" type="checkbox" /> Every defect goes there by itself; otherwise
        those that somebody sends</label
      >
      <details>
        <summary>How it is spoken to</summary>
        <fieldset v-for="p in PARTS" :key="p.part">
          <legend class="label">{{ p.title }}. {{ p.about }}</legend>
          <label v-for="(_, name) in form.mapping[p.part]" :key="name"
            ><span class="soft small">{{ p.part === 'headers' ? name : plainWords(String(name)) }}</span
            ><input v-model="form.mapping[p.part]![name]" class="field mono" maxlength="500"
          /></label>
        </fieldset>
      </details>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      <p class="row">
        <Button type="submit" :disabled="busy || (!dirty && data.is_set)" label="Save" />
        <Button
          v-if="data.is_set"
          outlined
          severity="secondary"
          :disabled="busy || dirty"
          label="Send a test, show the answer"
          @click="attempt"
        />
        <button v-if="data.is_set" type="button" class="link soft" @click="drop">Use none</button>
      </p>
    </form>
    <div v-if="tried" class="tried" role="status">
      <p class="mono small long">{{ tried.asked }} → {{ tried.status ?? 'no answer' }}</p>
      <p v-if="tried.problem" class="p-invalid-words">{{ tried.problem }}</p>
      <p v-else>It works: it calls the test {{ tried.key }}.</p>
      <p v-if="tried.answer" class="mono small long">{{ tried.answer }}</p>
    </div>
    <template v-if="data.is_set">
      <p v-for="s in state" :key="s" class="soft long">{{ s }}</p>
      <p>
        {{ plural(data.waiting, 'call waits', 'calls wait') }}, {{ data.refused }} refused.
        <a
          v-if="data.shipped && data.address === data.shipped"
          :href="data.shipped.replace('/api', '/')"
          target="_blank"
          >Open the tracker</a
        >
      </p>
      <CallLines
        :calls="data.calls"
        may-send
        named
        @again="(id) => act(() => sendCallAgain(id))"
        @leave="(id) => act(() => leaveCallOut(id))"
      />
      <p class="soft small long">
        It may tell of changes at <span class="mono">{{ data.webhook }}</span>, signed with a secret.
        <button type="button" class="link" @click="renew">Make a new secret</button>
      </p>
      <p v-if="secret" role="status" class="long">
        Shown this once: <span class="mono">{{ secret }}</span>
      </p>
    </template>
  </template>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
}
fieldset {
  border: 0;
  margin: 10px 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
  gap: 6px 14px;
}
summary {
  cursor: pointer;
  color: var(--ink-soft);
}
.tried {
  padding: 10px 14px;
  margin: 10px 0;
  background: var(--well);
}
</style>
