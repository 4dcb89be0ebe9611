/** Between HTTP and the use cases: who calls, how answers and refusals look, cookies. */

import { BlockList, isIP } from "node:net";
import type { Caller } from "./caller";
import { isDatabaseAway } from "./database/unreachable";
import { type Galtry, galtry, upToDate } from "./galtry";
import { failed, unexpected } from "./log";
import { onceAMinute } from "./onceAMinute";
import { renewSession, sessionCaller } from "./people/sessions";
import { type RefusalCode, Refused } from "./refused";
import { registry } from "./registry";
import { REQUEST_ID } from "./requestId";

const STATUS: Record<RefusalCode, number> = {
  "signed-out": 401,
  "not-allowed": 403,
  "not-found": 404,
  "bad-input": 422,
  conflict: 409,
  "too-many": 429,
  "prove-again": 403,
  "add-way": 403,
  "second-yes": 409,
  "ask-first": 403,
  "accept-first": 403,
  ended: 410,
};

export const json = (body: unknown, status = 200, headers: [string, string][] = []): Response =>
  Response.json(body, {
    status,
    headers: [["cache-control", "no-store"], ["x-content-type-options", "nosniff"], ...headers],
  });

export function refusal(refused: Refused): Response {
  const { code, message, field, data } = refused;
  return json({ ok: false, refused: { code, message, field, data } }, STATUS[code]);
}

/** Runs a handler; a refusal becomes an answer, anything else a reference without a stack. */
export async function answering(
  request: Pick<Request, "headers" | "url">,
  work: () => Promise<Response>,
): Promise<Response> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof Refused) return refusal(error);
    if (isDatabaseAway(error)) {
      failed("database", error);
      const message =
        "Galtry cannot reach its database. When it is back, check whether this was saved before you try again.";
      return json({ ok: false, refused: { code: "unreachable", message } }, 503, [["retry-after", "2"]]);
    }
    const place = new URL(request.url).pathname;
    const reference = unexpected(place, error, request.headers.get(REQUEST_ID) ?? undefined);
    return json(
      {
        ok: false,
        refused: { code: "unexpected", message: `Something went wrong. If it happens again, quote ${reference}.` },
      },
      500,
    );
  }
}

/** Proxies commonly end an answer of which nothing has come for a minute, or for half of one. */
const SIGN_OF_LIFE_MS = 10_000;

/**
 * For work that waits for other people's servers: the answer begins at once, with white space that JSON allows before
 * a value, so that nothing on the way takes it for dead. Its status is 200 whatever comes: the body says.
 */
export function answeringSlowly(
  request: Pick<Request, "headers" | "url">,
  work: () => Promise<Response>,
  every = SIGN_OF_LIFE_MS,
): Response {
  const words = new TextEncoder();
  let timer: ReturnType<typeof setInterval> | undefined;
  const body = new ReadableStream<Uint8Array>({
    async start(stream) {
      const say = (text: string) => stream.enqueue(words.encode(text));
      say("\n");
      timer = setInterval(() => say("\n"), every);
      const answer = await answering(request, work);
      const text = await answer.text();
      clearInterval(timer);
      // Whoever has gone hears nothing.
      try {
        say(text);
        stream.close();
      } catch {
        // as said
      }
    },
    cancel: () => clearInterval(timer),
  });
  return new Response(body, {
    headers: [
      ["content-type", "application/json"],
      ["cache-control", "no-store"],
      ["x-content-type-options", "nosniff"],
      ["x-accel-buffering", "no"],
    ],
  });
}

/** Requests that change something come from Galtry's own pages. */
export function requireOrigin(request: Request, app: Galtry): void {
  const origin = request.headers.get("origin");
  if (origin !== app.configuration.publicUrl.origin)
    throw new Refused("not-allowed", "This request does not come from Galtry’s own page.");
}

export const secureCookies = (app: Galtry) => app.configuration.publicUrl.protocol === "https:";
export const sessionCookie = (app: Galtry) => (secureCookies(app) ? "__Host-galtry_session" : "galtry_session");
export const browserCookie = (app: Galtry) => (secureCookies(app) ? "__Host-galtry_browser" : "galtry_browser");

export function setCookie(app: Galtry, name: string, value: string, maxAgeSeconds: number): string {
  return `${name}=${value}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${maxAgeSeconds}${secureCookies(app) ? "; Secure" : ""}`;
}

export function readCookie(request: Pick<Request, "headers">, name: string): string | null {
  for (const pair of (request.headers.get("cookie") ?? "").split(";")) {
    const at = pair.indexOf("=");
    if (pair.slice(0, at).trim() === name) return pair.slice(at + 1).trim();
  }
  return null;
}

