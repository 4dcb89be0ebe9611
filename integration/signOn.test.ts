/** Signing in by OpenID Connect: whose an account is, what is required, and each way in which somebody would get past it. */
import { and, desc, eq, isNotNull, isNull } from "drizzle-orm";
import { afterAll, afterEach, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, type Kind, makeFixture, PASSWORD } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import type { Caller } from "../src/server/caller";
import {
  groups,
  journal,
  memberships,
  notices,
  persons,
  providerAccounts,
  providers,
  sessions,
} from "../src/server/database/schema";
import { addPerson } from "../src/server/people/adding";
import { createGroup } from "../src/server/people/groups";
import { removeMember } from "../src/server/people/members";
import { signIn } from "../src/server/people/signIn";
import { confirmAccount, noteFailure, unlinkOwn } from "../src/server/provider/arrivals";
import { beginSignIn, finishSignIn, logOutBySession, logOutByToken } from "../src/server/provider/flows";
import { applyGroup, groupTable, matchGroup, releaseGroup } from "../src/server/provider/groups";
import {
  addDomain,
  addProvider,
  changeProvider,
  chooseJoins,
  enableProvider,
  proveDomain,
  providerList,
  removeDomain,
  removeProvider,
  requireProvider,
  testProvider,
} from "../src/server/provider/providers";
import { startTestProvider, type TestProvider } from "./testProvider";

let app: InProcess;
let f: Fixture;
let there: TestProvider;
let providerId: string;
const db = () => app.galtry;
type Comer = Extract<Caller, { kind: "nobody" | "person" }>;

const settings = () => ({
  ...{ protocol: "oidc" as const, name: "Tarrowick accounts", issuer: there.issuer, clientId: there.clientId },
  ...{ secret: there.secret, secretIn: "header" as const, scopes: "email profile", groupsClaim: "groups" },
});
const begin = (by: Comer, purpose: Parameters<typeof beginSignIn>[2]["purpose"] = "sign-in", more: object = {}) =>
  beginSignIn(db(), by, { providerId, purpose, next: "/entry/1", browser: null, ...more });
const finish = (by: Comer, address: URL, browser: string | null, id = providerId) =>
  finishSignIn(db(), by, { providerId: id, address, saml: null, browser });
/** There and back, as whoever the provider says. */
async function come(by: Comer = f.nobody, purpose: Parameters<typeof begin>[1] = "sign-in", more: object = {}) {
  const { address, browser } = await begin(by, purpose, more);
  return finish(by, there.answer(address), browser);
}
const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "allowed",
    (error) => (error.code as string) ?? String(error),
  );
const accountOf = async (subject: string) =>
  (
    await db()
      .db.select()
      .from(providerAccounts)
      .where(and(eq(providerAccounts.providerId, providerId), eq(providerAccounts.subject, subject)))
  )[0];
const lastLine = async () => {
  const { act, details } = (await db().db.select().from(journal).orderBy(desc(journal.seq)).limit(1))[0]!;
  return { act, details: JSON.parse(details) as Record<string, unknown> };
};
const openSessions = (personId: string) =>
  db()
    .db.select()
    .from(sessions)
    .where(and(eq(sessions.personId, personId), isNull(sessions.endedAt), isNotNull(sessions.providerId)));

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  there = await startTestProvider();
  ({ providerId } = await addProvider.execute(db(), settings(), f.as("administrator")));
  const domain = { providerId, domain: "tarrowick.example" };
  await addDomain.execute(db(), domain, f.as("administrator"));
  await proveDomain.execute(db(), { ...domain, statement: "We have registered it since 2004." }, f.as("owner"));
});
afterAll(async () => {
  await there.close();
  await app.close();
});
afterEach(() => {
  there.wrong = {};
  there.person = { sub: "nobody-in-particular" };
});

