/** Checkpoints of the Journal and what they prove, and what somebody who rewrites the database cannot make them say. */
import { spawnSync } from "node:child_process";
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { asc, eq, sql } from "drizzle-orm";
import { afterAll, afterEach, beforeAll, describe, expect, test } from "vitest";
import { CANARY, CANARY_USER, type Fixture, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { fromBase64, toHex } from "../src/core/crypto";
import { type ChainedLine, FIRST_PREVIOUS, lineHash, lineMac } from "../src/core/journal/chain";
import { openCheckpoint } from "../src/core/journal/checkpoint";
import { checkGrowth, checkLineProof, GROWTH_FORMAT } from "../src/core/journal/proof";
import { Growing } from "../src/core/journal/tree";
import { journal, journalCheckpoints, journalTree, mails } from "../src/server/database/schema";
import { checkJournal } from "../src/server/journal/check";
import {
  Checkpoints,
  growthSince,
  lineProof,
  makeAndWrite,
  makeCheckpoint,
  newestCheckpoint,
  verifierFor,
} from "../src/server/journal/checkpoints";
import { growTree, linesInTree } from "../src/server/journal/tree";
import { houseFindings } from "../src/server/upkeep/house";
import { revealField } from "../src/server/vaults/revealing";

let app: InProcess;
let f: Fixture;
let verifier: string;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  verifier = await verifierFor(app.galtry);
});
afterAll(() => app.close());

const SERVER = { kind: "server" } as const;
const db = () => app.galtry.db;
const lines = () => db().select().from(journal).orderBy(asc(journal.seq));
const make = (kind: Kind = "owner") => makeCheckpoint.execute(app.galtry, {}, f.as(kind));
const reveal = () =>
  revealField.execute(app.galtry, { entryId: f.entryId, field: "password", how: "revealed" }, f.as("reveal"));
const proof = (seq: number, kind: Kind) => lineProof.execute(app.galtry, { seq }, f.as(kind));
const since = async (earlier: string, size: number) => {
  const { note, path, ...key } = await growthSince.execute(app.galtry, { size }, f.as("owner"));
  return { earlier, later: note, path, ...key };
};

/** The database as somebody with the keys would rewrite it: the chain holds again from that line on. */
async function rewrite(from: number, change: (line: ChainedLine) => Partial<ChainedLine>): Promise<void> {
  let previous = FIRST_PREVIOUS;
  for (const line of await lines()) {
    if (line.seq >= from) {
      const now = { ...line, ...(line.seq === from ? change(line) : {}), previous };
      const hash = lineHash(now, previous);
      const mac = lineMac(app.galtry.keys.journal, hash);
      await db().run(
        sql`update journal set details = ${now.details}, previous = ${previous}, hash = ${hash}, mac = ${mac} where seq = ${line.seq}`,
      );
      previous = hash;
    } else previous = line.hash;
  }
}

