/** Power cuts in the middle of writes and of sign-ins, and two processes on one file. */
import { type ChildProcess, spawn } from "node:child_process";
import { asc, isNull } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { type Fixture, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { checkChain } from "../src/core/journal/chain";
import { entries, entryVersions, fingerprints, journal, places, signIns } from "../src/server/database/schema";
import { closeDeadSignIns } from "../src/server/housekeeping";
import { addEntry } from "../src/server/vaults/entries";
import { openValues } from "../src/server/vaults/vaultKeys";

let app: InProcess;
let f: Fixture;
let slowEntryId: string;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  const values = {
    name: "Never answers",
    signInPage: app.standins.address("marrowgate.localhost", "/never"),
    userName: "u",
    password: "canary-slow-sign-in",
  };
  slowEntryId = (await addEntry.execute(app.galtry, { parentId: f.vaultId, captured: false, values }, f.as("steward")))
    .entryId;
});
afterAll(() => app.close());

interface Writing {
  child: ChildProcess;
  kept: string[];
  wrong: string[];
  started: Promise<void>;
  ended: Promise<void>;
}

function write(most: number, slow = true): Writing {
  const { lanyardId, personId } = f.lanyard("steward");
  const child = spawn(
    process.execPath,
    [
      "--import",
      "tsx",
      "integration/writer.ts",
      f.vaultId,
      personId,
      lanyardId,
      slow ? slowEntryId : "-",
      String(most),
    ],
    { env: app.environment, stdio: ["ignore", "pipe", "inherit"] },
  );
  const [kept, wrong]: [string[], string[]] = [[], []];
  let begin = () => {};
  const started = new Promise<void>((resolve) => {
    begin = resolve;
  });
  let rest = "";
  child.stdout!.on("data", (part: Buffer) => {
    const lines = (rest + part.toString()).split("\n");
    rest = lines.pop() ?? "";
    for (const line of lines) {
      if (line.startsWith("kept ")) kept.push(line.slice(5));
      if (line.startsWith("wrong ")) wrong.push(line);
      if (line === "writing") begin();
    }
  });
  return { child, kept, wrong, started, ended: new Promise((resolve) => child.once("exit", () => resolve())) };
}

/** No half-made change anywhere, the chain whole, nothing that was said to be kept is lost. */
async function requireWhole(kept: readonly string[]): Promise<void> {
  const { db, keys } = app.galtry;
  const lines = await db.select().from(journal).orderBy(asc(journal.seq));
  expect((await checkChain(lines, keys.journal)).broken).toBeNull();
  const [rows, versions, placed, marks] = await Promise.all([
    db.select().from(entries),
    db.select().from(entryVersions),
    db.select().from(places).where(isNull(places.validUntil)),
    db.select().from(fingerprints),
  ]);
  const ids = new Set(rows.map((row) => row.nodeId));
  for (const id of kept) expect(ids.has(id)).toBe(true);
  const versionIds = new Set(versions.map((version) => version.id));
  const placedIds = new Set(placed.map((place) => place.nodeId));
  for (const row of rows) {
    expect(versionIds.has(row.versionId)).toBe(true);
    expect(placedIds.has(row.nodeId)).toBe(true);
  }
  for (const version of versions) expect(ids.has(version.entryId)).toBe(true);
  const withMarks = new Set(marks.map((mark) => mark.versionId));
  for (const version of versions.slice(-20)) {
    await openValues(db, keys, version);
    expect(withMarks.has(version.id)).toBe(true);
  }
  // Every entry has its line, and every line its entry.
  const told = new Set(
    lines.filter((line) => line.act === "vaults.addEntry" && line.outcome === "done").map((line) => line.node),
  );
  expect(told).toEqual(ids);
}

test("ended with SIGKILL in the middle of writes and of a sign-in, many times", { timeout: 120_000 }, async () => {
  const kept: string[] = [];
  for (let round = 0; round < 5; round++) {
    const writing = write(100_000);
    await writing.started;
    // At any moment of its work, and not before there is some, however busy the machine is.
    while (writing.kept.length < 3) await new Promise((resolve) => setTimeout(resolve, 10));
    await new Promise((resolve) => setTimeout(resolve, Math.random() * 350));
    writing.child.kill("SIGKILL");
    await writing.ended;
    kept.push(...writing.kept);
    expect(writing.wrong).toEqual([]);
    await closeDeadSignIns(app.galtry);
    await requireWhole(kept);
  }
  expect(kept.length).toBeGreaterThan(12);
  const begun = await app.galtry.db.select().from(signIns);
  expect(begun.length).toBeGreaterThan(2);
  expect(begun.map((row) => row.outcome)).toEqual(begun.map(() => "broken-off"));
});

test("two processes on one file under load: no lost write, and no busy answer reaches anybody", {
  timeout: 120_000,
}, async () => {
  const both = [write(60, false), write(60, false)];
  await Promise.all(both.map((one) => one.ended));
  for (const { wrong, kept } of both) {
    expect(wrong).toEqual([]);
    expect(kept).toHaveLength(60);
  }
  await requireWhole(both.flatMap((one) => one.kept));
});
