/** Findings by what the organisation has said: how old a secret may be, where codes are offered, how many people are many. */
import { and, eq, isNull } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { colleagueOf, type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { giveAccess } from "../src/server/access/grants";
import { entries, entryVersions, findings, lanyards, notices, persons, signIns } from "../src/server/database/schema";
import { uuidv7 } from "../src/server/ids";
import { makeCheckpoint } from "../src/server/journal/checkpoints";
import { erasePerson } from "../src/server/people/erasing";
import { markLeaver } from "../src/server/people/leaving";
import { checkSome } from "../src/server/upkeep/checking";
import { upkeepPage } from "../src/server/upkeep/findingsPage";
import { houseFindings } from "../src/server/upkeep/house";
import { addressesDue, lookUpAddresses } from "../src/server/upkeep/leakedAddresses";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { changeKind, createKind } from "../src/server/vaults/kinds";
import { removeSite, saveSite } from "../src/server/vaults/sites";
import { changeVault, createVault, vaultLedger } from "../src/server/vaults/vaults";

const DAY = 86_400_000;
let app: InProcess;
let f: Fixture;
let vaultId: string;
let number = 0;
const db = () => app.galtry;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());
beforeEach(async () => {
  number += 1;
  ({ vaultId } = await createVault.execute(db(), { name: `Shed ${number}`, description: "" }, f.as("administrator")));
  await give(db(), f.as("administrator"), vaultId, f.ids.steward, "steward");
});

async function settle(at = Date.now()): Promise<void> {
  for (let turns = 0; await checkSome(db(), at); turns++) if (turns > 500) throw new Error("it never comes to an end");
}
async function open(nodeId: string): Promise<string[]> {
  await settle();
  const rows = await db()
    .db.select()
    .from(findings)
    .where(and(eq(findings.nodeId, nodeId), isNull(findings.endedAt)));
  return rows.map(({ kind }) => kind as string).filter((kind) => kind !== "untested");
}
const add = async (values: object, kind = "website-login") =>
  (await addEntry.execute(db(), { parentId: vaultId, captured: false, kind, values }, f.as("steward"))).entryId;
const current = async (entryId: string) =>
  (await db().db.select().from(entries).where(eq(entries.nodeId, entryId)))[0]!;
const change = async (entryId: string, values: object) =>
  changeEntry.execute(
    db(),
    { entryId, baseVersionId: (await current(entryId)).versionId, values, captured: false },
    f.as("steward"),
  );
const aged = async (entryId: string, days: number) =>
  db()
    .db.update(entryVersions)
    .set({ createdAt: Date.now() - days * DAY })
    .where(eq(entryVersions.id, (await current(entryId)).versionId));

describe("old for its kind", () => {
  test("from when the secret was written, whatever else is changed; a new one begins anew", async () => {
    const values = { name: "Guest network", network: "guests", password: "a network of guests 71" };
    const entryId = await add(values, "wifi");
    await aged(entryId, 800);
    await change(entryId, { ...values, description: "In the hall" });
    expect(await open(entryId)).toEqual(["old"]);
    const row = (
      await upkeepPage.execute(db(), { vaultId: null, act: null, find: "", most: 100 }, f.as("steward"))
    ).rows.find(({ nodeId, kind }) => nodeId === entryId && kind === "old");
    expect(row).toMatchObject({ act: "change", detail: { months: 24 } });
    await change(entryId, { ...values, password: "another network of guests" });
    expect(await open(entryId)).toEqual([]);
  });

  test("of a kind of one's own, as it is said and as it is said otherwise", async () => {
    const fields = [{ label: "Where" }, { label: "Combination", class: "secret" as const, form: "password" as const }];
    const kind = { name: `Locker ${number}`, purpose: "get-in" as const, fields };
    const { kindId } = await createKind.execute(db(), { kind }, f.as("administrator"));
    const { id } = (await import("../src/server/vaults/kinds").then(({ kindOf }) => kindOf(db().db, kindId)))
      .fields[1]!;
    const entryId = await add({ name: "Locker", [id]: "canary-combination" }, kindId);
    await aged(entryId, 400);
    expect(await open(entryId)).toEqual([]);
    const say = (oldAfter: number | null) =>
      changeKind.execute(
        db(),
        { kindId, kind: { ...kind, oldAfter, fields: [{ label: "Where" }, { ...fields[1]!, id }] } },
        f.as("administrator"),
      );
    await say(12);
    expect(await open(entryId)).toEqual(["old"]);
    await say(24);
    expect(await open(entryId)).toEqual([]);
    await say(6);
    await say(null);
    expect(await open(entryId)).toEqual([]);
    await expect(say(0)).rejects.toMatchObject({ code: "bad-input" });
  });

  test("never a login, unless someone changes its kind", async () => {
    const entryId = await add({ name: "Login", signInPage: "https://old.example/in", password: "canary-old" });
    await aged(entryId, 150);
    expect(await open(entryId)).toEqual([]);
  });
});

