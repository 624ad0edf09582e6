import { computed, type ComputedRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { withValue, type Filter } from './criteria';

export interface ListState {
  /** What the list is narrowed to. */
  filter: ComputedRef<Filter>;
  /** The column it is ordered by, with "-" before it backwards; empty: as it comes. */
  sort: ComputedRef<string>;
  narrowed: ComputedRef<boolean>;
  set: (name: string, value: string | undefined) => void;
  clear: () => void;
  /** Orders by a column, then backwards by it, then as it comes. */
  sortBy: (name: string) => void;
}

/**
 * What a list is narrowed to and ordered by. It stands in the address, so that a link shows the same.
 *
 * @param kept names of the address that are no filter and stay when the filter is cleared
 */
export function useListState(kept: readonly string[] = []): ListState {
  const route = useRoute();
  const router = useRouter();
  const other = ['sort', ...kept];
  const values = computed(() =>
    Object.entries(route.query).flatMap(([name, value]): [string, string][] => {
      const one = Array.isArray(value) ? value[0] : value;
      return one ? [[name, one]] : [];
    }),
  );
  const filter = computed<Filter>(() =>
    Object.fromEntries(values.value.filter(([name]) => !other.includes(name))),
  );
  const sort = computed(() => String(route.query.sort ?? ''));
  const set = (name: string, value: string | undefined): void =>
    void router.replace({ query: withValue(route.query, name, value) });
  return {
    filter,
    sort,
    narrowed: computed(() => Object.keys(filter.value).length > 0),
    set,
    clear: () =>
      void router.replace({
        query: Object.fromEntries(values.value.filter(([name]) => other.includes(name))),
      }),
    sortBy: (name) =>
      set('sort', sort.value === name ? `-${name}` : sort.value === `-${name}` ? undefined : name),
  };
}
