/**
 * A plain description of a page's fields: what a visitor could fill in and press. Two thin readers make it, one
 * from the live DOM (Lanyard), one from HTML text (server); the reading of it is the same for both.
 */

export interface PageField {
  /** A CSS selector that matches exactly this element of the page. */
  selector: string;
  control: "input" | "select" | "textarea" | "button";
  /** Lower case; `text` for an input without one, `submit` for a button without one. */
  type: string;
  name: string;
  id: string;
  autocomplete: string;
  placeholder: string;
  /** Text of its label, aria-label, aria-labelledby, title; for a button its own text or value. */
  label: string;
  /** Class names and data-* hooks: weak evidence. */
  hints: string;
  inputMode: string;
  maxLength: number | null;
  /** What it holds as the page is served. Empty for passwords. */
  value: string;
  checked: boolean;
  /** Choices of a select: value and text. */
  options: { value: string; text: string; selected: boolean }[];
  visible: boolean;
  disabled: boolean;
  readOnly: boolean;
  required: boolean;
  /** A text field that shows dots in place of what is typed, by its style. */
  masked: boolean;
  /** A link, a `div` or the like that stands for a button: what makes it one. */
  standsFor: "nothing" | "role" | "script" | "look" | "link";
  /** Index into `forms`; null when no form element owns it. */
  form: number | null;
  /** Ids of its containers, outermost first: finds what belongs together where there is no form. */
  within: number[];
}

export interface PageForm {
  selector: string;
  /** As it stands in the source; empty when absent. */
  action: string;
  method: "get" | "post" | "dialog";
  enctype: string;
  /** id, name, class, role, aria-label. */
  hints: string;
  /** Its text without that of labels, buttons and links, which lead elsewhere; and the heading nearest before it. */
  text: string;
  /** Text of the links within it and beside it: what else one may do here. */
  links: string;
  visible: boolean;
}

/** Text of a container, for fields that no form owns. */
export interface PageContainer {
  hints: string;
  text: string;
  links: string;
}

export interface PageDescription {
  /** Address after redirects; what relative actions are resolved against unless `base` says otherwise. */
  url: string;
  base: string | null;
  title: string;
  forms: PageForm[];
  fields: PageField[];
  containers: PageContainer[];
}

export const PAGE_KINDS = [
  "sign-in",
  "identifier-first",
  "password-only-step",
  "one-time-code-step",
  "change-password",
  "register",
  "reset-request",
  "unsure",
  "none",
] as const;

export type PageKind = (typeof PAGE_KINDS)[number];

/** What a page is for and which of its fields serve it; fields are selectors. */
export interface PageReading {
  /** `unsure`: it may be for signing in, and nothing is done on it without asking. */
  kind: PageKind;
  /** How sure the reading is of its kind, from 0 to 1. */
  confidence: number;
  form: string | null;
  userName: string | null;
  password: string | null;
  oneTimeCode: string | null;
  submit: string | null;
  /** Where a page asks for a new password: every field that it goes into, its repeat too. */
  newPasswords: string[];
}

export const NOTHING_READ: PageReading = {
  kind: "none",
  confidence: 1,
  form: null,
  userName: null,
  password: null,
  oneTimeCode: null,
  submit: null,
  newPasswords: [],
};