/** The address a request comes from. X-Forwarded-For counts only as far as trusted proxies wrote it. */
export function addressOf(request: Pick<Request, "headers">, app: Galtry): string {
  const peer = request.headers.get("x-galtry-peer") ?? "unknown";
  const proxies = new BlockList();
  for (const proxy of app.configuration.trustedProxies) {
    const [address, bits] = proxy.split("/");
    const family = isIP(address ?? "") === 6 ? "ipv6" : "ipv4";
    if (bits) proxies.addSubnet(address!, Number(bits), family);
    else if (isIP(address ?? "")) proxies.addAddress(address!, family);
  }
  const trusted = (address: string) =>
    isIP(address) !== 0 && proxies.check(address, isIP(address) === 6 ? "ipv6" : "ipv4");
  const chain = [
    ...(request.headers.get("x-forwarded-for") ?? "")
      .split(",")
      .map((one) => one.trim())
      .filter(Boolean),
    peer,
  ];
  while (chain.length > 1 && trusted(chain.at(-1)!)) chain.pop();
  return chain.at(-1) ?? peer;
}

/** "Chromium 156 on Linux": what people call their browser. */
export function browserName(userAgent: string): string {
  const browser = /(Edg|OPR|Firefox|Chrome|Version)\/(\d+)/.exec(userAgent.replace(/Chrome\/\d+.*?(Edg|OPR)\//, "$1/"));
  const names: Record<string, string> = { Edg: "Edge", OPR: "Opera", Version: "Safari" };
  const system = /Android|iPhone|iPad|Windows|Mac OS X|CrOS|Linux/.exec(userAgent)?.[0] ?? "";
  const systems: Record<string, string> = { "Mac OS X": "macOS", CrOS: "ChromeOS" };
  if (!browser) return "a browser";
  return `${names[browser[1]!] ?? browser[1]} ${browser[2]}${system ? ` on ${systems[system] ?? system}` : ""}`;
}

const mayKeep = onceAMinute();

/** That somebody has just been signed out is no failure of what is kept beside. */
export const orRefused = (act: string) => (error: unknown) =>
  error instanceof Refused ? undefined : failed(act, error);

/** Writes "last seen": the idle limit moves while somebody works. */
async function keepNow(app: Galtry, caller: Extract<Caller, { kind: "person" }>): Promise<void> {
  if (!caller.sessionId || !mayKeep(caller.sessionId, Date.now())) return;
  await renewSession.execute(app, {}, caller).catch(orRefused("people.renewSession"));
}

/** Who calls from a page: a person with a session, or nobody. */
export async function pageCaller(request: Pick<Request, "headers">): Promise<{ app: Galtry; caller: Caller }> {
  const app = await galtry();
  await upToDate(app);
  const from = { address: addressOf(request, app), browser: browserName(request.headers.get("user-agent") ?? "") };
  const token = readCookie(request, sessionCookie(app));
  const person = token === null ? null : await sessionCaller(app.db, token, Date.now(), from);
  if (person) {
    void keepNow(app, person);
    return { app, caller: person };
  }
  return { app, caller: { kind: "nobody", ...from, knownBrowser: readCookie(request, browserCookie(app)) } };
}

/**
 * Somebody signed in has Galtry visit a site, from one of its own pages: who they are, and the browser that the site sees.
 * @throws Refused signed-out; forbidden from elsewhere
 */
export async function visitor(request: Request) {
  const { app, caller } = await pageCaller(request);
  requireOrigin(request, app);
  if (caller.kind !== "person") throw new Refused("signed-out", "Sign in first.");
  const seenAs = {
    userAgent: request.headers.get("user-agent") ?? "",
    acceptLanguage: request.headers.get("accept-language") ?? "",
  };
  return { app, caller, seenAs };
}

export async function runNamed(
  type: "command" | "query",
  name: string,
  request: Request,
): Promise<{ app: Galtry; caller: Caller; result: unknown }> {
  const { app, caller } = await pageCaller(request);
  if (type === "command" || request.method !== "GET") requireOrigin(request, app);
  const found = registry.get(name);
  if (!found || found.type !== type || found.internal || !(found.by.includes("person") || found.by.includes("nobody")))
    throw new Refused("not-found", "There is nothing at this address.");
  const input = await readJson(request);
  const result = await found.execute(app, input, caller);

  return { app, caller, result };
}

const MOST_JSON = 3 * 1024 * 1024;

/** @throws Refused bad-input for too much, or for what is not JSON */
export async function readJson(request: Request): Promise<unknown> {
  const text = await readText(request);
  try {
    return text === "" ? {} : JSON.parse(text);
  } catch {
    throw new Refused("bad-input", "This is not JSON.");
  }
}

/** Stops reading as soon as it is too much, whatever length was announced. */
async function readText(request: Request): Promise<string> {
  const decoder = new TextDecoder();
  let text = "";
  let length = 0;
  const reader = request.body?.getReader();
  while (reader) {
    const { value, done } = await reader.read();
    if (done) break;
    length += value.length;
    if (length > MOST_JSON) {
      // The sender has gone already, or goes now.
      void reader.cancel().catch(() => undefined);
      throw new Refused("bad-input", "This is too large.");
    }
    text += decoder.decode(value, { stream: true });
  }
  return text + decoder.decode();
}
