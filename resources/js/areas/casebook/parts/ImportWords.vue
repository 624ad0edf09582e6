<script setup lang="ts">
import { toRef } from 'vue';
import type { Api } from '@/api/client';
import { asOptions, stateWord } from '@/areas/casebook/filter';
import { useFrame } from '@/areas/casebook/frame';
import { plainWords, plural } from '@/kit/words';

/** Words of a file that the project does not have: what each means here is said once, and remembered. */
const props = defineProps<{ project: string; words: Api['ImportWord'][] }>();
const emit = defineEmits<{ mean: [words: NonNullable<Api['MappingRequest']['words']>] }>();
const { frame } = useFrame(toRef(props, 'project'));
function meanings(field: Api['ImportWord']['field']): { value: string; label: string }[] {
  if (field === 'state')
    return ['draft', 'in_review', 'approved', 'retired'].map((s) => ({ value: s, label: stateWord(s) }));
  const f = frame.value;
  return asOptions({ priority: f?.priorities, type: f?.types, owner: f?.people }[field] ?? []);
}
</script>

<template>
  <section aria-label="Words of the file">
    <h3>Words that this project does not have</h3>
    <p class="soft small">What you say here is remembered for the next file.</p>
    <ul>
      <li v-for="w in words" :key="`${w.field} ${w.word}`" class="row">
        <span class="soft what">{{ plainWords(w.field) }}</span>
        <strong class="long word">{{ w.word }}</strong>
        <span class="soft small times">{{ plural(w.times, 'row') }}</span>
        <select
          class="field meaning"
          :aria-label="`What ${w.word} means`"
          :value="w.value ?? ''"
          @change="
            emit('mean', [
              { field: w.field, word: w.word, value: ($event.target as HTMLSelectElement).value || null },
            ])
          "
        >
          <option value="">
            {{ w.field === 'type' ? `A new type, “${w.word}”` : 'Nothing said: its cases are left out' }}
          </option>
          <option v-for="m in meanings(w.field)" :key="m.value" :value="m.value">{{ m.label }}</option>
        </select>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  margin-bottom: 24px;
}
ul {
  list-style: none;
  display: grid;
  gap: 6px;
}
.what {
  width: 76px;
}
.word {
  width: 200px;
}
.times {
  width: 76px;
}
.meaning {
  width: 290px;
}
</style>
