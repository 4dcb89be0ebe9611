import type { ZodError } from "zod";

/** A refusal that a person understands. `field` says at which field of the input the message belongs. */
export type RefusalCode =
  | "signed-out"
  | "not-allowed"
  | "not-found"
  | "bad-input"
  | "conflict"
  | "too-many"
  | "prove-again"
  /** The house rules want a second steward's yes: on a change slip one is asked for. */
  | "second-yes"
  /** The entry asks a steward first. */
  | "ask-first"
  /** What was given has to be accepted first. */
  | "accept-first"
  /** The session is good for nothing until a way in is added that the house rules require. */
  | "add-way"
  | "ended";

export class Refused extends Error {
  override name = "Refused";
  constructor(
    readonly code: RefusalCode,
    message: string,
    readonly field?: string,
    /** Plain data for the page: both versions of an edit, seconds to wait. Never a secret. */
    readonly data?: Record<string, unknown>,
  ) {
    super(message);
  }
}

/** What an input's schema found wrong first, at its field. */
export function badInput({ issues }: Pick<ZodError, "issues">, within: string[] = []): Refused {
  const [issue] = issues;
  return new Refused("bad-input", issue!.message, [...within, ...issue!.path.map(String)].join("."));
}

/** The same answer for what does not exist and for what one may not know of. */
export const notFound = () => new Refused("not-found", "Page not found.");
