<script setup lang="ts">
import type { Api } from '@/api/client';
import { ago, exact } from '@/kit/words';
import KeyCap from '@/kit/KeyCap.vue';

/** What changed of my entries since I looked last. */
defineProps<{ project: string; news: Api['NewsLine'][] }>();
const emit = defineEmits<{ seen: []; open: [entry: string] }>();
</script>

<template>
  <section>
    <h2>
      Since you looked last
      <button type="button" class="link" @click="emit('seen')">I have seen it <KeyCap of="x" /></button>
    </h2>
    <ul class="news">
      <li v-for="n in news" :key="n.id">
        <button v-if="n.entry_id" type="button" class="link wraps" @click="emit('open', n.entry_id)">
          <span class="mono">{{ n.key }}</span> {{ n.title }}
        </button>
        <RouterLink v-else :to="`/${project}/cycles/${n.key}`"
          ><span class="mono">{{ n.key }}</span> {{ n.title }}</RouterLink
        >
        <span class="long"
          >{{ n.text }}
          <span class="soft small" :title="exact(n.at)"
            >{{ n.by ? `${n.by.name}, ` : '' }}{{ ago(n.at) }}</span
          ></span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.news {
  display: grid;
  gap: 10px;
  margin-top: 8px;
}
.news li {
  display: grid;
  gap: 2px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
h2 {
  font-size: 0.93rem;
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
</style>
