/** Change slips: drafted, read, applied whole or not at all, taken back. */
import { and, eq, isNull } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, give, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { unpack } from "../src/core/packed";
import { changeAccess, endAccess, giveAccess } from "../src/server/access/grants";
import { accessGrid, gridVaults } from "../src/server/access/grid";
import {
  answerSlip,
  applySlip,
  discardSlip,
  draftSlip,
  ownSlip,
  undoSlip,
  waitingSlips,
  withdrawSlip,
} from "../src/server/access/slip/slip";
import { takeableNodes, takeStewardship } from "../src/server/access/stewardship";
import { whoCanDoWhat } from "../src/server/access/who";
import { grants, notices } from "../src/server/database/schema";
import { createGroup } from "../src/server/people/groups";
import { setMember } from "../src/server/people/members";
import { binEntry, eraseEntry } from "../src/server/vaults/bin";
import { addEntry } from "../src/server/vaults/entries";
import { createFolder } from "../src/server/vaults/folders";
import { revealField } from "../src/server/vaults/revealing";

let app: InProcess;
let f: Fixture;
let folderId: string;
let inFolder: string;
const db = () => app.galtry;
const NO_TIME = { from: null, until: null };

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  const values = { name: "Till", signInPage: "https://till.example/in", password: "canary-till/73 quay" };
  folderId = (await createFolder.execute(db(), { parentId: f.vaultId, name: "Tills" }, f.as("steward"))).folderId;
  inFolder = (await addEntry.execute(db(), { parentId: folderId, captured: false, values }, f.as("steward"))).entryId;
});
afterAll(() => app.close());

const set = (nodeId: string, kind: Kind, ...levels: string[]) => ({
  type: "set" as const,
  nodeId,
  subject: { kind: "person" as const, id: f.ids[kind] },
  grants: levels.map((level) => ({ level, ...NO_TIME })),
});
const slipOf = async (kind: Kind) => (await ownSlip.execute(db(), {}, f.as(kind))).draft;
async function draft(kind: Kind, changes: object[], more: object = {}) {
  const revision = (await slipOf(kind))?.revision ?? 0;
  await draftSlip.execute(db(), { changes, revision, ...more }, f.as(kind));
  return slipOf(kind);
}
async function apply(kind: Kind, why = "") {
  const slip = (await slipOf(kind))!;
  const { id: slipId, revision, said } = slip;
  return applySlip.execute(db(), { slipId, revision, ground: said.ground, why }, f.as(kind));
}
const levelOf = async (nodeId: string, kind: Kind) =>
  (await whoCanDoWhat.execute(db(), { nodeId }, f.as("steward"))).reached.find((one) => one.personId === f.ids[kind])
    ?.level ?? "none";

