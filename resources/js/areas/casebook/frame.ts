import { computed, type ComputedRef, type MaybeRefOrGetter, toValue } from 'vue';
import type { Api } from '@/api/client';
import { editCases, readCasebook, undoCaseAct } from '@/areas/casebook/queries';
import { useRead } from '@/offline/useRead';

/** What the casebook of a project is made of beside its cases, kept current. */
export function useFrame(project: MaybeRefOrGetter<string>) {
  const { data, error, refetch } = useRead(
    'case',
    () => ['casebook', toValue(project)],
    () => readCasebook(toValue(project)),
    () => `casebook:${toValue(project)}`,
  );
  const nameOf: ComputedRef<(kind: 'type' | 'priority', value: string) => string> = computed(() => {
    const all = new Map([
      ...(data.value?.types ?? []).map((t) => [`type ${t.value}`, t.name] as const),
      ...(data.value?.priorities ?? []).map((t) => [`priority ${t.value}`, t.name] as const),
    ]);
    return (kind, value) => all.get(`${kind} ${value}`) ?? value;
  });
  const folderOf = computed(() => new Map((data.value?.folders ?? []).map((f) => [f.id, f])));
  function pathOf(folder: string | null): string {
    const names: string[] = [];
    let f = folder ? folderOf.value.get(folder) : undefined;
    while (f && names.length < 14) {
      names.unshift(f.name);
      f = f.parent_id ? folderOf.value.get(f.parent_id) : undefined;
    }
    return names.join(' / ');
  }
  return { frame: data, frameError: error, refetchFrame: refetch, nameOf, pathOf };
}

/** Does an act on many cases. */
export function actOn(
  project: string,
  act: 'edit' | 'move' | 'copy' | 'bin' | 'restore',
  filter: Record<string, string>,
  changes: Record<string, unknown> = {},
): Promise<Api['BulkEditResult']> {
  return editCases(project, { act, filter, changes });
}

/** Takes an act on many cases back; says what could not be. */
export async function undoAct(act: string): Promise<string> {
  const done = await undoCaseAct(act);
  return done.refused.length > 0
    ? `${done.title}. Left as they are, changed again since: ${done.refused.map((r) => r.key).join(', ')}`
    : done.title;
}
