/** Signing in by SAML: an answer that counts, and every way in which one is bent. */
import { and, eq, isNotNull, isNull } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import type { Caller } from "../src/server/caller";
import { notices, providerAccounts, sessions } from "../src/server/database/schema";
import { addPerson } from "../src/server/people/adding";
import { confirmAccount } from "../src/server/provider/arrivals";
import { beginSignIn, finishSignIn } from "../src/server/provider/flows";
import {
  addDomain,
  addProvider,
  changeProvider,
  enableProvider,
  proveDomain,
  providerList,
  providerMetadata,
  tellOfCertificates,
  testProvider,
} from "../src/server/provider/providers";
import { readMetadata, samlMetadata } from "../src/server/provider/saml";
import {
  assertionOf,
  type KeyPair,
  newPair,
  posted,
  requestOf,
  responseOf,
  type Said,
  SHA1,
  signed,
} from "../standins/samlAnswers";
import { cpuTimeOf } from "./cpuTime";

let app: InProcess;
let f: Fixture;
let providerId: string;
let pair: KeyPair;
const db = () => app.galtry;
const ISSUER = "https://saml.tarrowick.example/idp";
const MINUTE = 60_000;
type Comer = Extract<Caller, { kind: "nobody" | "person" }>;

const settings = (certificates: string[]) => ({
  ...{ protocol: "saml" as const, name: "Tarrowick SAML", issuer: ISSUER, certificates },
  signOnUrl: "https://saml.tarrowick.example/sso",
});
const begin = (by: Comer = f.nobody, purpose: "sign-in" | "test" | "prove" = "sign-in") =>
  beginSignIn(db(), by, { providerId, purpose, next: "/", browser: null });

type Begun = Awaited<ReturnType<typeof begin>>;
function saidFor({ address }: Begun, more: Partial<Said> = {}): Said {
  const asked = requestOf(address);
  const at = Date.now();
  return {
    ...{ issuer: ISSUER, audience: asked.issuer, recipient: asked.recipient, inResponseTo: asked.id },
    ...{ nameId: "use-there", nameIdFormat: "urn:oasis:names:tc:SAML:2.0:nameid-format:persistent" },
    attributes: { email: ["use@tarrowick.example"], name: ["Person use"], groups: ["tm-shop", "tm-all"] },
    ...{ id: `_${Math.random().toString(36).slice(2)}`, at, authnAt: at, sessionIndex: "s-1" },
    ...{ notBefore: at - MINUTE, notOnOrAfter: at + 5 * MINUTE },
    ...more,
  };
}
const send = (begun: Begun, xml: string, by: Comer = f.nobody) =>
  finishSignIn(db(), by, {
    providerId,
    address: new URL(`${app.url}/sso/${providerId}/return`),
    saml: { response: posted(xml), state: requestOf(begun.address).state },
    browser: begun.browser,
  });
const good = (said: Said) => responseOf(said, signed(assertionOf(said), "Assertion", pair));
const openSessions = () =>
  db()
    .db.select()
    .from(sessions)
    .where(and(eq(sessions.personId, f.ids.use), isNull(sessions.endedAt), isNotNull(sessions.providerId)));
const refused = { refused: "failed", next: "/" };

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  pair = await newPair();
  ({ providerId } = await addProvider.execute(db(), settings([pair.certificate]), f.as("owner")));
  const domain = { providerId, domain: "tarrowick.example" };
  await addDomain.execute(db(), domain, f.as("owner"));
  await proveDomain.execute(db(), { ...domain, statement: "Registered in 2004." }, f.as("owner"));
  await testProvider.execute(db(), { providerId }, f.as("owner"));
  const begun = await begin(f.as("owner"), "test");
  await send(begun, good(saidFor(begun, { nameId: "owner-there" })), f.as("owner"));
  await enableProvider.execute(db(), { providerId, enabled: true }, f.as("owner"));
  // Confirmed, so that the account is somebody's.
  const first = await begin();
  expect(await send(first, good(saidFor(first)))).toMatchObject({ refused: "to-link" });
  const [account] = await db()
    .db.select()
    .from(providerAccounts)
    .where(and(eq(providerAccounts.providerId, providerId), eq(providerAccounts.subject, "use-there")));
  await confirmAccount.execute(db(), { accountId: account!.id, yes: true }, f.as("owner"));
});
afterAll(() => app.close());

