/** Puts the focus on what just appeared, unless it is told not to; the attribute does so only while the page loads. */
export const vFocus = {
  mounted(element: HTMLElement, { value }: { value?: boolean }): void {
    if (value === false) return;
    const field = element.matches('input, textarea, select, button')
      ? element
      : element.querySelector('input, textarea, select');
    (field as HTMLElement | null)?.focus();
  },
};

const cameFrom = new WeakMap<HTMLElement, HTMLElement>();
/** Gives the focus back to what had it before something modal was shown; PrimeVue's focus trap keeps it inside meanwhile. */
export const vReturnFocus = {
  created(element: HTMLElement): void {
    if (document.activeElement instanceof HTMLElement) cameFrom.set(element, document.activeElement);
  },
  unmounted(element: HTMLElement): void {
    cameFrom.get(element)?.focus();
  },
};
