<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import Dialog from 'primevue/dialog';
import InputText from 'primevue/inputtext';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { findAnything } from '@/areas/search/queries';

/** Leads anywhere: to whatever fits some words or a key, to pages, and to acts. */
interface Place {
  word: string;
  about: string;
  /** Its address below the project. */
  path?: string;
  /** What it does, where it has no address. */
  run?: () => void;
}
const props = defineProps<{ project: string; places: Place[] }>();
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
  queryFn: () => findAnything(props.project, asked.value),
  placeholderData: (before) => before,
});
interface Item {
  id: string;
  kind: string;
  key: string;
  title: string;
  of?: string;
  path?: string | undefined;
  run?: (() => void) | undefined;
}
const items = computed<Item[]>(() => {
  const part = words.value.trim().toLowerCase();
  const here = props.places
    .filter((p) => `${p.word} ${p.about}`.toLowerCase().includes(part))
    .map((p) => ({
      id: p.word,
      kind: p.run ? 'act' : 'page',
      key: p.word,
      title: p.about,
      path: p.path,
      run: p.run,
    }));
  const found = (part ? (data.value ?? []) : []).map((i) => ({ ...i, id: i.link, path: i.link }));
  // What was typed as the beginning of a page's word is that page; else things come before pages.
  const pagesFirst = part === '' || here.some((h) => h.key.toLowerCase().startsWith(part));
  return pagesFirst ? [...here, ...found] : [...found, ...here];
});
watch(lit, (at) => document.getElementById(`go-to-${at}`)?.scrollIntoView({ block: 'nearest' }), {
  flush: 'post',
});
function go(at: number): void {
  const item = items.value[at];
  if (!item) return;
  emit('close');
  if (item.run) item.run();
  else void router.push(`/${props.project}/${item.path}`);
}
</script>

<template>
  <Dialog
    visible
    modal
    dismissable-mask
    header="Go to"
    position="top"
    :style="{ width: '44rem' }"
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
        :key="item.kind + item.id"
        role="option"
        :aria-selected="i === lit"
        @click="go(i)"
        @mousemove="lit = i"
      >
        <span :class="{ mono: !['page', 'act'].includes(item.kind), key: true }">{{ item.key }}</span>
        <span class="title">{{ item.title }}</span>
        <span class="soft small">{{ item.of ? `${item.kind} of ${item.of}` : item.kind }}</span>
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

.key {
  min-width: 6rem;
  white-space: nowrap;
}
.title {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
