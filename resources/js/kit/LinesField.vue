<script setup lang="ts">
/** A field for many lines, pasted or from a table; lines that cannot be taken stay in it, each with why. */
const text = defineModel<string>({ required: true });
defineProps<{
  id: string;
  placeholder: string;
  problem?: string;
  /** The lines that stayed, in order. */
  refused: { line: number; problem: string | null }[];
}>();
const SHOWN = 20;
async function take(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  if (file) text.value = [text.value.trimEnd(), await file.text()].filter((t) => t !== '').join('\n');
  input.value = '';
}
</script>

<template>
  <textarea
    :id="id"
    v-model="text"
    class="field mono"
    :rows="Math.min(12, Math.max(3, text.split('\n').length + 1))"
    :placeholder="placeholder"
    spellcheck="false"
  />
  <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  <div v-if="refused.length > 0" role="alert">
    <ul class="refused">
      <li v-for="(l, at) in refused.slice(0, SHOWN)" :key="l.line" class="p-invalid-words">
        Line {{ at + 1 }}: {{ l.problem }}
      </li>
      <li v-if="refused.length > SHOWN" class="soft small">And {{ refused.length - SHOWN }} more lines.</li>
    </ul>
  </div>
  <div class="row">
    <slot />
    <label class="link soft file"
      >Add a CSV<input class="unseen" type="file" accept=".csv,.txt,.tsv,text/plain,text/csv" @change="take"
    /></label>
  </div>
</template>

<style scoped>
.refused {
  display: grid;
}
.file:focus-within {
  outline: 2px solid var(--dusk);
  outline-offset: 2px;
}
</style>
