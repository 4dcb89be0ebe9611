/** SCIM: people and groups as a provider tells of them, by the requests that its clients send; and each attempt to reach further. */
import { and, eq, isNull } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { type Fixture, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import {
  groups,
  lanyards,
  memberships,
  passkeys,
  personStates,
  persons,
  providerAccounts,
  sessions,
} from "../src/server/database/schema";
import { addPerson } from "../src/server/people/adding";
import { createGroup } from "../src/server/people/groups";
import { reinstate, suspendPerson } from "../src/server/people/persons";
import { openSession } from "../src/server/people/sessions";
import { applyGroup, groupTable, matchGroup } from "../src/server/provider/groups";
import {
  addDomain,
  addProvider,
  chooseJoins,
  newScimToken,
  proveDomain,
  stopScim,
} from "../src/server/provider/providers";
import { scimAt } from "../src/server/provider/scim/http";
import { houseKeys } from "../src/server/rules/houseKeys";

let app: InProcess;
let f: Fixture;
let providerId: string;
let token: string;
const db = () => app.galtry;
const USER = "urn:ietf:params:scim:schemas:core:2.0:User";
const GROUP = "urn:ietf:params:scim:schemas:core:2.0:Group";

interface Answer {
  status: number;
  // biome-ignore lint/suspicious/noExplicitAny: what comes back is looked at field by field
  body: any;
  etag: string | null;
}

async function call(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Answer> {
  const url = new URL(`${app.url}/scim/v2/${path}`);
  const request = new Request(url, {
    method,
    headers: { authorization: `Bearer ${token}`, "content-type": "application/scim+json", ...headers },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  });
  const parts = url.pathname.slice("/scim/v2/".length).split("/").filter(Boolean).map(decodeURIComponent);
  const answer = await scimAt(request, parts, app.galtry);
  const text = await answer.text();
  return { status: answer.status, body: text === "" ? null : JSON.parse(text), etag: answer.headers.get("etag") };
}

let number = 0;
const user = (more: object = {}) => {
  number += 1;
  const mail = `scim-${number}@tarrowick.example`;
  return {
    ...{ schemas: [USER], userName: mail, externalId: `ext-${number}`, active: true },
    name: { givenName: "Scim", familyName: `Person ${number}` },
    emails: [{ value: mail, type: "work", primary: true }],
    ...more,
  };
};
const create = async (more: object = {}) => (await call("POST", "Users", user(more))).body;
const patch = (...Operations: object[]) => ({
  schemas: ["urn:ietf:params:scim:api:messages:2.0:PatchOp"],
  Operations,
});
const standingOf = async (personId: string) =>
  (
    await db()
      .db.select({ standing: personStates.standing })
      .from(personStates)
      .where(and(eq(personStates.personId, personId), isNull(personStates.validUntil)))
  )[0]!.standing;
const personOf = async (accountId: string) =>
  (await db().db.select().from(providerAccounts).where(eq(providerAccounts.id, accountId)))[0]?.personId ?? null;
const members = async (groupId: string) =>
  (
    await db()
      .db.select({ personId: memberships.personId })
      .from(memberships)
      .where(and(eq(memberships.groupId, groupId), isNull(memberships.validUntil)))
  ).map(({ personId }) => personId);

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  const by = f.as("owner");
  ({ providerId } = await addProvider.execute(
    db(),
    { protocol: "oidc", name: "Tarrowick accounts", issuer: "https://id.tarrowick.example", clientId: "galtry" },
    by,
  ));
  const domain = { providerId, domain: "tarrowick.example" };
  await addDomain.execute(db(), domain, by);
  await proveDomain.execute(db(), { ...domain, statement: "Registered in 2004." }, by);
  await chooseJoins.execute(db(), { providerId, joins: "themselves" }, by);
});
afterAll(() => app.close());
beforeEach(async () => {
  token = (await newScimToken.execute(db(), { providerId }, f.as("owner"))).scimToken;
});

