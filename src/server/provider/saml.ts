/**
 * SAML 2.0, Web Browser SSO: a request by redirect, an answer by post. Only an assertion that is itself signed counts, for
 * this Galtry's own audience and address, in answer to the request of the same browser, once and in its time. An answer
 * that nobody asked for is not taken: Galtry then asks itself, and the provider answers that.
 */
import { createHash, X509Certificate } from "node:crypto";
import { SAML, ValidateInResponseTo } from "@node-saml/node-saml";
import { XMLParser, XMLValidator } from "fast-xml-parser";
import type { ProviderSettings } from "../database/stored";
import type { Galtry } from "../galtry";
import { claimsInWords, type Identity, namesOf, ProviderError } from "./identity";
import { CLOCK_SECONDS } from "./oidc";

export type SamlSettings = Extract<ProviderSettings, { protocol: "saml" }>;

export interface SamlProvider {
  id: string;
  issuer: string;
  settings: SamlSettings;
}

const SKEW_MS = CLOCK_SECONDS * 1000;
const OLDEST_MS = 10 * 60_000;
/** Of the answer as it is posted. */
export const MOST_SAML_BYTES = 512 * 1024;
/** Opening and closing ones: a person in a thousand groups has fewer. */
const MOST_TAGS = 8_000;

export const entityId = (app: Galtry, providerId: string): string =>
  new URL(`/sso/${providerId}/metadata`, app.configuration.publicUrl).href;
export const answerAddress = (app: Galtry, providerId: string): string =>
  new URL(`/sso/${providerId}/acs`, app.configuration.publicUrl).href;

/** A certificate as PEM, or its body alone. */
export function readCertificate(text: string): { body: string; until: number; subject: string } | null {
  const body = text.replace(/-----[^-]+-----/g, "").replace(/\s+/g, "");
  try {
    const read = new X509Certificate(Buffer.from(body, "base64"));
    return {
      body,
      until: Date.parse(read.validTo),
      subject: /CN=([^\n]+)/.exec(read.subject)?.[1] ?? read.subject.replaceAll("\n", ", "),
    };
  } catch {
    return null;
  }
}

/** What can be said of a provider before anybody signs in. @throws ProviderError keys */
export function samlFacts(settings: SamlSettings, now: number): { step: "discovery" | "keys"; said: string }[] {
  const certificates = settings.certificates.map(readCertificate);
  const good = certificates.filter((one) => one !== null && one.until > now);
  if (good.length === 0) throw new ProviderError("keys", "Its certificate has expired.");
  return [
    { step: "discovery", said: settings.signOnUrl },
    { step: "keys", said: good.length === 1 ? "1 certificate" : `${good.length} certificates` },
  ];
}

function samlOf(app: Galtry, provider: SamlProvider, requestId: string, again: boolean): SAML {
  const callbackUrl = answerAddress(app, provider.id);
  const issuer = entityId(app, provider.id);
  return new SAML({
    ...{ callbackUrl, issuer, audience: issuer, entryPoint: provider.settings.signOnUrl, idpIssuer: provider.issuer },
    idpCert: provider.settings.certificates,
    wantAssertionsSigned: true,
    // Many sign the assertion alone; what counts stands in it.
    wantAuthnResponseSigned: false,
    acceptedClockSkewMs: SKEW_MS,
    maxAssertionAgeMs: OLDEST_MS,
    requestIdExpirationPeriodMs: OLDEST_MS,
    validateInResponseTo: ValidateInResponseTo.always,
    cacheProvider: onlyRequest(requestId),
    generateUniqueId: () => requestId,
    identifierFormat: null,
    disableRequestedAuthnContext: true,
    forceAuthn: again,
    signatureAlgorithm: "sha256",
  });
}

/** Knows one request: that of the browser that is back. */
const onlyRequest = (requestId: string) => ({
  saveAsync: async (_key: string, value: string) => ({ value, createdAt: Date.now() }),
  getAsync: async (key: string) => (key === requestId ? new Date().toISOString() : null),
  removeAsync: async (key: string | null) => key,
});

/** Where the browser goes to sign in. */
export const samlSignInAddress = (
  app: Galtry,
  provider: SamlProvider,
  begin: { state: string; requestId: string; again: boolean },
): Promise<string> =>
  samlOf(app, provider, begin.requestId, begin.again).getAuthorizeUrlAsync(begin.state, undefined, {});

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: "@",
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  processEntities: false,
  alwaysCreateTextNode: true,
});
type Node = { [name: string]: unknown };
const list = (value: unknown): Node[] =>
  (Array.isArray(value) ? value : value === undefined ? [] : [value]).filter(
    (one): one is Node => typeof one === "object" && one !== null,
  );

/**
 * What was posted, made into somebody.
 * @param posted SAMLResponse, in Base64
 * @throws ProviderError exchange, token
 */