describe("setting it up", () => {
  test("is for administrators who have just shown that it is them; owners are told, the secret is nowhere", async () => {
    for (const kind of ["steward", "guest"] as const)
      expect(await code(providerList.execute(db(), {}, f.as(kind)))).toBe("not-allowed");
    const stale = f.as("administrator", Date.now() - 6 * 60_000);
    const other = { ...settings(), issuer: "https://elsewhere.example" };
    expect(await code(addProvider.execute(db(), other, stale))).toBe("prove-again");
    expect(
      await code(addProvider.execute(db(), { ...settings(), issuer: "http://elsewhere.example" }, f.as("owner"))),
    ).toBe("bad-input");
    expect(await code(addProvider.execute(db(), settings(), f.as("owner")))).toBe("conflict");
    const listed = await providerList.execute(db(), {}, f.as("administrator"));
    expect(JSON.stringify(listed)).not.toContain(there.secret);
    expect(listed.providers[0]).toMatchObject({ hasSecret: true, enabled: false, passed: false });
    const [row] = await db().db.select().from(providers);
    expect(row!.secret!.includes(Buffer.from(there.secret))).toBe(false);
    const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.owner));
    expect(told.map(({ text }) => text)).toContain(
      "Person administrator added the identity provider Tarrowick accounts.",
    );
  });

  test("nobody signs in with it before a test has passed; the test names the step that failed and what was said", async () => {
    expect(await code(begin(f.nobody))).toBe("ended");
    expect(await code(enableProvider.execute(db(), { providerId, enabled: true }, f.as("administrator")))).toBe(
      "conflict",
    );
    const by = f.as("administrator");
    const test = async () => (await providerList.execute(db(), {}, by)).providers[0]!.lastTest!;
    there.wrong.metadata = (metadata) => ({ ...metadata, issuer: "https://another.example" });
    expect(await testProvider.execute(db(), { providerId }, by)).toEqual({ ok: false });
    expect((await test()).steps.at(-1)).toMatchObject({
      step: "discovery",
      ok: false,
      said: expect.stringMatching(/issuer/),
    });
    there.wrong = {};
    expect(await testProvider.execute(db(), { providerId }, by)).toEqual({ ok: true });
    there.wrong.endpoint = { status: 401, body: { error: "invalid_client", error_description: "not in the header" } };
    await come(by, "test");
    expect((await test()).steps.map(({ step, ok }) => `${step} ${ok}`)).toEqual([
      ...["discovery true", "keys true", "sign-in true", "exchange false"],
    ]);
    expect((await test()).steps.at(-1)!.said).toBe("with status 401: invalid_client: not in the header");
    there.wrong = {};
    there.person = { sub: "admin-1", email: "administrator@tarrowick.example", groups: ["tm-digital"] };
    await come(by, "test");
    expect(await test()).toMatchObject({ claims: { email: "administrator@tarrowick.example", groups: "tm-digital" } });
    // Whoever tests is signed in as nobody else, and linked with nothing.
    expect(await accountOf("admin-1")).toBeUndefined();
    expect(await code(come(f.as("steward"), "test"))).toBe("not-allowed");
    await enableProvider.execute(db(), { providerId, enabled: true }, by);
    expect((await providerList.execute(db(), {}, by)).providers[0]).toMatchObject({ enabled: true, passed: true });
  });

  test("the issuer stays, because accounts are known by what it calls them", async () => {
    await come();
    const changed = { ...settings(), issuer: "https://another.example" };
    expect(await code(changeProvider.execute(db(), { providerId, settings: changed }, f.as("owner")))).toBe("conflict");
  });
});

