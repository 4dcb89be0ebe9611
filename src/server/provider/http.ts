/** The addresses of single sign-on: begun here, returned to, signed out from there. */
import { z } from "zod";
import { ownAddress } from "../../core/ownAddress";
import type { Caller } from "../caller";
import type { Galtry } from "../galtry";
import {
  browserCookie,
  json,
  pageCaller,
  readCookie,
  readJson,
  requireOrigin,
  secureCookies,
  sessionCookie,
  setCookie,
} from "../http";
import { failed } from "../log";
import { SESSION_LONGEST_MS } from "../people/sessions";
import { Refused } from "../refused";
import { FLOW_MS, PURPOSES } from "./arrivals";
import { type Arrived, beginSignIn, finishSignIn, logOutBySession, logOutByToken, type Returned } from "./flows";
import { ProviderError } from "./identity";
import { loadProvider } from "./providers";
import { MOST_SAML_BYTES, samlMetadata } from "./saml";

const flowCookie = (app: Galtry) => (secureCookies(app) ? "__Host-galtry_sso" : "galtry_sso");

type Comer = Extract<Caller, { kind: "nobody" | "person" }>;

const to = (app: Galtry, path: string, cookies: string[] = []): Response => {
  const headers = new Headers({
    location: new URL(path, app.configuration.publicUrl).href,
    "cache-control": "no-store",
  });
  for (const cookie of cookies) headers.append("set-cookie", cookie);
  return new Response(null, { status: 303, headers });
};

/** Whoever is signed in was linking an account or confirming that it is them: they go on from their own page. */
const toSayWhy = (app: Galtry, caller: Caller, providerId: string, code: string, next: string): Response =>
  caller.kind === "person"
    ? to(app, `/account?${new URLSearchParams({ sso: code, provider: providerId })}`)
    : to(app, `/sign-in?${new URLSearchParams({ sso: code, provider: providerId, next })}`);

/** What is said of a refusal on the sign-in page, by name. */
const CODES: Partial<Record<string, string>> = { ended: "ended", "too-many": "too-many", "signed-out": "ended" };

/** A field of a form that was posted, or of the address. */
async function fieldsOf(request: Request): Promise<URLSearchParams> {
  const inAddress = new URL(request.url).searchParams;
  if (request.method !== "POST") return inAddress;
  if (!/^application\/x-www-form-urlencoded\b/i.test(request.headers.get("content-type") ?? ""))
    throw new Refused("bad-input", "This is not a form.");
  const length = Number(request.headers.get("content-length") ?? 0);
  if (length > 2 * MOST_SAML_BYTES) throw new Refused("bad-input", "This is too large.");
  const reader = request.body?.getReader();
  const decoder = new TextDecoder();
  let text = "";
  for (let read = 0; reader; ) {
    const { value, done } = await reader.read();
    if (done) break;
    read += value.length;
    if (read > 2 * MOST_SAML_BYTES) {
      void reader.cancel().catch(() => undefined);
      throw new Refused("bad-input", "This is too large.");
    }
    text += decoder.decode(value, { stream: true });
  }
  return new URLSearchParams(text);
}

/**
 * To the provider, from the sign-in page or from its own page of applications (OpenID Connect Core, section 4:
 * `iss`, `login_hint`, `target_link_uri`). Whoever is signed in already goes where they wanted.
 */
export async function startAt(request: Request, providerId: string): Promise<Response> {
  const { app, caller } = await pageCaller(request);
  const fields = await fieldsOf(request);
  const next = fields.get("target_link_uri") ?? fields.get("next") ?? "/";
  const issuer = fields.get("iss");
  const row = await loadProvider(app.db, providerId);
  if (issuer !== null && issuer !== row.issuer) return toSayWhy(app, caller, providerId, "failed", "/");
  // Only a path of Galtry's own is ever gone to.
  const wanted = ownAddress(next, app.configuration.publicUrl);
  if (caller.kind === "person") return to(app, wanted);
  try {
    const { address, browser } = await beginSignIn(app, caller as Comer, {
      ...{ providerId, purpose: "sign-in", next: wanted, loginHint: fields.get("login_hint") ?? "" },
      browser: readCookie(request, flowCookie(app)),
    });
    return new Response(null, {
      status: 303,
      headers: {
        location: address,
        "cache-control": "no-store",
        "set-cookie": setCookie(app, flowCookie(app), browser, FLOW_MS / 1000),
      },
    });
  } catch (error) {
    return stopped(app, caller, providerId, error, wanted);
  }
}

const begunSchema = z.strictObject({
  purpose: z.enum(PURPOSES),
  next: z.string().max(2000).default("/"),
  token: z.string().max(200).optional(),
});

/** From a button of Galtry's own page: for whatever is more than a sign-in. Gives where the browser goes. */
export async function beginAt(request: Request, providerId: string): Promise<Response> {
  const { app, caller } = await pageCaller(request);
  requireOrigin(request, app);
  const read = begunSchema.safeParse(await readJson(request));
  if (!read.success) throw new Refused("bad-input", "This is not a way to begin.");
  const input = read.data;
  try {
    const { address, browser } = await beginSignIn(app, caller as Comer, {
      ...{ providerId, purpose: input.purpose, next: input.next },
      ...(input.token !== undefined && { linkToken: input.token }),
      browser: readCookie(request, flowCookie(app)),
    });
    return json({ ok: true, result: { address } }, 200, [
      ["set-cookie", setCookie(app, flowCookie(app), browser, FLOW_MS / 1000)],
    ]);
  } catch (error) {
    if (!(error instanceof ProviderError)) throw error;
    throw new Refused("conflict", `The identity provider did not answer: ${error.said}`);
  }
}

