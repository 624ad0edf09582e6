import { useEventListener, useIntervalFn } from '@vueuse/core';
import { onBeforeUnmount, ref, watch, type ComputedRef, type Ref } from 'vue';

/** A gap between two signs of the tester longer than this is asked about on return, in ms. */
export const LONGEST_GAP = 10 * 60_000;

/**
 * Notices a long time without a sign of whoever runs a session: nothing typed or pressed here, nothing written, nothing observed.
 * It survives a reload and a closed page.
 * @param since when the session began to run, ms since 1970; 0: it does not
 * @param lines how many lines it has: each is a sign
 */
export function useAway(
  session: Ref<string>,
  since: ComputedRef<number>,
  lines: ComputedRef<number>,
): { away: Ref<{ from: number; to: number } | null>; decided: () => void } {
  const away = ref<{ from: number; to: number } | null>(null);
  const key = (): string => `lucid-step-session-sign:${session.value}`;
  let last = 0;

  function sign(): void {
    if (since.value === 0 || away.value) return;
    const now = Date.now();
    if (last > 0 && now - last > LONGEST_GAP) away.value = { from: last, to: now };
    else {
      last = now;
      localStorage.setItem(key(), String(now));
    }
  }
  watch(
    [session, since],
    () => {
      // Before it ran, nobody was away from it.
      last = Math.max(Number(localStorage.getItem(key())) || 0, since.value);
      away.value = null;
      sign();
    },
    { immediate: true },
  );
  watch(lines, sign);
  for (const name of ['keydown', 'pointerdown', 'pointermove'] as const)
    useEventListener(window, name, sign, { passive: true });
  // Until it is decided the time goes on being asked about.
  const { pause } = useIntervalFn(() => {
    if (away.value) away.value = { ...away.value, to: Date.now() };
  }, 1000);
  onBeforeUnmount(pause);
  return {
    away,
    decided: () => {
      away.value = null;
      last = Date.now();
      localStorage.setItem(key(), String(last));
    },
  };
}
