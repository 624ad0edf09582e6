// @vitest-environment happy-dom
import { readFileSync } from 'node:fs';
import { beforeEach, describe, expect, it } from 'vitest';
import { foldRows, pagesOf } from '@/areas/sessions/folds';
import type { ShownLine } from '@/areas/sessions/types';
import { groupOf, nameOf } from '@/observer/names';
import { isCalledPrivate, isCardNumber, isPrivateField, withoutKeys } from '@/observer/privacy';

const examples = JSON.parse(readFileSync('tests/shared/private-fields.json', 'utf8')) as {
  private: string[];
  read: string[];
  cards: string[];
  numbers: string[];
  addresses: [string, string][];
};
beforeEach(() => (document.body.innerHTML = ''));
const put = (html: string): Element => {
  document.body.innerHTML = html;
  return document.querySelector('[data-it]')!;
};

describe('what is never read on a page', () => {
  it('is known by what it is called, as the server knows it', () => {
    for (const called of examples.private) expect(isCalledPrivate(called), called).toBe(true);
    for (const called of examples.read) expect(isCalledPrivate(called), called).toBe(false);
    for (const text of examples.cards) expect(isCardNumber(text), text).toBe(true);
    for (const text of examples.numbers) expect(isCardNumber(text), text).toBe(false);
    for (const [address, shown] of examples.addresses) expect(withoutKeys(address)).toBe(shown);
  });

  it('is known by its type, its autofill, its name, and where it stands', () => {
    for (const html of [
      '<input data-it type="Password">',
      '<input data-it autocomplete="billing cc-csc">',
      '<input data-it name="user_password">',
      '<div data-private><p><input data-it></p></div>',
    ])
      expect(isPrivateField(put(html), ''), html).toBe(true);
    expect(isPrivateField(put('<input data-it autocomplete="name" name="pass_engers">'), 'Name')).toBe(false);
    const shown = put('<input data-it type="password">');
    isPrivateField(shown, '');
    shown.setAttribute('type', 'text');
    expect(isPrivateField(shown, 'Word')).toBe(true);
  });
});

describe('what a control is called', () => {
  it.each([
    ['<b id="a">Two</b><i id="b">words</i><input data-it aria-labelledby="a b" aria-label="x">', 'Two words'],
    ['<input data-it aria-label=" Of  its own " placeholder="x">', 'Of its own'],
    ['<label>Name 1 <select data-it><option>Not this</option></select></label>', 'Name 1'],
    ['<label for="f">Bikes</label><input id="f" data-it>', 'Bikes'],
    ['<input data-it placeholder="HL-0000-0" title="x">', 'HL-0000-0'],
    ['<button data-it><img alt="Pay"> now <span aria-hidden="true">!</span></button>', 'Pay now'],
    ['<input data-it type="submit" value="Send it">', 'Send it'],
    ['<button data-it title="Close"></button>', 'Close'],
    ['<button data-it>Ada <span data-private>4711</span></button>', 'Ada'],
    ['<div data-private><button data-it>Ada</button></div>', 'something private'],
    ['<input><input data-it name="length">', 'input[name="length"]'],
    ['<p><i></i><i data-it></i></p>', 'i:nth-of-type(2)'],
  ])('%s', (html, name) => expect(nameOf(put(html))).toBe(name));

  it('is cut to 80 characters, and a choice is called by its group', () => {
    expect(nameOf(put(`<button data-it>${'long '.repeat(30)}</button>`))).toHaveLength(80);
    const radio = put(
      '<fieldset><legend>Way</legend><label>There <input data-it type="radio" name="w"></label></fieldset>',
    );
    expect([groupOf(radio as HTMLInputElement), nameOf(radio)]).toEqual(['Way', 'There']);
    expect(groupOf(put('<input data-it type="radio" name="way">') as HTMLInputElement)).toBe('way');
  });
});

describe('observed acts', () => {
  const line = (id: string, kind: ShownLine['kind'], more: Partial<ShownLine> = {}): ShownLine =>
    ({ id, kind, page: `/${id}`, pinned: false, removed: null, ...more }) as ShownLine;
  const shown = (lines: ShownLine[], opened: string[] = []): string =>
    foldRows(lines, new Set(opened))
      .map((r) => (r.fold ? `[${r.fold.map((l) => l.id).join('')}]` : r.line!.id))
      .join(' ');

  it('fold into runs between what people wrote, trouble and what is pinned', () => {
    const press = ['a', 'b', 'c', 'd'].map((id) => line(id, 'press'));
    expect(shown([...press, line('n', 'note'), line('e', 'visit'), line('f', 'press')])).toBe('[abcd] n e f');
    expect(shown([line('t', 'trouble'), ...press.slice(0, 3), line('p', 'press', { pinned: true })])).toBe(
      't [abc] p',
    );
    expect(shown(press, ['a'])).toBe('a b c d');
    expect(shown([])).toBe('');
  });

  it('are named by the pages they were done on', () => {
    expect(pagesOf([line('a', 'press'), line('a', 'type'), line('b', 'press')])).toBe('/a and /b');
    expect(pagesOf(['a', 'b', 'c', 'd'].map((id) => line(id, 'press')))).toBe('/a and /b and 2 more');
  });
});