export async function samlIdentityOf(
  app: Galtry,
  provider: SamlProvider,
  posted: string,
  begun: { requestId: string; again: boolean },
): Promise<Identity & { assertionId: string; until: number }> {
  const refuse = (said: string) => new ProviderError("token", said);
  if (posted.length > MOST_SAML_BYTES) throw refuse("The answer is too large.");
  const text = Buffer.from(posted, "base64").toString("utf8");
  // Read with care before it is read at length: whoever begins a sign-in may post anything.
  if ((text.match(/</g)?.length ?? 0) > MOST_TAGS || XMLValidator.validate(text) !== true)
    throw refuse("The answer is not a SAML response.");
  // No document of this protocol has one; entities are how small ones grow.
  if (/<!DOCTYPE|<!ENTITY/i.test(text)) throw refuse("The answer carries a document type.");
  if (/xmldsig#(rsa-sha1|dsa-sha1|sha1|hmac-sha1)|xmldsig-more#(md5|rsa-md5|hmac)/i.test(text))
    throw refuse("It is signed in a way that is no longer safe (SHA-1, MD5 or a shared key).");
  let profile: Awaited<ReturnType<SAML["validatePostResponseAsync"]>>["profile"];
  try {
    ({ profile } = await samlOf(app, provider, begun.requestId, begun.again).validatePostResponseAsync({
      SAMLResponse: posted,
    }));
  } catch (error) {
    throw refuse((error instanceof Error ? error.message : String(error)).replace(/\s+/g, " ").slice(0, 300));
  }
  const signed = profile?.getAssertionXml?.();
  if (!profile || !signed) throw refuse("There is no signed assertion.");
  // Of what was signed, and of nothing beside it.
  const assertions = list((parser.parse(signed) as Node).Assertion);
  const [assertion] = assertions;
  if (!assertion || assertions.length > 1) throw refuse("There is not exactly one assertion.");
  if (list(assertion.Issuer)[0]?.["#text"] !== provider.issuer) throw refuse("It is from another issuer.");
  const [subject, ...subjects] = list(assertion.Subject);
  const names = list(subject?.NameID);
  if (!subject || subjects.length > 0 || names.length !== 1) throw refuse("It does not name exactly one subject.");
  const confirmed = list(subject.SubjectConfirmation).some(({ "@Method": method, SubjectConfirmationData }) =>
    list(SubjectConfirmationData).some(
      (data) =>
        method === "urn:oasis:names:tc:SAML:2.0:cm:bearer" &&
        data["@Recipient"] === answerAddress(app, provider.id) &&
        data["@InResponseTo"] === begun.requestId &&
        Date.parse(String(data["@NotOnOrAfter"])) + SKEW_MS > Date.now(),
    ),
  );
  if (!confirmed) throw refuse("It is not for this address and this request (Recipient, InResponseTo, NotOnOrAfter).");
  const assertionId = String(assertion["@ID"] ?? "");
  if (assertionId === "") throw refuse("The assertion has no ID.");
  const [statement] = list(assertion.AuthnStatement);
  if (!statement) throw refuse("It does not say that anyone signed in.");
  const signedInAt = Date.parse(String(statement["@AuthnInstant"]));
  if (begun.again && !(signedInAt > Date.now() - 2 * 60_000 - SKEW_MS)) throw refuse("They did not sign in anew.");
  const { mailAttribute, nameAttribute, groupsAttribute } = provider.settings;
  const attributes = (profile.attributes ?? {}) as Record<string, unknown>;
  const said = (name: string): string => (name === "" ? "" : (namesOf(attributes[name])?.[0] ?? ""));
  const { nameID, nameIDFormat } = profile;
  const byMail = nameIDFormat?.endsWith("emailAddress") ? nameID : "";
  if (nameIDFormat?.endsWith(":transient")) throw refuse("It names its subject anew each time (transient).");
  if (!nameID) throw refuse("It names nobody.");
  const conditions = list(assertion.Conditions)[0];
  const until = Math.max(Date.parse(String(conditions?.["@NotOnOrAfter"])) || 0, Date.now() + OLDEST_MS) + 2 * SKEW_MS;
  return {
    subject: nameID,
    mail: (said(mailAttribute) || byMail).toLowerCase(),
    // What it asserts it has checked: that is what SAML is trusted for, within the domains it is trusted with.
    mailVerified: true,
    name: said(nameAttribute),
    // Some providers leave the attribute out for somebody who is in no group.
    groups: groupsAttribute === "" ? null : namesOf(attributes[groupsAttribute] ?? []),
    sid: profile.sessionIndex ?? null,
    signedInAt: Number.isFinite(signedInAt) ? signedInAt : null,
    claims: claimsInWords({ NameID: nameID, ...attributes }),
    assertionId: createHash("sha256").update(`${provider.id} ${assertionId}`).digest("hex"),
    until,
  };
}

/** This Galtry's own metadata, for the provider. */
export const samlMetadata = (app: Galtry, provider: SamlProvider): string =>
  samlOf(app, provider, "_", false).generateServiceProviderMetadata(null, null);

export interface ReadMetadata {
  issuer: string;
  signOnUrl: string;
  certificates: string[];
}

/** A provider's metadata: whom it calls itself, where one signs in, and its certificates. Null where it is none. */
export function readMetadata(xml: string): ReadMetadata | null {
  if (xml.length > MOST_SAML_BYTES || /<!DOCTYPE|<!ENTITY/i.test(xml)) return null;
  let read: Node;
  try {
    read = parser.parse(xml) as Node;
  } catch {
    return null;
  }
  const [entity] = list(read.EntityDescriptor);
  const [descriptor] = list(entity?.IDPSSODescriptor);
  if (!entity || !descriptor) return null;
  const way = list(descriptor.SingleSignOnService).find(
    (one) => one["@Binding"] === "urn:oasis:names:tc:SAML:2.0:bindings:HTTP-Redirect",
  );
  const certificates = list(descriptor.KeyDescriptor)
    .filter((key) => key["@use"] === undefined || key["@use"] === "signing")
    .flatMap((key) => list(key.KeyInfo))
    .flatMap((info) => list(info.X509Data))
    .flatMap((data) => list(data.X509Certificate))
    .map((one) => readCertificate(String(one["#text"] ?? "")))
    .flatMap((one) => (one ? [one] : []))
    // The latest ones, where there are more.
    .sort((a, b) => b.until - a.until)
    .map(({ body }) => body);
  if (!way || certificates.length === 0) return null;
  return {
    issuer: String(entity["@entityID"] ?? ""),
    signOnUrl: String(way["@Location"] ?? ""),
    certificates: [...new Set(certificates)].slice(0, 2),
  };
}