describe("tokens", () => {
  test("without one, with another, or after its end nothing is answered; the one before counts for a day", async () => {
    const before = token;
    for (const wrong of ["", "x".repeat(43), "Basic abc"]) {
      token = wrong;
      expect(await call("GET", "Users")).toMatchObject({ status: 401, body: { status: "401" } });
    }
    token = (await newScimToken.execute(db(), { providerId }, f.as("owner"))).scimToken;
    const now = token;
    expect((await call("GET", "Users")).status).toBe(200);
    token = before;
    expect((await call("GET", "Users")).status).toBe(200);
    const made = Date.now();
    await newScimToken.execute(db(), { providerId }, f.as("owner"));
    const { providers: keys } = await houseKeys.execute(db(), {}, f.as("owner"));
    expect(keys.find(({ id }) => id === providerId)!.scimAt).toBeGreaterThanOrEqual(made);
    expect((await call("GET", "Users")).status).toBe(401);
    token = now;
    await stopScim.execute(db(), { providerId }, f.as("owner"));
    expect((await call("GET", "Users")).status).toBe(401);
  });
});

describe("what it says of itself", () => {
  test("its configuration, schemas and resource types are those of the standard; bulk is refused", async () => {
    expect((await call("GET", "ServiceProviderConfig")).body).toMatchObject({
      ...{ patch: { supported: true }, bulk: { supported: false }, etag: { supported: true } },
      filter: { supported: true, maxResults: 200 },
    });
    const { body } = await call("GET", "Schemas");
    expect(body.Resources.map(({ id }: { id: string }) => id)).toEqual([USER, GROUP]);
    expect((await call("GET", `Schemas/${USER}`)).body.attributes.map(({ name }: { name: string }) => name)).toContain(
      "userName",
    );
    expect((await call("GET", "ResourceTypes/Group")).body.endpoint).toBe("/Groups");
    expect(await call("POST", "Bulk", {})).toMatchObject({ status: 501, body: { status: "501" } });
    expect((await call("GET", "Me")).status).toBe(501);
    for (const path of ["", "Nothing", "Users/x/y", "__proto__"]) expect((await call("GET", path)).status).toBe(404);
  });
});

describe("users", () => {
  test("are made, read, found, said anew, and made once only", async () => {
    const sent = user();
    const made = await call("POST", "Users", sent);
    expect(made.status).toBe(201);
    expect(made.body).toMatchObject({ ...sent, id: expect.any(String), meta: { resourceType: "User" } });
    expect(made.body.meta.location).toBe(`${app.url}/scim/v2/Users/${made.body.id}`);
    expect(await call("POST", "Users", { ...sent, userName: sent.userName.toUpperCase() })).toMatchObject({
      status: 409,
      body: { scimType: "uniqueness" },
    });
    const find = async (filter: string) => (await call("GET", `Users?filter=${encodeURIComponent(filter)}`)).body;
    for (const filter of [
      `userName eq "${sent.userName.toUpperCase()}"`,
      `externalId eq "${sent.externalId}"`,
      `emails.value eq "${sent.userName}"`,
      `name.familyName co "Person ${number}" and active eq true`,
      `${USER}:userName eq "${sent.userName}"`,
    ])
      expect([filter, (await find(filter)).Resources.map(({ id }: { id: string }) => id)]).toEqual([
        filter,
        [made.body.id],
      ]);
    expect((await find(`userName eq "nobody@tarrowick.example"`)).totalResults).toBe(0);
    const again = await call("PUT", `Users/${made.body.id}`, { ...sent, displayName: "Said Anew" });
    expect(again.body).toMatchObject({ displayName: "Said Anew", id: made.body.id });
    expect((await call("GET", `Users/${made.body.id}?attributes=userName`)).body).toEqual({
      ...{ schemas: [USER], id: made.body.id, userName: sent.userName, meta: expect.anything() },
    });
  });

  test("have versions: a change that does not know of the last one is refused", async () => {
    const { id } = await create();
    const { etag } = await call("GET", `Users/${id}`);
    expect(await call("GET", `Users/${id}`, undefined, { "if-none-match": etag! })).toMatchObject({
      status: 304,
      body: null,
    });
    const change = (displayName: string, version: string) =>
      call("PATCH", `Users/${id}`, patch({ op: "replace", path: "displayName", value: displayName }), {
        "if-match": version,
      });
    const changed = await change("First", etag!);
    expect(changed.status).toBe(200);
    expect(changed.etag).not.toBe(etag);
    expect((await change("Second", etag!)).status).toBe(412);
  });

  test("come in pages, and a page has no more than two hundred", async () => {
    for (let i = 0; i < 5; i += 1) await create();
    const page = async (query: string) => (await call("GET", `Users?${query}`)).body;
    const first = await page("startIndex=1&count=2");
    const second = await page("startIndex=3&count=2");
    expect(first).toMatchObject({ startIndex: 1, itemsPerPage: 2 });
    expect(first.totalResults).toBeGreaterThanOrEqual(5);
    const ids = [...first.Resources, ...second.Resources].map(({ id }: { id: string }) => id);
    expect(new Set(ids).size).toBe(4);
    expect((await page("count=0")).Resources).toEqual([]);
    expect((await page("count=100000")).itemsPerPage).toBeLessThanOrEqual(200);
    expect((await page("startIndex=-5&count=1")).startIndex).toBe(1);
    const search = { schemas: ["urn:ietf:params:scim:api:messages:2.0:SearchRequest"], count: 1 };
    expect((await call("POST", "Users/.search", search)).body.itemsPerPage).toBe(1);
  });

  test("join as members with nothing, once they sign in; those who are here already wait for a confirmation", async () => {
    const { id } = await create();
    const personId = (await personOf(id))!;
    expect(await standingOf(personId)).toBe("invited");
    const [person] = await db().db.select().from(persons).where(eq(persons.id, personId));
    expect(person).toMatchObject({ name: `Scim Person ${number}`, passwordHash: null });
    const known = await create({ userName: "edit@tarrowick.example", emails: [{ value: "edit@tarrowick.example" }] });
    expect(await personOf(known.id)).toBeNull();
    // Nor is anybody deactivated by an address alone.
    await call("PATCH", `Users/${known.id}`, patch({ op: "replace", value: { active: false } }));
    expect(await standingOf(f.ids.edit)).toBe("active");
    const outside = await create({ userName: "x@elsewhere.example", emails: [{ value: "x@elsewhere.example" }] });
    expect(await personOf(outside.id)).toBeNull();
  });

  test("who are added by an administrator later are linked then", async () => {
    await chooseJoins.execute(db(), { providerId, joins: "invited" }, f.as("owner"));
    const made = await create();
    expect(await personOf(made.id)).toBeNull();
    const added = { name: "Added Later", mail: made.userName, role: "member" as const };
    const { personId } = await addPerson.execute(db(), added, f.as("administrator"));
    expect(await personOf(made.id)).toBe(personId);
    await chooseJoins.execute(db(), { providerId, joins: "themselves" }, f.as("owner"));
  });
});

