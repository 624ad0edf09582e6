<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import type { Api } from '@/api/client';
import { mayLead, mayRecord, mayRemoveContent, session as me } from '@/areas/people/session';
import SessionComposer from '@/areas/sessions/parts/SessionComposer.vue';
import SessionDebrief from '@/areas/sessions/parts/SessionDebrief.vue';
import AwayAsk from '@/areas/sessions/parts/AwayAsk.vue';
import ListeningTo from '@/areas/sessions/parts/ListeningTo.vue';
import SessionCompanion from '@/areas/sessions/parts/SessionCompanion.vue';
import SessionHead from '@/areas/sessions/parts/SessionHead.vue';
import SessionTimeline from '@/areas/sessions/parts/SessionTimeline.vue';
import { isObserved, KINDS, type ShownLine } from '@/areas/sessions/types';
import { useTestSession } from '@/areas/sessions/useTestSession';
import StateBox from '@/kit/StateBox.vue';
import { useKeys } from '@/kit/keys';
import { exact, when } from '@/kit/words';
import { outbox } from '@/offline/outbox';

/** A session as it runs, or ran: head, timeline with the composer at its foot, and what came of it beside. */
const props = defineProps<{
  project: string;
  id: string;
  charter: Api['CharterLine'];
  sessions: Api['SessionName'][];
  /** It was begun here, and the server does not know of it yet. */
  begun: boolean;
  mayAgain: boolean;
}>();
const emit = defineEmits<{ again: [] }>();
const session = useTestSession(computed(() => props.id));
/** What is known of one that was begun while the server is away. */
const local = computed<Api['SessionDetail'] | null>(() => {
  const start = outbox.commands.find((q) => q.attempt === props.id && q.command.kind === 'session_start');
  if (!props.begun || !start || !me.value) return null;
  const at = Date.parse(start.at);
  return {
    id: props.id,
    number: props.sessions.length + 1,
    charter: props.charter,
    tester: { id: me.value.user.id, name: me.value.user.name },
    state: 'running',
    build: props.charter.build,
    configuration: props.charter.configuration,
    environment: '',
    box_ms: props.charter.box_minutes * 60_000,
    runs: [[at, null]],
    active_ms: 0,
    focus: 'charter',
    work: 'testing',
    shares: { charter: 0, opportunity: 0, testing: 0, investigating: 0, setting_up: 0 },
    as_of: at,
    started_at: start.at,
    stopped_at: null,
    counts: {},
    repros: [],
    comments: [],
    covered: '',
    remarks: '',
    signed_by: null,
    signed_at: null,
    sign_note: '',
    mine: true,
  };
});
watch(
  () => [session.detail.value, local.value] as const,
  ([known, begun]) => {
    if (!known && begun) void session.set(begun);
  },
  { immediate: true },
);
const detail = computed(() => session.detail.value ?? local.value);
const isOpen = computed(
  () => session.view.value?.state === 'running' || session.view.value?.state === 'paused',
);
const mayWrite = computed(() => detail.value?.mine === true && session.view.value?.state !== 'debriefed');

/** What the time went to up to now: what ran since the server was asked goes to what is chosen. */
const time = computed<Api['SessionShares']>(() => {
  const known = detail.value!.shares;
  const since = Math.max(0, session.active.value - known.charter - known.opportunity);
  const { focus, work } = session.view.value!;
  return { ...known, [focus]: known[focus] + since, [work]: known[work] + since };
});

const observedActs = computed(() => session.lines.value.filter(isObserved).length);

const q = ref('');
const kind = ref<ShownLine['kind'] | 'observed' | ''>('');
const lines = computed(() => {
  const words = q.value.toLowerCase().split(/\s+/).filter(Boolean);
  return session.lines.value.filter(
    (l) =>
      (kind.value === '' || l.kind === kind.value || (kind.value === 'observed' && isObserved(l))) &&
      words.every((w) => `${l.words} ${l.name}`.toLowerCase().includes(w)),
  );
});
const composer = ref<InstanceType<typeof SessionComposer> | null>(null);
const companion = ref<InstanceType<typeof SessionCompanion> | null>(null);
useKeys('Session', () =>
  detail.value?.mine && isOpen.value
    ? [
        {
          keys: ['p'],
          label: 'Pause, or go on',
          run: () => void session.move(session.view.value?.state === 'running' ? 'paused' : 'running'),
        },
        { keys: ['n'], label: 'Write into the timeline', run: () => composer.value?.focus() },
        { keys: ['m', 'Alt+M'], label: 'Companion window', run: () => void companion.value?.open() },
      ]
    : [],
);
</script>

