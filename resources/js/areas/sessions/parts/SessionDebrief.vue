<script setup lang="ts">
import Button from 'primevue/button';
import Textarea from 'primevue/textarea';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import { moveTime, signOff, verifySession, writeDebrief } from '@/areas/sessions/queries';
import { FOCUS, WORK, type ShownLine, type Share } from '@/areas/sessions/types';
import SessionTalk from '@/areas/sessions/parts/SessionTalk.vue';
import KeyCap from '@/kit/KeyCap.vue';
import MarkdownText from '@/kit/MarkdownText.vue';
import { useKeys } from '@/kit/keys';
import { parseDuration } from '@/kit/duration';
import { clock, exact, plural, when } from '@/kit/words';
import { useLocalDraft } from '@/offline/useLocalDraft';

/** What came of it: proposed from the timeline, the rest in the words of who ran it; a lead reads it and signs it off. */
const props = defineProps<{
  detail: Api['SessionDetail'];
  /** What the time went to, up to now. */
  time: Api['SessionShares'];
  lines: ShownLine[];
  project: string;
  mayLead: boolean;
  maySay: boolean;
}>();
const router = useRouter();
const emit = defineEmits<{ changed: [Api['SessionDetail']] }>();
const isOver = computed(() => props.detail.state === 'stopped' || props.detail.state === 'debriefed');
const mayWrite = computed(() => props.detail.mine && props.detail.state === 'stopped');
const { draft, clear } = useLocalDraft(
  computed(() => `debrief:${props.detail.id}`),
  () => ({ covered: props.detail.covered, remarks: props.detail.remarks, note: '' }),
);
const problem = ref('');
const busy = ref(false);
const found = (kind: ShownLine['kind']): ShownLine[] =>
  props.lines.filter((l) => l.kind === kind && !l.removed);
const lists = computed(() =>
  (
    [
      ['issue', 'Issues'],
      ['question', 'Questions'],
      ['risk', 'Risks'],
      ['idea', 'Ideas for the next'],
    ] as const
  )
    .map(([kind, word]) => ({ word, lines: found(kind) }))
    .filter((l) => l.lines.length > 0),
);
const checked = ref('');
async function check(): Promise<void> {
  try {
    const found = await verifySession(props.detail.id);
    checked.value =
      found.state === 'broken' ? `Broken: ${found.why}` : `Whole, ${plural(found.events, 'event')}.`;
  } catch (error) {
    checked.value = errorMessage(error);
  }
}
/** What came to mind for the next charter, with the area of this one. */
const lastIdea = computed(() => found('idea').at(-1));
function exploreNext(line: ShownLine): string {
  const { area_kind: kind, area_id: id } = props.detail.charter;
  const query = new URLSearchParams({ title: line.words.split('\n')[0]!, ...(kind ? { [kind]: id } : {}) });
  return `/${props.project}/sessions/new?${query}`;
}
useKeys('Debrief', () =>
  lastIdea.value && props.maySay
    ? [
        {
          keys: ['x'],
          label: 'Explore the last idea next',
          run: () => void router.push(exploreNext(lastIdea.value!)),
        },
      ]
    : [],
);
const total = computed(() => props.time.charter + props.time.opportunity);
const percent = (ms: number): string => `${total.value === 0 ? 0 : Math.round((ms / total.value) * 100)} %`;
const shares = computed(() => [FOCUS, WORK].map((of) => of.map((o) => ({ ...o, ms: props.time[o.value] }))));

async function run(work: () => Promise<Api['SessionDetail']>): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  problem.value = '';
  try {
    emit('changed', await work());
    moving.value = null;
    await clear();
  } catch (error) {
    problem.value = errorMessage(error);
  }
  busy.value = false;
}
const save = (): Promise<void> =>
  run(() => writeDebrief(props.detail.id, { covered: draft.value.covered, remarks: draft.value.remarks }));
const sign = (): Promise<void> => run(() => signOff(props.detail.id, draft.value.note));

/** Time that was booked wrong: from where, to where, how much. */
const moving = ref<{ from: Share; to: Share; much: string } | null>(null);
async function move(): Promise<void> {
  const of = moving.value;
  if (!of) return;
  const ms = parseDuration(of.much);
  if (ms === null) problem.value = 'Write it like 90s, 12m or 1h 20m.';
  else await run(() => moveTime(props.detail.id, { from: of.from, to: of.to, ms }));
}
const others = (of: Share): { value: Share; word: string }[] =>
  (FOCUS.some((f) => f.value === of) ? FOCUS : WORK).filter((o) => o.value !== of);
</script>

