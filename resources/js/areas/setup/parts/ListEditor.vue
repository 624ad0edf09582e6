<script setup lang="ts">
import { ref } from 'vue';
import { Problem, type Api } from '@/api/client';
import { saveList } from '@/areas/setup/queries';
import { toast } from '@/kit/notices';
import { useEditable } from '@/kit/useEditable';
import { useSeen } from '@/kit/useSeen';
import { plural } from '@/kit/words';

/** A list whose items have an order: named, moved, added, taken out when nothing uses them. */
const props = defineProps<{
  title: string;
  what: string;
  list:
    | 'types'
    | 'priorities'
    | 'milestone-types'
    | 'phases'
    | 'reasons-pass'
    | 'reasons-fail'
    | 'reasons-blocked'
    | 'reasons-not-applicable';
  /** What uses an item, as a word. */
  uses?: string;
  project: string;
  items: Api['ListItemLine'][];
  weighted?: boolean;
  mayWrite: boolean;
  /** The state of the list that the items are. */
  seen: string;
}>();
const emit = defineEmits<{ saved: [now: Api['ProjectSetup'] | Api['WalkSetup'] | undefined] }>();
interface Item {
  value: string | null;
  name: string;
  weight: number;
  uses: number;
}
const { form: rows, dirty, follow } = useEditable<Item[]>(() => props.items.map((i) => ({ ...i })));
const send = useSeen(() => props.seen, dirty);
const problem = ref<Problem | null>(null);
function move(at: number, by: number): void {
  const row = rows.value[at];
  if (!row || at + by < 0 || at + by >= rows.value.length) return;
  rows.value.splice(at, 1);
  rows.value.splice(at + by, 0, row);
}
async function save(): Promise<void> {
  problem.value = null;
  const items = {
    items: rows.value
      .filter((r) => r.name.trim() !== '' || r.value)
      .map(({ value, name, weight }) => ({ value, name, weight })),
  };
  try {
    emit('saved', await send((seen) => saveList(props.project, props.list, { ...items, seen })));
    await follow();
    toast(`${props.title} saved.`);
  } catch (error) {
    if (error instanceof Problem) problem.value = error;
    else throw error;
  }
}
</script>

<template>
  <section :aria-label="title">
    <h2>{{ title }}</h2>
    <p class="soft small">{{ what }}</p>
    <div v-for="(r, i) in rows" :key="i" class="row">
      <input
        v-model="r.name"
        class="field"
        maxlength="60"
        :aria-label="`Name of ${title.toLowerCase()} ${i + 1}`"
        :disabled="!mayWrite"
        @keydown.alt.up.prevent="move(i, -1)"
        @keydown.alt.down.prevent="move(i, 1)"
      />
      <input
        v-if="weighted"
        v-model.number="r.weight"
        class="field weight"
        type="number"
        min="1"
        max="100"
        :aria-label="`Weight of ${r.name}`"
        :disabled="!mayWrite"
      />
      <span class="soft small uses">{{ r.uses ? plural(r.uses, uses ?? 'case') : '' }}</span>
      <template v-if="mayWrite">
        <button type="button" class="link soft" :aria-label="`Move ${r.name} up`" @click="move(i, -1)">
          ↑
        </button>
        <button type="button" class="link soft" :aria-label="`Move ${r.name} down`" @click="move(i, 1)">
          ↓
        </button>
        <button type="button" class="link soft" @click="rows.splice(i, 1)">Take out</button>
      </template>
    </div>
    <p v-if="problem" class="p-invalid-words" role="alert">
      {{ Object.values(problem.errors)[0]?.[0] ?? problem.message }}
    </p>
    <p v-if="mayWrite" class="row">
      <button type="button" class="link" @click="rows.push({ value: null, name: '', weight: 1, uses: 0 })">
        Add one
      </button>
      <button v-if="dirty" type="button" class="link" @click="save">Save</button>
      <button v-if="dirty" type="button" class="link soft" @click="follow()">Leave it as it was</button>
    </p>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  align-content: start;
}
.row {
  flex-wrap: nowrap;
}
.weight {
  width: 72px;
}
.uses {
  width: 76px;
  flex: none;
}
</style>
