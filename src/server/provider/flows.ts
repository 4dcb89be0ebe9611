/** From Galtry to a provider and back: what the network says stands between two transactions, never in one. */
import { randomBytes } from "node:crypto";
import { toBase64Url } from "../../core/crypto";
import { ownAddress } from "../../core/ownAddress";
import type { Caller } from "../caller";
import type { Galtry } from "../galtry";
import { attemptKey, takeAttempt } from "../people/attempts";
import { tokenHash } from "../people/tokens";
import { Refused } from "../refused";
import {
  arrive,
  beginFlow,
  endByProvider,
  joinByProvider,
  linkOwn,
  noteFailure,
  type Purpose,
  proveByProvider,
  takeFlow,
} from "./arrivals";
import { type Identity, ProviderError } from "./identity";
import { identityOf, newVerifier, readLogoutToken, signInAddress } from "./oidc";
import { loadProvider, noteTest, openProvider, type ProviderRow, returnAddress } from "./providers";
import { type SamlProvider, samlIdentityOf, samlSignInAddress } from "./saml";
import { openText, sealText } from "./secrets";
import { arrivals as t } from "./strings";

type Comer = Extract<Caller, { kind: "nobody" | "person" }>;

/** From one address in a quarter of an hour: an office of hundreds comes from one. */
const MOST_BEGUN = 600;
const random = () => toBase64Url(new Uint8Array(randomBytes(32)));

const samlOf = (row: ProviderRow): SamlProvider | null =>
  row.settings.protocol === "saml" ? { id: row.id, issuer: row.issuer, settings: row.settings } : null;

/** They sign in there anew, whoever is signed in there: what comes of it is more than a session. */
const isAgain = (purpose: Purpose): boolean => purpose === "link" || purpose === "prove";

/**
 * Begins a sign-in there.
 * @param browser what this browser presents when it is back; made where it has none
 * @returns where it goes
 * @throws Refused, ProviderError discovery
 */
export async function beginSignIn(
  app: Galtry,
  caller: Comer,
  begin: {
    providerId: string;
    purpose: Purpose;
    next: string;
    loginHint?: string;
    linkToken?: string;
    browser: string | null;
  },
): Promise<{ address: string; browser: string }> {
  const { providerId, purpose } = begin;
  const row = await loadProvider(app.db, providerId);
  if (purpose === "sign-in" && !row.enabled) throw new Refused("ended", t.itIsSwitchedOff);
  await takeAttempt(app, [{ key: attemptKey(app.keys, "sign-on", caller.address), most: MOST_BEGUN }], Date.now());
  const browser = begin.browser ?? random();
  const [state, nonce] = [random(), random()];
  const saml = samlOf(row);
  // Of SAML the id of the request: an XML name, so no digit in front.
  const verifier = saml ? `_${random()}` : newVerifier();
  const again = isAgain(purpose);
  const address = saml
    ? await samlSignInAddress(app, saml, { state, requestId: verifier, again })
    : await signInAddress(await openProvider(app, row), {
        ...{ redirect: returnAddress(app, providerId), state, nonce, verifier },
        ...{ loginHint: (begin.loginHint ?? "").slice(0, 300), again },
      });
  const stateHash = tokenHash(state);
  const sealed = await sealText(app.keys, verifier, "verifier", stateHash);
  await beginFlow.execute(
    app,
    {
      ...{
        providerId,
        purpose,
        stateHash,
        browserHash: tokenHash(browser),
        nonce,
        verifier: sealed.toString("base64"),
      },
      ...{ next: ownAddress(begin.next, app.configuration.publicUrl).slice(0, 2000) },
      linkHash: begin.linkToken ? tokenHash(begin.linkToken) : null,
    },
    caller,
  );
  return { address, browser };
}

export type Arrived =
  | { to: string; session: { token: string; browserToken: string } | null }
  /** By its name, for the sign-in page to say. */
  | { refused: string; next: string };

/** What came back with the browser: of OpenID Connect in its address, of SAML in a form. */
export interface Returned {
  providerId: string;
  address: URL;
  saml: { response: string; state: string } | null;
  browser: string | null;
}

