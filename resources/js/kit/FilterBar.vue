<script setup lang="ts">
import { readItems } from '@/kit/items';
import InputText from 'primevue/inputtext';
import { computed, ref, watch } from 'vue';
import { inWords, toggled, type Criterion, type Filter } from './criteria';
import { useKeys } from './keys';

/** Words to look for, and what a list is narrowed to. `/` goes to the words. */
const props = defineProps<{
  /** What is looked for, such as "cases". */
  what: string;
  criteria: Criterion[];
  filter: Filter;
}>();
const emit = defineEmits<{ set: [name: string, value: string | undefined]; clear: [] }>();
const words = ref(props.filter.q ?? '');
const field = ref<{ $el: HTMLInputElement } | null>(null);
watch(
  () => props.filter.q,
  (now) => {
    if ((now ?? '') !== words.value.trim()) words.value = now ?? '';
  },
);
useKeys('Lists', () => [{ keys: ['/'], label: `Find ${props.what}`, run: () => field.value?.$el.focus() }]);
let timer: ReturnType<typeof setTimeout> | undefined;
watch(words, (now) => {
  clearTimeout(timer);
  timer = setTimeout(() => emit('set', 'q', now.trim() || undefined), 200);
});
const active = computed(() => props.criteria.filter((c) => props.filter[c.name] !== undefined));
const open = ref('');
const narrowing = ref('');
const choosing = computed(() => props.criteria.find((c) => c.name === open.value));
const choices = computed(() => {
  const part = narrowing.value.toLowerCase();
  return (choosing.value?.choices ?? []).filter((c) => c.label.toLowerCase().includes(part)).slice(0, 200);
});
function pick(criterion: Criterion, value: string): void {
  const now = props.filter[criterion.name];
  const next = criterion.many ? toggled(now, value) : now === value ? '' : value;
  emit('set', criterion.name, next || undefined);
  if (!criterion.many) open.value = '';
}
function show(name: string): void {
  narrowing.value = '';
  open.value = open.value === name ? '' : name;
}
const has = (criterion: Criterion, value: string): boolean =>
  readItems(props.filter[criterion.name] ?? '').includes(value);
</script>

<template>
  <div class="bar">
    <InputText
      ref="field"
      v-model="words"
      placeholder="Words or a key"
      :aria-label="`Find ${what} by words or a key`"
      class="find"
    />
    <span v-for="c in active" :key="c.name" class="chosen">
      <button type="button" :aria-expanded="open === c.name" @click="show(c.name)">
        {{ inWords(c, filter[c.name] ?? '') }}
      </button>
      <button type="button" :aria-label="`Drop ${c.label}`" @click="emit('set', c.name, undefined)">×</button>
    </span>
    <div v-if="criteria.length > 0" class="adder" @keydown.esc.stop="open = ''">
      <button type="button" class="link" :aria-expanded="open !== ''" @click="show(open ? '' : 'all')">
        Filter
      </button>
      <div v-if="open" class="menu sheet">
        <ul v-if="!choosing" class="names">
          <li v-for="c in criteria" :key="c.name">
            <button type="button" class="item" @click="show(c.name)">{{ c.label }}</button>
          </li>
        </ul>
        <template v-else>
          <p class="row head">
            <strong>{{ choosing.label }}</strong>
            <button type="button" class="link soft" @click="show('all')">Another</button>
            <button type="button" class="link soft" @click="open = ''">Done</button>
          </p>
          <input
            v-if="choosing.choices.length > 12"
            v-model="narrowing"
            class="field"
            :aria-label="`Narrow ${choosing.label}`"
            placeholder="Narrow the list"
          />
          <ul class="choices">
            <li v-for="v in choices" :key="v.value">
              <label
                ><input
                  :type="choosing.many ? 'checkbox' : 'radio'"
                  :checked="has(choosing, v.value)"
                  @change="pick(choosing, v.value)"
                />
                <span class="long">{{ v.label }}</span></label
              >
            </li>
            <li v-if="choices.length === 0" class="soft">Nothing to choose.</li>
          </ul>
        </template>
      </div>
    </div>
    <button v-if="active.length > 0 || filter.q" type="button" class="link soft" @click="emit('clear')">
      Clear
    </button>
    <slot />
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
.find {
  width: min(260px, 100%);
}
.chosen {
  display: inline-flex;
  border: 1px solid var(--edge);
  border-radius: 6px;
  background: var(--sheet);
  overflow: hidden;
}
.chosen button {
  font: inherit;
  border: 0;
  background: none;
  color: var(--ink);
  padding: 4px 8px;
  cursor: pointer;
}
.chosen button:hover {
  background: var(--well);
}
.adder {
  position: relative;
}
.menu {
  position: absolute;
  left: 0;
  top: 30px;
  z-index: 12;
  width: 270px;
  padding: 10px 12px;
  box-shadow: var(--float);
}
.head {
  margin-bottom: 6px;
}
.head strong {
  flex: 1;
}
.names {
  columns: 2;
}
.item {
  font: inherit;
  color: var(--ink);
  border: 0;
  background: none;
  padding: 5px 4px;
  width: 100%;
  text-align: left;
  cursor: pointer;
}
.item:hover {
  background: var(--well);
}
.choices {
  max-height: 320px;
  overflow-y: auto;
}
.choices label {
  display: flex;
  gap: 8px;
  padding: 4px 0;
  cursor: pointer;
}
</style>
