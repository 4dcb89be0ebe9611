/**
 * The one way out to websites. Only hosts that the entry and its steps name; nothing in IANA's special-purpose
 * registries; the connection is made to the very address that was checked; time, size and redirects are limited.
 */
import { lookup as dnsLookup } from "node:dns/promises";
import { isIP } from "node:net";
import type { Readable, Transform } from "node:stream";
import { createBrotliDecompress, createGunzip, createInflate } from "node:zlib";
import ipaddr from "ipaddr.js";
import { Agent, buildConnector, request } from "undici";
import { hostOf } from "../../core/signin/address";
import type { Failure } from "../../core/signin/outcome";

export const MOST_BYTES = 4 * 1024 * 1024;
export const REQUEST_MS = 15_000;

/** A sign-in that cannot go on, by name; `detail` is for people with Edit and never holds a secret. */
export class SignInFailure extends Error {
  override name = "SignInFailure";
  /** Whether the password had gone out by then. */
  afterPassword = false;
  constructor(
    readonly failure: Failure,
    readonly detail: string,
  ) {
    super(`${failure}: ${detail}`);
  }
}

export interface Reply {
  url: string;
  status: number;
  headers: Record<string, string | string[] | undefined>;
  body: Buffer;
}

export interface GuardSettings {
  /** Whether the entry or its steps name this address. */
  allows: (address: string) => boolean;
  /** `host:port` pairs that the operator lists: these may be internal and plain http. */
  allowedTargets: ReadonlySet<string>;
  /** Galtry's own port: never a target on this machine. */
  ownPort: number;
  plainHttp: boolean;
}

export interface Outgoing {
  method: "GET" | "POST";
  headers: Record<string, string>;
  body?: Buffer;
  signal: AbortSignal;
}

export class GuardedClient {
  readonly #agent: Agent;
  readonly #guard: Guard;

  constructor(settings: GuardSettings) {
    this.#guard = new Guard(settings);
    this.#agent = new Agent({
      connect: (options, callback) => {
        const port = Number(options.port || (options.protocol === "https:" ? 443 : 80));
        const lookup = (hostname: string, _options: unknown, found: unknown) =>
          this.#guard.lookup(hostname, port, found as LookupCallback);
        buildConnector({ timeout: 8_000, lookup } as Parameters<typeof buildConnector>[0])(options, callback);
      },
      headersTimeout: REQUEST_MS,
      bodyTimeout: REQUEST_MS,
      maxResponseSize: MOST_BYTES,
      keepAliveTimeout: 1000,
    });
  }

  close(): Promise<void> {
    return this.#agent.destroy();
  }

  /** One request, no redirects. @throws SignInFailure */
  async send(address: string, outgoing: Outgoing): Promise<Reply> {
    const url = this.#guard.check(address);
    try {
      const reply = await request(url, {
        method: outgoing.method,
        headers: { ...outgoing.headers, "accept-encoding": "gzip, deflate, br" },
        body: outgoing.body ?? null,
        signal: AbortSignal.any([outgoing.signal, AbortSignal.timeout(REQUEST_MS)]),
        dispatcher: this.#agent,
        maxRedirections: 0,
      } as Parameters<typeof request>[1]);
      const body = await limited(reply.body, String(reply.headers["content-encoding"] ?? ""));
      return { url: url.href, status: reply.statusCode, headers: reply.headers, body };
    } catch (error) {
      throw asFailure(error, url.host);
    }
  }
}

/** Where a sign-in may go: asked before a name is resolved, and again of the very address that is connected to. */
export class Guard {
  constructor(private readonly settings: GuardSettings) {}

  /** @throws SignInFailure */
  check(address: string): URL {
    const host = hostOf(address);
    if (host === null || !this.settings.allows(address))
      throw new SignInFailure("address-not-allowed", `the sign-in leads to ${host ?? "an address that is not http"}`);
    const url = new URL(address);
    const listed = this.#isListed(url);
    if (url.protocol === "http:" && !listed && !this.settings.plainHttp)
      throw new SignInFailure("plain-http", `${url.host} is plain http`);
    const literal = url.hostname.replace(/^\[|\]$/g, "");
    if (isIP(literal)) this.#checkAddress(literal, url.hostname, portOf(url), listed);
    return url;
  }

