<script setup lang="ts">
import SetupSection from '@/areas/setup/parts/SetupSection.vue';
import { readItems } from '@/kit/items';
import { computed, ref } from 'vue';
import type { Api } from '@/api/client';
import { addLabels, renameLabel } from '@/areas/setup/queries';
import { useSaving } from '@/areas/setup/useSaving';
import { plural } from '@/kit/words';

/** The labels of a project: added many at once, renamed everywhere, merged, taken off. */
const props = defineProps<{ project: string; labels: Api['LabelLine'][]; mayWrite: boolean }>();
const emit = defineEmits<{ saved: [now: Api['ProjectSetup'] | undefined] }>();
const words = ref('');
const added = ref('');
const renaming = ref('');
const name = ref('');
const { problem, run } = useSaving<Api['ProjectSetup']>((now) => emit('saved', now));
const SHOWN = 60;
const usesOf = (l: Api['LabelLine']): string =>
  [l.uses ? plural(l.uses, 'case') : '', l.defects ? plural(l.defects, 'defect') : '']
    .filter(Boolean)
    .join(', ');
const found = computed(() =>
  props.labels.filter((l) => l.name.toLowerCase().includes(words.value.toLowerCase())),
);
async function add(): Promise<void> {
  const names = readItems(added.value);
  if (names.length === 0) return;
  const done = await run(
    () => addLabels(props.project, { names }),
    `${plural(names.length, 'label')} added; those that were there stay.`,
  );
  if (done) added.value = '';
}
async function rename(from: string, to: string): Promise<void> {
  const done = await run(
    () => renameLabel(props.project, { from, to }),
    to ? `"${from}" is "${to}" now, on every case and defect.` : `"${from}" is off every case and defect.`,
  );
  if (done) renaming.value = '';
}
</script>

<template>
  <SetupSection
    title="Labels"
    :what="`${plural(labels.length, 'label')}. Cases and defects can also make a new one.`"
  >
    <input
      v-if="labels.length > 15"
      v-model="words"
      class="field"
      placeholder="Find"
      aria-label="Find labels"
    />
    <ul>
      <li v-for="l in found.slice(0, SHOWN)" :key="l.name" class="row">
        <form v-if="renaming === l.name" class="row grow" @submit.prevent="rename(l.name, name)">
          <input v-model="name" class="field" maxlength="60" :aria-label="`New name of ${l.name}`" />
          <button type="submit" class="link">Rename</button>
          <button type="button" class="link soft" @click="renaming = ''">Leave it</button>
        </form>
        <template v-else>
          <span class="long grow">{{ l.name }}</span>
          <span class="soft small">{{ usesOf(l) }}</span>
          <template v-if="mayWrite">
            <button
              type="button"
              class="link soft"
              @click="
                renaming = l.name;
                name = l.name;
              "
            >
              Rename or merge
            </button>
            <button type="button" class="link soft" @click="rename(l.name, '')">Take off</button>
          </template>
        </template>
      </li>
    </ul>
    <p v-if="found.length > SHOWN" class="soft small">
      and {{ found.length - SHOWN }} more; narrow them by typing.
    </p>
    <form class="row" @submit.prevent="add">
      <textarea
        v-model="added"
        class="field"
        rows="1"
        placeholder='New labels, between commas or line ends; one with a comma in "quotes"'
        aria-label="New labels"
      />
      <button type="submit" class="link">Add</button>
    </form>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </SetupSection>
</template>

<style scoped>
ul {
  display: grid;
  gap: 6px;
  align-content: start;
}
.row {
  flex-wrap: nowrap;
}
.grow {
  flex: 1;
}
</style>
