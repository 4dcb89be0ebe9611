/** A database server that does not answer: nobody's mistake, and over by itself once it does. */

export class Unreachable extends Error {
  override name = "Unreachable";
  constructor(cause?: unknown) {
    super("the database server does not answer", { cause });
  }
}

const CODES =
  /^(ECONN|ENET|EHOST|ENOTFOUND|EAI_|EPIPE|ETIMEDOUT|UND_ERR_|HRANA_(WEBSOCKET_ERROR|CLOSED_ERROR|PROTO_ERROR)|ABORT_ERR)/;
/** 502 to 504 are a proxy's before it; an unknown baton is a transaction of a server that was started anew since. */
const MESSAGES = /fetch failed|HTTP status 50[234]|invalid baton|stream (not found|closed)|handshake|TimeoutError/i;

/**
 * Whether an error was told to be this. By name: the pages are built apart, with a class of their own. What a site's server
 * does not answer looks like it from outside, and is none of the database's: only what asked the database tells.
 */
export function isDatabaseAway(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause) if (at.name === "Unreachable") return true;
  return false;
}

/** Whether an error of the database's client says that its server could not be reached, or went away in the middle. */
export function isUnreachable(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause) {
    const { code, name } = at as { code?: unknown; name: string };
    if (/^(Unreachable|TimeoutError)$/.test(name) || CODES.test(String(code)) || MESSAGES.test(at.message)) return true;
  }
  return false;
}
