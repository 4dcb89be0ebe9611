/** What a password is made for, and what one may ask of it there. */
import { type CharacterRules, type Made, makeCharacters } from "./characters";
import { readPasswordRules, within } from "./passwordRules";
import type { FillRandom } from "./random";
import { DIGITS, EASY, LOOK_ALIKES, LOWER, SIGNS, UPPER, without } from "./sets";
import { makeWords, type WordRules } from "./words";

export interface WebsiteWishes {
  length: number;
  /** At least so many of each; null: none at all. */
  lower: number | null;
  upper: number | null;
  digits: number | null;
  signs: number | null;
  noLookAlikes: boolean;
  noThreeAlike: boolean;
  /** The site's own rules, in the `passwordrules` syntax; empty: none. They go before the wishes above. */
  siteRules: string;
}

export interface Wishes {
  purpose: "website" | "words" | "easy" | "keypad";
  website: WebsiteWishes;
  words: WordRules;
  /** Characters that are easy to type. */
  easyLength: number;
  keypadLength: number;
}

export const WISHES: Wishes = {
  purpose: "website",
  website: {
    length: 20,
    lower: 1,
    upper: 1,
    digits: 1,
    signs: 1,
    noLookAlikes: false,
    noThreeAlike: true,
    siteRules: "",
  },
  words: { count: 5, separator: "-", capitals: false, digit: false },
  easyLength: 14,
  keypadLength: 6,
};

/** @throws RangeError for site rules that cannot be read */
export function websiteRules(wishes: WebsiteWishes): CharacterRules {
  if (wishes.siteRules.trim() !== "") return within(readPasswordRules(wishes.siteRules), wishes.length);
  const kept = (set: string) => (wishes.noLookAlikes ? without(set, LOOK_ALIKES) : set);
  const sets: [string, number | null][] = [
    [LOWER, wishes.lower],
    [UPPER, wishes.upper],
    [DIGITS, wishes.digits],
    [SIGNS, wishes.signs],
  ];
  return {
    length: wishes.length,
    allowed: "",
    required: sets.flatMap(([set, least]) => (least === null ? [] : [{ set: kept(set), least }])),
    mostAlike: wishes.noThreeAlike ? 2 : 0,
  };
}

/**
 * @param list for passwords of words
 * @throws RangeError with a sentence for people where nothing can be made so
 */
export function make(wishes: Wishes, list: readonly string[], fill?: FillRandom): Made {
  switch (wishes.purpose) {
    case "website":
      return makeCharacters(websiteRules(wishes.website), fill);
    case "words":
      return makeWords(list, wishes.words, fill);
    case "easy":
      return makeCharacters({ length: wishes.easyLength, allowed: EASY, required: [], mostAlike: 2 }, fill);
    case "keypad":
      return makeCharacters({ length: wishes.keypadLength, allowed: DIGITS, required: [], mostAlike: 2 }, fill);
  }
}
