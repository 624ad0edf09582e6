<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { refDebounced } from '@vueuse/core';
import { useQuery } from '@tanstack/vue-query';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { findDefects } from '@/areas/defects/queries';
import { plainWords } from '@/kit/words';

/** Another defect, found by its key or by words, to be linked instead of filing one. */
const props = defineProps<{ project: string }>();
const emit = defineEmits<{ link: [Api['DefectLine']] }>();
const words = ref('');
const asked = refDebounced(
  computed(() => words.value.trim()),
  200,
);
const { data, error } = useQuery({
  queryKey: computed(() => ['link-known', props.project, asked.value]),
  queryFn: async () => (await findDefects(props.project, { q: asked.value })).items.slice(0, 6),
  enabled: () => asked.value !== '',
  retry: false,
});
const found = computed(() => (asked.value === '' ? [] : (data.value ?? [])));
</script>

<template>
  <div class="known">
    <label class="label" for="defect-words">Another one? Link it by key or words</label>
    <InputText id="defect-words" v-model="words" fluid autocomplete="off" />
    <ul>
      <li v-for="d in found" :key="d.id" class="row">
        <span class="mono">{{ d.key }}</span><span class="name">{{ d.title }}</span
        ><span class="soft small">{{ plainWords(d.state) }}</span
        ><Button size="small" outlined severity="secondary" label="Link it" @click="emit('link', d)" />
      </li>
    </ul>
    <p v-if="error" class="p-invalid-words" role="alert">{{ errorMessage(error) }}</p>
    <p v-else-if="asked && data && data.length === 0" class="soft small">No defect has these words.</p>
  </div>
</template>

<style scoped>
.known {
  border-top: 1px solid var(--rule);
  padding-top: 12px;
}
li {
  padding-top: 8px;
  flex-wrap: nowrap;
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
