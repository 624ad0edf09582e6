import { describe, expect, it } from 'vitest';
import { readItems, writeItems } from '@/kit/items';

describe('several names in one text', () => {
  it('stand between commas, semicolons or line ends, and in quotes where they hold one', () => {
    expect(readItems('money, "deck, car";\n "the ""Tide""" , open "x')).toEqual([
      'money',
      'deck, car',
      'the "Tide"',
      'open "x',
    ]);
    expect(readItems(' ,; \n')).toEqual([]);
  });

  it('come back as they went out, whatever is in them', () => {
    let seed = 7;
    const random = (n: number): number => (seed = (seed * 48271) % 2147483647) % n;
    for (let i = 0; i < 3000; i++) {
      const names = Array.from({ length: random(5) }, () =>
        Array.from({ length: 1 + random(6) }, () => 'a,;"\n é'[random(7)])
          .join('')
          .trim(),
      ).filter(Boolean);
      expect(readItems(writeItems(names, i % 2 ? ',' : ', '))).toEqual(names);
    }
  });
});
