<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import MarkdownText from '@/kit/MarkdownText.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { plural } from '@/kit/words';

/** How to get to the fault: the failing step lit as on the walk, with what was expected, what happened and the newest picture. */
const props = defineProps<{
  project: string;
  way: Api['Reproduction'];
  expected: string;
  actual: string;
}>();
const failing = computed(() => props.way.steps.find((s) => s.position === props.way.failing) ?? null);
const isPicture = (e: Api['EvidenceItem']): boolean => !e.gone && /^image\//.test(e.media_type ?? '');
const picture = computed(() => props.way.evidence.find(isPicture) ?? null);
const seen = computed(() =>
  failing.value && failing.value.tries > 0
    ? `failed ${failing.value.tries_failed} of ${failing.value.tries} tries`
    : '',
);
</script>

<template>
  <section v-if="failing" class="lit sheet" aria-label="The failing step">
    <p class="soft small">
      Step {{ failing.position }} of {{ way.of_steps }} ·
      <span class="long">{{ way.case_title }}</span><template v-if="seen"> · {{ seen }}</template>
    </p>
    <MarkdownText class="action" :text="failing.action" />
    <p v-if="failing.data" class="mono long">{{ failing.data }}</p>
    <div class="sides">
      <div>
        <span class="label">Expected</span>
        <MarkdownText :text="expected || failing.expected || '–'" />
      </div>
      <div>
        <span class="label">Happened instead</span>
        <MarkdownText :text="actual || failing.happened || '–'" />
      </div>
      <a v-if="picture" :href="picture.marked_url ?? picture.url" target="_blank" class="picture"
        ><img
          :src="picture.marked_url ?? picture.thumbnail_url ?? picture.url"
          :alt="picture.caption || picture.name"
      /></a>
    </div>
  </section>
  <section v-if="way.steps.length > 0" aria-label="How to get there">
    <div class="row head">
      <h2>How to get there</h2>
      <span class="soft small"
        >{{ plural(way.steps.length, 'step', 'steps') }} of
        <RouterLink :to="`/${project}/entries/${way.entry_id}?attempt=${way.attempt_id}`"
          >{{ way.case_key }}, attempt {{ way.attempt_number }}</RouterLink
        >, {{ way.tester.name }}</span
      >
      <slot />
    </div>
    <p v-if="way.preconditions" class="soft before long">{{ way.preconditions }}</p>
    <ol>
      <li v-for="s in way.steps" :key="s.position" :class="{ bad: s.position === way.failing }">
        <span class="mono soft">{{ s.position }}</span>
        <VerdictMark :shown="s.verdict" :size="11" />
        <div class="long">
          <MarkdownText :text="s.action" /> <span v-if="s.data" class="mono soft">{{ s.data }}</span>
        </div>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.lit {
  padding: 16px 22px 18px;
  border-left: 7px solid var(--lantern);
  display: grid;
  gap: 8px;
}
.action {
  font-size: 1.2rem;
}
.sides {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(12rem, 1fr));
  gap: 16px 24px;
  align-items: start;
}
.picture img {
  display: block;
  max-width: 100%;
  max-height: 180px;
  border: 1px solid var(--rule);
  border-radius: 4px;
}
.head {
  align-items: baseline;
  margin-bottom: 4px;
}
.before {
  margin-bottom: 6px;
}
li {
  display: grid;
  grid-template-columns: 1.6rem 18px minmax(0, 1fr);
  gap: 6px;
  align-items: baseline;
  padding: var(--line) 0;
  border-bottom: 1px solid var(--rule);
}
.bad {
  font-weight: 700;
}
li div > * {
  display: inline;
}
</style>
