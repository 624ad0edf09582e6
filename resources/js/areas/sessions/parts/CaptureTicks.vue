<script setup lang="ts">
import type { Api } from '@/api/client';

/** Captures of a session: what is ticked goes with the defect. */
const chosen = defineModel<string[]>({ required: true });
defineProps<{ captures: Api['TimelineLine'][]; locked: boolean }>();
</script>

<template>
  <fieldset v-if="captures.length > 0">
    <legend class="label">Captures that go with it</legend>
    <div class="cards">
      <label v-for="c in captures" :key="c.id"
        ><img v-if="c.thumbnail_url" :src="c.thumbnail_url" :alt="c.words || c.name" /><span class="row small"
          ><input v-model="chosen" type="checkbox" :value="c.id" :disabled="locked" />
          {{ c.words || c.name }}</span
        ></label
      >
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
  grid-template-columns: repeat(auto-fill, minmax(9rem, 1fr));
  gap: 10px;
}
img {
  display: block;
  max-width: 100%;
  max-height: 120px;
  border: 1px solid var(--edge);
  border-radius: 4px;
}
</style>
