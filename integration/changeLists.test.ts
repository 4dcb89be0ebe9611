/** What somebody has seen is changed by its stewards: shared out, reminded, decided, and over once nothing of it works. */
import { and, eq, isNull } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { colleagueOf, type Fixture, give, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { USUAL_RULES } from "../src/core/access/houseRules";
import { endAccess } from "../src/server/access/grants";
import { regionsOf, stewardsAt, stewardsOfEach } from "../src/server/access/stewards";
import type { Caller } from "../src/server/caller";
import { changeLists, entries, grants, journal, notices } from "../src/server/database/schema";
import {
  askForChanges,
  followChangeLists,
  knownPage,
  leaveUnchanged,
  ownChangeLists,
  setChangeListDate,
  undoLeaveUnchanged,
} from "../src/server/people/changeLists";
import { leavingPage, markLeaver } from "../src/server/people/leaving";
import { ownNotices } from "../src/server/people/notices";
import { leaveDue, reinstate } from "../src/server/people/persons";
import { changeRules } from "../src/server/rules/rules";
import { sweepOld } from "../src/server/upkeep/sweeping";
import { binEntry, restoreEntry } from "../src/server/vaults/bin";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { createFolder } from "../src/server/vaults/folders";
import { revealField } from "../src/server/vaults/revealing";
import { markSeparate } from "../src/server/vaults/separating";
import { createVault } from "../src/server/vaults/vaults";

const SERVER = { kind: "server" } as const;
const DAY = 86_400_000;
let app: InProcess;
let f: Fixture;
/** A vault of which somebody else is steward: “edit” looks after it alone. */
let otherVault: string;
let who: Awaited<ReturnType<typeof colleagueOf>>;
let made = 0;
const db = () => app.galtry;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  const { makes } = USUAL_RULES;
  await changeRules.execute(db(), { ...USUAL_RULES, makes: { ...makes, vaults: "staff" } }, f.as("owner"));
  otherVault = (await createVault.execute(db(), { name: "Vault of others", description: "" }, f.as("edit"))).vaultId;
});
afterAll(() => app.close());
beforeEach(async () => {
  who = await colleagueOf(db(), f, `Colleague ${made++}`);
  for (const kind of ["steward", "edit", "owner", "administrator"] as const)
    await db().db.update(notices).set({ putAwayAt: Date.now() }).where(eq(notices.personId, f.ids[kind]));
});

let names = 0;
/** A login that they have seen the password of. */
async function seen(
  vaultId = f.vaultId,
  by: Kind = "steward",
  person = who,
): Promise<{ entryId: string; name: string }> {
  const name = `Canary login ${names++}`;
  const values = {
    name,
    signInPage: `https://login${names}.example/in`,
    userName: "office",
    password: `pass-${names}`,
  };
  const { entryId } = await addEntry.execute(db(), { parentId: vaultId, captured: false, values }, f.as(by));
  await give(db(), f.as(by), entryId, person.id, "reveal");
  await look(entryId, person.as);
  return { entryId, name };
}
const look = (entryId: string, as: Caller) =>
  revealField.execute(db(), { entryId, field: "password", how: "revealed" }, as);
async function change(entryId: string, by: Kind = "steward"): Promise<void> {
  const [row] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
  const values = {
    ...{ name: row!.name, signInPage: row!.signInPage, userName: "office" },
    password: `changed-${names++}`,
  };
  await changeEntry.execute(db(), { entryId, baseVersionId: row!.versionId, values }, f.as(by));
}
const page = (kind: Kind) => knownPage.execute(db(), { personId: who.id }, f.as(kind));
const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "allowed",
    (error) => error.code as string,
  );
const leave = (more: object = {}) =>
  markLeaver.execute(db(), { personId: who.id, why: "last day", ...more }, f.as("administrator"));
const listOf = async () =>
  (await db().db.select().from(changeLists).where(eq(changeLists.personId, who.id))).find(
    (one) => one.endedAt === null,
  );
const told = async (kind: Kind) =>
  (
    await db()
      .db.select()
      .from(notices)
      .where(and(eq(notices.personId, f.ids[kind]), isNull(notices.putAwayAt)))
  ).map(({ text }) => text);
const follow = (at?: number) => followChangeLists.execute(db(), {}, SERVER, at);