<template>
  <section class="debrief" aria-label="Debrief">
    <h2>{{ isOver ? 'Debrief' : 'So far' }}</h2>
    <dl v-for="(of, i) in shares" :key="i" class="shares">
      <div v-for="s in of" :key="s.value">
        <dt>{{ s.word }}</dt>
        <dd>
          <span class="mono">{{ clock(s.ms) }}</span> <span class="soft small">{{ percent(s.ms) }}</span>
          {{ ' ' }}
          <button
            v-if="mayWrite && s.ms > 0"
            type="button"
            class="link soft small"
            :aria-label="`Move time from ${s.word}`"
            @click="moving = { from: s.value, to: others(s.value)[0]!.value, much: '' }"
          >
            Move
          </button>
        </dd>
      </div>
    </dl>
    <form v-if="moving" class="row small" aria-label="Move time" @submit.prevent="move">
      <label>How much <input v-model="moving.much" class="field inline" size="8" placeholder="5m" /></label>
      <label
        >to
        <select v-model="moving.to" class="field inline">
          <option v-for="o in others(moving.from)" :key="o.value" :value="o.value">{{ o.word }}</option>
        </select></label
      >
      <button type="submit" class="link">Move it</button>
      <button type="button" class="link soft" @click="moving = null">Leave it</button>
    </form>
    <section v-for="l in lists" :key="l.word" :aria-label="l.word">
      <h3>
        {{ l.word }} <span class="soft">{{ l.lines.length }}</span>
      </h3>
      <ul>
        <li v-for="line in l.lines" :key="line.id" class="small">
          <span class="mono soft">{{ clock(line.at_ms) }}</span>
          <div>
            <MarkdownText :text="line.words" />
            <RouterLink v-if="line.kind === 'idea' && !line.waiting" :to="exploreNext(line)"
              >Explore it next <KeyCap v-if="line.id === lastIdea?.id" of="x"
            /></RouterLink>
          </div>
        </li>
      </ul>
    </section>
    <p v-if="lists.length === 0" class="soft">Nothing was found yet.</p>
    <form v-if="mayWrite" @submit.prevent="save" @keydown.ctrl.enter.prevent="save">
      <label for="covered">What was covered</label>
      <Textarea id="covered" v-model="draft.covered" rows="3" auto-resize fluid maxlength="20000" />
      <label for="remarks">What else is to be said</label>
      <Textarea id="remarks" v-model="draft.remarks" rows="2" auto-resize fluid maxlength="20000" />
      <div class="row">
        <Button type="submit" size="small" outlined :disabled="busy"
          >Save the debrief <kbd>Ctrl Enter</kbd></Button
        >
      </div>
    </form>
    <template v-else-if="isOver">
      <div v-if="detail.covered">
        <span class="label">Covered</span><MarkdownText :text="detail.covered" />
      </div>
      <div v-if="detail.remarks">
        <span class="label">Remarks</span><MarkdownText :text="detail.remarks" />
      </div>
      <p v-if="!detail.covered && !detail.remarks" class="soft">
        {{ detail.tester.name }} wrote no debrief yet.
      </p>
    </template>
    <p v-if="detail.signed_by" class="long">
      <strong>{{ detail.signed_by.name }}</strong> read it and signed it off,
      <span :title="exact(detail.signed_at ?? '')">{{ when(detail.signed_at ?? '') }}</span>.
      {{ detail.sign_note }}
    </p>
    <form v-else-if="mayLead && !detail.mine && detail.state === 'stopped'" @submit.prevent="sign">
      <label for="sign-note">A word for {{ detail.tester.name }}</label>
      <Textarea id="sign-note" v-model="draft.note" rows="2" auto-resize fluid maxlength="10000" />
      <div class="row"><Button type="submit" size="small" :disabled="busy" label="Read, sign it off" /></div>
      <p class="soft small">Nothing is written into the session any more then.</p>
    </form>
    <SessionTalk
      v-if="isOver || detail.comments.length > 0"
      :project="project"
      :detail="detail"
      :may-say="maySay"
      @changed="(now) => emit('changed', now)"
    />
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <p class="soft small">
      <RouterLink :to="`/${project}/sessions/${detail.charter.key}/sheet?run=${detail.number}`"
        >On one sheet</RouterLink
      >
      · <a :href="`/api/v1/test-sessions/${detail.id}/bundle`" download>The record as a ZIP</a> ·
      <button type="button" class="link soft" @click="check">Check it</button>
      <span v-if="checked" role="status">{{ checked }}</span>
    </p>
    <p class="soft small">{{ plural(lines.length, 'line') }} in the timeline.</p>
  </section>
</template>

<style scoped>
.debrief {
  display: grid;
  gap: 14px;
  align-content: start;
}
.shares {
  display: grid;
  gap: 2px;
  margin: 0;
}
.shares > div {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
dd {
  margin: 0;
}
ul {
  display: grid;
  gap: 6px;
  margin-top: 4px;
}
li {
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr);
  gap: 8px;
}
form {
  display: grid;
  gap: 6px;
}
h3 {
  font-size: 1rem;
  margin: 0;
}
</style>
