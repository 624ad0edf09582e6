import { describe, expect, it } from 'vitest';
import { wellFormed } from '@/api/wellFormed';

describe('what is sent and kept', () => {
  const bad = ['\u0000', '\ud800', '\udfff', '\udc00\ud800'];
  it('holds no text that cannot be stored, however deep it stands', () => {
    for (const part of bad) {
      const marks = '\ufffd'.repeat(part.length);
      const value = { a: `x${part}y`, b: [part, { c: `${part}😀` }], n: 7, none: null, yes: true };
      expect(wellFormed(value)).toEqual({
        a: `x${marks}y`,
        b: [marks, { c: `${marks}😀` }],
        n: 7,
        none: null,
        yes: true,
      });
    }
  });

  it('is the same when nothing is wrong with it', () => {
    const value = { words: 'Grüße, 你好 😀👩🏽‍💻 \u202Eabc\n\t', list: ['', ' '], deep: { a: { b: [] } } };
    expect(wellFormed(value)).toEqual(value);
    const file = new File(['x'], 'a.png');
    const at = new Date();
    const kept = wellFormed({ file, at });
    expect(kept.file).toBe(file);
    expect(kept.at).toBe(at);
  });

  it('is well formed for every text there can be', () => {
    let seed = 7;
    const next = (n: number): number => (seed = (seed * 48_271) % 2_147_483_647) % n;
    for (let n = 0; n < 2000; n++) {
      const text = Array.from({ length: next(8) }, () =>
        String.fromCharCode(next(3) === 0 ? 0xd800 + next(0x800) : next(0x3ff)),
      ).join('');
      const made = wellFormed(text);
      expect(made).toHaveLength(text.length);
      expect(() => encodeURIComponent(made)).not.toThrow();
      expect(made).not.toContain('\u0000');
      expect(wellFormed(made)).toBe(made);
    }
  });
});
