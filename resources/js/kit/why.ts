/** The shortest word of why, in graphemes after trimming; the server counts the same (tests/shared/words-of-why.json). */
const SHORTEST = 3;
const graphemes = new Intl.Segmenter(undefined, { granularity: 'grapheme' });

/** Whether a word of why says something. */
export function isWhyGiven(text: string | null | undefined): boolean {
  return [...graphemes.segment((text ?? '').trim())].length >= SHORTEST;
}