describe("a checkpoint", () => {
  test("stands for all lines, is made once, and grows into the next", async () => {
    const first = await make();
    const count = (await lines()).length;
    expect(openCheckpoint(first!.note, verifier)).toMatchObject({
      size: count,
      origin: expect.stringMatching(/\/journal$/),
    });
    expect(await make("administrator")).toEqual(first);
    await reveal();
    const second = await make("auditor");
    expect(second!.size).toBe(count + 1);
    expect(await newestCheckpoint.execute(app.galtry, {}, f.as("owner"))).toEqual({ note: second!.note, verifier });
    const growth = await since(first!.note, count);
    expect(checkGrowth(growth)).toMatchObject({ earlier: { size: count }, later: { size: count + 1 } });
    // And from nothing.
    expect((await growthSince.execute(app.galtry, { size: 0 }, f.as("owner"))).path).toEqual([]);
  });

  test("is made each hour in which something happened, beside other work", async () => {
    const at = Date.now();
    const looks = new Checkpoints(app.galtry);
    const count = async () => (await db().select().from(journalCheckpoints)).length;
    const before = await count();
    await reveal();
    await looks.look(at);
    expect(await count()).toBe(before);
    await looks.look(at + 3_700_000);
    expect(await count()).toBe(before + 1);
    await looks.look(at + 2 * 3_700_000);
    expect(await count()).toBe(before + 1);
    await reveal();
    await looks.look(at + 2 * 3_700_000 + 60_000);
    expect(await count()).toBe(before + 1);
    await looks.look(at + 3 * 3_700_000 + 60_000);
    expect(await count()).toBe(before + 2);
    // A reader who asks for one every half hour keeps it from nothing.
    await reveal();
    await make();
    await reveal();
    await looks.look(at + 4 * 3_700_000 + 120_000);
    expect(await count()).toBe(before + 4);
  });

  test("goes into the operator's folder, and once a day by mail", async () => {
    const { configuration } = app.galtry;
    const { checkpoints } = configuration;
    const folder = path.join(app.folder, "elsewhere");
    configuration.checkpoints = { folder, mail: "auditor@ellersby.example" };
    try {
      const at = Date.now() + 10 * 3_600_000;
      const sent = async () => (await db().select().from(mails)).filter(({ to }) => to === "auditor@ellersby.example");
      for (const [hours, mailed] of [
        [0, 1],
        [1, 1],
        [23, 1],
        [24, 2],
        [25, 2],
      ] as const) {
        await reveal();
        await makeAndWrite(app.galtry, at + hours * 3_600_000);
        expect(await sent()).toHaveLength(mailed);
      }
      const files = readdirSync(folder).sort();
      expect(files).toHaveLength(5);
      const newest = readFileSync(path.join(folder, files.at(-1)!), "utf8");
      expect(newest).toBe((await newestCheckpoint.execute(app.galtry, {}, f.as("owner"))).note);
      // One that a reader asked for is not mailed, and puts off none: it goes out itself when one is due.
      await reveal();
      const asked = await make();
      expect(await sent()).toHaveLength(2);
      await makeAndWrite(app.galtry, at + 49 * 3_600_000);
      expect(await sent()).toHaveLength(3);
      expect(readdirSync(folder)).toHaveLength(6);
      expect((await newestCheckpoint.execute(app.galtry, {}, f.as("owner"))).note).toBe(asked!.note);
      await makeAndWrite(app.galtry, at + 74 * 3_600_000);
      expect(await sent()).toHaveLength(3);
    } finally {
      configuration.checkpoints = checkpoints;
    }
  });
});

describe("the proof of a line", () => {
  test("holds for each of them", async () => {
    await make();
    for (const { seq } of await lines()) {
      const found = await proof(seq, "auditor");
      expect(found && checkLineProof(found)).toMatchObject({ size: (await lines()).length });
      expect(found!.line).not.toBeNull();
    }
  });

  test("waits for the next checkpoint where the line is younger, and is none where there is no line", async () => {
    await reveal();
    const seq = (await lines()).length;
    expect(await proof(seq, "owner")).toBeNull();
    await make();
    expect(await proof(seq, "owner")).not.toBeNull();
    await expect(proof(seq + 1, "owner")).rejects.toMatchObject({ code: "not-found" });
  });

  test("says no more than its reader's Journal: neither names nor what was done where they have no access", async () => {
    const all = await lines();
    const [revealed] = all.filter(({ act, node }) => act === "vaults.revealField" && node === f.entryId);
    const seen = await proof(revealed!.seq, "auditor");
    expect(seen!.names.map(({ name }) => name)).toContain("Pellam Tickets");
    const hidden = await proof(revealed!.seq, "owner");
    expect(hidden).toMatchObject({ line: null, names: [] });
    expect(checkLineProof(hidden!)).toMatchObject({ size: all.length });
    for (const { seq } of all) {
      const text = JSON.stringify([await proof(seq, "owner"), await proof(seq, "administrator")]);
      const told = JSON.stringify([await proof(seq, "owner")]);
      expect(told).not.toContain("Pellam");
      for (const secret of [CANARY, CANARY_USER]) expect(text).not.toContain(secret);
    }
  });

  test("is for those who read all of the Journal", async () => {
    for (const kind of ["steward", "edit", "use", "guest", "suspended"] as const) {
      await expect(proof(1, kind)).rejects.toMatchObject({ code: expect.stringMatching(/not-allowed|signed-out/) });
      await expect(make(kind)).rejects.toMatchObject({ code: expect.stringMatching(/not-allowed|signed-out/) });
    }
  });
});

