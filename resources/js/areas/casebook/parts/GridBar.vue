<script setup lang="ts">
import type { Api } from '@/api/client';
import { plural } from '@/kit/words';

/** What can be put into the steps: formatting, values of the data table, routines; and what can be done with chosen ones. */
defineProps<{ columns: string[]; shelf: Api['RoutineLine'][]; chosen: number; mayExtract: boolean }>();
const emit = defineEmits<{
  place: [text: string, around?: string];
  routine: [id: string];
  extract: [];
  remove: [];
}>();
</script>

<template>
  <div class="bar row" role="toolbar" aria-label="Formatting" @mousedown.prevent>
    <button type="button" title="Bold (Ctrl B)" @click="emit('place', '', '**')"><b>B</b></button>
    <button type="button" title="Colour mark (Ctrl M)" @click="emit('place', '', '==')">
      <mark>M</mark>
    </button>
    <button type="button" title="Code (Ctrl E)" @click="emit('place', '', '`')"><code>code</code></button>
    <button type="button" title="List" @click="emit('place', '\n- ')">List</button>
    <button type="button" title="Link" @click="emit('place', '[words](https://)')">Link</button>
    <template v-if="columns.length > 0">
      <span class="soft small">Values:</span>
      <button
        v-for="c in columns.slice(0, 12)"
        :key="c"
        type="button"
        class="chip"
        :title="`Put {{${c}}} where the caret is`"
        @click="emit('place', `{{${c}}}`)"
      >
        {{ c }}
      </button>
    </template>
    <span class="gap" />
    <template v-if="chosen > 0">
      <button v-if="mayExtract" type="button" class="link" @click="emit('extract')">
        Make a routine of {{ plural(chosen, 'step') }}
      </button>
      <button type="button" class="link" @click="emit('remove')">Delete</button>
    </template>
    <select
      v-if="shelf.length > 0"
      class="field shelf"
      aria-label="Put a routine in"
      @mousedown.stop
      @change="
        emit('routine', ($event.target as HTMLSelectElement).value);
        ($event.target as HTMLSelectElement).value = '';
      "
    >
      <option value="">Put a routine in …</option>
      <option v-for="r in shelf" :key="r.id" :value="r.id">{{ r.name }}</option>
    </select>
  </div>
</template>

<style scoped>
.bar {
  position: sticky;
  top: 0;
  z-index: 3;
  background: var(--paper);
  padding: 6px 0;
  gap: 6px 8px;
}
.bar button:not(.link):not(.chip) {
  font: inherit;
  font-size: 0.87rem;
  border: 1px solid transparent;
  border-radius: 4px;
  background: none;
  color: var(--ink-soft);
  padding: 2px 7px;
  cursor: pointer;
}
.bar button:not(.link):hover {
  border-color: var(--edge);
  color: var(--ink);
}
.bar .chip {
  cursor: pointer;
  color: var(--ink);
}
.gap {
  flex: 1;
}
.shelf {
  width: auto;
  max-width: 220px;
  padding: 3px 8px;
  font-size: 0.87rem;
}
</style>
