/** SAML answers: signed as they are told to be, also as no provider should. */
import { inflateRawSync } from "node:zlib";
import { generate } from "selfsigned";
import { SignedXml } from "xml-crypto";

export interface KeyPair {
  key: string;
  certificate: string;
}

/** A key with a self-signed certificate. */
export async function newPair(days = 400): Promise<KeyPair> {
  const notAfterDate = new Date(Date.now() + days * 86_400_000);
  const made = await generate([{ name: "commonName", value: "Tarrowick SAML" }], {
    ...{ keySize: 2048, algorithm: "sha256", notAfterDate },
  });
  return { key: made.private, certificate: made.cert };
}

export interface Said {
  issuer: string;
  audience: string;
  recipient: string;
  inResponseTo: string;
  nameId: string;
  nameIdFormat: string;
  attributes: Record<string, string[]>;
  id: string;
  at: number;
  notBefore: number;
  notOnOrAfter: number;
  authnAt: number;
  sessionIndex: string;
}

const time = (at: number) => new Date(at).toISOString();

export function assertionOf(said: Said): string {
  const attributes = Object.entries(said.attributes)
    .map(
      ([name, values]) =>
        `<saml:Attribute Name="${name}">${values.map((one) => `<saml:AttributeValue>${one}</saml:AttributeValue>`).join("")}</saml:Attribute>`,
    )
    .join("");
  return `<saml:Assertion xmlns:saml="urn:oasis:names:tc:SAML:2.0:assertion" ID="${said.id}" Version="2.0" IssueInstant="${time(said.at)}"><saml:Issuer>${said.issuer}</saml:Issuer><saml:Subject><saml:NameID Format="${said.nameIdFormat}">${said.nameId}</saml:NameID><saml:SubjectConfirmation Method="urn:oasis:names:tc:SAML:2.0:cm:bearer"><saml:SubjectConfirmationData NotOnOrAfter="${time(said.notOnOrAfter)}" Recipient="${said.recipient}" InResponseTo="${said.inResponseTo}"/></saml:SubjectConfirmation></saml:Subject><saml:Conditions NotBefore="${time(said.notBefore)}" NotOnOrAfter="${time(said.notOnOrAfter)}"><saml:AudienceRestriction><saml:Audience>${said.audience}</saml:Audience></saml:AudienceRestriction></saml:Conditions><saml:AuthnStatement AuthnInstant="${time(said.authnAt)}" SessionIndex="${said.sessionIndex}"><saml:AuthnContext><saml:AuthnContextClassRef>urn:oasis:names:tc:SAML:2.0:ac:classes:Password</saml:AuthnContextClassRef></saml:AuthnContext></saml:AuthnStatement><saml:AttributeStatement>${attributes}</saml:AttributeStatement></saml:Assertion>`;
}

export const responseOf = (said: Said, inside: string): string =>
  `<samlp:Response xmlns:samlp="urn:oasis:names:tc:SAML:2.0:protocol" xmlns:saml="urn:oasis:names:tc:SAML:2.0:assertion" ID="r-${said.id}" Version="2.0" IssueInstant="${time(said.at)}" Destination="${said.recipient}" InResponseTo="${said.inResponseTo}"><saml:Issuer>${said.issuer}</saml:Issuer><samlp:Status><samlp:StatusCode Value="urn:oasis:names:tc:SAML:2.0:status:Success"/></samlp:Status>${inside}</samlp:Response>`;

const SHA256 = {
  signature: "http://www.w3.org/2001/04/xmldsig-more#rsa-sha256",
  digest: "http://www.w3.org/2001/04/xmlenc#sha256",
};
export const SHA1 = {
  signature: "http://www.w3.org/2000/09/xmldsig#rsa-sha1",
  digest: "http://www.w3.org/2000/09/xmldsig#sha1",
};

/** Signs the element of a name in a document, after its issuer as the schema has it. */
export function signed(
  xml: string,
  element: "Assertion" | "Response",
  { key, certificate }: KeyPair,
  by = SHA256,
): string {
  const signature = new SignedXml({
    privateKey: key,
    publicCert: certificate,
    signatureAlgorithm: by.signature,
    canonicalizationAlgorithm: "http://www.w3.org/2001/10/xml-exc-c14n#",
  });
  const xpath = `//*[local-name(.)='${element}']`;
  signature.addReference({
    xpath,
    digestAlgorithm: by.digest,
    transforms: ["http://www.w3.org/2000/09/xmldsig#enveloped-signature", "http://www.w3.org/2001/10/xml-exc-c14n#"],
  });
  signature.computeSignature(xml, {
    location: { reference: `${xpath}/*[local-name(.)='Issuer']`, action: "after" },
    prefix: "ds",
  });
  return signature.getSignedXml();
}

export const posted = (xml: string): string => Buffer.from(xml, "utf8").toString("base64");

/** What a request says, from the address the browser is sent to. */
export function requestOf(address: string): {
  id: string;
  recipient: string;
  issuer: string;
  xml: string;
  state: string;
} {
  const query = new URL(address).searchParams;
  const xml = inflateRawSync(Buffer.from(query.get("SAMLRequest")!, "base64")).toString("utf8");
  const part = (pattern: RegExp) => pattern.exec(xml)?.[1] ?? "";
  return {
    id: part(/\bID="([^"]+)"/),
    recipient: part(/AssertionConsumerServiceURL="([^"]+)"/),
    issuer: part(/Issuer[^>]*>([^<]+)</),
    xml,
    state: query.get("RelayState")!,
  };
}