describe("a slip", () => {
  test("that was worked out before somebody else changed the place is not applied on what was worked out", async () => {
    const slip = (await draft("steward", [set(inFolder, "nothing", "use")]))!;
    const { id: slipId, revision, said } = slip;
    const input = { slipId, revision, ground: said.ground, why: "" };
    // It is being worked out while another steward gives them more on the folder: then it would take away.
    const applying = applySlip.execute(db(), input, f.as("steward")).then(
      () => "applied",
      (error) => error.code as string,
    );
    const { grantId } = await giveAccess.execute(
      db(),
      { nodeId: folderId, subject: { kind: "person", id: f.ids.nothing }, level: "edit", ...NO_TIME, why: "" },
      f.as("administrator"),
    );
    expect(await applying).toBe("conflict");
    await endAccess.execute(db(), { grantId }, f.as("administrator"));
    await discardSlip.execute(db(), { slipId }, f.as("steward"));
  });

  test("says who would gain what, changes nothing until it is applied, and is taken back as a whole", async () => {
    const slip = (await draft("steward", [set(folderId, "nothing", "reveal"), set(folderId, "guest", "use")]))!;
    expect(slip.changes.map(({ text }) => text)).toEqual([
      "Give Person nothing Reveal on Tills",
      "Give Person guest Use on Tills",
    ]);
    const gains = slip.said.lines.map(({ people, before, after, what, first }) => ({
      who: people.map(({ name }) => name),
      before,
      after,
      what: what.map(({ name }) => name),
      first,
    }));
    expect(gains).toContainEqual({
      who: ["Person nothing"],
      before: "none",
      after: "reveal",
      what: ["Till"],
      first: ["Person nothing"],
    });
    expect(slip.said).toMatchObject({ beyond: false, withoutSteward: [], idle: [] });
    expect(await levelOf(inFolder, "nothing")).toBe("none");
    await apply("steward", "Stock taking");
    expect(await levelOf(inFolder, "nothing")).toBe("reveal");
    expect(await levelOf(inFolder, "guest")).toBe("use");
    const { draft: none, applied } = await ownSlip.execute(db(), {}, f.as("steward"));
    expect(none).toBeNull();
    await undoSlip.execute(db(), { slipId: applied[0]!.id }, f.as("steward"));
    expect((await slipOf("steward"))!.said.lines.every((line) => line.after === "none")).toBe(true);
    await apply("steward");
    expect(await levelOf(inFolder, "nothing")).toBe("none");
    expect(await levelOf(inFolder, "guest")).toBe("none");
  });

  test("undone after somebody else has set something there: that is named, and nothing is overwritten unread", async () => {
    await draft("steward", [set(folderId, "nothing", "reveal")]);
    await apply("steward");
    const [applied] = (await ownSlip.execute(db(), {}, f.as("steward"))).applied;
    const [grant] = await db()
      .db.select({ id: grants.id })
      .from(grants)
      .where(and(eq(grants.nodeId, folderId), eq(grants.subjectId, f.ids.nothing), isNull(grants.validUntil)));
    await changeAccess.execute(db(), { grantId: grant!.id, level: "edit", ...NO_TIME }, f.as("administrator"));
    await undoSlip.execute(db(), { slipId: applied!.id }, f.as("steward"));
    const [back] = (await slipOf("steward"))!.changes;
    expect(back).toMatchObject({ moved: true, movedBy: ["Person administrator"] });
    await expect(apply("steward")).rejects.toMatchObject({ code: "conflict" });
    expect(await levelOf(inFolder, "nothing")).toBe("edit");
    await discardSlip.execute(db(), { slipId: (await slipOf("steward"))!.id }, f.as("steward"));
    await draft("steward", [set(folderId, "nothing")]);
    await apply("steward");
  });

  test("names who used or saw what they would lose, in the last thirty days", async () => {
    await give(db(), f.as("steward"), inFolder, f.ids.edit, "reveal");
    await revealField.execute(db(), { entryId: inFolder, field: "password", how: "revealed" }, f.as("edit"));
    const slip = (await draft("steward", [set(inFolder, "edit", "use")]))!;
    expect(slip.said.lines).toMatchObject([
      { before: "reveal", after: "use", used: ["Person edit"], what: [{ name: "Till" }] },
    ]);
    await discardSlip.execute(db(), { slipId: slip.id }, f.as("steward"));
  });

  test("says which changes do nothing, and tells later moments apart", async () => {
    const soon = Date.now() + 3_600_000;
    const later = { level: "edit", from: soon, until: soon + 3_600_000 };
    const slip = (await draft("steward", [
      set(inFolder, "edit", "reveal"),
      { ...set(inFolder, "use"), grants: [later] },
    ]))!;
    expect(slip.said.idle).toEqual([0]);
    expect(slip.said.lines).toMatchObject([{ before: "none", after: "edit", at: soon }]);
    await discardSlip.execute(db(), { slipId: slip.id }, f.as("steward"));
  });

  test("a weekly window is given with its days and told in the explanation", async () => {
    const weekly = { days: [7, 6], start: 9 * 60, end: 18 * 60 };
    await draft("steward", [{ ...set(inFolder, "use"), grants: [{ level: "use", ...NO_TIME, weekly }] }]);
    await apply("steward");
    const [row] = await db()
      .db.select()
      .from(grants)
      .where(and(eq(grants.nodeId, inFolder), eq(grants.subjectId, f.ids.use), isNull(grants.validUntil)));
    expect(row!.weekly).toEqual({ days: [6, 7], start: 540, end: 1080, zone: "Europe/London" });
    const again = (await draft("steward", [
      { ...set(inFolder, "use"), grants: [{ level: "use", ...NO_TIME, weekly }] },
    ]))!;
    expect(again.said.idle).toEqual([0]);
    await discardSlip.execute(db(), { slipId: again.id }, f.as("steward"));
  });

  test("what would leave something without a steward is refused, and nothing of the slip happens", async () => {
    const alone = (await createFolder.execute(db(), { parentId: f.vaultId, name: "Alone" }, f.as("steward"))).folderId;
    await draft("steward", [{ type: "separate", nodeId: alone, separate: true }]);
    await apply("steward");
    const slip = (await draft("steward", [set(alone, "use", "use"), set(alone, "steward")]))!;
    expect(slip.said.withoutSteward).toEqual(["Alone"]);
    await expect(apply("steward")).rejects.toMatchObject({ code: "not-allowed" });
    expect(await levelOf(alone, "use")).toBe("none");
    // Another one in place of the first is no loss, in whichever order they were set.
    await draft("steward", [set(alone, "steward"), set(alone, "edit", "steward")]);
    expect((await slipOf("steward"))!.said.withoutSteward).toEqual([]);
    await apply("steward");
    const { lines } = await whoCanDoWhat.execute(db(), { nodeId: alone }, f.as("edit"));
    expect(lines.map(({ name, level }) => `${name} ${level}`)).toEqual(["Person edit steward"]);
  });

  test("two stewards at one cell: the second reads it anew instead of undoing the first unseen", async () => {
    await give(db(), f.as("steward"), f.vaultId, f.ids.administrator, "steward").catch(() => undefined);
    await draft("steward", [set(inFolder, "nothing", "use")]);
    await draft("administrator", [set(inFolder, "nothing", "edit")]);
    const read = (await slipOf("administrator"))!;
    await apply("steward");
    const stale = { slipId: read.id, revision: read.revision, ground: read.said.ground };
    await expect(applySlip.execute(db(), stale, f.as("administrator"))).rejects.toMatchObject({ code: "conflict" });
    expect(await levelOf(inFolder, "nothing")).toBe("use");
    expect((await slipOf("administrator"))!.changes[0]!.moved).toBe(true);
    const fresh = (await draft("administrator", [set(inFolder, "nothing", "edit")], { anew: true }))!;
    expect(fresh.changes[0]!.moved).toBe(false);
    expect(fresh.said.lines).toMatchObject([{ before: "use", after: "edit" }]);
    await apply("administrator");
    expect(await levelOf(inFolder, "nothing")).toBe("edit");
  });

  test("one draft a person; a page that lags behind is told so", async () => {
    await draft("steward", [set(inFolder, "guest", "use")]);
    await expect(
      draftSlip.execute(db(), { changes: [set(inFolder, "guest", "edit")], revision: 0 }, f.as("steward")),
    ).rejects.toMatchObject({ code: "conflict" });
    expect(await draft("steward", [])).toBeNull();
  });

  test("joining a group is drafted by those who may, and says what it would give", async () => {
    const { groupId } = await createGroup.execute(db(), { name: "Night Team", description: "" }, f.as("owner"));
    await draft("steward", [
      {
        type: "set",
        nodeId: folderId,
        subject: { kind: "group", id: groupId },
        grants: [{ level: "reveal", ...NO_TIME }],
      },
    ]);
    await apply("steward");
    const join = { type: "member", groupId, personId: f.ids.reveal, held: NO_TIME };
    await expect(draftSlip.execute(db(), { changes: [join], revision: 0 }, f.as("steward"))).rejects.toMatchObject({
      code: "not-allowed",
    });
    // An administrator who is steward of nothing there learns no name, only that others are concerned.
    const blind = (await draft("owner", [join]))!;
    expect(blind.said).toMatchObject({ lines: [], beyond: true });
    await discardSlip.execute(db(), { slipId: blind.id }, f.as("owner"));
    const seen = (await draft("administrator", [join]))!;
    expect(seen.said.lines).toMatchObject([{ after: "reveal", people: [{ name: "Person reveal" }] }]);
    await apply("administrator");
    expect(await levelOf(inFolder, "reveal")).toBe("reveal");
    await setMember.execute(db(), { groupId, personId: f.ids.use }, f.as("owner"));
  });
});

