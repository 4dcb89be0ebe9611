/** What a page says of the passwords it takes, in the `passwordrules` syntax: from its fields, and the words beside them. */
import { readPasswordRules } from "./passwordRules";

export interface PasswordPlace {
  /** The field's `passwordrules` attribute; empty where it has none. */
  rules: string;
  shortest: number | null;
  longest: number | null;
  /** Words beside the field and in its form. */
  text: string;
}

const MOST_ASKED = 64;

/**
 * @returns the site's own rules where it writes them; otherwise what its lengths and words say; empty where nothing is said
 */
export function rulesOfPage({ rules, shortest, longest, text }: PasswordPlace): string {
  if (rules.trim() !== "" && canBeRead(rules)) return rules.trim();
  const said = text.toLowerCase();
  const least = numbers(said, LEAST).concat(shortest ?? []);
  const most = numbers(said, MOST).concat(longest ?? []);
  const parts = [
    ...(least.length > 0 ? [`minlength: ${Math.max(...least)}`] : []),
    ...(most.length > 0 && Math.min(...most) >= Math.max(0, ...least) ? [`maxlength: ${Math.min(...most)}`] : []),
    ...SETS.filter(([, words]) => words.test(said)).map(([set]) => `required: ${set}`),
  ];
  // What is asked for by name says nothing of what else may stand in it.
  if (parts.some((part) => part.startsWith("required"))) parts.push("allowed: lower, upper, digit");
  return parts.join("; ");
}

function canBeRead(rules: string): boolean {
  try {
    readPasswordRules(rules);
    return true;
  } catch {
    return false;
  }
}

const numbers = (text: string, patterns: readonly RegExp[]): number[] =>
  patterns
    .flatMap((pattern) => [...text.matchAll(pattern)].map(([, number]) => Number(number)))
    .filter((number) => number >= 4 && number <= MOST_ASKED);

const CHARACTERS =
  "(?:characters?|chars?|letters?|symbols?|zeichen|caractères?|caracteres|caratteri|tekens|tecken|znaków)";
const LEAST = [
  /(?:at least|minimum(?: of)?|min\.?|mindestens|au moins|al menos|almeno|minstens|minst|co najmniej) (\d{1,2})(?!\d)/g,
  new RegExp(`(\\d{1,2}) ?(?:-|–|to|bis|à|a|tot|till|do) ?\\d{1,2} ${CHARACTERS}`, "g"),
  new RegExp(`(\\d{1,2}) ?${CHARACTERS} (?:or more|minimum|or longer|oder mehr)`, "g"),
];
const MOST = [
  /(?:at most|maximum(?: of)?|max\.?|no more than|up to|höchstens|au plus|como máximo|al massimo|hoogstens) (\d{1,2})(?!\d)/g,
  new RegExp(`\\d{1,2} ?(?:-|–|to|bis|à|a|tot|till|do) ?(\\d{1,2}) ${CHARACTERS}`, "g"),
];
const SETS: readonly [string, RegExp][] = [
  ["upper", /upper ?-?case|capital letter|großbuchstabe|majuscule|mayúscula|maiuscol|hoofdletter|versal|wielk/],
  ["lower", /lower ?-?case|small letter|kleinbuchstabe|minuscule|minúscula|minuscol|kleine letter|gemen/],
  ["digit", /\bdigit|\bnumber|\bnumeral|ziffer|zahl|chiffre|número|numero|cijfer|siffra|cyfr/],
  [
    "special",
    /special character|symbol|punctuation|sonderzeichen|caractère spécial|carácter especial|carattere speciale|leesteken|specialtecken/,
  ],
];
