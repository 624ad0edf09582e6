<script setup lang="ts">
import { durationText } from '@/kit/duration';
import { computed, defineAsyncComponent, ref } from 'vue';
import PathTrail from '@/kit/PathTrail.vue';
import { clock } from '@/kit/words';
import type { useTrail } from '@/areas/walk/useTrail';
import type { Walk } from '@/areas/walk/useWalk';
import { walkedOn } from '@/areas/walk/walkedOn';
import KeyCap from '@/kit/KeyCap.vue';

/** What is walked, the trail of my entries, the clock, and the rounds. */
const props = defineProps<{
  walk: Walk;
  trail: ReturnType<typeof useTrail>;
  project: string;
  locked: boolean;
  sheet: boolean;
  narrow: boolean;
  /** ms on this attempt */
  time: number;
}>();
const emit = defineEmits<{ sheet: []; companion: []; pause: []; surroundings: [] }>();
const RoundTrail = defineAsyncComponent(() => import('./RoundTrail.vue'));
const view = computed(() => props.walk.view.value);
/** Configuration, build, environment: what of it is known. */
const on = computed(() => walkedOn(view.value?.attempt).join(' · '));
const title = ref<HTMLElement | null>(null);
defineExpose({ focus: () => title.value?.focus() });
</script>

<template>
  <div v-if="view" class="top">
    <div class="line">
      <RouterLink class="mono soft plain key" :to="`/${project}/casebook/${view.case_key}`">{{
        view.case_key
      }}</RouterLink>
      <h1 ref="title" tabindex="-1" class="long">{{ view.title }}</h1>
      <span class="soft about"
        ><button
          v-if="!locked"
          type="button"
          class="on"
          title="What it is walked on; e changes it"
          @click="emit('surroundings')"
        >
          {{ on || 'On nothing that is named' }}</button
        ><template v-else-if="on">{{ on }}</template
        >{{ !locked || on ? ' · ' : '' }}attempt {{ view.attempt.number }}</span
      >
      <button
        type="button"
        class="time mono"
        :title="
          walk.clock.paused.value ? 'The clock is paused; p goes on' : 'Time on this attempt; p pauses it'
        "
        :disabled="locked"
        @click="emit('pause')"
      >
        {{ walk.clock.paused.value ? 'paused ' : '' }}{{ clock(time) }}
      </button>
    </div>
    <div class="line">
      <PathTrail
        :marks="trail.marks.value"
        :current="view.entry_id"
        :label="`My entries in ${view.cycle_name}`"
        :longest="narrow ? 11 : 48"
        @choose="trail.jump"
      />
      <span class="soft about end"
        >{{ trail.walked.value }} of {{ trail.mine.value.length }} walked<template
          v-if="trail.left.value > 0"
        >
          · about {{ durationText(trail.left.value) }} left</template
        ></span
      >
      <span class="ways">
        <button type="button" class="link" :aria-pressed="sheet" @click="emit('sheet')">
          {{ sheet ? 'One step' : 'As a sheet' }} <KeyCap of="." />
        </button>
        <button v-if="!locked && !narrow" type="button" class="link" @click="emit('companion')">
          Companion <KeyCap of="m" />
        </button>
      </span>
    </div>
    <RoundTrail
      v-if="walk.rounds.value.length > 1 || (walk.round.value?.values.length ?? 0) > 0"
      :walk="walk"
      :locked="locked"
    />
  </div>
</template>

<style scoped>
.top {
  padding: 14px 24px 8px;
  border-bottom: 1px solid var(--rule);
  display: grid;
  gap: 8px;
}
.line {
  display: flex;
  align-items: baseline;
  gap: 12px;
  min-width: 0;
}
.line h1 {
  outline: none;
  min-width: 0;
}
.about {
  white-space: nowrap;
}
.on {
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  padding: 0;
  text-align: left;
  cursor: pointer;
}
.on:hover {
  color: var(--ink);
  text-decoration: underline;
}
.key {
  white-space: nowrap;
}
.ways {
  display: flex;
  gap: 16px;
}
.time {
  margin-left: auto;
  font-size: 1.07rem;
  color: var(--ink);
  background: none;
  border: 0;
  padding: 0;
  min-width: 3.4rem;
  text-align: right;
  cursor: pointer;
}
.end {
  margin-left: auto;
}
@media (max-width: 1000px) {
  .line {
    flex-wrap: wrap;
  }
}
@media (max-width: 760px) {
  .top {
    padding-left: 14px;
    padding-right: 14px;
  }
  .about {
    white-space: normal;
  }
  .line h1 {
    font-size: 1.2rem;
    flex: 1;
  }
  .line {
    row-gap: 2px;
  }
  .line .about {
    order: 1;
    width: 100%;
    margin-left: 0;
    font-size: 0.87rem;
  }
}
@media (max-width: 640px) {
  .ways kbd,
  .line .end {
    display: none;
  }
  .ways {
    margin-left: auto;
  }
  .line .about {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
}
</style>
