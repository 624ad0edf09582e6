<script setup lang="ts">
import { computed } from 'vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { ago, exact, plainWords, plural, wordOf, type Shown } from '@/kit/words';
import CaptureTools from '@/areas/evidence/parts/CaptureTools.vue';
import EvidenceCard from '@/areas/evidence/parts/EvidenceCard.vue';
import ScratchPad from '@/areas/today/parts/ScratchPad.vue';
import type { EvidenceTools } from '@/areas/evidence/useEvidence';
import type { Walk } from '@/areas/walk/useWalk';
import KeyCap from '@/kit/KeyCap.vue';

const props = defineProps<{ walk: Walk; project: string; locked: boolean; tools: EvidenceTools }>();
const emit = defineEmits<{ choose: [] }>();
const view = computed(() => props.walk.view.value);
const lit = computed(() => props.walk.lit.value);
/** Of the lit step in its round; of the attempt where no step is lit. */
const isHere = (e: { step: number | null; round: number | null }): boolean =>
  e.step === lit.value && (e.step === null || (e.round ?? 1) === props.walk.roundAt.value);
/** The newest first: what was just captured is seen at once, without scrolling. */
const here = computed(() => view.value?.evidence.filter(isHere).toReversed() ?? []);
const others = computed(() => view.value?.evidence.filter((e) => !isHere(e)) ?? []);
const references = computed(() => (props.walk.current.value?.files ?? []).map((f) => ({ ...f })));
</script>

<template>
  <aside v-if="view" class="tray" aria-label="Evidence, defects and earlier attempts">
    <section>
      <h2>
        {{ lit === null ? 'Evidence of the attempt' : `Evidence of step ${lit}` }}
        <span class="soft">{{ here.length || '' }}</span>
      </h2>
      <EvidenceCard
        v-for="e in here"
        :key="e.id"
        :item="e"
        :walk="walk"
        :locked="locked"
        :references="references"
        :project="project"
      />
      <CaptureTools v-if="!locked" :tools="tools" :project="project" @choose="emit('choose')" />
      <button v-if="!locked" type="button" class="drop" @click="emit('choose')">
        Paste, drop or choose a file <span><kbd>Ctrl V</kbd> <KeyCap of="u" /></span>
      </button>
      <p v-else-if="here.length === 0" class="soft">None.</p>
    </section>
    <section v-if="others.length > 0">
      <h2>
        Elsewhere in this attempt <span class="soft">{{ others.length }}</span>
      </h2>
      <div class="small-cards">
        <EvidenceCard v-for="e in others" :key="e.id" :item="e" :walk="walk" :locked="locked" small />
      </div>
    </section>
    <section v-if="view.defects.length > 0">
      <h2>
        Defects <span class="soft">{{ view.defects.length }}</span>
      </h2>
      <ul>
        <li v-for="d in view.defects" :key="`${d.id}${d.step}`" class="defect">
          <RouterLink v-if="d.key !== 'waiting'" class="mono" :to="`/${project}/defects/${d.key}`">{{
            d.key
          }}</RouterLink>
          <span v-else class="mono">waiting</span>
          <span class="long">{{ d.title }}</span>
          <span class="soft small"
            >{{ d.step ? `step ${d.step}` : 'the attempt'
            }}{{ d.state ? `, ${plainWords(d.state).toLowerCase()}` : '' }}</span
          >
        </li>
      </ul>
    </section>
    <section>
      <h2>
        Earlier attempts <span class="soft">{{ view.earlier.length || 'none' }}</span>
      </h2>
      <ul>
        <li v-for="a in view.earlier" :key="a.id" class="earlier">
          <VerdictMark :shown="(a.verdict ?? 'not_run') as Shown" />
          <RouterLink :to="`/${project}/entries/${view.entry_id}?attempt=${a.id}`"
            >Attempt {{ a.number }}</RouterLink
          >
          <span>{{ a.state === 'finished' && a.verdict ? wordOf(a.verdict as Shown) : a.state }}</span>
          <span class="soft" :title="exact(a.started_at)">{{ a.tester.name }}, {{ ago(a.started_at) }}</span>
        </li>
      </ul>
    </section>
    <ScratchPad :project="project" />
    <section v-if="view.objective">
      <h2>Objective</h2>
      <p class="soft">{{ view.objective }}</p>
    </section>
    <p class="soft small">
      {{ plural(view.steps.length, 'step') }}, version {{ view.case_version }} of {{ view.case_key }}, in
      {{ view.cycle_name }}
    </p>
  </aside>
</template>

<style scoped>
.tray {
  border-left: 1px solid var(--rule);
  padding: 18px 24px 40px 20px;
  display: grid;
  gap: 24px;
  align-content: start;
  min-width: 0;
}
section {
  display: grid;
  gap: 10px;
  min-width: 0;
}
h2 {
  font-size: 0.93rem;
  display: flex;
  justify-content: space-between;
}
h2 .soft {
  font-weight: 400;
}
.drop {
  font: inherit;
  color: var(--ink-soft);
  background: none;
  border: 1px dashed var(--edge);
  border-radius: 6px;
  padding: 10px 12px;
  display: flex;
  justify-content: space-between;
  gap: 8px;
  cursor: pointer;
  text-align: left;
}
.small-cards {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.defect {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 10px;
}
.defect .soft {
  grid-column: 2;
}
.earlier {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
}
@media (max-width: 760px) {
  .tray {
    border-left: 0;
    border-top: 1px solid var(--rule);
    padding-left: 14px;
    padding-right: 14px;
  }
}
</style>
