// @vitest-environment happy-dom
import * as entities from 'entities';
import { describe, expect, it } from 'vitest';
import { decodeHTML } from '@/kit/entities';
import { renderMarkdown } from '@/kit/markdown';
import { isPlain, renderPlain } from '@/kit/plainText';

/** The same numbers at every run, so that a failure can be looked at again. */
function numbers(seed: number): () => number {
  let at = seed;
  return () => {
    at = (at * 48271) % 2147483647;
    return at / 2147483647;
  };
}

const WORDS = [
  ...['Press', 'Pay now', '5.00', '10:30', 'and/or', 'Grüße', 'an_other', 'x', '1', '2026', 'the'],
  ...['example.com', 'https://quay.test', 'me@quay.test', 'www.quay.test', '10.0.0.1', 'a.b', 'etc.', 'no:'],
  ...['{{fare}}', '{{ first_name }}', '\uE0003\uE001', '{', '}}', '"quoted"', '“so”', '…', '(a)', '[a](b)'],
  ...[
    '**',
    '*',
    '_',
    '__',
    '`',
    '~~',
    '==',
    '#',
    '-',
    '+',
    '>',
    '<',
    '&',
    '&amp;',
    '\\',
    '|',
    '!',
    '---',
    '1.',
    '2)',
  ],
];
const BETWEEN = [' ', ' ', ' ', ' ', '', '  ', ', ', '. ', ': ', '\n', '\t', '/'];

/** What stands in the one paragraph that it is: the made-up browser drops the outermost element when it is cleaned. */
const inner = (html: string): string => html.replace(/^<p>/, '').replace(/<\/p>(?=\n$)/, '');

describe('a text without Markdown', () => {
  it('looks the same whether it was read as Markdown or not', () => {
    const next = numbers(20261130);
    const pick = <T>(of: readonly T[]): T => of[Math.floor(next() * of.length)] as T;
    let plain = 0;
    for (let n = 0; n < 8_000; n++) {
      const some = next() < 0.7 ? WORDS.filter((w) => isPlain(w)) : WORDS;
      const words = Array.from({ length: 1 + Math.floor(next() * 5) }, () => pick(some));
      const text = words.reduce((all, word) => all + pick(BETWEEN) + word);
      if (!isPlain(text)) continue;
      plain++;
      expect(inner(renderPlain(text)), JSON.stringify(text)).toBe(inner(renderMarkdown(text)));
    }
    expect(plain).toBeGreaterThan(2_000);
  });

  it.each([
    'Press Pay now.',
    'Fare: 5.00 € at 10:30, “so”',
    'Choose {{first_name}} (adult)',
    'Länge 5.01 m → refused',
  ])('is one without: %s', (text) => expect(isPlain(text)).toBe(true));

  it.each([
    '**now**',
    '- one',
    '1. one',
    'see quay.com',
    'a\nb',
    '`x`',
    '&amp;',
    'a  b',
    '---',
    'http://quay.test',
    '<b>',
  ])('is not: %s', (text) => expect(isPlain(text)).toBe(false));

  it('is shown with its lines while what reads Markdown is on its way, and nothing in it is taken for HTML', () => {
    expect(renderPlain('<b>a</b>\nb\n\nc')).toBe('<p>&lt;b&gt;a&lt;/b&gt;<br>\nb</p>\n<p>c</p>\n');
  });
});

it('names of characters stand for what the list of names says', () => {
  for (const text of [
    '&auml;',
    '&copy;',
    '&nbsp;',
    '&amp;',
    '&lt;',
    '&#8364;',
    '&#x1F6A2;',
    '&nothing;',
    '&CounterClockwiseContourIntegral;',
  ])
    expect(decodeHTML(text), text).toBe(entities.decodeHTML(text));
});

it('keeps the numbers of steps where some were left out, and counts lists that do not', () => {
  const numbers = (text: string): (string | null)[] =>
    [...renderMarkdown(text).matchAll(/<li(?: value="(\d+)")?>/g)].map((m) => m[1] ?? null);
  expect(numbers('1. Go\n3. Hold\n   Data: x\n4. Walk')).toEqual([null, '3', null]);
  expect(numbers('4. Only this')).toEqual(['4']);
  expect(numbers('1. a\n1. b\n1. c')).toEqual([null, null, null]);
  expect(numbers('1. a\n   - x\n   - y\n5. b')).toEqual([null, null, null, '5']);
});
