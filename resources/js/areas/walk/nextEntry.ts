import type { Api } from '@/api/client';

type Line = Pick<Api['EntryLine'], 'id' | 'readiness' | 'assignee' | 'walking'>;

/**
 * The next entry for a person in the order of the cycle: the first ready one that is theirs (or nobody's, if they may take
 * it) and not open with another, after the current one; then from the first, without the current one. The same as
 * `CycleView::next` of the core; both run on `tests/shared/next-entry.json`.
 */
export function nextEntry<E extends Line>(
  entries: readonly E[],
  person: string,
  current: string | null,
  mayTakeOne: boolean,
): E | null {
  const at = entries.findIndex((e) => e.id === current);
  const order = at < 0 ? entries : [...entries.slice(at + 1), ...entries.slice(0, at)];
  return (
    order.find(
      (e) =>
        e.readiness === 'ready' &&
        (e.assignee === null ? mayTakeOne : e.assignee.id === person) &&
        (e.walking === null || e.walking.id === person),
    ) ?? null
  );
}