describe("by the script that needs nothing of Galtry", () => {
  const run = (name: string, content: unknown, ...key: string[]) => {
    const file = path.join(app.folder, name);
    writeFileSync(file, JSON.stringify(content));
    const { status, stdout } = spawnSync(process.execPath, ["public/check-proof.mjs", file, ...key], {
      encoding: "utf8",
    });
    return { status, out: stdout };
  };

  test("a proof holds, an altered one does not", async () => {
    await make();
    const [revealed] = (await lines()).filter(({ act }) => act === "vaults.revealField");
    const found = await proof(revealed!.seq, "auditor");
    expect(run("proof.json", found, verifier)).toEqual({
      status: 0,
      out: expect.stringContaining(`Line ${revealed!.seq} is one of the ${(await lines()).length} lines`),
    });
    expect(run("proof.json", found).out).toContain(verifier);
    const wrong: [object, string][] = [
      [{ line: { ...found!.line!, person: "another" } }, "does not say what was written"],
      [{ seq: found!.seq + 1, line: null }, "not one of those"],
      [{ names: [{ ...found!.names[0]!, name: "Another" }] }, "is not the one that was written"],
      [{ checkpoint: found!.checkpoint.replace(/made 20/, "made 19") }, "changed after it was signed"],
      [{ format: "another" }, "no proof"],
    ];
    for (const [change, says] of wrong)
      expect(run("wrong.json", { ...found, ...change }, verifier)).toEqual({
        status: 1,
        out: expect.stringContaining(says),
      });
    const otherKey = verifier.replace(/\+[0-9a-f]{8}\+/, "+00000000+");
    expect(run("proof.json", found, otherKey).status).toBe(1);
  });

  test("that one checkpoint begins with another", async () => {
    const earlier = (await make())!;
    await reveal();
    await make();
    const growth = { format: GROWTH_FORMAT, ...(await since(earlier.note, earlier.size)) };
    expect(run("growth.json", growth, verifier)).toEqual({
      status: 0,
      out: expect.stringContaining("nothing was changed"),
    });
    expect(run("growth.json", { ...growth, path: growth.path.slice(1) }).status).toBe(1);
  });
});

