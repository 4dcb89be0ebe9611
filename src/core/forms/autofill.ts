/**
 * What of an entry goes into which field of a form, by the field names of the HTML Standard’s *autocomplete* attribute
 * (section “Autofill”): payment cards, postal addresses, contacts, identity papers.
 */

export const FORM_KINDS = ["card", "postal-address", "contact", "identity-paper"] as const;
export type FormKind = (typeof FORM_KINDS)[number];

/** Values by field of the entry; what has none is left out. */
type Values = Readonly<Record<string, string>>;

interface Filled {
  /** Fields of the entry that it is made of. */
  from: readonly string[];
  /** @returns null where the entry holds nothing for it */
  say: (values: Values) => string | null;
}

const as = (field: string): Filled => ({ from: [field], say: (values) => values[field] ?? null });
const part = (field: string, read: (value: string) => string | undefined): Filled => ({
  from: [field],
  say: (values) => (values[field] === undefined ? null : (read(values[field]) ?? null)),
});

const words = (name: string) => name.trim().split(/\s+/);
const given = (name: string) => (words(name).length > 1 ? words(name).slice(0, -1).join(" ") : undefined);
const family = (name: string) => words(name).at(-1);
const line = (at: number) => (text: string) =>
  text
    .split("\n")
    .map((one) => one.trim())
    .filter(Boolean)[at];

/** The name of the entry itself. */
export const OWN_NAME = "name";

const FILLED: Record<FormKind, Record<string, Filled>> = {
  card: {
    "cc-name": as("holder"),
    "cc-given-name": part("holder", given),
    "cc-family-name": part("holder", family),
    "cc-number": part("number", (digits) => digits.replace(/\D/g, "")),
    "cc-exp": as("expires"),
    "cc-exp-month": part("expires", (month) => month.slice(5, 7)),
    "cc-exp-year": part("expires", (month) => month.slice(0, 4)),
    "cc-csc": as("security-code"),
  },
  "postal-address": {
    name: as("addressee"),
    organization: as("addressee"),
    "street-address": as("lines"),
    "address-line1": part("lines", line(0)),
    "address-line2": part("lines", line(1)),
    "address-line3": part("lines", line(2)),
    "postal-code": as("postcode"),
    "address-level2": as("town"),
    "country-name": as("country"),
    country: as("country"),
  },
  contact: {
    name: as(OWN_NAME),
    organization: as("organisation"),
    email: as("mail"),
    tel: as("phone"),
  },
  "identity-paper": {
    name: as("holder"),
    "given-name": part("holder", given),
    "family-name": part("holder", family),
  },
};

/** What is only filled in over https. */
export const isGuarded = (kind: FormKind): boolean => kind === "card" || kind === "identity-paper";

/** Before a field’s own name may stand a section, whose address it is, and for which telephone. */
const BEFORE = /^(section-.+|shipping|billing|home|work|mobile|fax|pager)$/;

/** The field’s name in an autocomplete attribute; null where it names none. */
export function tokenOf(autocomplete: string): string | null {
  const tokens = autocomplete
    .toLowerCase()
    .split(/\s+/)
    .filter((token) => token !== "" && token !== "webauthn" && !BEFORE.test(token));
  const [only, more] = tokens;
  return only && !more && KNOWN.has(only) ? only : null;
}

const KNOWN: ReadonlySet<string> = new Set(Object.values(FILLED).flatMap((filled) => Object.keys(filled)));

/** A name alone stands on every second form: these say that it is one of the kind. */
const TELLING: Record<FormKind, readonly string[]> = {
  card: ["cc-number"],
  "postal-address": ["street-address", "address-line1", "postal-code"],
  contact: ["email", "tel"],
  "identity-paper": ["given-name", "family-name"],
};

/** The kinds of entry that a form with these fields asks for. */
export const kindsFor = (tokens: readonly string[]): FormKind[] =>
  FORM_KINDS.filter((kind) => TELLING[kind].some((token) => tokens.includes(token)));

/** The fields of an entry that a form with these fields would get. */
export function fieldsFor(kind: FormKind, tokens: readonly string[]): string[] {
  const filled = FILLED[kind];
  return [...new Set(tokens.flatMap((token) => (Object.hasOwn(filled, token) ? filled[token]!.from : [])))];
}

/** What goes into each field of a form. */
export function valuesFor(kind: FormKind, tokens: readonly string[], values: Values): Record<string, string> {
  const filled = FILLED[kind];
  const made: [string, string][] = [];
  for (const token of new Set(tokens)) {
    const value = Object.hasOwn(filled, token) ? filled[token]!.say(values) : null;
    if (value !== null && value !== "") made.push([token, value]);
  }
  return Object.fromEntries(made);
}

/** How a field looks that wants a month. */
export interface MonthField {
  type: string;
  maxLength: number | null;
  placeholder: string;
}

/** “2028-09” as a field of a page wants it: `09/28`, `09/2028`, or as it is. */
export function monthFor(month: string, { type, maxLength, placeholder }: MonthField): string {
  if (type === "month") return month;
  const [year = "", number = ""] = month.split("-");
  const long = /y{4}|j{4}|a{4}/i.test(placeholder) || (!/yy|jj|aa/i.test(placeholder) && (maxLength ?? 0) >= 7);
  return `${number}/${long ? year : year.slice(2)}`;
}

/** One of a list of options, by its value or by what it says; months and years also in short. Null where none fits. */
export function optionFor(
  token: string,
  value: string,
  options: readonly { value: string; text: string }[],
): string | null {
  const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();
  const short =
    token === "cc-exp-month" ? [String(Number(value))] : token === "cc-exp-year" ? [value.slice(2)] : ([] as string[]);
  const wanted = [value, ...short];
  const found =
    options.find((one) => wanted.some((want) => same(one.value, want))) ??
    options.find((one) => wanted.some((want) => same(one.text, want)));
  return found?.value ?? null;
}
