/** Made passwords: for a website, to be typed by hand, for a keypad. */
export { type CharacterRules, countCharacters, LONGEST, type Made, makeCharacters, SHORTEST } from "./characters";
export { readPasswordRules, type SiteRules, within } from "./passwordRules";
export * from "./purpose";
export { FEWEST_WORDS, MOST_WORDS, makeWords, SEPARATORS, type WordRules } from "./words";