describe("the grid", () => {
  test("is read by stewards of something there, as far as they are", async () => {
    expect((await gridVaults.execute(db(), {}, f.as("steward"))).map(({ name }) => name)).toEqual(["Shop & Tickets"]);
    expect(await gridVaults.execute(db(), {}, f.as("reveal"))).toEqual([]);
    await expect(accessGrid.execute(db(), { vaultId: f.vaultId }, f.as("reveal"))).rejects.toMatchObject({
      code: "not-found",
    });
    await give(db(), f.as("steward"), inFolder, f.ids.reveal, "steward");
    const part = await accessGrid.execute(db(), { vaultId: f.vaultId }, f.as("reveal"));
    expect(
      unpack(part.nodes)
        .map(({ name, mine }) => `${name} ${mine}`)
        .sort(),
    ).toEqual(["Shop & Tickets false", "Till true", "Tills false"]);
    expect(JSON.stringify(part)).not.toContain("canary");
    const whole = await accessGrid.execute(db(), { vaultId: f.vaultId }, f.as("steward"));
    expect(unpack(whole.nodes).length).toBeGreaterThan(3);
    expect(unpack(whole.people).some(({ name }) => name === "Person leaver")).toBe(false);
  });

  test("shows a moment that is over as the rows were then, of what one is steward of today", async () => {
    const before = Date.now();
    await new Promise((next) => setTimeout(next, 5));
    await draft("steward", [set(f.entryId, "nothing", "edit")]);
    await apply("steward");
    const held = async (at: number | null) =>
      unpack((await accessGrid.execute(db(), { vaultId: f.vaultId, at }, f.as("steward"))).grants).some(
        (grant) => grant.node === f.entryId && grant.subjectId === f.ids.nothing,
      );
    expect(await held(null)).toBe(true);
    expect(await held(before)).toBe(false);
  });
});