/** Back from the provider. */
export async function returnAt(request: Request, providerId: string): Promise<Response> {
  const { app, caller } = await pageCaller(request);
  const fields = request.method === "POST" ? await fieldsOf(request) : null;
  const response = fields?.get("SAMLResponse");
  const returned: Returned = {
    providerId,
    address: new URL(request.url),
    saml: response ? { response, state: fields?.get("RelayState") ?? "" } : null,
    browser: readCookie(request, flowCookie(app)),
  };
  let arrived: Arrived;
  try {
    arrived = await finishSignIn(app, caller as Comer, returned);
  } catch (error) {
    return stopped(app, caller, providerId, error, "/");
  }
  if ("refused" in arrived) return toSayWhy(app, caller, providerId, arrived.refused, arrived.next);
  const { session } = arrived;
  return to(
    app,
    arrived.to,
    session
      ? [
          setCookie(app, sessionCookie(app), session.token, SESSION_LONGEST_MS / 1000),
          setCookie(app, browserCookie(app), session.browserToken, 400 * 24 * 3600),
        ]
      : [],
  );
}

/** What a person reads of it; the rest stands in the log and, where there was a provider to blame, in the Journal. */
function stopped(app: Galtry, caller: Caller, providerId: string, error: unknown, next: string): Response {
  if (error instanceof ProviderError) return toSayWhy(app, caller, providerId, "failed", next);
  if (!(error instanceof Refused)) throw error;
  if (error.code === "not-found") return to(app, caller.kind === "person" ? "/account" : "/sign-in");
  return toSayWhy(app, caller, providerId, CODES[error.code] ?? refusedCode(error), next);
}

const refusedCode = (error: Refused): string =>
  error.code === "prove-again" ? "prove-again" : error.code === "conflict" ? "conflict" : "not-allowed";

/**
 * SAML posts from the provider's own page, and a browser leaves its cookies out of that: this page posts it once more,
 * from here, so that it is told whether this is the browser that began.
 */
export async function acsAt(request: Request, providerId: string): Promise<Response> {
  const fields = await fieldsOf(request);
  const { app } = await pageCaller(request);
  const row = await loadProvider(app.db, providerId);
  const response = fields.get("SAMLResponse") ?? "";
  const state = fields.get("RelayState") ?? "";
  // An answer that nobody asked for: Galtry asks now, and the provider, where they are signed in, answers that.
  if (row.protocol !== "saml" || response === "" || !answersRequest(response)) {
    const next = state.startsWith("/") || /^https?:/.test(state) ? ownAddress(state, app.configuration.publicUrl) : "/";
    return to(app, `/sso/${providerId}/start?${new URLSearchParams({ next })}`);
  }
  const nonce = request.headers.get("x-nonce") ?? "";
  const escaped = (text: string) => text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);
  const page = `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Galtry</title></head><body>
<form method="post" action="/sso/${encodeURIComponent(providerId)}/return">
<input type="hidden" name="SAMLResponse" value="${escaped(response)}">
<input type="hidden" name="RelayState" value="${escaped(state)}">
<noscript><button>Continue to Galtry</button></noscript>
</form><script nonce="${escaped(nonce)}">document.forms[0].submit()</script></body></html>`;
  return new Response(page, {
    headers: { "content-type": "text/html; charset=utf-8", "cache-control": "no-store" },
  });
}

/** Whether a response says that it answers a request; whether that is true is looked at where it is read. */
const answersRequest = (posted: string): boolean =>
  /\bInResponseTo\s*=/.test(Buffer.from(posted.slice(0, MOST_SAML_BYTES), "base64").toString("utf8"));

export async function metadataAt(request: Request, providerId: string): Promise<Response> {
  const { app } = await pageCaller(request);
  const row = await loadProvider(app.db, providerId);
  if (row.settings.protocol !== "saml") throw new Refused("not-found", "There is nothing at this address.");
  return new Response(samlMetadata(app, { id: row.id, issuer: row.issuer, settings: row.settings }), {
    headers: { "content-type": "application/samlmetadata+xml; charset=utf-8", "cache-control": "no-store" },
  });
}

/** The provider's own server says that somebody has signed out there. */
export async function backChannelAt(request: Request, providerId: string): Promise<Response> {
  const headers = { "cache-control": "no-store" };
  try {
    const { app } = await pageCaller(request);
    const token = (await fieldsOf(request)).get("logout_token") ?? "";
    if (token.length === 0 || token.length > 20_000) throw new Refused("bad-input", "There is no logout token.");
    await logOutByToken(app, providerId, token);
    return new Response(null, { status: 200, headers });
  } catch (error) {
    if (!(error instanceof Refused) && !(error instanceof ProviderError)) throw error;
    if (error instanceof ProviderError) failed("provider.logout", error);
    return Response.json({ error: "invalid_request" }, { status: 400, headers });
  }
}

/** Loaded by the provider's own page, in a frame. */
export async function frontChannelAt(request: Request, providerId: string): Promise<Response> {
  const { app } = await pageCaller(request);
  const { searchParams } = new URL(request.url);
  const row = await loadProvider(app.db, providerId);
  await logOutBySession(app, providerId, searchParams.get("iss") ?? "", searchParams.get("sid") ?? "");
  return new Response("<!doctype html><title>Galtry</title>", {
    headers: {
      "content-type": "text/html; charset=utf-8",
      "cache-control": "no-store",
      "content-security-policy": `default-src 'none'; frame-ancestors ${originOf(row.issuer)}`,
    },
  });
}

const originOf = (address: string): string => {
  try {
    return new URL(address).origin;
  } catch {
    return "'none'";
  }
};
