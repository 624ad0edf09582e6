<script setup lang="ts">
import { durationText, parseMinutes } from '@/kit/duration';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { applyShortPlan, previewShortPlan } from '@/areas/cycles/queries';
import { plural } from '@/kit/words';
import { useAnswer } from '@/kit/useAnswer';
import { type Plan } from '@/areas/cycles/usePlan';

/** Short of time: what is worth most in the hours that are left, what that leaves out, and the same as a plan. */
const props = defineProps<{ plan: Plan }>();
const emit = defineEmits<{ done: [done: Api['PlanActResult']]; close: [] }>();
const text = ref(
  durationText(1000 * (Math.min(props.plan.capacity_seconds, props.plan.seconds_left / 2) || 3600 * 4)),
);
const locked = ref<string[]>([]);
const out = ref<string[]>([]);
const problem = ref('');
const minutes = computed(() => parseMinutes(text.value));
/** What is asked: the time as it was when it was proposed for, not as it is being typed. */
const asked = ref({ minutes: minutes.value ?? 0, in: [] as string[], out: [] as string[] });
const {
  answer: found,
  refusal,
  asking: busy,
} = useAnswer(
  'short',
  asked,
  () => previewShortPlan(props.plan.cycle.cycle.key, asked.value),
  () => asked.value.minutes > 0,
);
function look(): void {
  problem.value = minutes.value === null ? 'Write the time like 4h, 4h 30m or 90m.' : '';
  if (minutes.value !== null)
    asked.value = { minutes: minutes.value, in: [...locked.value], out: [...out.value] };
}
function lock(list: 'in' | 'out', id: string): void {
  const [mine, other] = list === 'in' ? [locked, out] : [out, locked];
  other.value = other.value.filter((x) => x !== id);
  mine.value = mine.value.includes(id) ? mine.value.filter((x) => x !== id) : [...mine.value, id];
  look();
}
async function apply(): Promise<void> {
  try {
    const done = await applyShortPlan(props.plan.cycle.cycle.key, {
      ...asked.value,
      people: props.plan.cycle.testers.map((t) => t.id),
    });
    emit('done', done);
    emit('close');
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
</script>

<template>
  <section class="sheet panel" aria-label="Short of time">
    <form class="row" @submit.prevent="look">
      <h2>Short of time</h2>
      <label class="time"
        >Time for everybody together
        <input v-model="text" class="field" aria-label="Time for everybody together"
      /></label>
      <Button type="submit" outlined severity="secondary" :disabled="busy" label="Propose" />
    </form>
    <p v-if="problem || refusal" class="p-invalid-words" role="alert">
      {{ problem || errorMessage(refusal) }}
    </p>
    <template v-if="found">
      <p role="status">
        <strong>{{ plural(found.in.length, 'entry', 'entries') }}</strong> in
        {{ durationText(1000 * found.seconds) }}; {{ found.out.length }} left out, and with them
        <strong>{{ Math.round(found.risk * 100) }} %</strong> of the risk.
        <span class="soft small">{{
          found.exact ? 'No other choice covers more.' : 'Chosen step by step by risk covered per time.'
        }}</span>
      </p>
      <div class="two">
        <div v-for="side in ['in', 'out'] as const" :key="side">
          <h3>{{ side === 'in' ? 'Walk, in this order' : 'Leave out' }}</h3>
          <ol>
            <li v-for="e in found[side]" :key="e.id">
              <span class="long"
                ><span class="mono soft">{{ e.key }}</span> {{ e.title
                }}<span class="soft small"> {{ e.configuration }}</span></span
              >
              <span class="soft small">{{ durationText(1000 * e.seconds) }} · worth {{ e.worth }}</span>
              <button
                type="button"
                class="link small"
                :aria-pressed="(side === 'in' ? locked : out).includes(e.id)"
                @click="lock(side, e.id)"
              >
                {{
                  (side === 'in' ? locked : out).includes(e.id)
                    ? 'let it be free'
                    : side === 'in'
                      ? 'keep in'
                      : 'keep out'
                }}
              </button>
              <button type="button" class="link soft small" @click="lock(side === 'in' ? 'out' : 'in', e.id)">
                {{ side === 'in' ? 'leave out' : 'put in' }}
              </button>
              <span v-if="e.why" class="soft small why">{{ e.why }}</span>
            </li>
          </ol>
        </div>
      </div>
    </template>
    <div class="row">
      <Button :disabled="!found || found.in.length === 0" label="Order and assign by this" @click="apply" />
      <button type="button" class="link soft" @click="emit('close')">Leave it</button>
      <span class="soft small">Handed out to this cycle’s testers. It can be undone.</span>
    </div>
  </section>
</template>

<style scoped>
.panel {
  padding: 14px 18px;
  display: grid;
  gap: 10px;
}
.time {
  display: flex;
  gap: 8px;
  align-items: center;
  white-space: nowrap;
}
.time input {
  width: 110px;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 12px 28px;
}
h3 {
  font-size: 0.93rem;
}
ol {
  max-height: 300px;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto auto;
  gap: 0 10px;
  align-items: baseline;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
}
.why {
  grid-column: 1 / -1;
}
</style>