describe("what others are stewards of", () => {
  test("is not named, waits for their yes, and is applied in the drafter's name with the last one", async () => {
    // The steward of the vault has an own lower say on one entry: that is another's.
    const values = { name: "Strong room", signInPage: "https://strong.example/in", password: "canary-strong/73" };
    const { entryId } = await addEntry.execute(
      db(),
      { parentId: folderId, captured: false, values },
      f.as("administrator"),
    );
    await give(db(), f.as("administrator"), entryId, f.ids.edit, "steward");
    await give(db(), f.as("administrator"), entryId, f.ids.steward, "use");
    const slip = (await draft("steward", [set(folderId, "guest", "use")]))!;
    expect(slip.said.beyond).toBe(true);
    expect(JSON.stringify(slip)).not.toContain("Strong room");
    // Not who is asked, nor how many.
    expect(await apply("steward", "For the fair")).toEqual({ changes: 1, waiting: true });
    const reached = async () =>
      (await whoCanDoWhat.execute(db(), { nodeId: entryId }, f.as("edit"))).reached.some(
        (one) => one.personId === f.ids.guest,
      );
    expect(await reached()).toBe(false);
    expect((await ownSlip.execute(db(), {}, f.as("steward"))).waiting).toHaveLength(1);
    expect(await waitingSlips.execute(db(), {}, f.as("reveal"))).toEqual([]);
    const [waiting] = await waitingSlips.execute(db(), {}, f.as("edit"));
    expect(waiting).toMatchObject({ by: "Person steward", why: "For the fair" });
    // Its other steward reads of their own entry, and of nothing else in the folder.
    expect(waiting!.said.lines.flatMap((line) => line.what.map(({ name }) => name))).toEqual(["Strong room"]);
    const answer = (kind: Kind, more: object) =>
      answerSlip.execute(db(), { slipId: waiting!.id, yes: true, ground: waiting!.said.ground, ...more }, f.as(kind));
    await expect(answer("reveal", {})).rejects.toMatchObject({ code: "not-found" });
    await expect(answer("steward", {})).rejects.toMatchObject({ code: "not-found" });
    await expect(answer("edit", { yes: false })).rejects.toMatchObject({ field: "word" });
    // What came under it meanwhile its drafter never read: nobody says yes to that.
    const { entryId: late } = await addEntry.execute(
      db(),
      { parentId: folderId, captured: false, values: { ...values, name: "Late" } },
      f.as("administrator"),
    );
    const [other] = await waitingSlips.execute(db(), {}, f.as("edit"));
    await expect(answer("edit", { ground: other!.said.ground })).rejects.toMatchObject({
      code: "conflict",
      message: expect.stringContaining("must check it again"),
    });
    await binEntry.execute(db(), { entryIds: [late] }, f.as("administrator"));
    await eraseEntry.execute(db(), { entryIds: [late] }, f.as("administrator"));
    expect(await answer("edit", {})).toEqual({ applied: true });
    expect(await reached()).toBe(true);
    const [row] = await db()
      .db.select()
      .from(grants)
      .where(and(eq(grants.nodeId, folderId), eq(grants.subjectId, f.ids.guest), isNull(grants.validUntil)));
    expect(row).toMatchObject({ givenBy: f.ids.steward, why: "For the fair" });
  });

  test("a no drops it with a word; taken back it is a draft again", async () => {
    await draft("steward", [set(folderId, "guest", "reveal")]);
    await apply("steward");
    const [first] = (await ownSlip.execute(db(), {}, f.as("steward"))).waiting;
    await withdrawSlip.execute(db(), { slipId: first!.id }, f.as("steward"));
    expect((await slipOf("steward"))!.changes).toHaveLength(1);
    await apply("steward");
    const [waiting] = await waitingSlips.execute(db(), {}, f.as("edit"));
    await answerSlip.execute(
      db(),
      { slipId: waiting!.id, yes: false, ground: "", word: "Not in the strong room" },
      f.as("edit"),
    );
    const own = await ownSlip.execute(db(), {}, f.as("steward"));
    expect([own.draft, own.waiting]).toEqual([null, []]);
    const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.steward));
    expect(told.some(({ text }) => text.includes("“Not in the strong room”"))).toBe(true);
  });
});