describe("deactivated, activated, deleted", () => {
  /** Somebody of the fixture, linked with an account there, with a session and a Lanyard. */
  async function linked(kind: Kind) {
    const mail = `${kind}@tarrowick.example`;
    const account = await create({ userName: mail, emails: [{ value: mail, primary: true }] });
    await db().writer.write((tx) =>
      tx
        .update(providerAccounts)
        .set({ personId: f.ids[kind], claims: null })
        .where(eq(providerAccounts.id, account.id)),
    );
    await db().writer.write((tx) =>
      openSession(tx, f.ids[kind], { address: "192.0.2.7", browser: "Chromium" }, Date.now()),
    );
    return account;
  }
  const open = async (personId: string) =>
    (
      await db()
        .db.select()
        .from(sessions)
        .where(and(eq(sessions.personId, personId), isNull(sessions.endedAt)))
    ).length +
    (
      await db()
        .db.select()
        .from(lanyards)
        .where(and(eq(lanyards.personId, personId), isNull(lanyards.endedAt)))
    ).length;

  test.each<[string, object]>([
    ["a path and a boolean", { op: "replace", path: "active", value: false }],
    ["no path", { op: "replace", value: { active: false } }],
    ["capitals and text, as some send it", { op: "Replace", path: "active", value: "False" }],
    ["add", { op: "Add", path: `${USER}:active`, value: false }],
  ])(
    "by PATCH with %s: out of every session and Lanyard at once, and back in when activated",
    async (_what, operation) => {
      const account = await linked("use");
      expect(await open(f.ids.use)).toBeGreaterThan(0);
      const changed = await call("PATCH", `Users/${account.id}`, patch(operation));
      expect(changed).toMatchObject({ status: 200, body: { active: false } });
      expect([await open(f.ids.use), await standingOf(f.ids.use)]).toEqual([0, "suspended"]);
      await call("PATCH", `Users/${account.id}`, patch({ op: "replace", path: "active", value: true }));
      expect(await standingOf(f.ids.use)).toBe("active");
      await db().writer.write((tx) => tx.delete(providerAccounts).where(eq(providerAccounts.id, account.id)));
    },
  );

  test("whom an administrator suspended, the provider does not bring back", async () => {
    const account = await linked("reveal");
    await suspendPerson.execute(db(), { personId: f.ids.reveal, why: "" }, f.as("owner"));
    await call("PUT", `Users/${account.id}`, { ...account, active: true });
    expect(await standingOf(f.ids.reveal)).toBe("suspended");
    await reinstate.execute(db(), { personId: f.ids.reveal }, f.as("owner"));
  });

  test("nor whom it suspended itself, once an administrator has reinstated and suspended them", async () => {
    const person = { personId: f.ids.use };
    const account = await linked("use");
    await call("PUT", `Users/${account.id}`, { ...account, active: false });
    await reinstate.execute(db(), person, f.as("owner"));
    await call("PUT", `Users/${account.id}`, { ...account, active: true });
    expect(await standingOf(f.ids.use)).toBe("active");
    await suspendPerson.execute(db(), person, f.as("owner"));
    await call("PUT", `Users/${account.id}`, { ...account, active: true, displayName: "Changed There" });
    expect(await standingOf(f.ids.use)).toBe("suspended");
  });

  test("whose only way of their own is a passkey comes back as active, not as invited", async () => {
    const account = await linked("nothing");
    await db().writer.write(async (tx) => {
      await tx.update(persons).set({ passwordHash: null }).where(eq(persons.id, f.ids.nothing));
      await tx.insert(passkeys).values({
        ...{
          id: "passkey-of-nothing",
          personId: f.ids.nothing,
          credentialId: "laptop",
          transports: [],
          name: "Laptop",
          publicKey: Buffer.alloc(8),
          counter: 0,
        },
        ...{ createdAt: Date.now() },
      });
    });
    for (const active of [false, true]) await call("PUT", `Users/${account.id}`, { ...account, active });
    expect(await standingOf(f.ids.nothing)).toBe("active");
  });

  test("deleted there is a leaver here, with name and history", async () => {
    const account = await linked("steward");
    expect((await call("DELETE", `Users/${account.id}`)).status).toBe(204);
    expect(await standingOf(f.ids.steward)).toBe("leaver");
    expect(await open(f.ids.steward)).toBe(0);
    expect((await db().db.select().from(persons).where(eq(persons.id, f.ids.steward)))[0]!.name).toBe("Person steward");
    expect((await call("GET", `Users/${account.id}`)).status).toBe(404);
    expect((await call("DELETE", `Users/${account.id}`)).status).toBe(404);
  });

  test("the last owner is signed out and stays one", async () => {
    const account = await linked("owner");
    await call("PATCH", `Users/${account.id}`, patch({ op: "replace", path: "active", value: false }));
    expect([await open(f.ids.owner), await standingOf(f.ids.owner)]).toEqual([0, "active"]);
  });
});

