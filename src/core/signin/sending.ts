/** A request made anew as the steps of an entry say, for a page whose script sends its form. */
import type { Sending, SentPart, TokenPlace } from "./steps";

/** Whether every part of it is known, so that it can be sent without the page's own script. */
export const canBeSent = ({ parts, headers, encoding }: Sending): boolean =>
  encoding !== "text" && [...parts, ...headers].every(({ holds }) => holds !== "unknown");

/** A header of the page's own making, such as one that carries a token; nothing that a browser or a proxy goes by. */
export const isOwnHeader = (name: string): boolean =>
  /^(?:x-[a-z0-9-]{1,60}|[a-z0-9-]{0,40}(?:csrf|xsrf|token)[a-z0-9-]{0,20})$/.test(name) &&
  !/^(?:x-forwarded|x-real|proxy-|sec-)/.test(name);

export interface Values {
  userName: string;
  password: string;
  /** Null where none is to be sent. */
  code: string | null;
  /** What stands at a place of the page; null where nothing does. */
  token: (place: TokenPlace) => string | null;
}

/** What could not be found, by name. */
export class PartMissing extends Error {
  override name = "PartMissing";
}

/**
 * Names and values in their order.
 * @throws PartMissing where a token does not stand where it did
 */
export function pairsOf(parts: readonly SentPart[], values: Values): [string, string][] {
  return parts.map((part) => [part.name, textOf(part, values)]);
}

function textOf({ name, holds, from, value }: SentPart, values: Values): string {
  if (holds === "user-name") return values.userName;
  if (holds === "password") return values.password;
  if (holds === "code" && values.code !== null) return values.code;
  if (holds === "fixed") return value;
  const token = holds === "token" && from ? values.token(from) : null;
  if (token === null) throw new PartMissing(name);
  return token;
}

/** Keys that would reach beside the object that is built. */
const OTHER_THAN_DATA = new Set(["__proto__", "constructor", "prototype"]);

/**
 * The JSON of a body whose parts are named by pointers (RFC 6901).
 * @throws PartMissing
 */
export function jsonOf(parts: readonly SentPart[], values: Values): string {
  const root: Record<string, unknown> = {};
  for (const part of parts) {
    const keys = part.name
      .split("/")
      .slice(1)
      .map((key) => key.replaceAll("~1", "/").replaceAll("~0", "~"));
    const last = keys.pop();
    if (last === undefined || [...keys, last].some((key) => OTHER_THAN_DATA.has(key))) throw new PartMissing(part.name);
    let at = root;
    for (const key of keys) {
      const inner = at[key];
      if (inner === undefined || typeof inner !== "object" || inner === null) at[key] = {};
      at = at[key] as Record<string, unknown>;
    }
    at[last] = part.holds === "fixed" ? parsed(part.value) : textOf(part, values);
  }
  return JSON.stringify(root);
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}
