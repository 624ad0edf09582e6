<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import Button from 'primevue/button';
import { computed } from 'vue';
import type { Problem } from '@/api/client';
import StateBox from './StateBox.vue';

/**
 * A page about one thing: where it belongs, its name, how it stands between here and the server, and what can be done with
 * it; beside it what else is to be known. Who may not write reads the same page.
 */
const props = withDefaults(
  defineProps<{
    /** The list it belongs to. */
    crumb: { to: string; word: string };
    /** What it is, such as "routine". */
    what: string;
    /** What stands before its name, such as its key. */
    code?: string;
    /** How its name is called, where it is called otherwise. */
    nameLabel?: string;
    namePlaceholder?: string;
    /** The id of the field of its name. */
    nameId?: string;
    nameLength?: number;
    isNew?: boolean;
    /** Whether Tab leads from the name of a new one straight into it, as Enter does. */
    tabEnters?: boolean;
    dirty?: boolean;
    saving?: boolean;
    mayWrite: boolean;
    /** Whether it can be put into the bin here. */
    mayBin?: boolean;
    /** Whether what was written can be dropped at the title. */
    mayDrop?: boolean;
    /** What the server refused. */
    problem?: Problem | null;
    /** Fields whose refusal stands at the field itself. */
    shown?: (field: string) => boolean;
    /** While it is not there yet. */
    loading: boolean;
    error: Error | null;
    version?: number | undefined;
    /** Something else stands in its place for a while; what is typed in it stays. */
    covered?: boolean;
    /** What stands beside it, for those who hear it. */
    beside: string;
  }>(),
  {
    code: '',
    nameLabel: '',
    namePlaceholder: '',
    nameId: 'document-name',
    nameLength: 120,
    mayBin: true,
    mayDrop: true,
    problem: null,
    shown: () => false,
    version: undefined,
  },
);
const name = defineModel<string | undefined>('name', { required: true });
const emit = defineEmits<{ save: []; bin: []; drop: []; again: []; enter: [] }>();
/** One line of text, however many it takes to show it. */
const line = computed({
  get: () => name.value ?? '',
  set: (now) => (name.value = now.replaceAll(/\s*\n\s*/g, ' ')),
});
function onward(event: KeyboardEvent): void {
  if (!props.isNew || !props.tabEnters) return;
  event.preventDefault();
  emit('enter');
}
const label = computed(() => props.nameLabel || `Name of the ${props.what}`);
const refusals = computed(() =>
  Object.entries(props.problem?.errors ?? {})
    .filter(([field]) => !props.shown(field))
    .map(([field, words]) => ({
      field,
      words: (field.startsWith('row ') ? `${field.replace('row', 'Row')}: ` : '') + words[0],
    })),
);
useEventListener(window, 'keydown', (event) => {
  if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 's') return;
  event.preventDefault();
  if (props.mayWrite && props.dirty && !props.saving) emit('save');
});
</script>

<template>
  <div class="page">
    <StateBox v-if="name === undefined" :loading="loading" :error="error" @again="emit('again')" />
    <template v-else>
      <p class="soft small crumb">
        <RouterLink :to="crumb.to">{{ crumb.word }}</RouterLink>
      </p>
      <div class="title-line">
        <span v-if="code" class="mono soft">{{ code }}</span>
        <h1 :class="mayWrite ? 'unseen' : 'long'">{{ name || `New ${what}` }}</h1>
        <textarea
          v-if="mayWrite"
          :id="nameId"
          v-model="line"
          class="name"
          rows="1"
          :aria-label="label"
          :placeholder="namePlaceholder || label"
          :maxlength="nameLength"
          :autofocus="isNew"
          @keydown.enter.prevent="emit('enter')"
          @keydown.tab.exact="onward"
        />
        <span v-if="version" class="soft">version {{ version }}</span>
        <div class="actions">
          <slot name="actions" />
          <template v-if="mayWrite">
            <button v-if="mayBin && !isNew" type="button" class="link" @click="emit('bin')">Bin</button>
            <button v-if="mayDrop && dirty && !isNew" type="button" class="link" @click="emit('drop')">
              Drop my changes
            </button>
            <span class="soft small" role="status">{{
              dirty ? 'Not saved yet, kept on this device' : isNew ? '' : 'Saved'
            }}</span>
            <Button label="Save" title="Ctrl S" :disabled="saving || !dirty" @click="emit('save')" />
          </template>
        </div>
      </div>
      <div v-if="problem" role="alert">
        <p v-if="Object.keys(problem.errors).length === 0" class="p-invalid-words">{{ problem.message }}</p>
        <p v-for="r in refusals" :key="r.field" class="p-invalid-words">{{ r.words }}</p>
      </div>
      <slot name="bands" />
      <div v-show="!covered" class="columns">
        <div class="text"><slot /></div>
        <aside :aria-label="beside"><slot name="beside" /></aside>
      </div>
    </template>
    <slot name="over" />
  </div>
</template>

<style scoped>
.crumb {
  margin-bottom: 2px;
}
.name {
  flex: 1;
  min-width: 240px;
  font: inherit;
  font-size: 1.47rem;
  font-weight: 700;
  line-height: 1.25;
  color: var(--ink);
  background: none;
  border: 1px solid transparent;
  border-radius: 5px;
  padding: 2px 6px;
  margin-left: -6px;
  resize: none;
  field-sizing: content;
}
.name:hover {
  border-color: var(--rule);
}
.name:focus {
  background: var(--sheet);
  border-color: var(--edge);
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 36px;
}
.text,
aside {
  display: grid;
  gap: 16px;
  align-content: start;
  min-width: 0;
}
@media (max-width: 960px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
