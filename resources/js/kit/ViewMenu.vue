<script setup lang="ts">
import { ref } from 'vue';
import { errorMessage } from '@/api/client';

interface Choice {
  value: string;
  label: string;
}
/** How a list is shown: its columns and groups; and keeping that, with what it is narrowed to, under a name. */
const props = defineProps<{
  choices: Choice[];
  columns: string[];
  groups: Choice[];
  group: string;
  /** In which ways it can be kept. */
  ways: Choice[];
  /** One's own that were kept. */
  kept: { id: string; name: string }[];
  keep: (way: string, name: string) => Promise<void>;
  drop: (id: string) => Promise<void>;
}>();
const emit = defineEmits<{ set: [name: string, value: string | undefined] }>();
const open = ref(false);
const name = ref('');
const problem = ref('');
function column(value: string): void {
  const next = props.columns.includes(value)
    ? props.columns.filter((c) => c !== value)
    : props.choices.map((c) => c.value).filter((c) => c === value || props.columns.includes(c));
  emit('set', 'columns', next.join(',') || undefined);
}
async function run(work: () => Promise<void>): Promise<boolean> {
  problem.value = '';
  try {
    await work();
    return true;
  } catch (error) {
    problem.value = errorMessage(error);
    return false;
  }
}
async function keepAs(way: string | undefined): Promise<void> {
  if (way === undefined || !(await run(() => props.keep(way, name.value)))) return;
  name.value = '';
  open.value = false;
}
</script>

<template>
  <div class="view" @keydown.esc.stop="open = false">
    <button type="button" class="link" :aria-expanded="open" @click="open = !open">View</button>
    <div v-if="open" class="menu sheet">
      <fieldset>
        <legend class="label">Columns</legend>
        <label v-for="c in choices" :key="c.value"
          ><input type="checkbox" :checked="columns.includes(c.value)" @change="column(c.value)" />
          {{ c.label }}</label
        >
      </fieldset>
      <fieldset>
        <legend class="label">Groups</legend>
        <label v-for="g in groups" :key="g.value"
          ><input
            type="radio"
            name="group"
            :checked="group === g.value"
            @change="emit('set', 'group', g.value || undefined)"
          />
          {{ g.label }}</label
        >
      </fieldset>
      <form class="keep" @submit.prevent="keepAs(ways[0]?.value)">
        <label class="label" for="keep-name">Keep this under a name</label>
        <input id="keep-name" v-model="name" class="field" maxlength="120" />
        <p class="row">
          <button
            v-for="(w, i) in ways"
            :key="w.value"
            :type="i === 0 ? 'submit' : 'button'"
            class="link"
            :disabled="!name.trim()"
            @click="i > 0 && keepAs(w.value)"
          >
            {{ w.label }}
          </button>
        </p>
        <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      </form>
      <p v-for="f in kept" :key="f.id" class="row small">
        <span class="long">{{ f.name }}</span><button
          type="button"
          class="link soft"
          @click="run(() => drop(f.id))"
        >
          Drop
        </button>
      </p>
    </div>
  </div>
</template>

<style scoped>
.view {
  position: relative;
}
.menu {
  position: absolute;
  right: 0;
  top: 30px;
  z-index: 12;
  width: 320px;
  padding: 14px 16px;
  display: grid;
  gap: 14px;
  box-shadow: var(--float);
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 12px;
}
legend {
  padding: 0;
}
.keep {
  display: grid;
  gap: 6px;
}
</style>
