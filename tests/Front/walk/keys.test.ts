// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { defineComponent, h } from 'vue';
import { exchanged, keyCap, keyHelp, setKeys, useKeys, type Binding } from '@/kit/keys';

const pages: VueWrapper[] = [];
const done: string[] = [];
const does = (name: string, ...keys: string[]): Binding => ({
  keys,
  label: name,
  run: () => done.push(name),
});

function page(title: string, bindings: () => Binding[], inside: () => unknown = () => null): VueWrapper {
  const made = mount(
    defineComponent({
      setup() {
        useKeys(title, bindings);
        return () => h('div', [inside() as never]);
      },
    }),
    { attachTo: document.body },
  );
  pages.push(made);
  return made;
}
function press(
  key: string,
  more: KeyboardEventInit & { timeStamp?: number } = {},
  at: Element = document.body,
): KeyboardEvent {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
  if (more.timeStamp !== undefined) Object.defineProperty(event, 'timeStamp', { value: more.timeStamp });
  at.dispatchEvent(event);
  return event;
}

beforeEach(() => {
  done.length = 0;
  setKeys(true, []);
});
afterEach(() => {
  for (const one of pages.splice(0)) one.unmount();
  document.body.replaceChildren();
  vi.useRealTimers();
});

describe('single keys', () => {
  it('do what they are bound to, and nothing else hears of them', () => {
    page('Walk', () => [does('pass', '1'), does('next', 'j', 'ArrowDown')]);
    expect(press('1').defaultPrevented).toBe(true);
    press('j');
    press('ArrowDown');
    expect(press('9').defaultPrevented).toBe(false);
    expect(done).toEqual(['pass', 'next', 'next']);
  });

  it('are those of the part that opened last, and of the others where it has none', () => {
    page('Walk', () => [does('pass', '1'), does('fail', '2')]);
    const sheet = page('Sheet', () => [does('pass all', '1')]);
    press('1');
    press('2');
    sheet.unmount();
    pages.pop();
    press('1');
    expect(done).toEqual(['pass all', 'fail', 'pass']);
  });

  it('change with what is bound at the moment', () => {
    let locked = true;
    page('Walk', () => (locked ? [] : [does('pass', '1')]));
    press('1');
    locked = false;
    press('1');
    expect(done).toEqual(['pass']);
  });

  it('are quiet while one types, in whatever field', () => {
    page(
      'Walk',
      () => [does('pass', '1')],
      () => [
        h('input', { id: 'text' }),
        h('textarea'),
        h('select'),
        h('div', { contenteditable: 'true', id: 'free' }),
        h('input', { type: 'checkbox', id: 'tick' }),
      ],
    );
    for (const selector of ['#text', 'textarea', 'select', '#free'])
      press('1', {}, document.querySelector(selector)!);
    expect(done).toEqual([]);
    press('1', {}, document.querySelector('#tick')!);
    expect(done).toEqual(['pass']);
  });

  it('leave chords, held keys and what was handled already alone', () => {
    page('Walk', () => [does('pass', '1')]);
    press('1', { ctrlKey: true });
    press('1', { metaKey: true });
    press('1', { altKey: true });
    press('1', { repeat: true });
    expect(done).toEqual([]);
  });

  it('never fire Enter or space twice on a focused button or link', () => {
    page(
      'Wrap-up',
      () => [does('finish', 'Enter'), does('play', ' ')],
      () => [h('button', 'Save'), h('a', { href: '#' }, 'Elsewhere')],
    );
    for (const selector of ['button', 'a'])
      for (const key of ['Enter', ' ']) press(key, {}, document.querySelector(selector)!);
    expect(done).toEqual([]);
    press('Enter');
    press(' ');
    expect(done).toEqual(['finish', 'play']);
  });

  it('are quiet below a dialog that asks something', () => {
    page('Walk', () => [does('pass', '1')]);
    const dialog = document.createElement('div');
    dialog.setAttribute('role', 'dialog');
    dialog.setAttribute('aria-modal', 'true');
    document.body.append(dialog);
    press('1');
    dialog.remove();
    press('1');
    expect(done).toEqual(['pass']);
  });

  it('can be switched off: letters, digits and signs then do nothing, and what is nobody’s word still does', () => {
    page('Walk', () => [does('pass', '1'), does('finish', 'Enter'), does('next', 'ArrowDown')]);
    setKeys(false, []);
    press('1');
    expect(done).toEqual([]);
    press('Enter');
    press('ArrowDown');
    setKeys(true, []);
    press('1');
    expect(done).toEqual(['finish', 'next', 'pass']);
  });

  it('change places as often as one likes: each is pressed by one key, and each key still does one thing', () => {
    const keys = ['1', '2', 'c', 'C', 'j', 'g', 't', '.'];
    page('Walk', () => keys.map((k) => does(k, k)));
    let seed = 3;
    const any = (of: number): number => (seed = (seed * 16_807) % 2_147_483_647) % of;
    for (let turn = 0; turn < 200; turn++) {
      const named = keys[any(keys.length)] ?? '1';
      const pressed = [...keys, 'q', 'ä'][any(keys.length + 2)] ?? 'q';
      setKeys(true, exchanged(named, pressed));
      expect(keyCap(named)).toBe(pressed);
      done.length = 0;
      for (const k of keys) press(keyCap(k), { timeStamp: turn * 100_000 + 5000 * keys.indexOf(k) });
      expect(done).toEqual(keys);
    }
    // Back to where they were, nothing is left to keep.
    for (const k of [...keys, 'q', 'ä']) setKeys(true, exchanged(k, k));
    expect(exchanged('1', '1')).toEqual([]);
  });
});

describe('two keys in a row', () => {
  it('are those that were chosen', () => {
    page('Go', () => [does('today', 'g t'), does('try', 't'), does('list', 'l')]);
    setKeys(true, [
      { key: 'g', pressed: 'l' },
      { key: 'l', pressed: 'g' },
    ]);
    expect(keyCap('g t')).toBe('l t');
    press('l', { timeStamp: 100 });
    press('t', { timeStamp: 200 });
    press('g', { timeStamp: 9000 });
    expect(done).toEqual(['today', 'list']);
  });

  it('go to an area, if the second was pressed soon, whenever the page came to it', () => {
    vi.useFakeTimers();
    page('Go', () => [does('today', 'g t'), does('try', 't')]);
    press('g', { timeStamp: 100 });
    vi.advanceTimersByTime(3000);
    press('t', { timeStamp: 180 });
    expect(done).toEqual(['today']);
    press('g', { timeStamp: 4000 });
    press('t', { timeStamp: 5500 });
    expect(done).toEqual(['today', 'try']);
  });

  it('are forgotten after another key', () => {
    page('Go', () => [does('today', 'g t'), does('try', 't'), does('pass', '1')]);
    press('g');
    press('1');
    press('t');
    expect(done).toEqual(['pass', 'try']);
  });
});

describe('the help', () => {
  it('lists the keys in force, the newest part first, without the quiet ones', () => {
    page('Walk', () => [does('Pass', '1'), { ...does('Hidden', 'q'), quiet: true }]);
    page('Sheet', () => [does('Mark', 'x')]);
    page('Nothing', () => []);
    const help = keyHelp().filter((g) => ['Walk', 'Sheet', 'Nothing'].includes(g.title));
    expect(help.map((g) => [g.title, g.bindings.map((b) => b.label)])).toEqual([
      ['Sheet', ['Mark']],
      ['Walk', ['Pass']],
    ]);
  });
});
