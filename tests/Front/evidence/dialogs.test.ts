// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import PickPart from '@/areas/evidence/parts/PickPart.vue';

let opener: HTMLButtonElement;
let dialog: VueWrapper;
const button = (words: string): HTMLElement =>
  dialog.findAll('button').find((b) => b.text() === words)!.element as HTMLElement;
const hidden = (): HTMLElement[] =>
  [...dialog.element.querySelectorAll('.p-hidden-focusable')] as HTMLElement[];

beforeEach(() => {
  opener = document.createElement('button');
  document.body.append(opener);
  opener.focus();
  const picture = new Blob(['made up'], { type: 'image/png' });
  dialog = mount(PickPart, { props: { picture }, attachTo: document.body });
});
afterEach(() => {
  dialog.unmount();
  opener.remove();
});

describe('a dialog over all', () => {
  it('has the focus, and gives it back to what opened it', () => {
    expect(document.activeElement).toBe(dialog.element);
    dialog.unmount();
    expect(document.activeElement).toBe(opener);
  });

  it('keeps the focus inside: after its last field comes its first', () => {
    const [before, after] = hidden();
    button('Leave it').focus();
    after?.dispatchEvent(new FocusEvent('focus', { relatedTarget: button('Leave it') }));
    before?.dispatchEvent(new FocusEvent('focus', { relatedTarget: after }));
    expect(document.activeElement).toBe(button('Keep all'));
    before?.dispatchEvent(new FocusEvent('focus', { relatedTarget: button('Keep all') }));
    after?.dispatchEvent(new FocusEvent('focus', { relatedTarget: before }));
    expect(document.activeElement).toBe(button('Leave it'));
  });

  it('takes Enter for all of the picture, but a button that has the focus at its word', async () => {
    button('Leave it').dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
    expect(dialog.emitted('keep')).toBeUndefined();
    await dialog.trigger('keydown', { key: 'Enter' });
    expect(dialog.emitted('keep')).toHaveLength(1);
    await dialog.trigger('keydown', { key: 'Escape' });
    expect(dialog.emitted('leave')).toHaveLength(1);
  });
});
