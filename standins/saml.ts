/** A small SAML responder with the sample staff: it answers requests, and also begins by itself. */

import { randomUUID } from "node:crypto";
import type { IncomingMessage, ServerResponse } from "node:http";
import type { StaffAccount } from "./provider";
import { assertionOf, type KeyPair, newPair, posted, requestOf, responseOf, signed } from "./samlAnswers";

export const SAML_HOST = "saml.localhost";

export interface SamlStandin {
  entityId: string;
  signOnUrl: string;
  pair: KeyPair;
  metadata: string;
  handle: (request: IncomingMessage & { rawBody?: Buffer }, response: ServerResponse) => Promise<void>;
}

const escaped = (text: string) => text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);
const page = (body: string) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Sign in to Tarrowick SAML</title></head><body>${body}</body></html>`;
const PERSISTENT = "urn:oasis:names:tc:SAML:2.0:nameid-format:persistent";
const MINUTE = 60_000;

let made: Promise<KeyPair> | undefined;
/** Every responder of this process has the same: making one takes a second. */
const ownPair = (): Promise<KeyPair> => (made ??= newPair());

/** @param staff read at each request: one list for all stand-ins */
export async function makeSaml(port: number, staff: () => StaffAccount[]): Promise<SamlStandin> {
  const base = `http://${SAML_HOST}:${port}`;
  const pair = await ownPair();
  const entityId = `${base}/metadata`;
  const signOnUrl = `${base}/sso`;
  const body = pair.certificate.replace(/-----[^-]+-----|\s/g, "");
  const metadata = `<md:EntityDescriptor xmlns:md="urn:oasis:names:tc:SAML:2.0:metadata" entityID="${entityId}"><md:IDPSSODescriptor protocolSupportEnumeration="urn:oasis:names:tc:SAML:2.0:protocol"><md:KeyDescriptor use="signing"><ds:KeyInfo xmlns:ds="http://www.w3.org/2000/09/xmldsig#"><ds:X509Data><ds:X509Certificate>${body}</ds:X509Certificate></ds:X509Data></ds:KeyInfo></md:KeyDescriptor><md:SingleSignOnService Binding="urn:oasis:names:tc:SAML:2.0:bindings:HTTP-Redirect" Location="${signOnUrl}"/></md:IDPSSODescriptor></md:EntityDescriptor>`;
  const answerFor = (
    sub: string,
    to: { audience: string; recipient: string; inResponseTo: string; state: string },
  ): string => {
    const found = staff().find((one) => one.sub === sub && one.active);
    if (!found) return page("<p>Nobody of this name is active.</p>");
    const at = Date.now();
    const said = {
      ...{ issuer: entityId, audience: to.audience, recipient: to.recipient, inResponseTo: to.inResponseTo },
      ...{ nameId: sub, nameIdFormat: PERSISTENT, id: `_${randomUUID()}`, at, authnAt: at, sessionIndex: randomUUID() },
      ...{ notBefore: at - MINUTE, notOnOrAfter: at + 5 * MINUTE },
      attributes: { email: [found.mail], name: [found.name], groups: found.groups },
    };
    const xml = responseOf(said, signed(assertionOf(said), "Assertion", pair));
    return page(
      `<form method="post" action="${escaped(to.recipient)}"><input type="hidden" name="SAMLResponse" value="${posted(xml)}"><input type="hidden" name="RelayState" value="${escaped(to.state)}"><noscript><button>Continue</button></noscript></form><script>document.forms[0].submit()</script>`,
    );
  };
  return {
    ...{ entityId, signOnUrl, pair, metadata },
    handle: async (request, response) => {
      const url = new URL(request.url ?? "/", base);
      const send = (text: string, type = "text/html; charset=utf-8") => {
        response.writeHead(200, { "content-type": type });
        response.end(text);
      };
      if (url.pathname === "/metadata") return send(metadata, "application/samlmetadata+xml");
      if (url.pathname !== "/sso") return send(page("<p>A SAML responder.</p>"));
      const form = new URLSearchParams(request.rawBody?.toString("utf8") ?? "");
      if (request.method === "POST") {
        const { id, recipient, issuer, state } = requestOf(form.get("request") ?? base);
        return send(answerFor(form.get("sub") ?? "", { audience: issuer, recipient, inResponseTo: id, state }));
      }
      const people = staff()
        .filter(({ active }) => active)
        .map(
          ({ sub, name }) =>
            `<li><form method="post" action="/sso"><input type="hidden" name="request" value="${escaped(url.href)}"><input type="hidden" name="sub" value="${escaped(sub)}"><button>${escaped(name)}</button></form></li>`,
        );
      send(page(`<h1>Sign in to Tarrowick SAML</h1><ul>${people.join("")}</ul>`));
    },
  };
}
