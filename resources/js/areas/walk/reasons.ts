import { computed, toValue, type MaybeRefOrGetter } from 'vue';
import { useWalkSetup } from '@/areas/setup/queries';

export type Reasoned = 'pass' | 'fail' | 'blocked' | 'not_applicable';

/**
 * The reason that is meant by what was typed: the one that is called so, else the first that begins so, else the first that
 * has the words in it.
 *
 * @returns null when it is none of them
 */
export function meantReason(names: string[], typed: string): string | null {
  const words = typed.trim().toLowerCase();
  if (words === '') return null;
  const by = (fits: (name: string) => boolean) => names.find((name) => fits(name.toLowerCase()));
  return by((n) => n === words) ?? by((n) => n.startsWith(words)) ?? by((n) => n.includes(words)) ?? null;
}

/** The project's reasons behind a verdict, as far as the device knows them. */
export function useReasons(project: MaybeRefOrGetter<string>, verdict: MaybeRefOrGetter<Reasoned>) {
  const { data } = useWalkSetup(project);
  const names = computed(() => data.value?.[`reasons_${toValue(verdict)}`].map((r) => r.name));
  return {
    names,
    /** What was typed, as the list has it; where the list is not known, as it was typed. */
    meant: (typed: string): string | null =>
      names.value ? meantReason(names.value, typed) : typed.trim() || null,
    /** What is said of words that are none of the reasons. */
    none: (typed: string): string =>
      `“${typed.trim()}” is none of this project’s reasons. Choose one; say the rest in what it waits on, or in the note.`,
  };
}