describe("whose an account is", () => {
  test("nobody is made, and nobody is found by an address that is not verified or not of a proven domain", async () => {
    there.person = { sub: "s-1", email: "use@tarrowick.example" };
    expect(await come()).toEqual({ refused: "not-verified", next: "/entry/1" });
    there.person = { sub: "s-2", email: "stranger@elsewhere.example", email_verified: true };
    expect(await come()).toMatchObject({ refused: "wrong-domain" });
    there.person = { sub: "s-3", email: "unknown@tarrowick.example", email_verified: true };
    expect(await come()).toMatchObject({ refused: "not-invited" });
    expect((await lastLine()).details).toMatchObject({ what: "refused", account: "unknown@tarrowick.example" });
    expect(await openSessions(f.ids.use)).toEqual([]);
  });

  test("somebody who is here already is not taken over by an address: they link it, or an administrator confirms", async () => {
    there.person = { sub: "use-there", email: "use@tarrowick.example", email_verified: true };
    expect(await come()).toMatchObject({ refused: "to-link" });
    expect(await openSessions(f.ids.use)).toEqual([]);
    const [told] = (await db().db.select().from(notices).where(eq(notices.personId, f.ids.use))).slice(-1);
    expect(told!.text).toContain("has your email address");
    // Signed in here, and there anew: then it is theirs.
    const { address } = await begin(f.as("use"), "link");
    expect(new URL(address).searchParams.get("prompt")).toBe("login");
    expect(await come(f.as("use"), "link")).toMatchObject({ to: "/entry/1" });
    expect((await accountOf("use-there"))!.personId).toBe(f.ids.use);
    const back = await come();
    expect(back).toMatchObject({ to: "/entry/1", session: { token: expect.any(String) } });
    expect(await openSessions(f.ids.use)).toHaveLength(1);
    // Nobody else links it, also not by the same address later.
    expect(await code(come(f.as("edit"), "link"))).toBe("conflict");
    there.person = { sub: "use-there", email: "owner@tarrowick.example", email_verified: true };
    await come();
    expect((await openSessions(f.ids.owner)).length).toBe(0);
  });

  test("an administrator confirms, but neither for themselves nor, being none, for an owner", async () => {
    for (const kind of ["edit", "administrator", "owner"] as const) {
      there.person = { sub: `${kind}-there`, email: `${kind}@tarrowick.example`, email_verified: true };
      expect(await come()).toMatchObject({ refused: "to-link" });
    }
    const confirm = async (kind: Kind, by: Kind, yes = true) =>
      confirmAccount.execute(db(), { accountId: (await accountOf(`${kind}-there`))!.id, yes }, f.as(by));
    expect(await code(confirm("edit", "steward"))).toBe("not-allowed");
    expect(await code(confirm("administrator", "administrator"))).toBe("not-allowed");
    expect(await code(confirm("owner", "administrator"))).toBe("not-allowed");
    await confirm("edit", "administrator");
    there.person = { sub: "edit-there" };
    expect(await come()).toMatchObject({ session: { token: expect.any(String) } });
  });

  test("somebody who was added and has never joined comes in by it without a secret here, and joins", async () => {
    const added = { name: "New Colleague", mail: "new@tarrowick.example", role: "member" as const };
    const { personId } = await addPerson.execute(db(), added, f.as("administrator"));
    there.person = { sub: "new-there", email: "new@tarrowick.example", email_verified: true, name: "N. Colleague" };
    expect(await come()).toMatchObject({ session: { token: expect.any(String) } });
    const [person] = await db().db.select().from(persons).where(eq(persons.id, personId));
    expect(person).toMatchObject({ name: "New Colleague", passwordHash: null });
    expect(await openSessions(personId)).toHaveLength(1);
    await expect(
      unlinkOwn.execute(db(), { accountId: (await accountOf("new-there"))!.id }, { ...f.as("use"), personId }),
    ).rejects.toMatchObject({ message: expect.stringContaining("only way") });
  });

  test("by the link of the invitation the address must be the same, and of two at once one gets in", async () => {
    const added = { name: "Invited", mail: "invited@tarrowick.example", role: "member" as const };
    const { link } = await addPerson.execute(db(), added, f.as("administrator"));
    const linkToken = new URL(link!).hash.slice(1);
    there.person = { sub: "thief", email: "thief@tarrowick.example", email_verified: true };
    expect(await code(come(f.nobody, "join", { linkToken }))).toBe("conflict");
    there.person = { sub: "invited-there", email: "invited@tarrowick.example" };
    const both = await Promise.all([0, 1].map(() => begin(f.nobody, "join", { linkToken })));
    const came = await Promise.allSettled(
      both.map(({ address, browser }) => finish(f.nobody, there.answer(address), browser)),
    );
    expect(came.filter(({ status }) => status === "fulfilled")).toHaveLength(1);
  });

  test("people join by themselves only where that is chosen, as members with nothing", async () => {
    await chooseJoins.execute(db(), { providerId, joins: "themselves" }, f.as("administrator"));
    there.person = { sub: "self-1", email: "self@tarrowick.example", email_verified: true, name: "Self\u202eMade" };
    expect(await come()).toMatchObject({ session: { token: expect.any(String) } });
    const [person] = await db().db.select().from(persons).where(eq(persons.mail, "self@tarrowick.example"));
    expect(person!.name).not.toContain("\u202e");
    expect((await lastLine()).details).toMatchObject({ what: "signed in", added: true });
    there.person = { sub: "self-2", email: "self@elsewhere.example", email_verified: true };
    expect(await come()).toMatchObject({ refused: "wrong-domain" });
    await chooseJoins.execute(db(), { providerId, joins: "invited" }, f.as("administrator"));
  });

  test("whoever is suspended here stays out", async () => {
    there.person = { sub: "gone", email: "suspended@tarrowick.example", email_verified: true };
    await come();
    await confirmAccount.execute(db(), { accountId: (await accountOf("gone"))!.id, yes: true }, f.as("owner"));
    expect(await come()).toMatchObject({ refused: "not-active" });
  });
});