<template>
  <div v-if="detail && session.view.value" class="session">
    <div>
      <SessionHead :detail="detail" :session="session" />
      <AwayAsk v-if="detail.mine" :id="id" :session="session" />
    </div>
    <div class="lanes">
      <section class="lane" aria-label="What happened">
        <div class="row tools">
          <input
            v-model="q"
            type="search"
            class="field words"
            aria-label="Words in the timeline"
            placeholder="Words"
          />
          <label class="unseen" for="kind">Kind of line</label>
          <select id="kind" v-model="kind" class="field inline">
            <option value="">Everything</option>
            <option v-for="k in KINDS" :key="k.kind" :value="k.kind">{{ k.word }}s</option>
            <option value="capture">Captures</option>
            <option value="observed">What was observed</option>
            <option value="trouble">Trouble</option>
          </select>
          <button
            v-if="detail.mine && isOpen"
            type="button"
            class="link soft small end"
            title="A small window over the application under test"
            @click="companion?.open()"
          >
            Companion <kbd>Alt M</kbd>
          </button>
          <span v-if="!detail.mine" class="soft small"
            >{{ detail.tester.name }} {{ isOpen ? 'runs it; you look on.' : 'ran it.' }}</span
          >
        </div>
        <SessionTimeline
          :session="session"
          :lines="lines"
          :folded="q === '' && kind === ''"
          :lines-at="`/${project}/sessions/${charter.key}/lines`"
          :repros="detail.repros"
          :may-mend="mayWrite"
          :may-remove="mayRemoveContent(project)"
        />
        <Teleport v-if="detail.mine && isOpen" :to="companion?.place" :disabled="!companion?.place">
          <SessionComposer :id="id" ref="composer" :project="project" :session="session" />
        </Teleport>
      </section>
      <aside aria-label="What came of it">
        <ListeningTo
          v-if="session.observer.value"
          :id="id"
          :observer="session.observer.value"
          :acts="observedActs"
          :mine="detail.mine"
          :open="isOpen"
          @changed="session.setObserver"
        />
        <SessionDebrief
          :key="`${detail.covered}${detail.remarks}`"
          :detail="detail"
          :time="time"
          :lines="session.lines.value"
          :project="project"
          :may-lead="mayLead(project)"
          :may-say="mayRecord(project)"
          @changed="session.set"
        />
        <section v-if="sessions.length > 1" aria-label="Sessions of this charter">
          <h2>Sessions of this charter</h2>
          <ul>
            <li v-for="s in sessions" :key="s.id" class="small">
              <RouterLink :to="{ query: { run: s.number } }">{{ s.number }}</RouterLink>, {{ s.tester.name }},
              <span class="soft" :title="exact(s.started_at)">{{ when(s.started_at) }}</span>
            </li>
          </ul>
        </section>
        <Button
          v-if="mayAgain"
          outlined
          severity="secondary"
          label="Explore it again"
          @click="emit('again')"
        />
      </aside>
    </div>
    <SessionCompanion v-if="detail.mine && isOpen" ref="companion" :charter="charter" :session="session" />
  </div>
  <div v-else class="page">
    <StateBox :loading="session.isPending.value" :error="session.error.value" @again="session.refetch()" />
  </div>
</template>

<style scoped>
.session {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: calc(100dvh - 49px);
}
.lanes {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(17rem, 24rem);
  min-height: 0;
}
.lane {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
  padding: 10px 20px 14px 24px;
}
.words {
  width: 200px;
}
.tools {
  padding-bottom: 4px;
}
.end {
  margin-left: auto;
}
aside {
  /* What is only read aloud stays within. */
  position: relative;
  border-left: 1px solid var(--rule);
  padding: 16px 24px;
  overflow: auto;
  display: grid;
  gap: 24px;
  align-content: start;
}
@media (max-width: 900px) {
  .session {
    height: auto;
  }
  .lanes {
    grid-template-columns: minmax(0, 1fr);
  }
  .tools {
    display: none;
  }
  .lane {
    height: calc(100dvh - 236px);
    min-height: 420px;
    padding: 8px 12px;
  }
  aside {
    border-left: 0;
    border-top: 1px solid var(--rule);
    padding: 16px 14px;
  }
}
</style>