describe("somebody leaves", () => {
  test("each steward gets their share with a date, by name theirs alone, and sees how far the others are", async () => {
    const [a, b] = [await seen(), await seen()];
    const c = await seen(otherVault, "edit");
    await leave();
    expect((await told("steward")).join()).toMatch(/has left and has seen 2 passwords .* Change them by /);
    expect((await told("edit")).join()).toMatch(/has left and has seen 1 password .* Change it by /);
    // Once, by that: not a second time as stewards of what they could reveal.
    expect((await told("steward")).filter((text) => text.includes(who.name))).toHaveLength(1);
    const theirs = await page("steward");
    expect(theirs.seen.map(({ name }) => name).sort()).toEqual([a.name, b.name]);
    expect(theirs.elsewhere).toEqual([]);
    expect(JSON.stringify(theirs)).not.toContain(c.name);
    expect(JSON.stringify(theirs)).not.toContain("Vault of others");
    const mine = await page("edit");
    expect(mine.seen.map(({ name }) => name)).toEqual([c.name]);
    for (const one of [a, b]) expect(JSON.stringify(mine)).not.toContain(one.name);
    expect(mine.list).toMatchObject({ sort: "left", why: "last day", of: 3, open: 3, left: 0 });
    const progress = (view: typeof mine) =>
      view.list!.progress.filter(({ of }) => of > 0).map(({ of, open }) => [of - open, of]);
    expect(progress(mine)).toEqual(
      expect.arrayContaining([
        [0, 2],
        [0, 1],
      ]),
    );
    await change(a.entryId);
    expect(progress(await page("edit"))).toEqual(
      expect.arrayContaining([
        [1, 2],
        [0, 1],
      ]),
    );
    // An administrator reads how many there are elsewhere, and no name.
    const all = await page("owner");
    expect(all.elsewhere.map(({ count }) => count).sort()).toEqual([1, 1]);
    for (const one of [a, b, c]) expect(JSON.stringify(all)).not.toContain(one.name);
    // The notice leads there.
    const links = (await ownNotices.execute(db(), {}, f.as("edit"))).map(({ link }) => link);
    expect(links).toContain(`/people/${who.id}/known`);
    expect(await ownChangeLists.execute(db(), {}, f.as("edit"))).toMatchObject([{ personId: who.id, open: 1 }]);
    await change(c.entryId, "edit");
    expect(await ownChangeLists.execute(db(), {}, f.as("edit"))).toEqual([]);
  });

  test("it is over once nothing of it works, and owners and whoever asked are told", async () => {
    const a = await seen();
    await leave();
    await follow();
    expect(await listOf()).toBeDefined();
    await change(a.entryId);
    await follow();
    expect(await listOf()).toBeUndefined();
    for (const kind of ["owner", "administrator"] as const)
      expect(await told(kind)).toContain(`Nothing that ${who.name} has seen works any more.`);
    // What waited is dismissed by itself.
    expect((await told("steward")).filter((text) => text.includes("has left and has seen"))).toEqual([]);
    expect((await page("owner")).list).toMatchObject({ of: 1, open: 0 });
  });

  test("what is not worth it stays, with a reason; only a steward of it decides, and may think better of it", async () => {
    const a = await seen();
    const b = await seen(otherVault, "edit");
    await leave();
    const listId = (await listOf())!.id;
    const why = "the account is closed on Friday";
    const act = (input: object, kind: Kind) =>
      code(leaveUnchanged.execute(db(), { listId, why, ...input }, f.as(kind)));
    for (const kind of ["edit", "owner", "guest", "nothing"] as const)
      expect(await act({ entryId: a.entryId }, kind), kind).not.toBe("allowed");
    expect(await act({ entryId: a.entryId, why: " " }, "steward")).toBe("bad-input");
    expect(await act({ entryId: a.entryId }, "steward")).toBe("allowed");
    expect((await page("steward")).seen).toMatchObject([{ left: { why } }]);
    expect((await page("owner")).list).toMatchObject({ of: 2, open: 1, left: 1 });
    expect(await code(undoLeaveUnchanged.execute(db(), { listId, entryId: a.entryId }, f.as("edit")))).not.toBe(
      "allowed",
    );
    await undoLeaveUnchanged.execute(db(), { listId, entryId: a.entryId }, f.as("steward"));
    expect((await page("owner")).list).toMatchObject({ open: 2, left: 0 });
    await act({ entryId: a.entryId }, "steward");
    await change(b.entryId, "edit");
    await follow();
    expect((await told("owner")).join()).toContain("except 1 password that its stewards left unchanged");
    expect(await act({ entryId: a.entryId }, "steward")).toBe("conflict");
    const lines = await db().db.select().from(journal).where(eq(journal.node, a.entryId));
    expect(lines.filter(({ act, outcome }) => act.endsWith("eaveUnchanged") && outcome === "done")).toHaveLength(3);
  });

  test("its stewards are reminded before the date, on it and every three days; then the owners too", async () => {
    await seen();
    const dueAt = Date.now() + 10 * DAY;
    await leave({ changeBy: dueAt });
    const reminders = async (at: number) => {
      await follow(at);
      return [
        (await told("steward")).filter((text) => text.startsWith("Reminder") && text.includes(who.name)).length,
        (await told("owner")).filter((text) => text.includes("is over") && text.includes(who.name)).length,
      ];
    };
    expect(await reminders(dueAt - 3 * DAY)).toEqual([0, 0]);
    expect(await reminders(dueAt - 2 * DAY)).toEqual([1, 0]);
    const remindedAt = (await listOf())!.remindedAt;
    expect(await reminders(dueAt - DAY)).toEqual([1, 0]);
    expect((await listOf())!.remindedAt).toBe(remindedAt);
    expect(await reminders(dueAt)).toEqual([1, 1]);
    expect(await reminders(dueAt + 2 * DAY)).toEqual([1, 1]);
    expect((await listOf())!.remindedAt).toBe(dueAt);
    expect(await reminders(dueAt + 3 * DAY)).toEqual([1, 1]);
    expect((await listOf())!.remindedAt).toBe(dueAt + 3 * DAY);
    // A process that slept through it reminds once.
    expect(await reminders(dueAt + 20 * DAY)).toEqual([1, 1]);
    const { id } = (await listOf())!;
    const later = { listId: id, dueAt: Date.now() + 30 * DAY };
    expect(await code(setChangeListDate.execute(db(), later, f.as("steward")))).toBe("not-allowed");
    await setChangeListDate.execute(db(), later, f.as("administrator"));
    expect(await listOf()).toMatchObject({ dueAt: later.dueAt, remindedAt: null });
    for (const wrong of [Date.now() - 1, Date.now() + 400 * DAY])
      expect(await code(setChangeListDate.execute(db(), { ...later, dueAt: wrong }, f.as("owner")))).toBe("bad-input");
  });

  test("on a date set before, too; and whoever is back ends it", async () => {
    await seen();
    const until = Date.now() + DAY;
    await leave({ until });
    expect(await listOf()).toBeUndefined();
    await leaveDue.execute(db(), {}, SERVER, until + 1);
    expect(await listOf()).toMatchObject({ sort: "left", openedBy: null });
    await reinstate.execute(db(), { personId: who.id }, f.as("administrator"), until + 2);
    expect(await listOf()).toBeUndefined();
  });

  test("who has seen nothing leaves without a list", async () => {
    await leave();
    expect(await listOf()).toBeUndefined();
    expect(await code(page("steward"))).toBe("not-found");
    expect((await leavingPage.execute(db(), { personId: who.id }, f.as("owner"))).known.list).toBeNull();
  });
});

