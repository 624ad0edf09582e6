import { computed, onBeforeUnmount, ref, watch, type Ref } from 'vue';

/** A gap between two signs of the tester longer than this is asked about on return. */
export const LONGEST_GAP = 10 * 60_000;

/** Each page of the application at this device; of several that show the same attempt only one counts. */
const PAGE = `${Date.now()}.${Math.random()}`;

/**
 * Measures the time spent on an attempt since the last act, in ms. It runs while the attempt is open here; where several
 * tabs show it, in the one in which the tester was seen last.
 * A long time without a sign of the tester, or a device that slept, is never counted silently: it stands apart in `away`
 * until somebody says how much of it was work.
 */
export function useClock(attempt: Ref<string>, open: Ref<boolean>, now: () => number = () => Date.now()) {
  const since = ref(0);
  const paused = ref(false);
  /** A time that nobody has decided on, in ms, and when it began. */
  const away = ref<{ ms: number; from: number } | null>(null);
  let last = now();
  let sign = now();
  const name = (): string => `lucid-step-clock:${attempt.value}`;
  const asked = (): string => `lucid-step-away:${attempt.value}`;
  const holder = (): string => `lucid-step-clock-tab:${attempt.value}`;
  const stored = (): number => Number(localStorage.getItem(name()) ?? 0) || 0;
  const tick = ref(0);

  watch(
    attempt,
    (_, before) => {
      if (before !== undefined) letGo(before);
      localStorage.setItem(holder(), PAGE);
      since.value = stored();
      const kept = localStorage.getItem(asked());
      away.value = kept ? (JSON.parse(kept) as { ms: number; from: number }) : null;
      last = sign = now();
    },
    { immediate: true },
  );
  function letGo(of: string): void {
    const key = `lucid-step-clock-tab:${of}`;
    if (localStorage.getItem(key) === PAGE) localStorage.removeItem(key);
  }
  /** Whether another tab counts; one that was closed has let go. */
  function elsewhere(): boolean {
    const by = localStorage.getItem(holder());
    if (by === null) localStorage.setItem(holder(), PAGE);
    return by !== null && by !== PAGE;
  }
  /** From now on this tab counts; false when it does already. */
  function claim(): boolean {
    if (!elsewhere()) return false;
    localStorage.setItem(holder(), PAGE);
    since.value = stored();
    sign = last = now();
    return true;
  }
  function keepAway(): void {
    if (away.value) localStorage.setItem(asked(), JSON.stringify(away.value));
    else localStorage.removeItem(asked());
  }
  function step(): void {
    const at = now();
    const gap = at - last;
    last = at;
    tick.value += 1;
    if (elsewhere()) {
      since.value = stored();
      sign = at;
      return;
    }
    if (!open.value || paused.value) {
      sign = at;
      return;
    }
    // Beyond the longest gap nothing is counted until there is a sign again.
    if (at - sign < LONGEST_GAP && gap < LONGEST_GAP) {
      since.value += gap;
      localStorage.setItem(name(), String(Math.round(since.value)));
    }
  }
  /** The tester did something here: a key, the mouse, the window in front again. */
  function seen(): void {
    const at = now();
    if (claim()) return;
    if (open.value && !paused.value && at - sign >= LONGEST_GAP) {
      // What was counted since the last sign belongs to the time that is asked about.
      const counted = Math.min(since.value, LONGEST_GAP);
      since.value -= counted;
      away.value = { ms: (away.value?.ms ?? 0) + (at - sign), from: away.value?.from ?? sign };
      keepAway();
      localStorage.setItem(name(), String(Math.round(since.value)));
    }
    sign = last = at;
  }
  const timer = setInterval(step, 1000);
  const signs = ['keydown', 'pointerdown', 'pointermove', 'focus'] as const;
  for (const kind of signs) window.addEventListener(kind, seen, { passive: true });
  onBeforeUnmount(() => {
    clearInterval(timer);
    letGo(attempt.value);
    for (const kind of signs) window.removeEventListener(kind, seen);
  });

  return {
    since: computed(() => since.value),
    paused,
    away: computed(() => away.value),
    seen,
    step,
    /** The question is answered; what counts is recorded by whoever asked. */
    decided(): void {
      away.value = null;
      keepAway();
    },
    /** The time since the last act; it starts again from zero. */
    take(): number {
      claim();
      const ms = Math.round(since.value);
      since.value = 0;
      localStorage.removeItem(name());
      return Math.min(ms, 86_400_000);
    },
  };
}
