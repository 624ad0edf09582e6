<script setup lang="ts">
import { isWhyGiven } from '@/kit/why';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';
import { vFocus } from '@/kit/focus';
import PathTrail from '@/kit/PathTrail.vue';
import { wordOf, type Shown } from '@/kit/words';
import type { Walk } from '@/areas/walk/useWalk';

/** The rounds of an attempt as a trail, with the row of the one that is walked. */
const props = defineProps<{ walk: Walk; locked: boolean }>();
const rounds = computed(() => props.walk.rounds.value);
const round = computed(() => props.walk.round.value);
const repeated = computed(() => rounds.value.some((r) => r.repeats === round.value?.position));
const marks = computed(() =>
  rounds.value.map((r) => ({
    id: String(r.position),
    shown: r.roll_up as Shown,
    label: [
      `Round ${r.position}${r.repeats ? `, once more ${r.repeats}` : ''}:`,
      `${r.skipped === null ? wordOf(r.roll_up as Shown) : 'left out'},`,
      r.values.map((v) => v.value || '(empty)').join(', '),
    ].join(' '),
    group: r.repeats ? 'again' : '',
  })),
);
const skipping = ref(false);
const reason = ref('');
const problem = ref('');
async function skip(): Promise<void> {
  if (!isWhyGiven(reason.value)) {
    problem.value = 'Say in a few words why.';
    return;
  }
  await send('skip', reason.value.trim());
  skipping.value = false;
  reason.value = problem.value = '';
  props.walk.move(1);
}
async function send(act: 'skip' | 'take_up' | 'repeat', why = ''): Promise<void> {
  const of = round.value;
  if (!of) return;
  await props.walk.record({ kind: 'round', round: of.position, act, reason: why });
  if (act === 'repeat') props.walk.toRound(rounds.value.length);
  if (act === 'take_up') props.walk.toRound(of.position);
}
</script>

<template>
  <div v-if="rounds.length > 1 || (round?.values.length ?? 0) > 0" class="rounds">
    <div class="line">
      <span class="soft small name">Round {{ round?.position }} of {{ rounds.length }}</span>
      <PathTrail
        v-if="rounds.length > 1"
        :marks="marks"
        :current="String(walk.roundAt.value)"
        label="Rounds"
        :longest="40"
        @choose="(id) => walk.toRound(Number(id))"
      />
      <span class="row soft small values"
        ><span v-for="v in round?.values" :key="v.name"
          >{{ v.name }} <span class="mono ink">{{ v.value || '(empty)' }}</span></span
        ></span
      >
      <span v-if="!locked && round" class="row end">
        <button v-if="round.skipped !== null" type="button" class="link" @click="send('take_up')">
          Take it up again
        </button>
        <template v-else>
          <button
            v-if="round.roll_up === 'not_run'"
            type="button"
            class="link"
            :aria-expanded="skipping"
            @click="skipping = !skipping"
          >
            Leave this round out
          </button>
          <button
            v-if="!repeated && round.roll_up !== 'not_run'"
            type="button"
            class="link"
            @click="send('repeat')"
          >
            Walk it once more
          </button>
        </template>
      </span>
    </div>
    <p v-if="round && round.skipped !== null" class="small"><strong>Left out:</strong> {{ round.skipped }}</p>
    <p v-if="round?.repeats" class="small soft">
      Once more what round {{ round.repeats }} walked; this one counts in its place.
    </p>
    <form v-if="skipping" class="row" @submit.prevent="skip">
      <InputText
        v-model="reason"
        v-focus
        maxlength="2000"
        placeholder="Why?"
        aria-label="Why the round is left out"
        class="why"
      />
      <Button type="submit" size="small" label="Leave it out" />
      <span v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</span>
    </form>
  </div>
</template>

<style scoped>
.rounds {
  display: grid;
  gap: 4px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
}
.values {
  gap: 2px 14px;
}
.ink {
  color: var(--ink);
}
.end {
  margin-left: auto;
}
.why {
  flex: 1 1 16rem;
}
</style>
