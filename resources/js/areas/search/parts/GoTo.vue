<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import Dialog from 'primevue/dialog';
import InputText from 'primevue/inputtext';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api, unwrap } from '@/api/client';

const props = defineProps<{ project: string }>();
const emit = defineEmits<{ close: [] }>();
const router = useRouter();
const words = ref('');
const lit = ref(0);
const asked = ref('');
let timer: ReturnType<typeof setTimeout> | undefined;
watch(words, (now) => {
  clearTimeout(timer);
  timer = setTimeout(() => (asked.value = now.trim()), 120);
  lit.value = 0;
});
const { data, error } = useQuery({
  queryKey: computed(() => ['go-to', props.project, asked.value]),
  queryFn: async () =>
    unwrap(
      await api.GET('/projects/{project}/go-to', {
        params: { path: { project: props.project }, query: { q: asked.value } },
      }),
    ).items,
  placeholderData: (before) => before,
});
const areas = [
  { kind: 'area', key: 'Today', title: 'What is mine to do', path: 'today' },
  { kind: 'area', key: 'Cycles', title: 'All cycles', path: 'cycles' },
  { kind: 'area', key: 'Casebook', title: 'All cases', path: 'casebook' },
  { kind: 'area', key: 'Defects', title: 'All defects', path: 'defects' },
];
const paths = { case: 'casebook', cycle: 'cycles', defect: 'defects' } as const;
const items = computed(() => [
  ...areas.filter((a) => a.key.toLowerCase().includes(words.value.trim().toLowerCase())),
  ...(words.value.trim() ? (data.value ?? []) : []).map((i) => ({ ...i, path: `${paths[i.kind]}/${i.key}` })),
]);
function go(at: number): void {
  const item = items.value[at];
  if (!item) return;
  emit('close');
  void router.push(`/${props.project}/${item.path}`);
}
</script>

<template>
  <Dialog
    visible
    modal
    dismissable-mask
    header="Go to"
    position="top"
    :style="{ width: '38rem' }"
    @update:visible="emit('close')"
  >
    <InputText
      v-model="words"
      autofocus
      fluid
      aria-label="Words or a key"
      placeholder="Words or a key"
      role="combobox"
      aria-expanded="true"
      aria-controls="go-to-list"
      :aria-activedescendant="`go-to-${lit}`"
      autocomplete="off"
      @keydown.down.prevent="lit = Math.min(lit + 1, items.length - 1)"
      @keydown.up.prevent="lit = Math.max(lit - 1, 0)"
      @keydown.enter.prevent="go(lit)"
    />
    <ul id="go-to-list" role="listbox" aria-label="Found">
      <li
        v-for="(item, i) in items"
        :id="`go-to-${i}`"
        :key="item.path"
        role="option"
        :aria-selected="i === lit"
        @click="go(i)"
        @mousemove="lit = i"
      >
        <span class="mono">{{ item.key }}</span>
        <span class="title">{{ item.title }}</span>
        <span class="soft small">{{ item.kind }}</span>
      </li>
    </ul>
    <p v-if="error" class="soft" role="alert">{{ error.message }}</p>
    <p v-else-if="items.length === 0" class="soft">Nothing has these words.</p>
  </Dialog>
</template>

<style scoped>
ul {
  margin-top: 10px;
  max-height: 50vh;
  overflow: auto;
}
li {
  display: flex;
  gap: 12px;
  padding: 7px 8px;
  border-radius: 4px;
  cursor: pointer;
  align-items: baseline;
}
li[aria-selected='true'] {
  background: var(--well);
  box-shadow: inset 3px 0 0 var(--ink);
}
.mono {
  min-width: 6rem;
}
.title {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
