/** Puts the focus on what just appeared; the attribute does so only while the page loads. */
export const vFocus = {
  mounted(element: HTMLElement): void {
    const field = element.matches('input, textarea, button')
      ? element
      : element.querySelector('input, textarea');
    (field as HTMLElement | null)?.focus();
  },
};