describe("an answer that counts", () => {
  test("signs in whoever it names; the test showed every attribute", async () => {
    const begun = await begin();
    expect(await send(begun, good(saidFor(begun)))).toMatchObject({ session: { token: expect.any(String) } });
    expect(await openSessions()).toMatchObject([{ providerSid: "s-1" }]);
    const [provider] = (await providerList.execute(db(), {}, f.as("owner"))).providers;
    expect(provider).toMatchObject({
      passed: true,
      lastTest: { claims: { NameID: "owner-there", groups: "tm-shop, tm-all" } },
    });
  });

  test("may have its response signed beside the assertion, and its whole inside another namespace prefix", async () => {
    const begun = await begin();
    expect(await send(begun, signed(good(saidFor(begun)), "Response", pair))).toMatchObject({
      session: expect.anything(),
    });
    const other = await begin();
    const said = saidFor(other);
    const renamed = assertionOf(said).replaceAll("saml:", "a:").replaceAll("xmlns:saml", "xmlns:a");
    expect(await send(other, responseOf(said, signed(renamed, "Assertion", pair)))).toMatchObject({
      session: expect.anything(),
    });
  });

  test("joins somebody who was added and has never been in", async () => {
    const added = { name: "New", mail: "new@tarrowick.example", role: "member" as const };
    await addPerson.execute(db(), added, f.as("administrator"));
    const begun = await begin();
    const said = saidFor(begun, { nameId: "new-there", attributes: { email: ["New@tarrowick.example"] } });
    expect(await send(begun, good(said))).toMatchObject({ session: expect.anything() });
  });
});

describe("a certificate takes the place of another", () => {
  test("while both are here either counts; the old one no longer once it is taken out", async () => {
    const next = await newPair();
    const come = async (by: KeyPair) => {
      const begun = await begin();
      const said = saidFor(begun);
      return send(begun, responseOf(said, signed(assertionOf(said), "Assertion", by)));
    };
    expect(await come(next)).toEqual(refused);
    await changeProvider.execute(
      db(),
      { providerId, settings: settings([pair.certificate, next.certificate]) },
      f.as("owner"),
    );
    expect([await come(pair), await come(next)]).toMatchObject([{ session: {} }, { session: {} }]);
    await changeProvider.execute(db(), { providerId, settings: settings([next.certificate]) }, f.as("owner"));
    expect(await come(pair)).toEqual(refused);
    await changeProvider.execute(db(), { providerId, settings: settings([pair.certificate]) }, f.as("owner"));
  });
});

test("thirty days before its certificate ends administrators are told, once", async () => {
  const soon = await newPair(20);
  await changeProvider.execute(db(), { providerId, settings: settings([soon.certificate]) }, f.as("owner"));
  const told = async () =>
    (await db().db.select().from(notices).where(eq(notices.personId, f.ids.administrator))).filter(({ text }) =>
      text.includes("certificate"),
    ).length;
  await tellOfCertificates.execute(db(), {}, { kind: "server" });
  await tellOfCertificates.execute(db(), {}, { kind: "server" });
  expect(await told()).toBe(1);
  await changeProvider.execute(db(), { providerId, settings: settings([pair.certificate]) }, f.as("owner"));
});

