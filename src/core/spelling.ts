/** A secret spelled out, for typing it on another device: every character with the name one says. */

export interface Spelled {
  character: string;
  /** "capital L", "nought", "full stop". */
  name: string;
  sort: "letter" | "digit" | "sign";
}

const DIGITS = ["nought", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine"];

const SIGNS: Record<string, string> = {
  " ": "space",
  "!": "exclamation mark",
  '"': "double quote",
  "#": "hash",
  $: "dollar",
  "%": "per cent",
  "&": "ampersand",
  "'": "apostrophe",
  "(": "opening bracket",
  ")": "closing bracket",
  "*": "asterisk",
  "+": "plus",
  ",": "comma",
  "-": "hyphen",
  ".": "full stop",
  "/": "slash",
  ":": "colon",
  ";": "semicolon",
  "<": "less than",
  "=": "equals",
  ">": "greater than",
  "?": "question mark",
  "@": "at",
  "[": "opening square bracket",
  "\\": "backslash",
  "]": "closing square bracket",
  "^": "caret",
  _: "underscore",
  "`": "backtick",
  "{": "opening brace",
  "|": "upright stroke",
  "}": "closing brace",
  "~": "tilde",
  "\t": "tab",
  "\n": "new line",
  "€": "euro",
  "£": "pound",
  "§": "section",
};

export function spell(character: string): Spelled {
  if (/^\d$/.test(character)) return { character, name: DIGITS[Number(character)]!, sort: "digit" };
  if (/^\p{L}/u.test(character)) {
    const small = character.toLowerCase();
    return { character, name: small === character ? character : `capital ${character}`, sort: "letter" };
  }
  const code = character.codePointAt(0)!.toString(16).toUpperCase().padStart(4, "0");
  return { character, name: SIGNS[character] ?? `character ${code}`, sort: "sign" };
}

/** In groups of four, as on the card. */
export function spellingCard(text: string, size = 4): Spelled[][] {
  const all = Array.from(new Intl.Segmenter("en", { granularity: "grapheme" }).segment(text), ({ segment }) =>
    spell(segment),
  );
  return Array.from({ length: Math.ceil(all.length / size) }, (_, i) => all.slice(i * size, (i + 1) * size));
}