describe("what somebody would try", () => {
  const asUse = () => {
    there.person = { sub: "use-there" };
  };
  const refusedWith = async (expected: RegExp) => {
    const before = (await openSessions(f.ids.use)).length;
    expect(await come()).toMatchObject({ refused: "failed" });
    expect(String((await lastLine()).details.why)).toMatch(expected);
    expect(await openSessions(f.ids.use)).toHaveLength(before);
  };

  test.each<[string, (claims: Record<string, unknown>) => Record<string, unknown>]>([
    ["another audience", (claims) => ({ ...claims, aud: "another-tenant" })],
    [
      "two audiences without azp for this one",
      (claims) => ({ ...claims, aud: ["galtry-tests", "other"], azp: "other" }),
    ],
    ["another issuer", (claims) => ({ ...claims, iss: "https://another.example" })],
    ["an expired token", (claims) => ({ ...claims, exp: Math.floor(Date.now() / 1000) - 120 })],
    ["another nonce", (claims) => ({ ...claims, nonce: "replayed" })],
    ["no nonce", ({ nonce: _, ...claims }) => claims],
    ["no subject", ({ sub: _, ...claims }) => claims],
  ])("%s is refused, with a line in the Journal", async (_what, wrong) => {
    asUse();
    there.wrong.claims = wrong as never;
    await refusedWith(/./);
  });

  test("a token signed with another key, with none, or with the client secret is refused", async () => {
    asUse();
    there.wrong.token = (claims) => there.forge(claims);
    await refusedWith(/signature/i);
    const none = (claims: object) =>
      [{ alg: "none" }, claims, ""]
        .map((part) => (part === "" ? "" : Buffer.from(JSON.stringify(part)).toString("base64url")))
        .join(".");
    there.wrong.token = async (claims) => none(claims);
    await refusedWith(/./);
    const { SignJWT } = await import("jose");
    there.wrong.token = (claims) =>
      new SignJWT(claims)
        .setProtectedHeader({ alg: "HS256" })
        .sign(new TextEncoder().encode(there.secret.padEnd(32, " ")));
    await refusedWith(/alg/i);
  });

  test("a state counts once, in the browser that began, at the provider that was asked", async () => {
    asUse();
    const { address, browser } = await begin(f.nobody);
    const back = there.answer(address);
    expect(await code(finish(f.nobody, back, null))).toBe("ended");
    const theirs = await begin(f.nobody);
    expect(await code(finish(f.nobody, back, theirs.browser))).toBe("ended");
    const { providerId: other } = await addProvider.execute(
      db(),
      { ...settings(), name: "Another", issuer: "http://127.0.0.1:9" },
      f.as("administrator"),
    );
    expect(await code(finish(f.nobody, back, browser, other))).toBe("ended");
    await removeProvider.execute(db(), { providerId: other }, f.as("administrator"));
    const exchanged = there.exchanged;
    const at = await Promise.allSettled([0, 1, 2].map(() => finish(f.nobody, back, browser)));
    expect(at.filter(({ status }) => status === "fulfilled")).toHaveLength(1);
    expect(there.exchanged).toBe(exchanged + 1);
    expect(await code(finish(f.nobody, back, browser))).toBe("ended");
    // Told by the issuer in the answer that another one answers (RFC 9207).
    const again = await begin(f.nobody);
    const mixed = there.answer(again.address, { iss: "https://another.example" });
    expect(await finish(f.nobody, mixed, again.browser)).toMatchObject({ refused: "failed" });
    // Begun while nobody was signed in here, and ended by somebody who is.
    const late = await begin(f.as("edit"), "link");
    expect(await code(finish(f.as("use"), there.answer(late.address), late.browser))).toBe("ended");
  });

  test("a code is of no use with another verifier, and goes nowhere but to the provider", async () => {
    asUse();
    const first = await begin(f.nobody);
    const second = await begin(f.nobody);
    const stolen = there.answer(first.address).searchParams.get("code")!;
    const back = there.answer(second.address);
    back.searchParams.set("code", stolen);
    expect(await finish(f.nobody, back, second.browser)).toMatchObject({ refused: "failed" });
  });

  test("failures without end fill the Journal no further", async () => {
    const lines = () =>
      db().db.select({ details: journal.details }).from(journal).where(eq(journal.act, "provider.noteFailure"));
    const before = (await lines()).length;
    for (let turn = 0; turn < 60; turn++)
      await noteFailure.execute(
        db(),
        { providerId, step: "token", said: "no" },
        { ...f.nobody, address: `192.0.2.${turn}` },
      );
    const more = (await lines()).slice(before);
    expect(more.length).toBeLessThanOrEqual(31);
    expect(JSON.parse(more.at(-1)!.details)).toMatchObject({ more: 30 });
  });

  test("where it goes on is always a page of Galtry", async () => {
    asUse();
    for (const next of [
      "https://evil.example/",
      "//evil.example",
      "/\\evil.example",
      "/\t/evil.example",
      "javascript:alert(1)",
    ]) {
      const { address, browser } = await begin(f.nobody, "sign-in", { next });
      const came = await finish(f.nobody, there.answer(address), browser);
      expect(new URL((came as { to: string }).to, app.url).origin).toBe(app.url);
    }
  });

  test("a key that was changed a moment ago counts at the next sign-in", async () => {
    asUse();
    await come();
    await there.rotate();
    expect(await come()).toMatchObject({ session: { token: expect.any(String) } });
  });

  test("coming by an older session there shows nothing anew: what is grave asks again", async () => {
    const provedAgo = async (claims: (claims: Record<string, unknown>) => Record<string, unknown>) => {
      asUse();
      there.wrong.claims = claims as never;
      await come();
      const open = await openSessions(f.ids.use);
      return Date.now() - open.sort((a, b) => a.createdAt - b.createdAt).at(-1)!.provedAt;
    };
    expect(await provedAgo((claims) => claims)).toBeLessThan(60_000);
    expect(
      await provedAgo((claims) => ({ ...claims, auth_time: Math.floor(Date.now() / 1000) - 7200 })),
    ).toBeGreaterThan(3_600_000);
    expect(await provedAgo(({ auth_time: _, ...claims }) => claims)).toBeGreaterThan(86_400_000);
  });

  test("showing again that it is you needs the same account, signed in anew", async () => {
    asUse();
    const by = { ...f.as("use", 0), sessionId: (await openSessions(f.ids.use))[0]!.id };
    expect(await come(by, "prove")).toMatchObject({ to: "/proved" });
    expect((await openSessions(f.ids.use)).find(({ id }) => id === by.sessionId)!.provedAt).toBeGreaterThan(
      Date.now() - 60_000,
    );
    there.wrong.claims = (claims) => ({ ...claims, auth_time: Math.floor(Date.now() / 1000) - 3600 });
    expect(await come(by, "prove")).toMatchObject({ refused: "failed" });
    there.wrong = {};
    there.person = { sub: "edit-there" };
    expect(await code(come(by, "prove"))).toBe("not-allowed");
  });
});

