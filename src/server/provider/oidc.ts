/**
 * OpenID Connect Core 1.0: authorisation code with PKCE (RFC 7636), state and nonce; the issuer that answers is the one
 * that was asked (RFC 9207), the ID token's signature is checked against the provider's own keys, and no token is kept.
 */
import { createRemoteJWKSet, customFetch, jwtVerify } from "jose";
import * as client from "openid-client";
import type { ProviderSettings } from "../database/stored";
import { mayCall, outgoingFetch } from "../outgoingFetch";
import { claimsInWords, type Identity, namesOf, ProviderError } from "./identity";

/** How far the clocks of Galtry and the provider may differ. */
export const CLOCK_SECONDS = 60;
const KEPT_MS = 5 * 60_000;

export type OidcSettings = Extract<ProviderSettings, { protocol: "oidc" }>;

export interface OidcProvider {
  id: string;
  issuer: string;
  settings: OidcSettings;
  /** Opened; null where the client has none. */
  secret: string | null;
}

/** Signed with keys that only the provider has: never `none`, never with a secret that both know. */
const ALGORITHMS = [
  "RS256",
  "RS384",
  "RS512",
  "PS256",
  "PS384",
  "PS512",
  "ES256",
  "ES384",
  "ES512",
  "EdDSA",
  "Ed25519",
];

const known = new Map<string, { at: number; metadata: client.ServerMetadata }>();
const keysOf = new Map<string, ReturnType<typeof createRemoteJWKSet>>();

/** What was read of a provider is read anew: its settings have changed, or it is tested. */
export function forget(issuer: string): void {
  known.delete(issuer);
  keysOf.delete(issuer);
}

const way = ({ secret, settings }: OidcProvider): client.ClientAuth =>
  secret === null || settings.secretIn === "none"
    ? client.None()
    : settings.secretIn === "body"
      ? client.ClientSecretPost(secret)
      : client.ClientSecretBasic(secret);

function clientOf(provider: OidcProvider, metadata: client.ServerMetadata): client.Configuration {
  const configuration = new client.Configuration(
    // Of its own: keys are read anew at each sign-in, so that one that was rotated a moment ago counts.
    { ...metadata },
    provider.settings.clientId,
    { [client.clockTolerance]: CLOCK_SECONDS, id_token_signed_response_alg: undefined },
    way(provider),
  );
  configuration[client.customFetch] = outgoingFetch as client.CustomFetch;
  if (new URL(provider.issuer).protocol === "http:") client.allowInsecureRequests(configuration);
  client.enableNonRepudiationChecks(configuration);
  return configuration;
}

/** @throws ProviderError discovery */
async function metadataOf(provider: OidcProvider): Promise<client.ServerMetadata> {
  const before = known.get(provider.issuer);
  if (before && Date.now() - before.at < KEPT_MS) return before.metadata;
  let issuer: URL;
  try {
    issuer = new URL(provider.issuer);
  } catch {
    throw new ProviderError("discovery", "The issuer is not an address.");
  }
  if (!mayCall(issuer)) throw new ProviderError("discovery", "The issuer must begin with https.");
  try {
    const found = await client.discovery(issuer, provider.settings.clientId, undefined, way(provider), {
      [client.customFetch]: outgoingFetch as client.CustomFetch,
      ...(issuer.protocol === "http:" && { execute: [client.allowInsecureRequests] }),
    });
    const metadata = { ...found.serverMetadata() };
    for (const name of ["authorization_endpoint", "token_endpoint", "jwks_uri"] as const) {
      const address = metadata[name];
      if (!address) throw new ProviderError("discovery", `The provider names no ${name}.`);
      if (!mayCall(new URL(address))) throw new ProviderError("discovery", `Its ${name} does not begin with https.`);
    }
    known.set(provider.issuer, { at: Date.now(), metadata });
    return metadata;
  } catch (error) {
    throw error instanceof ProviderError ? error : new ProviderError("discovery", saidBy(error));
  }
}

