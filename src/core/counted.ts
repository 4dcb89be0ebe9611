/** Numbers with nouns that agree. */

const IRREGULAR: Readonly<Record<string, string>> = { person: "people" };

/** The form of a word for a number: `agree(1, "is", "are")` is “is”. */
export const agree = (count: number, one: string, many: string): string => (count === 1 ? one : many);

/** “1 entry”, “2,345 entries”, “0 people”. The noun is given in the singular; its last word is what changes. */
export function counted(count: number, noun: string): string {
  return `${count.toLocaleString("en-GB")} ${agree(count, noun, plural(noun))}`;
}

function plural(noun: string): string {
  const last = noun.split(" ").at(-1)!;
  const many =
    IRREGULAR[last] ??
    (/[^aeiou]y$/.test(last) ? `${last.slice(0, -1)}ies` : /(s|x|ch|sh)$/.test(last) ? `${last}es` : `${last}s`);
  return noun.slice(0, noun.length - last.length) + many;
}

/** “Anna, Bert and Cleo”, or with another word before the last. */
export const listOf = (words: readonly string[], last = "and"): string =>
  words.length < 2 ? (words[0] ?? "") : `${words.slice(0, -1).join(", ")} ${last} ${words.at(-1)}`;

/** "every month", "every 3 months". */
export const every = (count: number, noun: string): string =>
  count === 1 ? `every ${noun}` : `every ${counted(count, noun)}`;
