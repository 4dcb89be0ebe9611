/** What a provider says of somebody who has signed in there, whichever protocol it speaks. */
export interface Identity {
  /** As the provider calls them for good. */
  subject: string;
  mail: string;
  /** The provider says that the address is theirs. */
  mailVerified: boolean;
  name: string;
  /** Names of groups there; null where it says nothing of groups. */
  groups: string[] | null;
  /** The session there, to be ended with. */
  sid: string | null;
  /** When they signed in there; null where it does not say. */
  signedInAt: number | null;
  /** For the test: everything that came back, in words. */
  claims: Record<string, string>;
}

export type FailedStep = "discovery" | "keys" | "sign-in" | "exchange" | "token" | "person";

/** What went wrong at which step, in words for an administrator; never a token or a secret. */
export class ProviderError extends Error {
  override name = "ProviderError";
  constructor(
    readonly step: FailedStep,
    readonly said: string,
  ) {
    super(`${step}: ${said}`);
  }
}

/** Of what came back, as far as it is text, numbers or lists of them; shortened. */
export function claimsInWords(claims: Record<string, unknown>): Record<string, string> {
  const said: Record<string, string> = {};
  for (const [name, value] of Object.entries(claims).slice(0, 60)) {
    const text = Array.isArray(value)
      ? value.map(String).join(", ")
      : value !== null && typeof value === "object"
        ? JSON.stringify(value)
        : String(value);
    said[name.slice(0, 120)] = text.length > 300 ? `${text.slice(0, 299)}…` : text;
  }
  return said;
}

/** A list of names, also where there is one only, or they stand in one text. */
export function namesOf(value: unknown): string[] | null {
  const list = Array.isArray(value) ? value : typeof value === "string" ? [value] : null;
  if (!list) return null;
  const names = list
    .map((one) => (typeof one === "string" ? one.trim() : ""))
    .filter((one) => one !== "" && one.length <= 200);
  return [...new Set(names)].slice(0, 1000);
}