test("no one-time code, where the sites we use say that one is offered", async () => {
  const login = (host: string) => ({ name: host, signInPage: `https://${host}/in`, password: `pass at ${host}` });
  const at = await add(login("accounts.codes.example"));
  const elsewhere = await add(login("codes.example.other"));
  expect([await open(at), await open(elsewhere)]).toEqual([[], []]);
  const site = { name: "Codes", signInPage: "https://www.codes.example/enter", offersCodes: true };
  const { siteId } = await saveSite.execute(db(), { site }, f.as("administrator"));
  expect([await open(at), await open(elsewhere)]).toEqual([["no-code"], []]);
  await change(at, { ...login("accounts.codes.example"), code: "JBSWY3DPEHPK3PXP" });
  expect(await open(at)).toEqual([]);
  await change(at, { ...login("accounts.codes.example"), code: "" });
  expect(await open(at)).toEqual(["no-code"]);
  await saveSite.execute(db(), { siteId, site: { ...site, offersCodes: false } }, f.as("administrator"));
  expect(await open(at)).toEqual([]);
  await saveSite.execute(db(), { siteId, site }, f.as("administrator"));
  expect(await open(at)).toEqual(["no-code"]);
  await removeSite.execute(db(), { siteId }, f.as("administrator"));
  expect(await open(at)).toEqual([]);
});

test("a code that somebody entered while Lanyard looked on is missing, unless the entry has it; where people enter it, that is said instead", async () => {
  const values = { name: "Seen", signInPage: "https://seen.example/in", password: "pass at seen" };
  const step = (page: string, ...enters: ("user-name" | "password" | "code")[]) => ({
    ...{ page: `https://seen.example/${page}`, presses: null, sends: null },
    enters: enters.map((what) => ({ what, field: { name: what, id: "", label: "" } })),
  });
  const steps = (pages: object[]) => ({ choices: {}, pages, lands: null });
  const captured = async (pages: object[]) =>
    (
      await addEntry.execute(
        db(),
        {
          ...{ parentId: vaultId, captured: true, steps: steps(pages) },
          values: { ...values, password: `pass at seen ${pages.length}` },
        } as never,
        f.as("steward"),
      )
    ).entryId;
  const plain = await captured([step("in", "user-name", "password")]);
  const coded = await captured([step("in", "user-name", "password"), step("code", "code")]);
  expect([await open(plain), await open(coded)]).toEqual([[], ["no-code"]]);
  await db().writer.write((tx) =>
    tx.update(entries).set({ codesReach: f.ids.steward }).where(eq(entries.nodeId, coded)),
  );
  expect(await open(coded)).toEqual(["asks-a-person"]);
  await db().writer.write((tx) => tx.update(entries).set({ codesReach: "" }).where(eq(entries.nodeId, coded)));
  expect(await open(coded)).toEqual(["no-code"]);
  await change(coded, { ...values, code: "JBSWY3DPEHPK3PXP" });
  expect(await open(coded)).toEqual([]);
});

test("more people than its stewards say are too many, also by Everyone and by groups; nobody else reads the number", async () => {
  const say = (mostPeople: number | null) =>
    changeVault.execute(db(), { vaultId, name: `Shed ${number}`, description: "", mostPeople }, f.as("steward"));
  await say(3);
  // Its two stewards, and one more.
  await give(db(), f.as("steward"), vaultId, f.ids.use, "use");
  expect(await open(vaultId)).not.toContain("too-many");
  await give(db(), f.as("steward"), vaultId, f.ids.reveal, "use");
  expect(await open(vaultId)).toContain("too-many");
  const ledger = (who: "steward" | "use") => vaultLedger.execute(db(), { vaultId }, f.as(who));
  expect([(await ledger("steward")).mostPeople, (await ledger("use")).mostPeople]).toEqual([3, null]);
  // Renamed by someone who says nothing of it, it stays.
  await changeVault.execute(db(), { vaultId, name: `Shed ${number}` }, f.as("steward"));
  expect((await ledger("steward")).mostPeople).toBe(3);
  await say(null);
  expect(await open(vaultId)).not.toContain("too-many");
  const subject = { kind: "everyone" as const };
  await giveAccess.execute(db(), { nodeId: vaultId, subject, level: "use", why: "all of them" }, f.as("steward"));
  const count = (await db().access.fresh()).countWhoUse(vaultId, Date.now());
  expect(count).toBeGreaterThan(3);
  await say(count);
  expect(await open(vaultId)).not.toContain("too-many");
  await colleagueOf(db(), f, `Newcomer ${number}`);
  expect(await open(vaultId)).toContain("too-many");
});

