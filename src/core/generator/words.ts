/** Passwords of words, to be typed by hand. */
import type { Made } from "./characters";
import { type FillRandom, log2, uniform } from "./random";

export interface WordRules {
  count: number;
  separator: string;
  /** Each word begins with a capital. */
  capitals: boolean;
  /** A digit behind one of the words. */
  digit: boolean;
}

export const FEWEST_WORDS = 3;
export const MOST_WORDS = 12;
export const SEPARATORS = ["-", " ", ".", "_"] as const;

/**
 * @param list words to draw from; each is equally likely at each place
 * @throws RangeError with a sentence when the number of words is out of bounds
 */
export function makeWords(list: readonly string[], rules: WordRules, fill?: FillRandom): Made {
  if (!Number.isInteger(rules.count) || rules.count < FEWEST_WORDS || rules.count > MOST_WORDS)
    throw new RangeError(`From ${FEWEST_WORDS} to ${MOST_WORDS} words.`);
  const draw = (below: number) => Number(uniform(BigInt(below), fill));
  const words = Array.from({ length: rules.count }, () => list[draw(list.length)]!);
  const written = rules.capitals ? words.map((word) => word.charAt(0).toUpperCase() + word.slice(1)) : words;
  if (rules.digit) written[draw(rules.count)] += String(draw(10));
  const digits = rules.digit ? BigInt(rules.count) * 10n : 1n;
  return { text: written.join(rules.separator), bits: log2(BigInt(list.length) ** BigInt(rules.count) * digits) };
}