test("many entries in one vault cost a handful of statements, and are shared out as one by one", async () => {
  const vaultId = (await createVault.execute(db(), { name: `Wide ${made}`, description: "" }, f.as("administrator")))
    .vaultId;
  await give(db(), f.as("administrator"), vaultId, f.ids.steward, "steward");
  await give(db(), f.as("administrator"), vaultId, who.id, "reveal");
  const { folderId } = await createFolder.execute(db(), { parentId: vaultId, name: "Below" }, f.as("steward"));
  const ids: string[] = [];
  for (let i = 0; i < 30; i += 1) {
    const values = { name: `Wide ${i}`, signInPage: `https://wide-${i}.example/in`, password: `wide-${i}` };
    const parentId = i % 2 === 0 ? vaultId : folderId;
    const { entryId } = await addEntry.execute(db(), { parentId, captured: false, values }, f.as("steward"));
    await look(entryId, who.as);
    ids.push(entryId);
  }
  // A folder that stands apart, and an entry in it with a steward of its own.
  await markSeparate.execute(db(), { folderId, separate: true }, f.as("steward"));
  await give(db(), f.as("steward"), ids[1]!, f.ids.edit, "steward");
  const at = Date.now();
  const together = await stewardsOfEach(db().db, ids, at);
  for (const id of ids)
    expect((together.get(id) ?? []).map((one) => one.id)).toEqual(
      (await stewardsAt(db().db, id, at)).map((one) => one.id),
    );
  expect(new Set((await regionsOf(db().db, ids)).values()).size).toBe(3);
});