describe("what somebody would bend", () => {
  test.each<[string, (said: Said) => Partial<Said>]>([
    ["another audience", () => ({ audience: "https://another-tenant.example" })],
    ["another recipient", () => ({ recipient: "https://another.example/acs" })],
    ["another request", () => ({ inResponseTo: "_another" })],
    ["another issuer", () => ({ issuer: "https://another.example/idp" })],
    ["a time that is over", () => ({ notOnOrAfter: Date.now() - 2 * MINUTE, at: Date.now() - 8 * MINUTE })],
    ["a time that is to come", () => ({ notBefore: Date.now() + 10 * MINUTE })],
    ["an assertion of an hour ago", () => ({ at: Date.now() - 60 * MINUTE, notOnOrAfter: Date.now() + MINUTE })],
    [
      "a subject that changes each time",
      () => ({ nameIdFormat: "urn:oasis:names:tc:SAML:2.0:nameid-format:transient" }),
    ],
    ["no subject", () => ({ nameId: "" })],
  ])("%s is refused, though it is signed", async (_what, more) => {
    const begun = await begin();
    const said = saidFor(begun);
    expect(await send(begun, good({ ...said, ...more(said) }))).toEqual(refused);
  });

  test("it is refused where nothing is signed, the response alone is, another key signed, or SHA-1", async () => {
    const stranger = await newPair();
    const cases: ((said: Said) => string)[] = [
      (said) => responseOf(said, assertionOf(said)),
      (said) => signed(responseOf(said, assertionOf(said)), "Response", pair),
      (said) => responseOf(said, signed(assertionOf(said), "Assertion", stranger)),
      (said) => responseOf(said, signed(assertionOf(said), "Assertion", pair, SHA1)),
    ];
    for (const make of cases) {
      const begun = await begin();
      expect(await send(begun, make(saidFor(begun)))).toEqual(refused);
    }
  });

  test("an answer counts once, for its own request, in the browser that asked", async () => {
    const begun = await begin();
    const xml = good(saidFor(begun));
    expect(await send(begun, xml)).toMatchObject({ session: expect.anything() });
    await expect(send(begun, xml)).rejects.toMatchObject({ code: "ended" });
    const other = await begin();
    expect(await send(other, xml)).toEqual(refused);
    const third = await begin();
    await expect(send({ ...third, browser: "another" }, good(saidFor(third)))).rejects.toMatchObject({ code: "ended" });
    // The same assertion in answer to two requests that say the same.
    const again = await begin();
    const said = saidFor(again);
    const both = await Promise.allSettled([send(again, good(said)), send(again, good(said))]);
    expect(both.filter(({ status }) => status === "fulfilled")).toHaveLength(1);
  });

  /** Eight shapes of wrapping: a signed assertion stands somewhere, and another one where it is read. */
  const wrap = (said: Said): Record<string, string> => {
    const real = signed(assertionOf(said), "Assertion", pair);
    const evil = assertionOf({ ...said, nameId: "owner-there", id: "_evil" });
    const [, signature = ""] = /(<ds:Signature[\s\S]*<\/ds:Signature>)/.exec(real) ?? [];
    const bare = real.replace(signature, "");
    const into = (holder: string, inner: string) => holder.replace("</saml:Assertion>", `${inner}</saml:Assertion>`);
    const afterIssuer = (xml: string, inner: string) => xml.replace("</saml:Issuer>", `</saml:Issuer>${inner}`);
    const extensions = (inner: string) => `<samlp:Extensions>${inner}</samlp:Extensions>`;
    return {
      "evil before the signed one": responseOf(said, evil + real),
      "evil after the signed one": responseOf(said, real + evil),
      "signed one within the evil one": responseOf(said, into(evil, real)),
      "signed one in extensions, evil in its place": responseOf(said, extensions(real) + evil),
      "evil with the signature, signed one within its object": responseOf(
        said,
        afterIssuer(evil, signature.replace("</ds:Signature>", `<ds:Object>${bare}</ds:Object></ds:Signature>`)),
      ),
      "evil with the signature, signed one beside it": responseOf(said, afterIssuer(evil, signature) + bare),
      "the same ID twice": responseOf(said, assertionOf({ ...said, nameId: "owner-there" }) + real),
      "whole response within another": responseOf({ ...said, id: "_outer" }, evil + extensions(responseOf(said, real))),
    };
  };
  test.each(Array.from({ length: 8 }, (_, i) => i))("signature wrapping, shape %i, signs in nobody else", async (i) => {
    const begun = await begin();
    const [name, xml] = Object.entries(wrap(saidFor(begun)))[i]!;
    const came = await send(begun, xml).catch(() => refused);
    // Refused, or the one who was signed: never the other one.
    const [account] = await db()
      .db.select()
      .from(providerAccounts)
      .where(and(eq(providerAccounts.providerId, providerId), eq(providerAccounts.subject, "owner-there")));
    expect([name, account]).toEqual([name, undefined]);
    if (!("refused" in came)) expect((await openSessions()).length).toBeGreaterThan(0);
  });

  test("a comment in the name changes nobody’s name, nor does an entity or a document type", async () => {
    const begun = await begin();
    const said = saidFor(begun, { nameId: "use-there.evil" });
    const bent = signed(assertionOf(said), "Assertion", pair).replace("use-there.evil", "use-there<!-- -->.evil");
    const before = (await openSessions()).length;
    expect(await send(begun, responseOf(said, bent))).not.toHaveProperty("session.token");
    expect(await openSessions()).toHaveLength(before);
    const other = await begin();
    const typed = `<!DOCTYPE x [<!ENTITY e "use-there">]>${good(saidFor(other))}`;
    expect(await send(other, typed)).toEqual(refused);
    // Nor does anybody keep the server busy by what they post.
    for (const bulky of [
      "<".repeat(300_000),
      `<a${" b='c'".repeat(50_000)}/>`,
      "<a>".repeat(60_000),
      good(saidFor(other)).replace("tm-shop", "x".repeat(300_000)),
    ]) {
      const third = await begin();
      expect(await cpuTimeOf(() => send(third, bulky))).toBeLessThan(600);
    }
  });

  test("showing again that it is you asks the provider to sign in anew, and takes no older one", async () => {
    const [session] = await openSessions();
    const by = { ...f.as("use", 0), sessionId: session!.id };
    const begun = await begin(by, "prove");
    expect(requestOf(begun.address).xml).toContain('ForceAuthn="true"');
    expect(await send(begun, good(saidFor(begun)), by)).toMatchObject({ to: "/proved" });
    const stale = await begin(by, "prove");
    expect(await send(stale, good(saidFor(stale, { authnAt: Date.now() - 30 * MINUTE })), by)).toEqual(refused);
  });
});