describe("an owner", () => {
  test("takes stewardship with a reason that every steward reads, of what is named by its stewards alone", async () => {
    const takeable = await takeableNodes.execute(db(), {}, f.as("owner"));
    const vault = takeable.find((one) => one.nodeId === f.vaultId)!;
    expect(vault).toMatchObject({ name: "Shop & Tickets", what: "the whole vault" });
    expect(vault.stewards).toContain("Person steward");
    expect(takeable.find((one) => one.what === "a separate folder")).toBeDefined();
    expect(JSON.stringify(takeable)).not.toContain("Alone");
    const take = (kind: Kind, why: string) => takeStewardship.execute(db(), { nodeId: f.vaultId, why }, f.as(kind));
    await expect(take("administrator", "x")).rejects.toMatchObject({ code: "not-allowed" });
    await expect(take("owner", " ")).rejects.toMatchObject({ field: "why" });
    await take("owner", "The shop's steward is on leave");
    const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.steward));
    expect(told.map(({ text }) => text)).toContain(
      "Hanna Owner, an owner, took stewardship of Shop & Tickets: “The shop's steward is on leave”",
    );
    await expect(take("owner", "again")).rejects.toMatchObject({ code: "conflict" });
    expect((await gridVaults.execute(db(), {}, f.as("owner"))).map(({ id }) => id)).toContain(f.vaultId);
  });
});
