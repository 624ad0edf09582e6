<script setup lang="ts">
import { computed, ref } from 'vue';
import type { Api } from '@/api/client';
import MarkdownText from '@/kit/MarkdownText.vue';
import VerdictMark from '@/kit/VerdictMark.vue';
import { ago, exact, plural } from '@/kit/words';
import type { Earlier } from '@/areas/walk/useEarlier';

/** What the attempts before recorded of a step: verdict, words, pictures, defects. The last one, the others on request. */
const props = defineProps<{ all: Earlier[]; entry: string; project: string }>();
const every = ref(false);
const shown = computed(() => (every.value ? props.all : props.all.slice(0, 1)));
const words = (r: Api['StepRecord']): string =>
  r.verdict === 'blocked'
    ? [r.reason, r.waits_on && `waits on ${r.waits_on}`].filter(Boolean).join(', ')
    : r.happened;
const changed = (s: Api['EarlierStep']): string =>
  [s.same_text ? '' : 'the step said otherwise then', s.same_values ? '' : 'with other values']
    .filter(Boolean)
    .join(', ');
</script>

<template>
  <section v-if="all.length > 0" class="earlier" aria-label="This step in earlier attempts">
    <div v-for="{ attempt, step: then, gone } in shown" :key="attempt.id" class="one">
      <p class="head">
        <VerdictMark v-if="then" :shown="then.record.verdict" word :size="11" />
        <span class="soft small"
          ><template v-if="!then">Nothing recorded here </template>in
          <RouterLink :to="`/${project}/entries/${entry}?attempt=${attempt.id}`"
            >attempt {{ attempt.number }}</RouterLink
          ><template v-if="attempt.build">, build {{ attempt.build.name }}</template
          >, {{ attempt.tester.name }},
          <span :title="exact(attempt.started_at)">{{ ago(attempt.started_at) }}</span><template
            v-if="then && then.record.tries > 0"
            >, failed {{ then.record.tries_failed }} of {{ then.record.tries }}</template
          ><template v-if="then && changed(then)">; {{ changed(then) }}</template
          ><template v-if="gone > 0"
            >; {{ plural(gone, 'step') }} it judged {{ gone === 1 ? 'is' : 'are' }} no more</template
          ></span
        >
      </p>
      <template v-if="then">
        <MarkdownText v-if="words(then.record)" :text="words(then.record)" />
        <p v-if="then.record.verdict !== 'blocked' && then.record.reason" class="soft small">
          Reason: {{ then.record.reason }}
        </p>
        <p v-if="then.record.note" class="soft long">{{ then.record.note }}</p>
        <p v-if="then.evidence.length > 0 || then.defects.length > 0" class="things">
          <template v-for="e in then.evidence" :key="e.id">
            <a v-if="e.thumbnail_url" :href="e.marked_url ?? e.url" target="_blank" rel="noopener"
              ><img :src="e.marked_url ?? e.thumbnail_url" :alt="e.caption || e.name"
            /></a>
            <a v-else-if="!e.gone" :href="e.link ?? e.url" target="_blank" rel="noopener noreferrer">{{
              e.caption || e.name
            }}</a>
          </template>
          <RouterLink
            v-for="d in then.defects"
            :key="d.id"
            class="mono"
            :to="`/${project}/defects/${d.key}`"
            :title="d.title"
            >{{ d.key }}</RouterLink
          >
        </p>
      </template>
    </div>
    <button v-if="all.length > 1" type="button" class="link small" @click="every = !every">
      {{ every ? 'Only the last attempt' : `${plural(all.length - 1, 'attempt')} before that` }}
    </button>
  </section>
</template>

<style scoped>
.earlier {
  padding: 10px 12px;
  background: var(--well);
  border-radius: 6px;
  display: grid;
  gap: 10px;
  justify-items: start;
}
.one {
  display: grid;
  gap: 4px;
  min-width: 0;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: center;
}
.things {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
img {
  height: 64px;
  max-width: 160px;
  object-fit: cover;
  border: 1px solid var(--rule);
  border-radius: 4px;
  display: block;
}
</style>
