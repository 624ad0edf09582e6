<script setup lang="ts">
import { onMounted, useTemplateRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { anchorOf } from '@/areas/setup/places';
import type { Term } from '@/kit/terms';
import TermWord from '@/kit/TermWord.vue';

/** A part of the setup: what it is at the left, what is set at the right. An address that ends in its title leads to it. */
const props = defineProps<{
  title: string;
  what?: string;
  count?: number | undefined;
  wide?: boolean;
  /** The title is a word of one meaning. */
  term?: Term;
}>();
const route = useRoute();
const root = useTemplateRef('root');
/** What was looked for comes into view and has the focus, so that keys go on from there. */
function come(): void {
  if (route.hash !== `#${anchorOf(props.title)}`) return;
  root.value?.scrollIntoView({ block: 'start' });
  root.value?.focus({ preventScroll: true });
}
onMounted(come);
watch(() => route.hash, come);
</script>

<template>
  <section :id="anchorOf(title)" ref="root" :aria-label="title" tabindex="-1">
    <header>
      <h2>
        <TermWord v-if="term" :of="term">{{ title }}</TermWord><template v-else>{{ title }}</template>
        <span v-if="count !== undefined" class="soft">{{ count }}</span>
      </h2>
      <p v-if="what" class="soft small">{{ what }}</p>
    </header>
    <div class="set" :class="{ wide }"><slot /></div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  grid-template-columns: minmax(12rem, 17rem) minmax(0, 1fr);
  gap: 10px 48px;
  padding: 24px 0 26px;
  border-top: 1px solid var(--rule);
}
header {
  display: grid;
  gap: 6px;
  align-content: start;
}
.set {
  display: grid;
  gap: 8px;
  align-content: start;
  max-width: 52rem;
}
.wide {
  max-width: none;
}
@media (max-width: 900px) {
  section {
    grid-template-columns: minmax(0, 1fr);
    padding: 18px 0 20px;
  }
}
</style>
