<script setup lang="ts">
import { computed } from 'vue';
import type { Criterion } from './criteria';
import FilterBar from './FilterBar.vue';
import type { Pages } from './list';
import StateBox from './StateBox.vue';
import type { ListState } from './useListState';
import { plural } from './words';

/** A list as every page shows one: words and filters above it, how many there are, and what is said when there is nothing. */
const props = defineProps<{
  /** What it lists, one and several, such as "case" and "cases". */
  one: string;
  many: string;
  criteria: Criterion[];
  state: ListState;
  list: Pages<unknown>;
  /** What the place is for, said while there is nothing at all. */
  empty: string;
  /** How many there are, where it is told in another way. */
  count?: string | undefined;
  /** How many there would be without a filter. */
  all?: number | undefined;
}>();
const words = computed(() => {
  if (props.count !== undefined) return props.count;
  if (!props.list.there.value) return '';
  const total = props.list.total.value;
  return props.all !== undefined && props.state.narrowed.value
    ? `${total.toLocaleString('en')} of ${plural(props.all, props.one, props.many)}`
    : plural(total, props.one, props.many);
});
</script>

<template>
  <section class="view" :aria-label="many">
    <FilterBar
      :what="many"
      :criteria="criteria"
      :filter="state.filter.value"
      @set="state.set"
      @clear="state.clear"
    >
      <slot name="beside" />
      <span class="spread" />
      <span class="soft" role="status">{{ words }}</span>
      <slot name="tools" />
    </FilterBar>
    <slot name="above" />
    <StateBox
      v-if="!list.there.value"
      :loading="list.loading.value"
      :error="list.error.value"
      @again="list.refetch()"
    />
    <StateBox
      v-else-if="list.lines.value.length === 0 && state.narrowed.value"
      :empty="`No ${one} fits this. Take a filter away, or look with other words.`"
      ><button type="button" class="link" @click="state.clear()">Show all</button></StateBox
    >
    <StateBox v-else-if="list.lines.value.length === 0" :empty="empty"><slot name="empty" /></StateBox>
    <slot v-else />
  </section>
</template>

<style scoped>
.view {
  min-width: 0;
}
.spread {
  flex: 1;
}
</style>
