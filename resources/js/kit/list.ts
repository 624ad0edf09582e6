import { computed, type ComputedRef, type Ref } from 'vue';

/** A column of a list. Its cell is the slot of its name, or else its text. */
export interface Column<T> {
  name: string;
  word: string;
  /** As the grid of the page takes it, such as "120px" or "minmax(200px, 1fr)". */
  width: string;
  /** Whether the list can be ordered by it. */
  sorted?: boolean;
  number?: boolean;
  soft?: boolean;
  /** Left out where the window is narrow. */
  wide?: boolean;
  text?: (row: T) => string;
  tip?: (row: T) => string | undefined;
}

/** What a list shows of the server's windows of it. */
export interface Pages<T> {
  lines: ComputedRef<T[]>;
  /** How many there are in all, as far as it is known. */
  total: ComputedRef<number>;
  /** Reads the next window, where there is one. */
  more: () => void;
  /** Whether there is a next window. */
  further: ComputedRef<boolean>;
  /** Whether the first window is there. */
  there: ComputedRef<boolean>;
  loading: ComputedRef<boolean>;
  error: ComputedRef<Error | null>;
  refetch: () => void;
}

/** A list that is read as a whole, ordered and narrowed by words here. */
export function useWhole<T>(
  all: Ref<T[] | undefined>,
  query: { words: Ref<string>; sort: Ref<string> },
  of: { words: (row: T) => string; order: Record<string, (row: T) => string | number> },
  read: { error: Ref<Error | null>; refetch: () => unknown },
): Pages<T> {
  const lines = computed(() => {
    const words = query.words.value.toLowerCase().split(/\s+/).filter(Boolean);
    const found = (all.value ?? []).filter((r) => words.every((w) => of.words(r).toLowerCase().includes(w)));
    const by = of.order[query.sort.value.replace('-', '')];
    if (!by) return found;
    const sign = query.sort.value.startsWith('-') ? -1 : 1;
    return [...found].sort((a, b) => (by(a) < by(b) ? -sign : by(a) > by(b) ? sign : 0));
  });
  return {
    lines,
    total: computed(() => lines.value.length),
    more: () => undefined,
    further: computed(() => false),
    there: computed(() => all.value !== undefined),
    loading: computed(() => all.value === undefined && read.error.value === null),
    error: computed(() => read.error.value),
    refetch: () => void read.refetch(),
  };
}
