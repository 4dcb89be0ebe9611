/** Somebody leaves: what ends, who takes over, who learns what they have seen, and what comes back. */
import { and, eq, isNull } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { colleagueOf, type Fixture, give, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { createHandover } from "../src/server/access/handover/handover";
import { createLetterbox } from "../src/server/access/handover/letterbox";
import { requestList } from "../src/server/access/requests/requests";
import { whoCanDoWhat } from "../src/server/access/who";
import type { Caller } from "../src/server/caller";
import { grants, handovers, letterboxes, memberships, notices, sessions } from "../src/server/database/schema";
import { frontDesk } from "../src/server/frontdesk/frontDesk";
import { createGroup } from "../src/server/people/groups";
import { leavingPage, markLeaver } from "../src/server/people/leaving";
import { setMember } from "../src/server/people/members";
import { leaveDue, reinstate } from "../src/server/people/persons";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { createFolder } from "../src/server/vaults/folders";
import { revealField } from "../src/server/vaults/revealing";
import { markSeparate } from "../src/server/vaults/separating";
import { createVault } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const DAY = 86_400_000;
let number = 0;
let who: { id: string; as: Extract<Caller, { kind: "person" }> };

/** Another for each test. */
const colleague = (role: "member" | "administrator" = "administrator") =>
  colleagueOf(db(), f, `Colleague ${++number}`, role);
const page = (by: Kind = "administrator") => leavingPage.execute(db(), { personId: who.id }, f.as(by));
const go = (more: object = {}, by: Kind = "administrator") =>
  markLeaver.execute(db(), { personId: who.id, why: "last day", ...more }, f.as(by));
const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "allowed",
    (error) => error.code as string,
  );
const told = async (id: string) =>
  (await db().db.select().from(notices).where(eq(notices.personId, id))).map(({ text }) => text).join("\n");

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());
beforeEach(async () => {
  who = await colleague();
});

describe("before", () => {
  test("the page counts what ends, and names what only its stewards may know to them alone", async () => {
    await give(db(), f.as("steward"), f.entryId, who.id, "reveal");
    await give(db(), f.as("steward"), f.vaultId, who.id, "use");
    const { groupId } = await createGroup.execute(db(), { name: `Group ${number}` }, f.as("owner"));
    await setMember.execute(db(), { groupId, personId: who.id, keeper: true }, f.as("owner"));
    await revealField.execute(db(), { entryId: f.entryId, field: "password", how: "revealed" }, who.as);
    const seen = await page();
    expect(seen.ends).toMatchObject({ grants: 2, groups: [`Group ${number}`], sessions: 1, lanyards: 0 });
    expect(seen.keeperAlone).toMatchObject([{ name: `Group ${number}` }]);
    expect(seen.toldVaults).toEqual(["Shop & Tickets"]);
    // The administrator is steward of that vault, the owner is not.
    expect(seen.known.seen.map(({ name }) => name)).toEqual(["Pellam Tickets"]);
    const outside = await page("owner");
    expect(outside.known.seen).toEqual([]);
    expect(outside.known.elsewhere).toMatchObject([{ vault: "Shop & Tickets", count: 1 }]);
    expect(JSON.stringify(outside)).not.toContain("Pellam");
    for (const kind of ["steward", "use", "guest"] as const) expect(await code(page(kind))).toBe("not-allowed");
  });

  test("what they have seen counts until it is changed", async () => {
    const values = {
      ...{ name: "Kiosk", signInPage: "https://kiosk.example/in" },
      ...{ userName: "kiosk", password: "canary-kiosk-1" },
    };
    const { entryId } = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, f.as("steward"));
    await give(db(), f.as("steward"), entryId, who.id, "reveal");
    // Who knows the user name can open nothing with it.
    await revealField.execute(db(), { entryId, field: "userName", how: "revealed" }, who.as);
    expect((await page()).known.seen).toEqual([]);
    await revealField.execute(db(), { entryId, field: "password", how: "revealed" }, who.as);
    expect((await page()).known.seen).toMatchObject([{ name: "Kiosk", changedBy: "galtry", hasCode: false }]);
    const { entries } = await import("../src/server/database/schema");
    const [row] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
    const change = { entryId, baseVersionId: row!.versionId, values: { ...values, password: "canary-kiosk-2" } };
    await changeEntry.execute(db(), change, f.as("steward"));
    expect((await page()).known.seen).toEqual([]);
  });
});