test("a home page instead of a sign-in page, once nothing there was understood", async () => {
  const entryId = await add({ name: "Home", signInPage: "https://home.example/", password: "canary-home" });
  const id = uuidv7();
  const at = Date.now();
  await db()
    .db.insert(signIns)
    .values({
      ...{ id, entryId, versionId: (await current(entryId)).versionId, personId: f.ids.steward, lanyardId: "" },
      ...{ how: "tested", queueKey: "", process: db().process, begunAt: at },
    });
  await db().db.update(signIns).set({ endedAt: at, outcome: "not-understood" }).where(eq(signIns.id, id));
  expect(await open(entryId)).toEqual(["home-page"]);
});

test("of the house: Lanyards that nobody has used for sixty days, and checkpoints that lie nowhere else for a month", async () => {
  const found = async (kind: string, at = Date.now()) =>
    (await houseFindings.execute(db(), {}, f.as("owner", at), at)).rows.find((row) => row.kind === kind);
  const now = Date.now();
  expect([await found("lanyards"), await found("checkpoint")]).toEqual([undefined, undefined]);
  const theirs = await db().db.select().from(lanyards);
  expect(theirs.length).toBeGreaterThan(1);
  const [one, two] = theirs;
  for (const [row, days] of [
    [one, 61],
    [two, 59],
  ] as const)
    await db()
      .db.update(lanyards)
      .set({ lastUsedAt: now - days * DAY })
      .where(eq(lanyards.id, row!.id));
  expect(await found("lanyards", now)).toEqual({ kind: "lanyards", count: 1 });
  // One that was disconnected, or has run out, is nobody's to disconnect.
  await db().db.update(lanyards).set({ endedAt: now }).where(eq(lanyards.id, one!.id));
  expect(await found("lanyards", now)).toBeUndefined();
  await db()
    .db.update(lanyards)
    .set({ endedAt: null, expiresAt: now - 1 })
    .where(eq(lanyards.id, one!.id));
  expect(await found("lanyards", now)).toBeUndefined();

  const later = now + 31 * DAY;
  expect(await found("checkpoint", later)).toEqual({ kind: "checkpoint", at: null });
  // Signed by the server alone it lies beside what it is about.
  await makeCheckpoint.execute(db(), {}, { kind: "server" }, now);
  expect(await found("checkpoint", later)).toMatchObject({ at: null });
  await makeCheckpoint.execute(db(), {}, f.as("administrator", now), now);
  expect(await found("checkpoint", now + 29 * DAY)).toBeUndefined();
  expect(await found("checkpoint", later)).toEqual({ kind: "checkpoint", at: now });
});

test("addresses of the organisation in lists of leaked accounts: five digits leave, their owner and administrators are told", async () => {
  const list = db().configuration.leakedAddresses!;
  const found = await colleagueOf(db(), f, "Nobody");
  const left = await colleagueOf(db(), f, "Gone");
  await markLeaver.execute(db(), { personId: left.id }, f.as("owner"));
  const asked = async (at = Date.now()) => {
    app.standins.seen.length = 0;
    while ((await lookUpAddresses(db(), list, at)) > 0);
    return app.standins.seen.filter(({ host }) => host === "leaks.localhost").map(({ path }) => path);
  };
  const paths = await asked();
  // Neither guests nor leavers are looked up.
  const staff = await db().db.select().from(persons);
  expect(paths.length).toBeGreaterThan(3);
  expect(paths.length).toBeLessThanOrEqual(staff.length - 3);
  for (const path of paths) expect(path).toMatch(/^\/addresses\/[0-9A-F]{5}$/);
  const told = async (id: string) =>
    (await db().db.select().from(notices).where(eq(notices.personId, id))).filter(({ text }) =>
      text.includes("list of leaked accounts"),
    );
  expect(await told(found.id)).toMatchObject([{ sort: "security" }]);
  expect(await told(f.ids.administrator)).toHaveLength(1);
  for (const who of ["steward", "use", "guest", "auditor"] as const) expect(await told(f.ids[who])).toEqual([]);
  const house = async (at = Date.now()) =>
    (await houseFindings.execute(db(), {}, f.as("owner", at), at)).rows.find(({ kind }) => kind === "addresses");
  expect(await house()).toMatchObject({ names: ["Nobody"] });
  // Once a day, and told once.
  expect([await addressesDue(db().db, Date.now()), await asked()]).toEqual([false, []]);
  expect((await asked(Date.now() + 2 * DAY)).length).toBe(paths.length);
  expect(await told(found.id)).toHaveLength(1);
  expect(await house(Date.now() + 40 * DAY)).toBeUndefined();
  await markLeaver.execute(db(), { personId: found.id }, f.as("owner"));
  await erasePerson.execute(db(), { personId: found.id, name: "Nobody" }, f.as("owner"));
  expect(await house()).toBeUndefined();
});