/** Reads what the provider offers and its keys, anew. @throws ProviderError discovery, keys */
export async function readProvider(
  provider: OidcProvider,
  stepped: (step: "discovery" | "keys", said: string) => void,
): Promise<void> {
  forget(provider.issuer);
  const metadata = await metadataOf(provider);
  stepped("discovery", metadata.issuer);
  let held: { keys?: unknown[] };
  try {
    const answer = await outgoingFetch(metadata.jwks_uri!);
    if (!answer.ok) throw new ProviderError("keys", `The provider answered with status ${answer.status}.`);
    held = (await answer.json()) as typeof held;
  } catch (error) {
    throw error instanceof ProviderError ? error : new ProviderError("keys", saidBy(error));
  }
  if (!Array.isArray(held.keys) || held.keys.length === 0) throw new ProviderError("keys", "It shows no keys.");
  stepped("keys", held.keys.length === 1 ? "1 key" : `${held.keys.length} keys`);
}

export interface Beginning {
  redirect: string;
  state: string;
  nonce: string;
  verifier: string;
  loginHint: string;
  /** They sign in there again, whoever is signed in there now. */
  again: boolean;
}

/** Where the browser goes to sign in. @throws ProviderError discovery */
export async function signInAddress(provider: OidcProvider, begin: Beginning): Promise<string> {
  const configuration = clientOf(provider, await metadataOf(provider));
  return client.buildAuthorizationUrl(configuration, {
    redirect_uri: begin.redirect,
    scope: provider.settings.scopes,
    response_type: "code",
    state: begin.state,
    nonce: begin.nonce,
    code_challenge: await client.calculatePKCECodeChallenge(begin.verifier),
    code_challenge_method: "S256",
    ...(begin.loginHint !== "" && { login_hint: begin.loginHint }),
    ...(begin.again && { prompt: "login", max_age: "0" }),
  }).href;
}

export const newVerifier = client.randomPKCECodeVerifier;

/**
 * What came back with the browser, made into somebody.
 * @param returned the whole address, with what the provider added
 * @throws ProviderError sign-in, exchange, token
 */
export async function identityOf(
  provider: OidcProvider,
  returned: URL,
  begun: { state: string; nonce: string; verifier: string; again: boolean },
): Promise<Identity> {
  const configuration = clientOf(provider, await metadataOf(provider));
  let tokens: Awaited<ReturnType<typeof client.authorizationCodeGrant>>;
  try {
    tokens = await client.authorizationCodeGrant(configuration, returned, {
      pkceCodeVerifier: begun.verifier,
      expectedState: begun.state,
      expectedNonce: begun.nonce,
      idTokenExpected: true,
      ...(begun.again && { maxAge: 2 * CLOCK_SECONDS }),
    });
  } catch (error) {
    throw await failedAt(error);
  }
  const token = tokens.claims();
  if (!token) throw new ProviderError("token", "There is no ID token.");
  // RFC 9207 is younger than many providers: each has a return address of its own besides, and the issuer is checked above.
  const { groupsClaim } = provider.settings;
  let claims: Record<string, unknown> = { ...token };
  const lacks = claims.email === undefined || (groupsClaim !== "" && claims[groupsClaim] === undefined);
  if (lacks && configuration.serverMetadata().userinfo_endpoint && tokens.access_token) {
    // Refused where its `sub` is another one.
    const more = await client
      .fetchUserInfo(configuration, tokens.access_token, token.sub)
      .catch((error) => Promise.reject(new ProviderError("token", saidBy(error))));
    claims = { ...more, ...claims };
  }
  const text = (name: string): string => (typeof claims[name] === "string" ? (claims[name] as string) : "");
  return {
    subject: token.sub,
    mail: text("email").trim().toLowerCase(),
    // The claim is a boolean (Core, 5.1); some send it as text.
    mailVerified: claims.email_verified === true || claims.email_verified === "true",
    name: text("name") || [text("given_name"), text("family_name")].filter(Boolean).join(" "),
    groups: groupsClaim === "" ? null : groupsIn(claims, groupsClaim),
    sid: text("sid") || null,
    signedInAt: typeof claims.auth_time === "number" ? claims.auth_time * 1000 : null,
    claims: claimsInWords(claims),
  };
}