describe("leaving", () => {
  test("ends everything they had and had opened; what they gave stays", async () => {
    const { vaultId } = await createVault.execute(db(), { name: `Own ${number}`, description: "" }, who.as);
    await give(db(), who.as, vaultId, f.ids.steward, "steward");
    await give(db(), who.as, vaultId, f.ids.use, "reveal");
    const values = { name: "Gate", signInPage: "https://gate.example/in", password: "canary-gate/73" };
    const { entryId } = await addEntry.execute(db(), { parentId: vaultId, captured: false, values }, who.as);
    const until = Date.now() + DAY;
    await createHandover.execute(db(), { entryId, fields: ["password"], until, openings: 1 }, who.as);
    const { folderId } = await createFolder.execute(db(), { parentId: vaultId, name: "Post" }, who.as);
    await createLetterbox.execute(db(), { nodeId: folderId, name: "The code", labels: ["Code"], until }, who.as);
    await go();
    const open = async () => [
      (
        await db()
          .db.select()
          .from(sessions)
          .where(and(eq(sessions.personId, who.id), isNull(sessions.endedAt)))
      ).length,
      (
        await db()
          .db.select()
          .from(grants)
          .where(and(eq(grants.subjectId, who.id), isNull(grants.validUntil)))
      ).length,
      (
        await db()
          .db.select()
          .from(memberships)
          .where(and(eq(memberships.personId, who.id), isNull(memberships.validUntil)))
      ).length,
    ];
    expect(await open()).toEqual([0, 0, 0]);
    const [link] = await db().db.select().from(handovers).where(eq(handovers.entryId, entryId));
    expect(link).toMatchObject({ sealed: null, withdrawnAt: expect.any(Number) });
    const [box] = await db().db.select().from(letterboxes).where(eq(letterboxes.makerId, who.id));
    expect(box!.closedAt).not.toBeNull();
    expect(await code(frontDesk.execute(db(), {}, who.as))).toBe("signed-out");
    const { reached } = await whoCanDoWhat.execute(db(), { nodeId: entryId }, f.as("steward"));
    expect(reached.map(({ name, level }) => `${name} ${level}`)).toContain("Person use reveal");
    expect(await code(go())).toBe("conflict");
  });

  test("names who takes over, there and then: told to them, the owners and nobody gains by naming", async () => {
    const { vaultId } = await createVault.execute(db(), { name: `Lone ${number}`, description: "" }, who.as);
    const { folderId } = await createFolder.execute(db(), { parentId: vaultId, name: "Hidden drawer" }, who.as);
    await markSeparate.execute(db(), { folderId, separate: true }, who.as);
    const { alone } = await page();
    expect(alone.map(({ what }) => what).sort()).toEqual([`Lone ${number}`, `a folder in Lone ${number}`].sort());
    const next = (personId: string | null) => alone.map(({ nodeId }) => ({ nodeId, personId }));
    expect(await code(go())).toBe("conflict");
    expect(await code(go({ successors: next(f.ids.administrator) }))).toBe("not-allowed");
    for (const kind of ["guest", "suspended", "leaver"] as const)
      expect(await code(go({ successors: next(f.ids[kind]) }))).toBe("bad-input");
    expect(await code(go({ successors: [...next(f.ids.edit), { nodeId: f.vaultId, personId: f.ids.edit }] }))).toBe(
      "conflict",
    );
    await go({ successors: next(f.ids.edit) });
    const { reached } = await whoCanDoWhat.execute(db(), { nodeId: folderId }, f.as("edit"));
    expect(reached.map(({ name, level }) => `${name} ${level}`)).toEqual(["Person edit steward"]);
    expect(await code(whoCanDoWhat.execute(db(), { nodeId: vaultId }, f.as("administrator")))).toBe("not-found");
    expect(await told(f.ids.edit)).toContain(`Person edit is now steward of Lone ${number}`);
    expect(await told(f.ids.owner)).toContain("chose new stewards for 2 places");
    expect(await told(f.ids.owner)).not.toContain("Hidden drawer");
  });

  test("with nobody named the owners are told of what has no steward", async () => {
    const { vaultId } = await createVault.execute(db(), { name: `Empty ${number}`, description: "" }, who.as);
    await go({ successors: [{ nodeId: vaultId, personId: null }] });
    expect(await told(f.ids.owner)).toContain(`The vault Empty ${number} has no steward`);
  });

  test("on a later date everything stays until then, and ends by itself", async () => {
    await give(db(), f.as("steward"), f.entryId, who.id, "use");
    const until = Date.now() + 5 * DAY;
    await go({ until });
    expect(await code(frontDesk.execute(db(), {}, who.as))).toBe("allowed");
    await leaveDue.execute(db(), {}, { kind: "server" }, until + 1);
    expect(
      await db()
        .db.select()
        .from(grants)
        .where(and(eq(grants.subjectId, who.id), isNull(grants.validUntil))),
    ).toEqual([]);
  });

  test("the last owner does not leave", async () => {
    who = { id: f.ids.owner, as: f.as("owner") };
    expect(await code(go({}, "administrator"))).toBe("not-allowed");
    const other = await colleague();
    const { changeRole } = await import("../src/server/people/persons");
    await changeRole.execute(db(), { personId: other.id, role: "owner" }, f.as("owner"));
    who = other;
    await go({}, "owner");
    expect(await code(markLeaver.execute(db(), { personId: f.ids.owner, why: "" }, f.as("owner")))).toBe("not-allowed");
  });
});