describe("groups", () => {
  const group = (displayName: string, ids: string[] = []) => ({
    ...{ schemas: [GROUP], displayName, members: ids.map((value) => ({ value })) },
  });

  test("tell of their members by PUT and PATCH, and give what grants give once they are applied", async () => {
    const [a, b, c] = [await create(), await create(), await create()];
    const made = await call("POST", "Groups", group("tm-shop", [a.id]));
    expect(made).toMatchObject({ status: 201, body: { displayName: "tm-shop", members: [{ value: a.id }] } });
    const by = f.as("administrator");
    const { groupId } = await createGroup.execute(db(), { name: "Shop Team" }, by);
    const { lines } = await groupTable.execute(db(), { providerId }, by);
    const line = lines.find(({ name }) => name === "tm-shop")!;
    expect(line).toMatchObject({ scim: true, there: 1 });
    await matchGroup.execute(db(), { providerGroupId: line.id, groupId }, by);
    await applyGroup.execute(db(), { providerGroupId: line.id, joins: 1, leaves: 0 }, by);
    const people = async (...accounts: { id: string }[]) =>
      (await Promise.all(accounts.map(({ id }) => personOf(id)))).sort();
    const now = async () => (await members(groupId)).sort();
    expect(await now()).toEqual(await people(a));
    const change = (...operations: object[]) => call("PATCH", `Groups/${made.body.id}`, patch(...operations));
    await change({ op: "add", path: "members", value: [{ value: b.id }, { value: c.id }] });
    expect(await now()).toEqual(await people(a, b, c));
    await change({ op: "remove", path: `members[value eq "${b.id}"]` });
    expect(await now()).toEqual(await people(a, c));
    await change({ op: "Remove", path: "members", value: [{ value: c.id }] });
    expect(await now()).toEqual(await people(a));
    await change({ op: "replace", value: { displayName: "tm-shop-2026" } });
    expect((await call("GET", `Groups/${made.body.id}`)).body).toMatchObject({
      displayName: "tm-shop-2026",
      members: [{ value: a.id }],
    });
    await call("PATCH", `Users/${a.id}`, patch({ op: "replace", path: "active", value: false }));
    expect(await now()).toEqual([]);
    await call("PATCH", `Users/${a.id}`, patch({ op: "replace", path: "active", value: true }));
    expect(await now()).toEqual(await people(a));
    expect(
      (
        await call(
          "GET",
          `Groups?filter=${encodeURIComponent('displayName eq "tm-shop-2026"')}&excludedAttributes=members`,
        )
      ).body.Resources[0],
    ).not.toHaveProperty("members");
    await call("DELETE", `Groups/${made.body.id}`);
    expect(await now()).toEqual([]);
    const [row] = await db().db.select().from(groups).where(eq(groups.id, groupId));
    expect(row!.providerId).toBeNull();
  });

  test("a member who is no user of this provider is refused, and the group stays as it was", async () => {
    const other = await addProvider.execute(
      db(),
      { protocol: "oidc", name: "Another", issuer: "https://other.example", clientId: "x" },
      f.as("owner"),
    );
    const mine = token;
    token = (await newScimToken.execute(db(), { providerId: other.providerId }, f.as("owner"))).scimToken;
    const theirs = (await call("POST", "Users", user())).body;
    token = mine;
    // Nor is it seen, changed or deleted with this token.
    expect((await call("GET", `Users/${theirs.id}`)).status).toBe(404);
    expect((await call("DELETE", `Users/${theirs.id}`)).status).toBe(404);
    expect((await call("GET", `Users?filter=${encodeURIComponent(`id eq "${theirs.id}"`)}`)).body.totalResults).toBe(0);
    for (const id of [theirs.id, f.ids.use, "nonsense"])
      expect(await call("POST", "Groups", group(`tm-${id}`, [id]))).toMatchObject({
        status: 400,
        body: { scimType: "invalidValue" },
      });
  });
});

