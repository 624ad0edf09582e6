import { onBeforeUnmount, ref, watch, type Ref } from 'vue';

/** A gap between two ticks longer than this was sleep, not work. */
const LONGEST_GAP = 5 * 60_000;

/** Measures the time spent on an attempt since the last act, in ms. It runs while the attempt is open here. */
export function useClock(attempt: Ref<string>, open: Ref<boolean>) {
  const since = ref(0);
  const paused = ref(false);
  let last = Date.now();
  const name = (): string => `lucid-step-clock:${attempt.value}`;

  watch(
    attempt,
    () => {
      since.value = Number(localStorage.getItem(name()) ?? 0) || 0;
      last = Date.now();
    },
    { immediate: true },
  );
  const timer = setInterval(() => {
    const now = Date.now();
    const gap = now - last;
    last = now;
    if (open.value && !paused.value && gap < LONGEST_GAP) {
      since.value += gap;
      localStorage.setItem(name(), String(since.value));
    }
  }, 1000);
  onBeforeUnmount(() => clearInterval(timer));

  return {
    since,
    paused,
    /** The time since the last act; it starts again from zero. */
    take(): number {
      const ms = Math.round(since.value);
      since.value = 0;
      localStorage.removeItem(name());
      return Math.min(ms, 86_400_000);
    },
  };
}
