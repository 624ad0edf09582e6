<script setup lang="ts">
import { durationText } from '@/kit/duration';
import { computed } from 'vue';
import type { Api } from '@/api/client';
import { plural } from '@/kit/words';

/** What each person has to do, against the time they have until the cycle ends. */
const props = defineProps<{
  loads: Api['PersonLoad'][];
  left: number;
  unassigned: number;
  capacity: number;
}>();
const most = computed(() => Math.max(1, ...props.loads.map((l) => Math.max(l.seconds, l.capacity_seconds))));
const share = (n: number): string => `${Math.min(100, (n / most.value) * 100)}%`;
const over = (l: Api['PersonLoad']): boolean => l.seconds > l.capacity_seconds;
</script>

<template>
  <section aria-label="Load">
    <h2>Load</h2>
    <p class="small">
      {{ durationText(1000 * left) }} left to walk<template v-if="unassigned > 0"
        >, {{ durationText(1000 * unassigned) }} of it nobody’s</template
      >; {{ durationText(1000 * capacity) }} of time until the end.
    </p>
    <p v-if="left > capacity" class="p-invalid-words" role="status">
      {{ durationText(1000 * (left - capacity)) }} more than there is time for.
    </p>
    <ul>
      <li v-for="l in loads" :key="l.id">
        <span class="who"
          >{{ l.name }}<span v-if="l.role === 'left'" class="flag">left the project</span
          ><span v-else-if="!l.tester" class="soft small"> not in this cycle’s team</span></span
        >
        <span class="figures"
          >{{ durationText(1000 * l.seconds) }} of {{ durationText(1000 * l.capacity_seconds) }}</span
        >
        <span
          class="bar"
          role="img"
          :aria-label="`${l.name}: ${durationText(1000 * l.seconds)} to do, ${durationText(1000 * l.capacity_seconds)} of time`"
          ><span class="time" :style="{ width: share(l.capacity_seconds) }" /><span
            class="work"
            :class="{ over: over(l) }"
            :style="{ width: share(l.seconds) }"
        /></span>
        <span class="soft small"
          >{{ plural(l.entries, 'entry', 'entries') }}; {{ plural(l.days_left, 'day') }} of
          {{ durationText(1000 * (l.minutes_per_day * 60))
          }}<template v-if="over(l)"
            >; <strong>{{ durationText(1000 * (l.seconds - l.capacity_seconds)) }} too much</strong></template
          ></span
        >
      </li>
    </ul>
    <p v-if="loads.length === 0" class="soft small">Nobody is in this cycle’s team yet.</p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
ul {
  display: grid;
  gap: 10px;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 8px;
}
.figures {
  font-variant-numeric: tabular-nums;
}
.bar {
  grid-column: 1 / -1;
  position: relative;
  height: 10px;
}
.time {
  position: absolute;
  inset: 0 auto 0 0;
  border: 1px solid var(--edge);
  border-radius: 2px;
}
.work {
  position: absolute;
  inset: 3px auto 3px 2px;
  background: var(--dusk);
  border-radius: 1px;
}
.work.over {
  background: repeating-linear-gradient(135deg, var(--dusk) 0 4px, var(--sheet) 4px 6px);
  outline: 1px solid var(--dusk);
}
li > .small {
  grid-column: 1 / -1;
}
.flag {
  font-size: 0.8rem;
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 0 5px;
  margin-left: 6px;
}
</style>