/** Ends what was begun. @throws Refused for what nobody began, or somebody in another browser */
export async function finishSignIn(app: Galtry, caller: Comer, returned: Returned): Promise<Arrived> {
  const { providerId } = returned;
  const row = await loadProvider(app.db, providerId);
  const state = returned.saml?.state ?? returned.address.searchParams.get("state") ?? "";
  const flow = await takeFlow.execute(
    app,
    {
      ...{ providerId, stateHash: tokenHash(state) },
      browserHash: returned.browser === null ? null : tokenHash(returned.browser),
    },
    caller,
  );
  const { purpose, next } = flow;
  const verifier = await openText(app.keys, flow.verifier, "verifier", flow.stateHash);
  const began = Date.now();
  let came: { identity: Identity; statement: { id: string; until: number } | null };
  try {
    came = await read(app, row, returned, { state, nonce: flow.nonce, verifier, again: isAgain(purpose) });
  } catch (error) {
    if (!(error instanceof ProviderError)) throw error;
    const { step, said } = error;
    if (purpose === "test") {
      await noteTest.execute(app, { providerId, steps: stepsTo(step, said, Date.now() - began), claims: {} }, caller);
      return { to: "/tested", session: null };
    }
    await noteFailure.execute(app, { providerId, step, said: said.slice(0, 400) }, caller);
    return { refused: step === "sign-in" && /access_denied/.test(said) ? "denied" : "failed", next };
  }
  const input = { providerId, ...came };
  if (purpose === "test") {
    const ms = Date.now() - began;
    const { identity } = came;
    const steps = [...stepsTo(null, "", ms), personStep(identity)];
    await noteTest.execute(app, { providerId, steps, claims: identity.claims }, caller);
    return { to: "/tested", session: null };
  }
  if (purpose === "link") {
    await linkOwn.execute(app, input, caller);
    return { to: next, session: null };
  }
  if (purpose === "prove") {
    await proveByProvider.execute(app, { ...input, begunAt: flow.createdAt }, caller);
    return { to: "/proved", session: null };
  }
  const comer: Caller =
    caller.kind === "nobody"
      ? caller
      : { kind: "nobody", address: caller.address, browser: caller.browser, knownBrowser: null };
  if (purpose === "join") {
    const { token, browserToken } = await joinByProvider.execute(
      app,
      { ...input, linkHash: flow.linkHash ?? "" },
      comer,
    );
    return { to: next, session: { token, browserToken } };
  }
  const arrived = await arrive.execute(app, input, comer);
  if (!arrived.signedIn) return { refused: arrived.why, next };
  return { to: next, session: { token: arrived.token, browserToken: arrived.browserToken } };
}

async function read(
  app: Galtry,
  row: ProviderRow,
  returned: Returned,
  begun: { state: string; nonce: string; verifier: string; again: boolean },
): Promise<{ identity: Identity; statement: { id: string; until: number } | null }> {
  const saml = samlOf(row);
  if (!saml) {
    if (returned.saml) throw new ProviderError("sign-in", "The answer is of another protocol.");
    // As the provider was given it, whatever the address looked like on its way through proxies.
    const address = new URL(returnAddress(app, row.id));
    address.search = returned.address.search;
    return { identity: await identityOf(await openProvider(app, row), address, begun), statement: null };
  }
  if (!returned.saml) throw new ProviderError("sign-in", "There is no SAML response.");
  const { assertionId, until, ...identity } = await samlIdentityOf(app, saml, returned.saml.response, {
    requestId: begun.verifier,
    again: begun.again,
  });
  return { identity, statement: { id: assertionId, until } };
}

const STEPS = ["sign-in", "exchange", "token"] as const;

/** Each step of a test up to the one that failed; all of them where none did. */
function stepsTo(failed: string | null, said: string, ms: number) {
  const at = failed === null ? STEPS.length : Math.max(0, STEPS.indexOf(failed as (typeof STEPS)[number]));
  const done = STEPS.slice(0, at).map((step) => ({ step, ok: true, ms: 0, said: "" }));
  if (failed === null) return done.map((one, i) => (i === done.length - 1 ? { ...one, ms } : one));
  return [...done, { step: STEPS[at]!, ok: false, ms, said: said.slice(0, 400) }];
}

const personStep = ({ subject, mail, mailVerified }: Identity) => ({
  step: "person" as const,
  ok: true,
  ms: 0,
  said: `${subject.slice(0, 80)}, ${mail || "no email address"}${mail && !mailVerified ? " (not verified)" : ""}`,
});

/** OpenID Connect Back-Channel Logout 1.0. @throws ProviderError, Refused */
export async function logOutByToken(app: Galtry, providerId: string, token: string): Promise<void> {
  const row = await loadProvider(app.db, providerId);
  const provider = await openProvider(app, row);
  const { subject, sid, id, until } = await readLogoutToken(provider, token);
  const statement = { id: tokenHash(`${providerId} logout ${id}`), until };
  await endByProvider.execute(app, { providerId, subject, sid, statement }, { kind: "server" });
}

/** OpenID Connect Front-Channel Logout 1.0: nothing is signed, so it ends the one session that it knows the name of. */
export async function logOutBySession(app: Galtry, providerId: string, issuer: string, sid: string): Promise<void> {
  const row = await loadProvider(app.db, providerId);
  if (issuer !== row.issuer || sid === "") throw new Refused("not-found", t.startAgain);
  await endByProvider.execute(app, { providerId, subject: null, sid, statement: null }, { kind: "server" });
}
