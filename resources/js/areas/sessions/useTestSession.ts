import { useQueryClient } from '@tanstack/vue-query';
import { useNow } from '@vueuse/core';
import { v7 as uuid7 } from 'uuid';
import { computed, onBeforeUnmount, ref, watch, type Ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { readNewLines, readObserver, readTestSession, readTimeline } from '@/areas/sessions/queries';
import { outbox } from '@/offline/outbox';
import { useRead } from '@/offline/useRead';
import type { Command } from '@/offline/commands';
import type { SessionCommand } from './commands';
import type { Share, WrittenKind } from './types';
import { clockAt, viewOf } from './view';

/** A session as it is run here or looked on: what is done goes through the outbox and is seen at once. */
export function useTestSession(id: Ref<string>) {
  const queries = useQueryClient();
  /** How far the server's clock is ahead of this device's, in ms. */
  const ahead = ref(0);
  const detail = useRead<Api['SessionDetail']>(
    'session',
    () => ['one', id.value],
    async () => {
      const found = await readTestSession(id.value);
      ahead.value = found.as_of - Date.now();
      return found;
    },
    () => `session:${id.value}`,
  );
  const timeline = useRead<Api['TimelineLine'][]>(
    'session',
    () => ['lines', id.value],
    () => readTimeline(id.value),
    () => `session-lines:${id.value}`,
  );
  const linesKey = computed(() => ['live', 'session', 'lines', id.value]);
  /** What is observed arrives many times a minute: only what is new of it is read. */
  const observer = useRead<Api['ObserverDetail']>(
    'observed',
    () => ['observer', id.value],
    async () => {
      const of = id.value;
      const found = await readObserver(of);
      const known = queries.getQueryData<Api['TimelineLine'][]>(linesKey.value);
      const newest = Math.max(0, ...(known ?? []).map((l) => l.number));
      if (known && found.newest > newest && of === id.value) {
        const fresh = await readNewLines(of, newest);
        queries.setQueryData<Api['TimelineLine'][]>(linesKey.value, (before) => {
          const there = new Set(before?.map((l) => l.id));
          return [...(before ?? []), ...fresh.filter((l) => !there.has(l.id))];
        });
      }
      return found;
    },
  );
  const waiting = computed(() => outbox.commands.filter((q) => q.attempt === id.value));
  const view = computed(() =>
    detail.data.value ? viewOf(detail.data.value, timeline.data.value ?? [], waiting.value) : null,
  );
  const now = useNow({ interval: 1000 });
  const active = computed(() =>
    view.value ? clockAt(view.value.runs, now.value.getTime() + ahead.value) : 0,
  );
  const problem = ref('');

  /** What the server took becomes part of what it knows, before it leaves what waits. */
  const stop = outbox.onSettled((queued, answer) => {
    if (queued.attempt !== id.value) return;
    const kind = queued.command.kind as SessionCommand;
    if (kind === 'session_line' || kind === 'session_capture' || kind === 'session_mend') {
      const line = answer as unknown as Api['TimelineLine'];
      queries.setQueryData<Api['TimelineLine'][]>(linesKey.value, (before) => [
        ...(before ?? []).filter((l) => l.id !== line.id),
        line,
      ]);
    } else queries.setQueryData(['live', 'session', 'one', id.value], answer);
  });
  onBeforeUnmount(stop);
  watch(id, () => (problem.value = ''));

  /** @param at when it was done, where that was not now */
  async function record(command: Command<SessionCommand>, at?: Date): Promise<boolean> {
    problem.value = '';
    try {
      await outbox.add(id.value, command, undefined, false, at);
      return true;
    } catch (error) {
      problem.value = errorMessage(error);
      return false;
    }
  }
  return {
    detail: detail.data,
    error: detail.error,
    isPending: detail.isPending,
    refetch: detail.refetch,
    set: detail.set,
    observer: observer.data,
    setObserver: observer.set,
    view,
    active,
    /** How far the server's clock is ahead of this device's, in ms. */
    ahead,
    problem,
    lines: computed(() =>
      [...(view.value?.lines ?? [])].sort((a, b) => a.at_ms - b.at_ms || a.number - b.number),
    ),
    setLine: (line: Api['TimelineLine']): void =>
      void queries.setQueryData<Api['TimelineLine'][]>(linesKey.value, (before) =>
        (before ?? []).map((l) => (l.id === line.id ? line : l)),
      ),
    move: (to: 'running' | 'paused' | 'stopped', at?: Date) => record({ kind: 'session_move', to }, at),
    extend: (minutes: number) => record({ kind: 'session_box', minutes }),
    switchTo: (to: Share) => record({ kind: 'session_switch', to }),
    write: (line: WrittenKind, words: string) => record({ kind: 'session_line', id: uuid7(), line, words }),
    /**
     * @param held it stays on the device until it was looked over
     * @throws Problem when it is too large, or nothing could keep it
     */
    async capture(file: Blob, name: string, words = '', held = false): Promise<void> {
      await outbox.add(
        id.value,
        { kind: 'session_capture', id: uuid7(), file, name, words },
        undefined,
        held,
      );
    },
    mend: (line: string, fields: { words?: string; pinned?: boolean }) =>
      record({ kind: 'session_mend', id: line, ...fields }),
  };
}
export type RunningSession = ReturnType<typeof useTestSession>;
