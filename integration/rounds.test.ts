/** Rounds: begun, answered, finished with a slip and a record; reminded and passed on by themselves. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { type Fixture, give, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import {
  answerInRound,
  continueRounds,
  finishRound,
  passRoundOn,
  roundPage,
  roundsToDo,
  setRounds,
  startRound,
} from "../src/server/access/rounds/rounds";
import { applySlip, ownSlip } from "../src/server/access/slip/slip";
import { whoCanDoWhat } from "../src/server/access/who";
import { entries, notices, signIns } from "../src/server/database/schema";
import { uuidv7 } from "../src/server/ids";
import { suspendPerson } from "../src/server/people/persons";
import { addEntry } from "../src/server/vaults/entries";
import { createFolder } from "../src/server/vaults/folders";
import { revealField } from "../src/server/vaults/revealing";
import { createVault } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
let vaultId: string;
let entryId: string;
const db = () => app.galtry;
const DAY = 86_400_000;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

/** A vault of its own each time: the administrator and the steward look after it. */
beforeEach(async () => {
  const by = f.as("administrator");
  ({ vaultId } = await createVault.execute(db(), { name: "Buildings" }, by));
  await give(db(), by, vaultId, f.ids.steward, "steward");
  const values = { name: "Gate", signInPage: "https://gate.example/in", password: "canary-gate/73" };
  ({ entryId } = await addEntry.execute(db(), { parentId: vaultId, captured: false, values }, by));
  await give(db(), by, entryId, f.ids.reveal, "reveal");
  await give(db(), by, entryId, f.ids.use, "use");
  await give(db(), by, entryId, f.ids.guest, "edit");
});

const start = (by: Kind = "steward") => startRound.execute(db(), { vaultId }, f.as(by));
const see = (by: Kind = "steward", at?: number) => roundPage.execute(db(), { vaultId }, f.as(by, at), at);
const lineOf = async (who: string) => (await see()).lines.find((line) => line.who === who)!;
const say = async (who: string, what: "confirmed" | "lower" | "end" | null, by: Kind = "steward") =>
  answerInRound.execute(db(), { vaultId, grantId: (await lineOf(who)).grantId, say: what }, f.as(by));
const finish = (by: Kind = "steward") => finishRound.execute(db(), { vaultId }, f.as(by));
const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "allowed",
    (error) => error.code as string,
  );
const keep = (at: number) => continueRounds.execute(db(), {}, { kind: "server" }, at);
const toDo = async (kind: Kind, at?: number) =>
  (await roundsToDo.execute(db(), {}, f.as(kind, at), at)).some(({ id }) => id === vaultId);

describe("a round", () => {
  test("shows each grant with the odd ones first, and when it was used last", async () => {
    await revealField.execute(db(), { entryId, field: "password", how: "revealed" }, f.as("reveal"));
    // A test of the login is no use of it.
    const [{ versionId }] = (await db().db.select().from(entries).where(eq(entries.nodeId, entryId))) as [
      typeof entries.$inferSelect,
    ];
    await db()
      .db.insert(signIns)
      .values({
        ...{ id: uuidv7(), entryId, versionId, personId: f.ids.use, lanyardId: "", how: "tested", queueKey: "" },
        ...{ process: db().process, begunAt: Date.now(), endedAt: Date.now(), outcome: "signed-in" },
      });
    await start();
    const { lines, round } = await see();
    expect(round).toMatchObject({ asked: "Person steward", askedMe: true, startedBy: "Person steward" });
    expect(lines).toHaveLength(5);
    expect(lines[0]).toMatchObject({
      who: "Person guest",
      note: "guest",
      what: "Gate",
      odd: ["no-end"],
      lower: "reveal",
    });
    expect((await lineOf("Person reveal")).lastUse).toBeGreaterThan(Date.now() - DAY);
    expect((await lineOf("Person use")).lastUse).toBe(null);
    const later = await see("steward", Date.now() + 91 * DAY);
    expect(later.lines.find((line) => line.who === "Person use")!.odd).toEqual(["unused"]);
    expect(await code(start("administrator"))).toBe("conflict");
  });

  test("is for the stewards of the vault, and shows each what they are steward of", async () => {
    const { folderId } = await createFolder.execute(db(), { parentId: vaultId, name: "Own corner" }, f.as("steward"));
    await give(db(), f.as("administrator"), folderId, f.ids.steward, "blocked");
    await start("administrator");
    for (const kind of ["use", "reveal", "guest", "owner"] as const) expect(await code(see(kind))).toBe("not-found");
    const { lines } = await see("administrator");
    expect(lines.some(({ what }) => what === "Own corner")).toBe(true);
    expect((await see("steward")).lines.some(({ what }) => what === "Own corner")).toBe(false);
    // Nor does the record tell the other one of it.
    for (const { grantId, own } of lines)
      await answerInRound.execute(
        db(),
        { vaultId, grantId, say: "confirmed" },
        f.as(own ? "steward" : "administrator"),
      );
    await finish("administrator");
    const kept = async (by: Kind) => (await see(by)).finished[0]!.kept.map(({ what }) => what);
    expect(await kept("administrator")).toContain("Own corner");
    expect(await kept("steward")).not.toContain("Own corner");
    expect(await kept("steward")).toContain("Gate");
  });

  test("is finished once all is said: the slip says what would change, and the record stays as it was", async () => {
    await start();
    await say("Person guest", "end");
    await say("Person reveal", "lower");
    await say("Person use", "end");
    expect(await code(say("Person use", "lower"))).toBe("bad-input");
    await say("Person use", null);
    expect(await code(finish())).toBe("conflict");
    // Another steward answers part of it.
    await say("Person use", "confirmed", "administrator");
    await say("Person administrator", "confirmed");
    await say("Person steward", "confirmed", "administrator");
    const done = await finish();
    expect(done).toMatchObject({ changes: 2, confirmed: 3, lower: 1, end: 1 });
    const { draft } = await ownSlip.execute(db(), {}, f.as("steward"));
    expect(draft!.changes.map(({ text }) => text).sort()).toEqual([
      "Change Person reveal from Reveal to Use on Gate",
      "End Person guest’s Edit on Gate",
    ]);
    const { id: slipId, revision, said } = draft!;
    await applySlip.execute(db(), { slipId, revision, ground: said.ground, why: "the round" }, f.as("steward"));
    const { reached } = await whoCanDoWhat.execute(db(), { nodeId: entryId }, f.as("steward"));
    expect(reached.map(({ name, level }) => [name, level])).toEqual(
      expect.arrayContaining([
        ["Person reveal", "use"],
        ["Person use", "use"],
      ]),
    );
    expect(reached.some(({ name }) => name === "Person guest")).toBe(false);
    const { round, finished } = await see("administrator");
    expect(round).toBe(null);
    expect(finished[0]).toMatchObject({ by: "Person steward" });
    expect(finished[0]!.kept.find((line) => line.who === "Person use")).toMatchObject({
      ...{ what: "Gate", level: "use", say: "confirmed", by: "Person administrator" },
    });
    expect(finished[0]!.kept.find((line) => line.who === "Person reveal")).toMatchObject({
      level: "reveal",
      say: "lower",
    });
  });

  test("asks about what was given meanwhile too", async () => {
    await start();
    for (const who of ["administrator", "guest", "reveal", "use"]) await say(`Person ${who}`, "confirmed");
    await say("Person steward", "confirmed", "administrator");
    await give(db(), f.as("steward"), entryId, f.ids.edit, "edit");
    expect(await code(finish())).toBe("conflict");
    await say("Person edit", "confirmed");
    expect(await finish()).toMatchObject({ changes: 0, confirmed: 6 });
  });
});