describe("what somebody would try", () => {
  test.each([
    'userName eq "x" or 1=1',
    'userName eq "x\'; drop table persons; --"',
    'userName eq "',
    "((((((((((",
    `userName eq "${"x".repeat(2000)}"`,
    'password eq "x"',
    "__proto__.polluted eq true",
    'members[value eq "',
  ])("the filter %s finds nobody and breaks nothing", async (filter) => {
    await create();
    const { status, body } = await call("GET", `Users?filter=${encodeURIComponent(filter)}`);
    expect([200, 400]).toContain(status);
    if (status === 200) expect(body.totalResults).toBe(0);
    else expect(body).toMatchObject({ scimType: "invalidFilter", status: "400" });
  });

  test.each<[string, unknown]>([
    ["no operations", { Operations: [] }],
    ["an unknown operation", patch({ op: "destroy", path: "active" })],
    ["the id", patch({ op: "replace", path: "id", value: "another" })],
    ["a broken path", patch({ op: "replace", path: "emails[type eq", value: "x" })],
    ["a user name that is none", patch({ op: "replace", path: "userName", value: "" })],
    ["a prototype", patch({ op: "add", path: "__proto__.polluted", value: true })],
  ])("a PATCH with %s is refused or changes nothing", async (_what, body) => {
    const made = await create();
    const answer = await call("PATCH", `Users/${made.id}`, body);
    expect([200, 400]).toContain(answer.status);
    expect((await call("GET", `Users/${made.id}`)).body.userName).toBe(made.userName);
    expect(({} as { polluted?: boolean }).polluted).toBeUndefined();
  });

  test("nothing that Galtry keeps can be written or read through it", async () => {
    const made = await call(
      "POST",
      "Users",
      user({ password: "canary-password", role: "owner", personId: f.ids.owner, roles: ["owner"] }),
    );
    const kept = await db().db.select().from(providerAccounts).where(eq(providerAccounts.id, made.body.id));
    expect(JSON.stringify([made.body, kept])).not.toContain("canary-password");
    const personId = (await personOf(made.body.id))!;
    expect(personId).not.toBe(f.ids.owner);
    const [state] = await db().db.select().from(personStates).where(eq(personStates.personId, personId));
    expect(state!.role).toBe("member");
  });
});
