import { useQueryClient } from '@tanstack/vue-query';
import { onBeforeUnmount, onMounted, type Ref } from 'vue';
import { Problem, send, type Api } from '@/api/client';
import { outbox } from './outbox';

const SOON = 2500;
const LONGEST = 30_000;

/** Follows a project's change feed and renews what changed. The one place that asks for it. */
export function useLive(project: Ref<string>): void {
  const queries = useQueryClient();
  let cursor: string | null = null;
  let of = '';
  let wait = SOON;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let stopped = false;

  async function look(): Promise<void> {
    timer = null;
    if (of !== project.value) {
      of = project.value;
      cursor = null;
    }
    try {
      const response = await send(
        `/api/v1/projects/${of}/changes${cursor ? `?after=${encodeURIComponent(cursor)}` : ''}`,
      );
      wait = document.hidden ? SOON * 4 : SOON;
      if (response.status === 200) {
        const feed = (await response.json()) as Api['ChangeFeed'];
        const renewed = cursor === null && outbox.state.awaySince !== null;
        cursor = feed.cursor;
        if (renewed) await queries.invalidateQueries();
        const topics = new Set<string>(feed.changes.map((c) => c.topic));
        if (topics.size > 0)
          await queries.invalidateQueries({
            predicate: ({ queryKey: [live, of] }) =>
              live === 'live' &&
              String(of)
                .split(' ')
                .some((topic) => topics.has(topic)),
          });
      }
      outbox.sawServer(false);
    } catch (error) {
      if (error instanceof Problem && error.isAway) outbox.sawServer(true);
      wait = Math.min(wait * 1.5, outbox.waiting.value.length > 0 ? 5000 : LONGEST);
    }
    if (!stopped) timer = setTimeout(() => void look(), wait);
  }
  /** Whoever comes back to the page sees what it is now. */
  const comeBack = (): void => {
    if (document.hidden || timer === null) return;
    clearTimeout(timer);
    void look();
  };
  onMounted(() => {
    document.addEventListener('visibilitychange', comeBack);
    void look();
  });
  onBeforeUnmount(() => {
    stopped = true;
    document.removeEventListener('visibilitychange', comeBack);
    if (timer !== null) clearTimeout(timer);
  });
}