describe("reinstated", () => {
  test("has role and sign-in, and of access and groups what was ticked; stewards are told", async () => {
    await give(db(), f.as("steward"), f.entryId, who.id, "reveal");
    await give(db(), f.as("steward"), f.otherEntryId, who.id, "edit");
    const { groupId } = await createGroup.execute(db(), { name: `Back ${number}` }, f.as("owner"));
    await setMember.execute(db(), { groupId, personId: who.id }, f.as("owner"));
    await go();
    const { had } = await page();
    expect(had.grants.map(({ level, what }) => `${level} ${what}`).sort()).toEqual([
      "edit Quillbrook Couriers in Shop & Tickets",
      "reveal Pellam Tickets in Shop & Tickets",
    ]);
    const ticked = had.grants.find(({ level }) => level === "reveal")!;
    // Whose grants are not this person's are not given by it.
    const [foreign] = await db().db.select().from(grants).where(eq(grants.subjectId, f.ids.steward));
    await reinstate.execute(
      db(),
      { personId: who.id, why: "", grantIds: [ticked.id, foreign!.id], membershipIds: had.groups.map(({ id }) => id) },
      f.as("administrator"),
    );
    const now = await db()
      .db.select()
      .from(grants)
      .where(and(eq(grants.subjectId, who.id), isNull(grants.validUntil)));
    expect(now).toMatchObject([{ nodeId: f.entryId, level: "reveal" }]);
    expect(
      await db()
        .db.select()
        .from(memberships)
        .where(and(eq(memberships.personId, who.id), isNull(memberships.validUntil))),
    ).toHaveLength(1);
    expect(await told(f.ids.steward)).toContain(`Colleague ${number} is back and has Reveal on Pellam Tickets again`);
    expect((await requestList.execute(db(), {}, who.as)).own).toEqual([]);
  });

  test("without a tick has nothing", async () => {
    await give(db(), f.as("steward"), f.entryId, who.id, "reveal");
    await go();
    await reinstate.execute(db(), { personId: who.id, why: "" }, f.as("administrator"));
    expect(
      await db()
        .db.select()
        .from(grants)
        .where(and(eq(grants.subjectId, who.id), isNull(grants.validUntil))),
    ).toEqual([]);
  });
});
