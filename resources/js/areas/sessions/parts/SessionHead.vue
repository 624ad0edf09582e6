<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import type { Api } from '@/api/client';
import { missionOf } from '@/areas/sessions/begin';
import SegmentedWords from '@/kit/SegmentedWords.vue';
import { FOCUS, WORK } from '@/areas/sessions/types';
import type { RunningSession } from '@/areas/sessions/useTestSession';
import KeyCap from '@/kit/KeyCap.vue';
import { useKeys } from '@/kit/keys';
import { toast } from '@/kit/notices';
import { clock } from '@/kit/words';

/** The charter, the time box with what is left of it, and what the time goes to. */
const props = defineProps<{ detail: Api['SessionDetail']; session: RunningSession }>();
const view = computed(() => props.session.view.value!);
const isOpen = computed(() => view.value.state === 'running' || view.value.state === 'paused');
const mine = computed(() => props.detail.mine);
const left = computed(() => view.value.box_ms - props.session.active.value);
const share = computed(() => Math.min(1, props.session.active.value / view.value.box_ms));
const leftWords = computed(() =>
  left.value >= 0 ? `${clock(left.value)} left` : `${clock(-left.value)} over`,
);
const route = useRoute();
const project = computed(() => String(route.params.project));
const charter = computed(() => props.detail.charter);
const mission = computed(() => missionOf(charter.value));
const on = computed(() =>
  [
    charter.value.milestone?.name,
    props.detail.build ? `build ${props.detail.build.name}` : '',
    props.detail.configuration?.name,
    props.detail.environment,
  ]
    .filter(Boolean)
    .join(' · '),
);
// Reaching the box tells, and never stops.
watch(
  () => view.value.state === 'running' && left.value <= 0,
  (over, before) => {
    if (over && before === false && mine.value)
      toast('The time box is reached. Stop when it suits you, or give it more time.');
  },
);
const extending = ref(false);
async function extend(minutes: number): Promise<void> {
  extending.value = false;
  await props.session.extend(Math.round(view.value.box_ms / 60_000) + minutes);
}
const nextWork = (): (typeof WORK)[number]['value'] =>
  WORK[(WORK.findIndex((w) => w.value === view.value.work) + 1) % WORK.length]!.value;
useKeys('What the time goes to', () =>
  mine.value && isOpen.value
    ? [
        {
          keys: ['Alt+S'],
          label: 'Testing, investigating, setting up',
          run: () => void props.session.switchTo(nextWork()),
        },
        {
          keys: ['Alt+Shift+S'],
          label: 'On the charter, or off it',
          run: () => void props.session.switchTo(view.value.focus === 'charter' ? 'opportunity' : 'charter'),
        },
      ]
    : [],
);
</script>

<template>
  <header class="head">
    <div class="title-line">
      <span class="mono soft">{{ charter.key }}</span>
      <h1 class="long clamp" :title="charter.title">{{ charter.title }}</h1>
      <span class="soft on">{{ on }}</span>
      <div class="actions">
        <span v-if="isOpen" class="mono left" role="timer">{{ leftWords }}</span>
        <span v-else class="mono left">{{ clock(session.active.value) }}</span>
        <RouterLink v-if="!isOpen" :to="`/${project}/trace/session/${charter.key}`">Trace</RouterLink>
        <template v-if="isOpen && mine">
          <Button
            v-if="view.state === 'running'"
            outlined
            severity="secondary"
            @click="session.move('paused')"
            >Pause <KeyCap of="p"
          /></Button>
          <Button v-else @click="session.move('running')">Go on <KeyCap of="p" /></Button>
          <Button outlined severity="secondary" label="Stop" @click="session.move('stopped')" />
        </template>
      </div>
    </div>
    <p v-if="mission" class="soft long mission">Explore {{ mission }}.</p>
    <div class="time">
      <div
        class="box"
        role="progressbar"
        aria-label="Of the time box"
        aria-valuemin="0"
        :aria-valuemax="Math.round(view.box_ms / 60_000)"
        :aria-valuenow="Math.round(Math.min(session.active.value, view.box_ms) / 60_000)"
      >
        <span class="gone" :class="{ over: left < 0 }" :style="{ width: `${share * 100}%` }" />
      </div>
      <template v-if="isOpen">
        <span v-if="mine" class="extend">
          <button
            type="button"
            class="link soft small"
            :aria-expanded="extending"
            @click="extending = !extending"
          >
            More time
          </button>
          <span v-if="extending" class="row small">
            <button v-for="m in [15, 30, 60]" :key="m" type="button" class="link" @click="extend(m)">
              {{ m }} min
            </button>
          </span>
        </span>
        <SegmentedWords
          label="On the charter or off it"
          :options="FOCUS"
          :chosen="view.focus"
          :locked="!mine"
          @choose="session.switchTo"
        />
        <SegmentedWords
          label="What the time goes to"
          :options="WORK"
          :chosen="view.work"
          :locked="!mine"
          @choose="session.switchTo"
        />
        <kbd
          v-if="mine"
          title="Alt S goes through what the time goes to, with Shift on the charter and off it"
          >Alt S</kbd
        >
      </template>
    </div>
    <p v-if="session.problem.value" class="p-invalid-words" role="alert">{{ session.problem.value }}</p>
  </header>
</template>

<style scoped>
.head {
  padding: 16px 24px 12px;
  border-bottom: 1px solid var(--rule);
  display: grid;
  gap: 8px;
}
.title-line {
  margin: 0;
}
.on {
  font-size: 0.93rem;
}
.left {
  font-size: 1.1rem;
}
.time {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px 18px;
}
.box {
  flex: 1 1 220px;
  height: 8px;
  border: 1px solid var(--ink);
  overflow: hidden;
}
.gone {
  display: block;
  height: 100%;
  background: var(--ink);
}
.gone.over {
  background: repeating-linear-gradient(135deg, var(--ink) 0 6px, var(--paper) 6px 9px);
}
.extend {
  display: inline-flex;
  gap: 12px;
}
@media (max-width: 640px) {
  .head {
    padding: 8px 14px;
    gap: 6px;
  }
  .head h1 {
    font-size: 1.1rem;
  }
  .on,
  .mission,
  .time kbd {
    display: none;
  }
}
</style>