describe("somebody stays", () => {
  const ask = (more: object = {}, kind: Kind = "administrator") =>
    askForChanges.execute(db(), { personId: who.id, sort: "lost", why: "a laptop was lost", ...more }, f.as(kind));

  test("everything they have seen until then is changed; what they see afterwards is theirs to see", async () => {
    const a = await seen();
    await ask();
    expect((await page("steward")).list).toMatchObject({ sort: "lost", of: 1, open: 1 });
    await change(a.entryId);
    await look(a.entryId, who.as);
    const b = await seen();
    expect((await page("steward")).list).toMatchObject({ of: 1, open: 0 });
    expect(JSON.stringify((await page("steward")).seen)).not.toContain(b.name);
    await follow();
    expect(await listOf()).toBeUndefined();
  });

  test("of somebody whose access was lowered, only what they may no longer reveal", async () => {
    const [a, b] = [await seen(), await seen()];
    expect(await code(ask({ sort: "lowered" }))).toBe("conflict");
    const theirs = await db().db.select().from(grants).where(eq(grants.nodeId, a.entryId));
    const grant = theirs.find(({ subjectId, validUntil }) => subjectId === who.id && validUntil === null)!;
    await endAccess.execute(db(), { grantId: grant.id }, f.as("steward"));
    await ask({ sort: "lowered" });
    expect((await page("steward")).seen.map(({ name }) => name)).toEqual([a.name]);
    // Asked again, the new list takes the place of the old one.
    await ask();
    expect((await page("steward")).seen.map(({ name }) => name).sort()).toEqual([a.name, b.name]);
    expect(await db().db.select().from(changeLists).where(eq(changeLists.personId, who.id))).toHaveLength(2);
  });

  test("only administrators ask; nobody but stewards of it and administrators reads it, and not the person", async () => {
    await seen();
    for (const kind of ["steward", "edit", "guest", "auditor", "nothing"] as const)
      expect(await code(ask({}, kind)), kind).toBe("not-allowed");
    expect(await code(ask({ why: "" }))).toBe("bad-input");
    expect(await code(ask({ dueAt: Date.now() - 1 }))).toBe("bad-input");
    await ask();
    for (const kind of ["reveal", "use", "nothing", "guest", "auditor"] as const)
      expect(await code(page(kind)), kind).toBe("not-found");
    expect(await code(knownPage.execute(db(), { personId: who.id }, who.as))).toBe("not-found");
    expect(await ownChangeLists.execute(db(), {}, who.as)).toEqual([]);
  });

  test("what goes to the bin is done, and comes back with it", async () => {
    const a = await seen();
    const b = await seen();
    await ask();
    await binEntry.execute(db(), { entryIds: [a.entryId] }, f.as("steward"));
    await follow();
    const open = async () => (await page("owner")).list!.open;
    expect(await open()).toBe(1);
    await restoreEntry.execute(db(), { entryIds: [a.entryId] }, f.as("steward"));
    await follow();
    expect(await open()).toBe(2);
    await change(a.entryId);
    await change(b.entryId);
    await follow();
    const [list] = await db().db.select().from(changeLists).where(eq(changeLists.personId, who.id));
    const later = list!.endedAt! + 731 * DAY;
    for (let i = 0; i < 2; i += 1) await sweepOld.execute(db(), {}, SERVER, later);
    expect(await db().db.select().from(changeLists).where(eq(changeLists.personId, who.id))).toEqual([]);
  });
});
