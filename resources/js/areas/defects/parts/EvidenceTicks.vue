<script setup lang="ts">
import { computed } from 'vue';
import type { WalkEvidence } from '@/areas/walk/types';
import type { Walk } from '@/areas/walk/useWalk';
import EvidenceCard from '@/areas/evidence/parts/EvidenceCard.vue';

/** What was captured on the walk: what is ticked belongs to the defect. It is drawn on, or parts of it hidden, before it goes. */
const chosen = defineModel<string[]>({ required: true });
const props = defineProps<{ walk: Walk; project: string; items: WalkEvidence[] }>();
const there = computed(() => props.items.filter((e) => !e.gone));
</script>

<template>
  <fieldset v-if="there.length > 0">
    <legend class="label">Evidence that belongs to it</legend>
    <div class="cards">
      <div v-for="e in there" :key="e.id">
        <label class="row"
          ><input
            v-model="chosen"
            type="checkbox"
            :value="e.id"
            :aria-label="`${e.caption || e.name} belongs to it`"
          />
          <span class="long small">{{ e.caption || e.name }}</span></label
        >
        <EvidenceCard :item="e" :walk="walk" :locked="false" :project="project" small />
      </div>
    </div>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(10rem, 1fr));
  gap: 10px;
}
</style>
