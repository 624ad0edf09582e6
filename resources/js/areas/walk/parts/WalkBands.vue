<script setup lang="ts">
import { durationText } from '@/kit/duration';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { computed, ref, watch } from 'vue';
import { Problem } from '@/api/client';
import { vFocus } from '@/kit/focus';
import { useRead } from '@/offline/useRead';
import { exact, plural, when } from '@/kit/words';
import type { Walk } from '@/areas/walk/useWalk';
import { readSurroundings, takeOver } from '@/areas/walk/queries';
import { walkedOn } from '@/areas/walk/walkedOn';
import KeyCap from '@/kit/KeyCap.vue';

/** What stands above the steps because it has to be known or answered: whose it is, a retest, a time away, what it is walked on. */
const props = defineProps<{ walk: Walk; project: string; notMine: boolean; fault: string }>();
const emit = defineEmits<{ dismiss: [] }>();
const view = computed(() => props.walk.view.value);
const open = computed(() => props.walk.open.value);
const taking = ref(false);
const word = ref('');
const problem = ref('');
async function takeIt(): Promise<void> {
  problem.value = '';
  try {
    await props.walk.set(await takeOver(props.walk.id.value, word.value.trim()));
    taking.value = false;
  } catch (error) {
    problem.value = error instanceof Problem ? error.message : String(error);
  }
}

const away = computed(() => (open.value && !props.notMine ? props.walk.clock.away.value : null));
const part = ref('');
const partFault = ref('');
async function decide(counted: number | null): Promise<void> {
  const asked = away.value;
  if (!asked) return;
  let ms = counted;
  if (ms === null) {
    const minutes = Number(part.value.replace(',', '.'));
    if (!Number.isFinite(minutes) || minutes < 0 || minutes * 60_000 > asked.ms) {
      partFault.value = `Write minutes, at most ${Math.floor(asked.ms / 60_000)}.`;
      return;
    }
    ms = Math.round(minutes * 60_000);
  }
  partFault.value = '';
  await props.walk.record({ kind: 'away', away_ms: Math.round(asked.ms), counted_ms: Math.round(ms) });
  props.walk.clock.decided();
  part.value = '';
}

// What it is really walked on: as planned by default, confirmed by the first verdict, changed at any time before the end.
const untouched = computed(() => view.value?.attempt.roll_up === 'not_run');
const changing = ref(false);
const build = ref<string | null>(null);
const configuration = ref<string | null>(null);
const place = ref<string | null>(null);
const environment = ref('');
watch(
  () => [view.value?.attempt.id, changing.value],
  () => {
    const attempt = view.value?.attempt;
    build.value = attempt?.build?.id ?? null;
    configuration.value = attempt?.configuration?.id ?? null;
    place.value = attempt?.named_environment?.id ?? null;
    environment.value = attempt?.environment ?? '';
  },
  { immediate: true },
);
const { data: setup } = useRead(
  'cycle',
  () => ['planning-setup', props.project],
  () => readSurroundings(props.project),
  () => `planning-setup:${props.project}`,
);
const there = computed(() => setup.value?.environments.find((e) => e.id === place.value));
/** Whoever says where it is walked says with it what is deployed there; it can be said otherwise. */
function arrive(): void {
  if (there.value?.build) build.value = there.value.build.id;
}
async function say(): Promise<void> {
  const named = (list: { id: string; name: string }[] | undefined, id: string | null) => {
    const found = list?.find((x) => x.id === id);
    return found ? { id: found.id, name: found.name } : null;
  };
  await props.walk.record({
    kind: 'surroundings',
    build: named(setup.value?.builds, build.value),
    configuration: named(setup.value?.configurations, configuration.value),
    named_environment: named(setup.value?.environments, place.value),
    environment: environment.value.trim(),
  });
  changing.value = false;
}
function change(): void {
  if (open.value && !props.notMine) changing.value = true;
}
defineExpose({ change });
/** What arrived too late and nobody decided on yet. */
const late = computed(() => (view.value?.late ?? []).filter((l) => l.state === 'waiting'));
const surroundings = computed(() => walkedOn(view.value?.attempt).join(', '));
</script>

