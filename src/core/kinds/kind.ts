/** What an entry is: a kind, which is a list of fields, each with a class that says who sees it. */

export type FieldClass = "open" | "identifier" | "secret";

/** How a value is written down, and so how it is asked for and shown. */
export type FieldForm =
  | "line"
  | "text"
  | "address"
  | "mail"
  | "phone"
  | "date"
  | "month"
  | "digits"
  | "password"
  | "one-time code"
  | "codes"
  | "choice";

/** Told as advice where the value is typed, never a reason to refuse it. */
export type FieldCheck = "card number" | "IBAN";

export interface Field {
  /** Name of the value in an entry: stays when the label changes. */
  id: string;
  label: string;
  class: FieldClass;
  form: FieldForm;
  hint?: string;
  choices?: readonly string[];
  check?: FieldCheck;
  required?: boolean;
  /** Given by whoever issued it, as a card’s number is: Galtry offers to create none. */
  issued?: boolean;
  /** Taken out of its kind: not asked for any more, and shown where an entry still holds a value in it. */
  retired?: boolean;
}

/** What an office does with it. */
export type Purpose = "sign-in" | "get-in" | "pay" | "prove" | "run" | "keep";

export interface Kind {
  id: string;
  name: string;
  purpose: Purpose;
  fields: readonly Field[];
  /** The open field whose value is the entry's name; without one the name is asked for by itself. */
  title?: string;
  /** Made by the organisation. */
  own?: boolean;
  /** Its secrets are old once they have stood for so many months; left out, they never are. */
  oldAfter?: number;
  /** Offered for new entries no more. */
  closed?: boolean;
  /** Address of its picture, which its entries have that have none of their own. */
  picture?: string;
}

export const PURPOSES: readonly { purpose: Purpose; title: string }[] = [
  { purpose: "sign-in", title: "To sign in" },
  { purpose: "get-in", title: "To get in" },
  { purpose: "pay", title: "To pay" },
  { purpose: "prove", title: "Papers and contacts" },
  { purpose: "run", title: "Equipment" },
  { purpose: "keep", title: "Documents" },
];

/** The field that holds the very address where one signs in; it has columns of its own, for pages are matched by it. */
export const SIGN_IN_PAGE = "signInPage";
export const USER_NAME = "userName";
export const PASSWORD = "password";
export const CODE = "code";

/** What is asked for in a new entry. */
export const askedFor = (kind: Kind): Field[] => kind.fields.filter((field) => !field.retired);

export const fieldOf = (kind: Kind, id: string): Field | undefined => kind.fields.find((field) => field.id === id);

/** A field's label within a sentence: "one-time code", "PIN". */
export function fieldWord(kind: Kind, id: string): string {
  const label = fieldOf(kind, id)?.label ?? "Extra field";
  return /^\p{Lu}(\p{Ll}|$)/u.test(label) ? label.charAt(0).toLowerCase() + label.slice(1) : label;
}
