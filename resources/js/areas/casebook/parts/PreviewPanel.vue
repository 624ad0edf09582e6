<script setup lang="ts">
import type { Api } from '@/api/client';
import MarkdownText from '@/kit/MarkdownText.vue';
import type { Form } from '@/areas/casebook/useCase';

/** The case as the tester will see it: routines written out, a row filled in. */
defineProps<{ project: string; check: Api['CaseCheck'] | null; form: Form; table: string }>();
const emit = defineEmits<{ row: [n: number] }>();
/** Values are put in after the Markdown was read, so that nothing in them is taken for Markdown. */
function filled(parts: Api['PreviewPart'][]): { text: string; values: string[] } {
  return {
    text: parts.map((p, i) => (p.column ? `\uE000${i}\uE001` : p.text)).join(''),
    values: parts.map((p) => p.text),
  };
}
</script>

<template>
  <section aria-label="As the tester will see it" class="preview">
    <p v-if="check && check.rows > 0" class="row">
      <span
        >Row {{ check.row }} of {{ check.rows }} of {{ table }}: <strong>{{ check.row_label }}</strong></span
      >
      <button type="button" class="link" :disabled="check.row <= 1" @click="emit('row', check.row - 1)">
        Row before
      </button>
      <button
        type="button"
        class="link"
        :disabled="check.row >= check.rows"
        @click="emit('row', check.row + 1)"
      >
        Next row
      </button>
    </p>
    <p v-for="p in check?.problems ?? []" :key="`${p.step} ${p.field} ${p.message}`" class="p-invalid-words">
      {{ p.step ? `Step ${p.step}: ` : '' }}{{ p.message }}
    </p>
    <p v-if="!check" class="soft">This needs the server, which cannot be reached just now.</p>
    <ol>
      <li v-for="s in check?.steps ?? []" :key="s.position" class="sheet">
        <span class="mono soft">{{ s.position }}</span>
        <div>
          <p v-if="s.routines.length > 0" class="soft small">{{ s.routines.join(' › ') }}</p>
          <MarkdownText class="action" v-bind="filled(s.action)" />
          <MarkdownText v-if="s.data.length > 0" class="mono" v-bind="filled(s.data)" />
          <MarkdownText class="soft" v-bind="filled(s.expected)" />
          <img
            v-for="f in s.files"
            :key="f.sha256"
            :src="`/api/v1/projects/${project}/files/${f.sha256}/thumbnail`"
            :alt="f.name"
          />
        </div>
      </li>
    </ol>
    <p v-if="check?.steps.length === 0" class="soft">No steps yet.</p>
  </section>
</template>

<style scoped>
.preview,
ol {
  display: grid;
  gap: 10px;
}
li {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr);
  gap: 8px;
  padding: 12px 14px;
}
li > div {
  display: grid;
  gap: 4px;
}
.action {
  font-size: 1.07rem;
}
img {
  max-height: 120px;
  justify-self: start;
  border: 1px solid var(--rule);
  border-radius: 4px;
}
</style>
