<script setup lang="ts">
import { computed, onMounted } from 'vue';
import { useRoute } from 'vue-router';
import { TERMS } from '@/kit/terms';

/** What words mean here; the one that the address names is marked. */
const route = useRoute();
const named = computed(() => route.hash.slice(1));
onMounted(() => document.getElementById(named.value)?.scrollIntoView({ block: 'center' }));
</script>

<template>
  <main class="page">
    <h1>Words used here</h1>
    <p class="soft">
      Each has one meaning, on every page. More on how things work:
      <RouterLink to="/docs">documentation</RouterLink>.
    </p>
    <dl>
      <template v-for="([word, meaning], id) in TERMS" :key="id">
        <dt :id="id" :class="{ named: named === id }">{{ word }}</dt>
        <dd :class="{ named: named === id }">{{ meaning }}</dd>
      </template>
    </dl>
  </main>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: minmax(7rem, 11rem) minmax(0, 44rem);
  gap: 10px 24px;
  margin-top: 20px;
}
dt {
  font-weight: 700;
}
.named {
  text-decoration: underline;
  text-underline-offset: 4px;
}
@media (max-width: 640px) {
  dl {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
  dd {
    margin-bottom: 12px;
  }
}
</style>
