/**
 * Whether a login that somebody has just typed is kept in Galtry already, as far as their browser can tell from what it
 * has: nothing of what was typed goes anywhere for it.
 */
import { hmac, toHex, utf8 } from "../crypto";
import { matches } from "./site";

/** What a browser has of a login that its person can use. */
export interface KeptLogin {
  id: string;
  signInPage: string;
  reach: "site" | "host";
  /** Keyed mark of its user name, "" where it has none; null where the person may not know it. */
  userMark: string | null;
  /** Its password may be compared with what was typed. */
  comparable: boolean;
}

/**
 * A user name as a browser may hold it: HMAC-SHA-256 (RFC 2104), hexadecimal; "" for none.
 * @param key one for each browser
 */
export const userMarkOf = (key: Uint8Array, userName: string): string =>
  userName === "" ? "" : toHex(hmac(key, utf8(userName)));

/**
 * - `kept`: nothing is offered. It is there, or may be: at Use nobody learns which user name is kept.
 * - `compare`: with one of these its password may be compared, for both site and user name are the same.
 * - `new`: none of them is meant.
 */
export type Kept = { answer: "kept" } | { answer: "new" } | { answer: "compare"; ids: string[] };

/**
 * @param page where it was typed
 * @param userMark of the user name that was typed
 */
export function keptAlready(logins: readonly KeptLogin[], page: string, userMark: string): Kept {
  const here = logins.filter((login) => matches(login, page));
  const same = here.filter((login) => login.userMark === null || login.userMark === userMark);
  if (same.length === 0) return { answer: "new" };
  const ids = same.filter((login) => login.comparable && login.userMark !== null).map(({ id }) => id);
  return ids.length > 0 ? { answer: "compare", ids } : { answer: "kept" };
}
