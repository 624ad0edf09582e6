<script setup lang="ts">
import { diffWordsWithSpace } from 'diff';
import { computed } from 'vue';

/** What was expected and what happened, beside each other, with the words marked in which they differ. */
const props = defineProps<{ expected: string; actual: string }>();
const plain = (text: string): string => text.replaceAll(/[*`_]/g, '');
const parts = computed(() => diffWordsWithSpace(plain(props.expected), plain(props.actual)));
/** Where less than a third of the words is shared, marking nearly all of them tells nothing. */
const alike = computed(() => {
  const count = (text: string): number => text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0;
  const shared = parts.value.filter((p) => !p.added && !p.removed).reduce((n, p) => n + count(p.value), 0);
  return shared * 3 >= Math.max(count(props.expected), count(props.actual));
});
</script>

<template>
  <div class="two" role="group" aria-label="Expected and happened, compared">
    <p class="long">
      <span class="label">Expected</span
      ><template v-for="(p, i) in parts" :key="i"
        ><del v-if="p.removed && alike">{{ p.value }}</del
        ><template v-else-if="!p.added">{{ p.value }}</template></template
      >
    </p>
    <p class="long">
      <span class="label">Happened instead</span
      ><template v-for="(p, i) in parts" :key="i"
        ><ins v-if="p.added && alike">{{ p.value }}</ins
        ><template v-else-if="!p.removed">{{ p.value }}</template></template
      >
    </p>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 24px;
  margin-top: 12px;
}
del,
ins {
  text-decoration-thickness: 2px;
  text-underline-offset: 3px;
  font-weight: 600;
}
del {
  text-decoration-line: underline;
  text-decoration-style: dashed;
}
ins {
  text-decoration-line: underline;
}
@media (max-width: 640px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
}
</style>
