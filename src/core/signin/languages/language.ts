/**
 * What fields, buttons and forms of a sign-in page are for. `settings` are those of a machine, a database or
 * another account; `payment` what a card or a shop asks for; `secondSecret` one that stands beside the password.
 */
export const MEANINGS = [
  "signIn",
  "register",
  "reset",
  "change",
  "confirm",
  "old",
  "new",
  "password",
  "userName",
  "email",
  "phone",
  "code",
  "search",
  "newsletter",
  "next",
  "send",
  "aside",
  "remember",
  "particulars",
  "otherPurpose",
  "settings",
  "payment",
  "secondSecret",
] as const;
export type Meaning = (typeof MEANINGS)[number];

/**
 * The words of one language, by what they mean; each item, between commas, is a small regular expression over text that
 * `plain` has folded.
 */
export type Language = Partial<
  Record<
    Meaning,
    {
      /** Stand whole, between spaces or the text's own ends. */
      words?: string;
      /** May stand inside a run of letters, as in writing without spaces or with endings. */
      parts?: string;
    }
  >
>;
