import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';

const meter = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });

/**
 * How hard a password is to guess, by whoever tries words, names, dates and rows of keys first.
 *
 * @param known words that others would try: the name and the mail address of whoever chooses it
 * @returns 0 (at once) to 4 (not in any time that matters)
 */
export const strength = (password: string, known: string[]): number =>
  meter.check(
    password.slice(0, 100),
    known.flatMap((one) => [one, ...one.split(/[^\p{L}\p{N}]+/u)]).filter((word) => word.length > 2),
  ).score;