describe("signing out there", () => {
  const logout = async (more: Record<string, unknown>, header: object = { typ: "logout+jwt" }) =>
    there.sign(
      {
        ...{ iss: there.issuer, aud: there.clientId, iat: Math.floor(Date.now() / 1000), jti: String(Math.random()) },
        events: { "http://schemas.openid.net/event/backchannel-logout": {} },
        ...more,
      },
      header,
    );

  test("ends the session of that name, or all of the person’s, and what else they have open", async () => {
    for (const sid of ["first", "second"]) {
      there.person = { sub: "use-there", sid };
      await come();
    }
    const named = async (sid: string) =>
      (await openSessions(f.ids.use)).filter((row) => row.providerSid === sid).length;
    expect([await named("first"), await named("second")]).toEqual([1, 1]);
    await logOutByToken(db(), providerId, await logout({ sub: "use-there", sid: "first" }));
    expect([await named("first"), await named("second")]).toEqual([0, 1]);
    expect(await code(logOutBySession(db(), providerId, "https://another.example", "second"))).toBe("not-found");
    expect(await named("second")).toBe(1);
    await logOutByToken(db(), providerId, await logout({ sub: "use-there" }));
    expect(await named("second")).toBe(0);
    expect((await lastLine()).act).toBe("provider.endByProvider");
  });

  test.each<[string, Record<string, unknown>, object?]>([
    ["with a nonce", { sub: "use-there", nonce: "n" }],
    ["about something else", { sub: "use-there", events: { other: {} } }],
    ["for another client", { sub: "use-there", aud: "other" }],
    ["long ago", { sub: "use-there", iat: Math.floor(Date.now() / 1000) - 3600 }],
    ["that names nobody", {}],
    ["that is an ID token", { sub: "use-there" }, { typ: "at+jwt" }],
  ])("a logout token %s is not taken", async (_what, claims, header) => {
    await expect(logout(claims, header).then((token) => logOutByToken(db(), providerId, token))).rejects.toMatchObject({
      name: "ProviderError",
    });
  });

  test("a logout token counts once, and one that is forged not at all", async () => {
    const token = await logout({ sub: "use-there" });
    await logOutByToken(db(), providerId, token);
    expect(await code(logOutByToken(db(), providerId, token))).toBe("ended");
    const forged = await there.forge({ iss: there.issuer, aud: there.clientId, sub: "use-there" });
    await expect(logOutByToken(db(), providerId, forged)).rejects.toMatchObject({ name: "ProviderError" });
  });
});

