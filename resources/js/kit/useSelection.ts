import { computed, ref, type ComputedRef, type Ref } from 'vue';

export interface Selection {
  selected: Ref<Set<string>>;
  /** Chooses a line or lets it go; with a range all between it and the one before. */
  select: (id: string, range: boolean) => void;
  /** Chooses all, or none when all are. */
  all: () => void;
  clear: () => void;
  chosen: ComputedRef<string[]>;
}

/** Several lines of a list chosen at once. */
export function useSelection(ids: () => string[]): Selection {
  const selected = ref(new Set<string>());
  let anchor = '';
  function select(id: string, range: boolean): void {
    const next = new Set(selected.value);
    if (range && anchor) {
      const list = ids();
      const [a, b] = [list.indexOf(anchor), list.indexOf(id)].sort((x, y) => x - y);
      for (const one of list.slice(a, (b ?? 0) + 1)) next.add(one);
    } else if (!next.delete(id)) next.add(id);
    anchor = id;
    selected.value = next;
  }
  return {
    selected,
    select,
    all: () => {
      const list = ids();
      selected.value = selected.value.size === list.length ? new Set() : new Set(list);
    },
    clear: () => (selected.value = new Set()),
    chosen: computed(() => [...selected.value]),
  };
}
