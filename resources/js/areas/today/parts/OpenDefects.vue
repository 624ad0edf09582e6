<script setup lang="ts">
import { computed } from 'vue';
import type { Api } from '@/api/client';
import { ago, exact, plainWords } from '@/kit/words';

/** What a developer has to do with: what came back first, each with its newest picture and the step that failed. */
const props = defineProps<{ project: string; defects: Api['OpenDefect'][] }>();
const GROUPS: { group: Api['OpenDefect']['group']; word: string; none?: string }[] = [
  { group: 'reopened', word: 'Came back' },
  { group: 'with_me', word: 'With you', none: 'No defect is with you.' },
  { group: 'asked_back', word: 'You asked back' },
  { group: 'nobody', word: 'Nobody has them yet' },
  { group: 'fixed', word: 'Fixed, and nobody looked yet' },
];
const groups = computed(() =>
  GROUPS.map((g) => ({ ...g, items: props.defects.filter((d) => d.group === g.group) })).filter(
    (g) => g.items.length > 0 || g.none,
  ),
);
</script>

<template>
  <section v-for="g in groups" :key="g.group" :aria-label="g.word">
    <h2>
      {{ g.word }} <span v-if="g.items.length > 0" class="soft">{{ g.items.length }}</span>
    </h2>
    <p v-if="g.items.length === 0" class="soft">{{ g.none }}</p>
    <ul>
      <li v-for="d in g.items" :key="d.key">
        <RouterLink :to="`/${project}/defects/${d.key}`" class="picture" tabindex="-1" aria-hidden="true">
          <img v-if="d.picture" :src="`/api/v1/evidence/${d.picture}/thumbnail`" alt="" loading="lazy" />
          <span v-else class="soft small">no picture</span>
        </RouterLink>
        <div>
          <RouterLink class="plain long name" :to="`/${project}/defects/${d.key}`"
            ><span class="mono">{{ d.key }}</span> {{ d.title }}</RouterLink
          >
          <p v-if="d.actual" class="long clamp">{{ d.actual }}</p>
          <p class="soft small">
            {{ plainWords(d.severity) }} · {{ plainWords(d.state).toLowerCase()
            }}<template v-if="d.step"> · step {{ d.step }}</template
            ><template v-if="d.build"> · build {{ d.build }}</template> ·
            <span :title="exact(d.updated_at)">{{ ago(d.updated_at) }}</span>
          </p>
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  margin-bottom: 28px;
}
li {
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr);
  gap: 16px;
  padding: 12px 0;
  border-bottom: 1px solid var(--rule);
}
.picture {
  display: grid;
  place-items: center;
  height: 66px;
  background: var(--well);
  border: 1px solid var(--rule);
  border-radius: 4px;
  overflow: hidden;
  text-decoration: none;
}
img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  object-position: top;
}
.name {
  font-weight: 600;
}
</style>