describe("groups that the provider decides", () => {
  test("a dry run says who would join and leave; applied, they follow each sign-in, and nobody changes them here", async () => {
    const by = f.as("administrator");
    const { groupId } = await createGroup.execute(db(), { name: "Digital" }, by);
    there.person = { sub: "use-there", groups: ["tm-digital", "tm-digital", "tm-all"] };
    await come();
    const line = async () =>
      (await groupTable.execute(db(), { providerId }, by)).lines.find(({ name }) => name === "tm-digital")!;
    const { id: providerGroupId } = await line();
    await matchGroup.execute(db(), { providerGroupId, groupId }, by);
    expect(await line()).toMatchObject({ joins: 1, leaves: 0, join: ["Person use"], applied: false });
    const inIt = async () =>
      (
        await db()
          .db.select()
          .from(memberships)
          .where(and(eq(memberships.groupId, groupId), isNull(memberships.validUntil)))
      ).map(({ personId }) => personId);
    expect(await inIt()).toEqual([]);
    expect(await code(applyGroup.execute(db(), { providerGroupId, joins: 0, leaves: 0 }, by))).toBe("conflict");
    await applyGroup.execute(db(), { providerGroupId, joins: 1, leaves: 0 }, by);
    expect(await inIt()).toEqual([f.ids.use]);
    expect(await code(removeMember.execute(db(), { groupId, personId: f.ids.use }, by))).toBe("conflict");
    there.person = { sub: "use-there", groups: ["tm-all"] };
    await come();
    expect(await inIt()).toEqual([]);
    expect((await lastLine()).details).toMatchObject({ what: "left a group", group: groupId });
    // Many leave the claim out for somebody who is in no group; a claim that is kept elsewhere says nothing.
    there.person = { sub: "use-there", groups: ["tm-digital"] };
    await come();
    expect(await inIt()).toEqual([f.ids.use]);
    there.person = { sub: "use-there", _claim_names: { groups: "src1" } };
    await come();
    expect(await inIt()).toEqual([f.ids.use]);
    there.person = { sub: "use-there" };
    await come();
    expect(await inIt()).toEqual([]);
    await releaseGroup.execute(db(), { providerGroupId }, by);
    const [group] = await db().db.select().from(groups).where(eq(groups.id, groupId));
    expect(group!.providerId).toBeNull();
  });
});