/** Some leave the claim out for somebody in no group; one that is kept elsewhere (Core, 5.6.2) says nothing. */
function groupsIn(claims: Record<string, unknown>, name: string): string[] | null {
  const { _claim_names: elsewhere } = claims;
  const isElsewhere = typeof elsewhere === "object" && elsewhere !== null && Object.hasOwn(elsewhere, name);
  return claims[name] === undefined && !isElsewhere ? [] : namesOf(claims[name]);
}

const LOGOUT_EVENT = "http://schemas.openid.net/event/backchannel-logout";

/**
 * A logout token (OpenID Connect Back-Channel Logout 1.0, section 2.6).
 * @returns whom it signs out, and by which id it counts once
 * @throws ProviderError token
 */
export async function readLogoutToken(
  provider: OidcProvider,
  token: string,
): Promise<{ subject: string | null; sid: string | null; id: string; until: number }> {
  const metadata = await metadataOf(provider);
  let keys = keysOf.get(provider.issuer);
  if (!keys) {
    keys = createRemoteJWKSet(new URL(metadata.jwks_uri!), {
      cooldownDuration: 10_000,
      timeoutDuration: 8_000,
      [customFetch]: outgoingFetch,
    });
    keysOf.set(provider.issuer, keys);
  }
  try {
    const { payload, protectedHeader } = await jwtVerify(token, keys, {
      issuer: metadata.issuer,
      audience: provider.settings.clientId,
      algorithms: ALGORITHMS,
      clockTolerance: CLOCK_SECONDS,
      maxTokenAge: "10 minutes",
      requiredClaims: ["iat", "jti", "events"],
    });
    const { typ } = protectedHeader;
    if (typ !== undefined && !/^(application\/)?(logout\+)?jwt$/i.test(typ))
      throw new Error("it is another sort of token");
    if (payload.nonce !== undefined) throw new Error("it carries a nonce");
    const { events, sid, sub, jti } = payload;
    const event = (events as Record<string, unknown> | null)?.[LOGOUT_EVENT];
    if (typeof event !== "object" || event === null) throw new Error("it is not about signing out");
    const [subject, session] = [typeof sub === "string" ? sub : null, typeof sid === "string" ? sid : null];
    if (subject === null && session === null) throw new Error("it names nobody");
    return { subject, sid: session, id: String(jti), until: Date.now() + 20 * 60_000 };
  } catch (error) {
    throw new ProviderError("token", saidBy(error));
  }
}

async function failedAt(error: unknown): Promise<ProviderError> {
  if (error instanceof client.AuthorizationResponseError)
    return new ProviderError("sign-in", [error.error, error.error_description].filter(Boolean).join(": "));
  if (error instanceof client.ResponseBodyError)
    return new ProviderError("exchange", inItsWords(error.status, error.error, error.error_description));
  if (error instanceof client.WWWAuthenticateChallengeError) {
    // What it says stands in the body, where it says anything.
    const body = (await error.response.json().catch(() => null)) as {
      error?: unknown;
      error_description?: unknown;
    } | null;
    return new ProviderError("exchange", inItsWords(error.status, body?.error, body?.error_description));
  }
  const code = String((error as { code?: unknown }).code ?? "");
  const ofToken = /JWT|JWS|KEY_SELECTION|INVALID_RESPONSE/.test(code);
  return new ProviderError(ofToken ? "token" : "exchange", saidBy(error));
}

const inItsWords = (status: number, ...said: unknown[]): string => {
  const words = said.filter((one): one is string => typeof one === "string" && one !== "").join(": ");
  return `with status ${status}${words && `: ${words}`}`.replace(/\s+/g, " ").slice(0, 300);
};

/** The library's words and those of what lies beneath, without what a token holds. */
function saidBy(error: unknown): string {
  const parts: string[] = [];
  for (let one: unknown = error, depth = 0; one instanceof Error && depth < 3; one = one.cause, depth += 1)
    if (one.message && !parts.includes(one.message)) parts.push(one.message);
  return (parts.join(": ") || "unknown").replace(/\s+/g, " ").slice(0, 300);
}