describe("one’s own access in a round", () => {
  test("is answered by another steward, who is asked once all else is said", async () => {
    await start();
    expect(await lineOf("Person steward")).toMatchObject({ own: true, reviewer: "Person administrator" });
    expect(await lineOf("Person administrator")).toMatchObject({ own: false, reviewer: null });
    expect(await code(say("Person steward", "confirmed"))).toBe("not-allowed");
    const passOn = (by: Kind = "steward") => passRoundOn.execute(db(), { vaultId }, f.as(by));
    expect(await code(passOn())).toBe("conflict");
    for (const who of ["administrator", "guest", "reveal", "use"]) await say(`Person ${who}`, "confirmed");
    expect(await code(finish())).toBe("conflict");
    expect(await passOn()).toEqual({ asked: "Person administrator" });
    expect([await toDo("steward"), await toDo("administrator")]).toEqual([false, true]);
    const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.administrator));
    expect(told.map(({ text }) => text)).toContain(
      "Person steward asks you to review their own access in the round of Buildings.",
    );
    await say("Person steward", "lower", "administrator");
    // Nor is what the other one said taken over.
    expect(await code(say("Person steward", "confirmed"))).toBe("not-allowed");
    expect(await code(passOn("administrator"))).toBe("conflict");
    expect(await finish("administrator")).toMatchObject({ changes: 1, confirmed: 4, lower: 1 });
  });

  test("is one’s own to answer where nobody else could", async () => {
    const { folderId } = await createFolder.execute(db(), { parentId: vaultId, name: "Own corner" }, f.as("steward"));
    await give(db(), f.as("steward"), folderId, f.ids.steward, "steward");
    await give(db(), f.as("steward"), folderId, f.ids.administrator, "blocked");
    await start();
    const own = (await see()).lines.filter((line) => line.own);
    expect(own.map(({ what, reviewer }) => [what, reviewer]).sort()).toEqual([
      ["Buildings", "Person administrator"],
      ["Own corner", null],
    ]);
    const corner = own.find(({ what }) => what === "Own corner")!;
    await answerInRound.execute(db(), { vaultId, grantId: corner.grantId, say: "confirmed" }, f.as("steward"));
    expect((await see()).lines.find(({ grantId }) => grantId === corner.grantId)!.say).toBe("confirmed");
  });
});

describe("every so many months", () => {
  test("it begins by itself, reminds after a week, goes to the next after two, and on to whoever is steward still", async () => {
    const now = Date.now();
    await setRounds.execute(db(), { vaultId, months: 6 }, f.as("steward"));
    await keep(now + 150 * DAY);
    expect((await see()).round).toBe(null);
    const begun = now + 200 * DAY;
    await keep(begun);
    // The administrator made the vault, and so has been its steward longest.
    expect([await toDo("administrator"), await toDo("steward")]).toEqual([true, false]);
    const told = async (kind: Kind) =>
      (await db().db.select().from(notices).where(eq(notices.personId, f.ids[kind])))
        .filter((notice) => notice.nodeId === vaultId)
        .map(({ text }) => text);
    await keep(begun + 6 * DAY);
    expect(await told("administrator")).toHaveLength(1);
    await keep(begun + 7 * DAY);
    await keep(begun + 8 * DAY);
    expect((await told("administrator")).map((text) => text.split(":")[0])).toEqual([
      "A round of Buildings is due",
      "The round of Buildings is still waiting for you.",
    ]);
    await keep(begun + 14 * DAY);
    expect([await toDo("administrator"), await toDo("steward")]).toEqual([false, true]);
    expect((await told("steward"))[0]).toContain("is now yours");
    await suspendPerson.execute(db(), { personId: f.ids.steward, why: "" }, f.as("owner"));
    await keep(begun + 15 * DAY);
    expect(await toDo("administrator")).toBe(true);
  });
});
