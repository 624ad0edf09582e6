<script setup lang="ts">
import { refDebounced } from '@vueuse/core';
import { useQuery } from '@tanstack/vue-query';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { findCases } from '@/areas/coverage/queries';

/** Cases are found by key or words, chosen, and linked together. */
const props = defineProps<{ project: string; linked: string[] }>();
const emit = defineEmits<{ link: [cases: string[]] }>();
const words = ref('');
const asked = refDebounced(words, 200);
const chosen = ref<{ id: string; key: string; title: string }[]>([]);
const { data, isSuccess } = useQuery({
  queryKey: computed(() => ['cases-to-link', props.project, asked.value]),
  queryFn: () => findCases(props.project, asked.value),
  enabled: computed(() => asked.value.trim().length > 1),
});
const found = computed(() =>
  asked.value.trim().length > 1
    ? (data.value ?? []).filter(
        (c) => !props.linked.includes(c.id) && !chosen.value.some((x) => x.id === c.id),
      )
    : [],
);
function choose(c: { id: string; key: string; title: string }): void {
  chosen.value = [...chosen.value, { id: c.id, key: c.key, title: c.title }];
  words.value = '';
}
function link(): void {
  const [first] = found.value;
  if (words.value.trim() !== '' && first) return choose(first);
  if (chosen.value.length === 0) return;
  emit(
    'link',
    chosen.value.map((c) => c.id),
  );
  chosen.value = [];
}
</script>

<template>
  <form class="link-cases" @submit.prevent="link">
    <label class="label" for="link-words">Link cases</label>
    <p v-if="chosen.length > 0" class="row">
      <span v-for="c in chosen" :key="c.id" class="tag long"
        >{{ c.key }} {{ c.title }}
        <button
          type="button"
          class="link"
          :aria-label="`Leave out ${c.key}`"
          @click="chosen = chosen.filter((x) => x.id !== c.id)"
        >
          ×
        </button></span
      >
    </p>
    <div class="row">
      <input id="link-words" v-model="words" class="field" placeholder="A key, or words of the title" />
      <Button
        type="submit"
        size="small"
        outlined
        :disabled="chosen.length === 0 && found.length === 0"
        :label="chosen.length > 0 ? `Link ${chosen.length}` : 'Link'"
      />
    </div>
    <p
      v-if="words.trim().length > 1 && words === asked && isSuccess && found.length === 0"
      class="soft small"
    >
      No other case has these words.
    </p>
    <ul v-if="found.length > 0" class="sheet">
      <li v-for="c in found" :key="c.id">
        <button type="button" class="link" @click="choose(c)">
          <span class="mono soft">{{ c.key }}</span> {{ c.title }}
        </button>
      </li>
    </ul>
  </form>
</template>

<style scoped>
.link-cases {
  margin: 16px 0;
  display: grid;
  gap: 6px;
  max-width: 40rem;
}
.field {
  flex: 1;
}
ul {
  padding: 6px 12px;
}
li {
  padding: 4px 0;
}
li .link {
  text-align: left;
}
</style>