describe("a database that was rewritten, with the keys in hand", () => {
  afterEach(async () => {
    await db().run(sql`delete from journal`);
    await db().run(sql`insert into journal select * from kept_lines`);
    await db().run(sql`drop table kept_lines`);
  });
  const keep = () => db().run(sql`create table kept_lines as select * from journal`);

  test("is found by the check, is not signed, and does not follow from a checkpoint kept elsewhere", async () => {
    const earlier = (await make())!;
    await keep();
    await rewrite(7, () => ({ details: '{"altered":true}' }));
    const check = () => checkJournal.execute(app.galtry, {}, f.as("owner"));
    const kept = await db().select().from(journalCheckpoints);
    const first = Math.min(...kept.map(({ size }) => size));
    expect((await check()).broken).toEqual({
      line: first,
      why: expect.stringContaining("signed as a checkpoint"),
    });
    await reveal();
    await expect(make()).rejects.toMatchObject({
      code: "conflict",
      message: expect.stringContaining("no longer what"),
    });
    await expect(makeAndWrite(app.galtry)).rejects.toMatchObject({ code: "conflict" });
    // Who takes away the checkpoints too is found by the one that lies elsewhere.
    await db().delete(journalCheckpoints);
    expect((await check()).broken).toBeNull();
    const { broken } = await checkJournal.execute(app.galtry, { checkpoint: earlier.note }, f.as("owner"));
    expect(broken).toMatchObject({ line: earlier.size });
    await make();
    expect(checkGrowth(await since(earlier.note, earlier.size))).toEqual({ fault: "changed" });
    await db().delete(journalCheckpoints);
    await db().insert(journalCheckpoints).values(kept);
  });

  test("a checkpoint that was altered in the database is found, and nothing is found where nothing was altered", async () => {
    await keep();
    const made = (await make())!;
    const found = async () => (await houseFindings.execute(app.galtry, {}, f.as("owner"))).rows.map(({ kind }) => kind);
    expect(await found()).not.toContain("journal");
    const put = (note: string) =>
      db().update(journalCheckpoints).set({ note }).where(eq(journalCheckpoints.size, made.size));
    await put(made.note.replace("made 20", "made 19"));
    expect(await found()).toContain("journal");
    const { broken } = await checkJournal.execute(app.galtry, {}, f.as("owner"));
    expect(broken).toEqual({ line: made.size, why: expect.stringContaining("altered") });
    await put(made.note);
  });

  test("a tail that was cut off is found, with what lies in the database alone", async () => {
    await make();
    await keep();
    await db().run(sql`delete from journal where seq = (select max(seq) from journal)`);
    const { broken } = await checkJournal.execute(app.galtry, {}, f.as("owner"));
    expect(broken?.why).toContain("more lines than there are");
    await expect(make()).rejects.toMatchObject({ code: "conflict" });
  });

  test("a line that is gone from the middle: nothing is proven, and it is said", async () => {
    await make();
    await keep();
    await db().run(sql`delete from journal where seq = 5`);
    await expect(proof(9, "owner")).rejects.toMatchObject({ message: expect.stringContaining("is missing") });
  });

  test("what is no checkpoint of this Journal is said to be none", async () => {
    await keep();
    const check = (checkpoint: string) => checkJournal.execute(app.galtry, { checkpoint }, f.as("owner"));
    const { note } = (await make())!;
    await expect(check("no checkpoint")).rejects.toMatchObject({ code: "bad-input", field: "checkpoint" });
    await expect(check(note.replace(/\n\d+\n/, "\n3\n"))).rejects.toMatchObject({
      message: expect.stringContaining("changed after it was signed"),
    });
    expect((await check(`Kept since May:\r\n\r\n${note.replaceAll("\n", "\r\n")}`)).broken).toBeNull();
  });
});

describe("of a long Journal", () => {
  test("parts are kept as they become complete, and give the root of all lines", async () => {
    const [last] = (await lines()).slice(-1);
    let previous = last!.hash;
    const more: ChainedLine[] = [];
    for (let seq = last!.seq + 1; seq <= 2_900; seq++) {
      const line = { ...last!, seq, details: JSON.stringify({ count: seq }), previous };
      const hash = lineHash(line, previous);
      more.push({ ...line, hash, mac: lineMac(app.galtry.keys.journal, hash) });
      previous = hash;
    }
    for (let at = 0; at < more.length; at += 500)
      await db()
        .insert(journal)
        .values(more.slice(at, at + 500));
    await growTree(app.galtry);
    expect(await linesInTree(db())).toBe(11 * 256);
    const kept = await db().select().from(journalTree);
    expect(kept.map(({ level }) => level).sort((a, b) => a - b)).toEqual([
      ...Array(11).fill(8),
      ...Array(5).fill(9),
      10,
      10,
      11,
    ]);
    const growing = new Growing();
    for (const { hash } of await lines()) growing.add(hash);
    const made = await makeCheckpoint.execute(app.galtry, {}, SERVER);
    const opened = openCheckpoint(made!.note, verifier);
    expect(opened).toMatchObject({ size: 2_900 });
    expect("root" in opened && toHex(opened.root)).toBe(toHex(growing.root()));
    for (const seq of [1, 256, 257, 2_048, 2_049, 2_816, 2_817, 2_900]) {
      const found = await proof(seq, "auditor");
      expect(checkLineProof(found!)).toMatchObject({ size: 2_900 });
      expect(found!.path.every((hash) => fromBase64(hash).length === 32)).toBe(true);
    }
    // Grown again, nothing is added.
    await growTree(app.galtry);
    expect((await db().select().from(journalTree)).length).toBe(kept.length);
  });
});