<template>
  <div v-if="view">
    <p v-if="fault" class="band" role="alert">
      {{ fault }} <button type="button" class="link" @click="emit('dismiss')">All right</button>
    </p>
    <div v-if="notMine" class="band" role="alert">
      <p>
        <strong>{{ view.attempt.tester.name }} is walking this attempt</strong
        ><template v-if="view.attempt.takeover_word">: “{{ view.attempt.takeover_word }}”</template>. What you
        recorded before is kept, and what you typed stays here.
        <Button
          v-if="!taking"
          size="small"
          label="Take it over"
          severity="secondary"
          outlined
          @click="taking = true"
        />
      </p>
      <form v-if="taking" class="row" @submit.prevent="takeIt">
        <InputText
          v-model="word"
          v-focus
          maxlength="2000"
          :aria-label="`A word to ${view.attempt.tester.name}`"
          :placeholder="`A word to ${view.attempt.tester.name}`"
          class="word"
        />
        <Button type="submit" size="small" :label="`Take it over from ${view.attempt.tester.name}`" />
        <Button
          type="button"
          text
          size="small"
          severity="secondary"
          label="Leave it"
          @click="taking = false"
        />
      </form>
      <p v-if="problem" class="p-invalid-words">{{ problem }}</p>
    </div>
    <form v-if="away" class="band row" role="alert" aria-label="Time away" @submit.prevent="decide(null)">
      <span
        ><strong>You were away for {{ durationText(away.ms) }}</strong
        >, since {{ when(new Date(away.from).toISOString()) }}. How much of it was this walk?</span
      >
      <Button type="button" size="small" outlined label="None" @click="decide(0)" />
      <Button type="button" size="small" outlined label="All of it" @click="decide(away.ms)" />
      <InputText
        v-model="part"
        class="minutes"
        inputmode="decimal"
        aria-label="Minutes of it"
        placeholder="min"
      />
      <Button type="submit" size="small" outlined label="So many minutes" />
      <span v-if="partFault" class="p-invalid-words">{{ partFault }}</span>
    </form>
    <div v-if="view.retest_reason && open" class="band">
      <strong>Retest:</strong> {{ view.retest_reason }}
      <span v-if="view.earlier[0]" class="soft"
        >Attempt {{ view.earlier[0].number }} by {{ view.earlier[0].tester.name }}
        {{ view.earlier[0].verdict === 'fail' ? 'failed' : 'ended' }}
        <span :title="exact(view.earlier[0].started_at)">{{ when(view.earlier[0].started_at) }}</span>{{
          view.earlier[0].note ? `: ${view.earlier[0].note}` : ''
        }}.</span
      >
    </div>
    <p v-if="view.attempt.parallel_reason" class="band">
      <strong>This attempt stands beside another:</strong> {{ view.attempt.parallel_reason }} Both are kept.
    </p>
    <p v-if="late.length > 0" class="band">
      {{ plural(late.length, 'thing') }} arrived too late and {{ late.length === 1 ? 'waits' : 'wait' }} for a
      lead: {{ late[0]?.why }}
    </p>
    <form
      v-if="changing && open && !notMine"
      class="band row"
      aria-label="What it is walked on"
      @submit.prevent="say"
      @keydown.esc.stop="changing = false"
    >
      <select v-model="configuration" v-focus class="field inline" aria-label="Configuration">
        <option :value="null">no configuration</option>
        <option v-for="c in setup?.configurations" :key="c.id" :value="c.id">{{ c.name }}</option>
      </select>
      <select
        v-if="(setup?.environments.length ?? 0) > 0"
        v-model="place"
        class="field inline"
        aria-label="Environment"
        @change="arrive"
      >
        <option :value="null">no environment</option>
        <option v-for="e in setup?.environments" :key="e.id" :value="e.id">{{ e.name }}</option>
      </select>
      <select v-model="build" class="field inline" aria-label="Build">
        <option :value="null">no build</option>
        <option v-for="b in setup?.builds" :key="b.id" :value="b.id">build {{ b.name }}</option>
      </select>
      <InputText
        v-model="environment"
        maxlength="500"
        placeholder="More of where, in words"
        aria-label="More of where, in words"
        class="word"
      />
      <Button type="submit" size="small" label="It is walked on this" />
      <Button
        type="button"
        size="small"
        text
        severity="secondary"
        label="Leave it"
        @click="changing = false"
      />
      <p v-if="there" class="soft small wide">
        <template v-if="there.build && there.build.id !== build"
          >Build {{ there.build.name }} is deployed in {{ there.name }}. </template
        >{{ there.notes }}
      </p>
    </form>
    <p v-else-if="open && !notMine && untouched" class="band quiet">
      Walked on <strong>{{ surroundings || 'nothing that is named' }}</strong>. The first verdict confirms it.
      <button type="button" class="link" @click="change">It is something else <KeyCap of="e" /></button>
    </p>
  </div>
</template>

<style scoped>
.band {
  padding: 8px 24px;
  background: var(--well);
  border-bottom: 1px solid var(--rule);
}
.quiet {
  background: none;
  color: var(--ink-soft);
}
.quiet strong {
  color: var(--ink);
  font-weight: 600;
}
.word {
  flex: 1 1 16rem;
}
.wide {
  flex-basis: 100%;
}
.minutes {
  width: 5rem;
}
@media (max-width: 640px) {
  /* The head says it, and a tap there changes it. */
  .quiet {
    display: none;
  }
}
@media (max-width: 760px) {
  .band {
    padding-left: 14px;
    padding-right: 14px;
  }
}
</style>