describe("required", () => {
  test("only by an owner who has come through it, with a way in for each owner; then nobody gets past it but owners", async () => {
    const required = (by: Kind, wanted = true) =>
      requireProvider.execute(db(), { providerId, required: wanted }, f.as(by));
    const password = (mail: string) =>
      signIn.execute(db(), { mail: `${mail}@tarrowick.example`, password: PASSWORD }, f.nobody);
    expect(await code(required("administrator"))).toBe("not-allowed");
    await expect(required("owner")).rejects.toMatchObject({ message: expect.stringContaining("Test it yourself") });
    there.person = { sub: "owner-there" };
    await testProvider.execute(db(), { providerId }, f.as("owner"));
    await come(f.as("owner"), "test");
    await expect(required("owner")).rejects.toMatchObject({ message: expect.stringContaining("Hanna Owner") });
    // With a way of their own it can be required.
    await db().writer.write((tx) => tx.update(providers).set({ required: true }).where(eq(providers.id, providerId)));
    expect(await code(password("reveal"))).toBe("not-allowed");
    expect(await code(password("guest"))).toBe("allowed");
    expect(await password("owner")).toMatchObject({ signedIn: true });
    const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.owner));
    expect(told.at(-1)!.text).toContain("without Tarrowick accounts, which is required");
    there.person = { sub: "use-there" };
    expect(await come()).toMatchObject({ session: { token: expect.any(String) } });
    expect(await code(enableProvider.execute(db(), { providerId, enabled: false }, f.as("administrator")))).toBe(
      "not-allowed",
    );
    expect(await code(removeProvider.execute(db(), { providerId }, f.as("administrator")))).toBe("not-allowed");
    const domain = { providerId, domain: "tarrowick.example" };
    expect(await code(removeDomain.execute(db(), domain, f.as("administrator")))).toBe("not-allowed");
    const accountId = (await accountOf("use-there"))!.id;
    await expect(unlinkOwn.execute(db(), { accountId }, f.as("use"))).rejects.toMatchObject({
      message: "You are required to sign in with Tarrowick accounts.",
    });
    await required("owner", false);
    expect(await password("reveal")).toMatchObject({ signedIn: true });
  });
});