  #isListed(url: URL): boolean {
    return this.settings.allowedTargets.has(`${url.hostname}:${portOf(url)}`);
  }

  /** Resolution and check are one: undici connects to what this gives back. */
  lookup(hostname: string, port: number, callback: LookupCallback): void {
    resolveName(hostname)
      .then((found) => {
        const listed = this.settings.allowedTargets.has(`${hostname}:${port}`);
        for (const { address } of found) this.#checkAddress(address, hostname, port, listed);
        callback(null, found);
      })
      .catch((error) => callback(error as Error, []));
  }

  #checkAddress(address: string, host: string, port: number, listed: boolean): void {
    const parsed = ipaddr.process(address);
    const own = parsed.range() === "loopback" || parsed.range() === "unspecified";
    if (own && port === this.settings.ownPort)
      throw new SignInFailure("address-not-allowed", `${host} is Galtry itself`);
    if (isGlobal(parsed) || listed) return;
    throw new SignInFailure("address-not-allowed", `${host} is an internal address`);
  }
}

/**
 * An address of the open internet: in none of IANA's special-purpose registries, and for IPv6 within 2000::/3, which is
 * all that has been given out (RFC 4291 section 2.4, RFC 6890).
 */
function isGlobal(address: ipaddr.IPv4 | ipaddr.IPv6): boolean {
  if (address.range() !== "unicast") return false;
  return address.kind() === "ipv4" || (address as ipaddr.IPv6).match(GLOBAL_IPV6, 3);
}

const GLOBAL_IPV6 = ipaddr.IPv6.parse("2000::");

const portOf = (url: URL): number => Number(url.port || (url.protocol === "https:" ? 443 : 80));

export type LookupCallback = (error: Error | null, found: { address: string; family: number }[]) => void;

/** Names under localhost are this machine (RFC 6761 section 6.3); the system's resolver does not know them all. */
async function resolveName(hostname: string): Promise<{ address: string; family: number }[]> {
  if (hostname === "localhost" || hostname.endsWith(".localhost")) return [{ address: "127.0.0.1", family: 4 }];
  return dnsLookup(hostname, { all: true });
}

async function limited(body: Readable, encoding: string): Promise<Buffer> {
  const decoders: Record<string, () => Transform> = {
    gzip: createGunzip,
    deflate: createInflate,
    br: createBrotliDecompress,
  };
  const decoder = decoders[encoding.toLowerCase()]?.();
  const source = decoder ? body.pipe(decoder) : body;
  if (decoder) body.on("error", (error) => decoder.destroy(error));
  const parts: Buffer[] = [];
  let length = 0;
  for await (const part of source) {
    length += part.length;
    if (length > MOST_BYTES) {
      body.destroy();
      throw new SignInFailure("too-much", `more than ${MOST_BYTES / 1024 / 1024} MiB in one answer`);
    }
    parts.push(Buffer.from(part));
  }
  return Buffer.concat(parts);
}

function asFailure(error: unknown, host: string): SignInFailure {
  for (let at = error; at instanceof Error; at = at.cause) {
    if (at instanceof SignInFailure) return at;
    const code = (at as { code?: string }).code ?? "";
    if (at.name === "TimeoutError" || at.name === "AbortError" || /TIMEOUT/.test(code))
      return new SignInFailure("too-slow", `${host} did not answer in time`);
    if (code === "UND_ERR_RES_EXCEEDED_MAX_SIZE")
      return new SignInFailure("too-much", `${host} sent more than a page needs`);
    if (/^Z_|ERR_BUFFER/.test(code))
      return new SignInFailure("site-down", `${host} sent a body that cannot be unpacked`);
  }
  return new SignInFailure("site-down", `${host} cannot be reached`);
}
