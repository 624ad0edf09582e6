<script setup lang="ts">
import SetupSection from '@/areas/setup/parts/SetupSection.vue';
import { computed } from 'vue';
import type { Api } from '@/api/client';
import EditorFoot from '@/areas/setup/parts/EditorFoot.vue';
import { saveList } from '@/areas/setup/queries';
import { useReplacing } from '@/areas/setup/useReplacing';
import { useEditable } from '@/kit/useEditable';
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
    | 'components'
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
const { problem, replace } = useReplacing<Api['ProjectSetup'] | Api['WalkSetup']>(
  () => props.seen,
  dirty,
  follow,
  (now) => emit('saved', now),
);
const used = computed(() => rows.value.some((r) => r.uses > 0));
function move(at: number, by: number): void {
  const row = rows.value[at];
  if (!row || at + by < 0 || at + by >= rows.value.length) return;
  rows.value.splice(at, 1);
  rows.value.splice(at + by, 0, row);
}
function save(): Promise<void> {
  const items = rows.value
    .filter((r) => r.name.trim() !== '' || r.value)
    .map(({ value, name, weight }) => ({ value, name, weight }));
  return replace((seen) => saveList(props.project, props.list, { items, seen }), `${props.title} saved.`);
}
</script>

<template>
  <SetupSection :title="title" :what="what">
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
      <span v-if="used" class="soft small uses">{{ r.uses ? plural(r.uses, uses ?? 'case') : '' }}</span>
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
    <EditorFoot
      v-if="mayWrite"
      :dirty="dirty"
      @add="rows.push({ value: null, name: '', weight: 1, uses: 0 })"
      @save="save"
      @leave="follow()"
    />
  </SetupSection>
</template>

<style scoped>
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