describe("metadata", () => {
  test("of this Galtry names its address and wants signed assertions; that of a provider fills the form", async () => {
    const [row] = (await providerList.execute(db(), {}, f.as("owner"))).providers;
    if (row!.settings.protocol !== "saml") throw new Error("not SAML");
    const own = samlMetadata(db(), { id: row!.id, issuer: row!.issuer, settings: row!.settings });
    expect(own).toContain(`entityID="${app.url}/sso/${providerId}/metadata"`);
    expect(own).toContain(`${app.url}/sso/${providerId}/acs`);
    expect(own).toContain('WantAssertionsSigned="true"');
    const body = pair.certificate.replace(/-----[^-]+-----|\s/g, "");
    const theirs = `<md:EntityDescriptor xmlns:md="urn:oasis:names:tc:SAML:2.0:metadata" entityID="${ISSUER}"><md:IDPSSODescriptor protocolSupportEnumeration="urn:oasis:names:tc:SAML:2.0:protocol"><md:KeyDescriptor use="signing"><ds:KeyInfo xmlns:ds="http://www.w3.org/2000/09/xmldsig#"><ds:X509Data><ds:X509Certificate>\n${body}\n</ds:X509Certificate></ds:X509Data></ds:KeyInfo></md:KeyDescriptor><md:SingleSignOnService Binding="urn:oasis:names:tc:SAML:2.0:bindings:HTTP-POST" Location="https://saml.tarrowick.example/post"/><md:SingleSignOnService Binding="urn:oasis:names:tc:SAML:2.0:bindings:HTTP-Redirect" Location="https://saml.tarrowick.example/sso"/></md:IDPSSODescriptor></md:EntityDescriptor>`;
    expect(await providerMetadata.execute(db(), { xml: theirs }, f.as("administrator"))).toEqual({
      ...{ issuer: ISSUER, signOnUrl: "https://saml.tarrowick.example/sso", certificates: [body] },
    });
    for (const wrong of ["", "<x/>", "not xml", `<!DOCTYPE x>${theirs}`]) expect(readMetadata(wrong)).toBeNull();
  });
});
