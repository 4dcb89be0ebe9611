/** A year of the Journal as a file: whole, compared with the database, and without a name. */
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { gzipSync } from "node:zlib";
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { randomBytes } from "../src/core/crypto";
import { lineHash, lineMac } from "../src/core/journal/chain";
import { journal } from "../src/server/database/schema";
import { archiveOf, checkArchive, linesOfArchive } from "../src/server/journal/archive";
import { addEntry } from "../src/server/vaults/entries";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const ZONE = "Pacific/Auckland";
/** Midnight of New Year's Day 2031 in that zone, where it is summer. */
const NEW_YEAR = Date.UTC(2030, 11, 31, 11);

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  const act = async (at: number, name: string) => {
    const values = { name, signInPage: "https://archive.example/in", password: "canary-archive" };
    const input = { parentId: f.vaultId, captured: false, values };
    const { entryId } = await addEntry.execute(db(), input, f.as("steward", at), at);
    await give(db(), f.as("steward"), entryId, f.ids.use, "use");
    return entryId;
  };
  await act(NEW_YEAR - 366 * 86_400_000, "Canary of 2029");
  for (let i = 0; i < 3; i += 1) await act(NEW_YEAR - 3_600_000 + i, `Canary of 2030 ${i}`);
  await act(NEW_YEAR, "Canary of 2031");
});
afterAll(() => app.close());

async function fileOf(year: number): Promise<string[]> {
  const lines: string[] = [];
  for await (const line of archiveOf(db().db, year, ZONE)) lines.push(line);
  return lines;
}
async function* each(lines: readonly string[]): AsyncGenerator<string> {
  yield* lines;
}
const check = (lines: readonly string[], key = db().keys.journal) => checkArchive(db().db, key, each(lines), ZONE);
const seqs = (lines: readonly string[]): number[] => lines.slice(1).map((line) => JSON.parse(line).seq);

describe("a year", () => {
  test("has the lines from its first moment on the organisation's clock to its last, and holds", async () => {
    const file = await fileOf(2030);
    const ats = file.slice(1).map((line) => JSON.parse(line).at as number);
    expect(ats.filter((at) => at >= NEW_YEAR)).toEqual([]);
    expect(ats).toContain(NEW_YEAR - 3_600_000);
    const first = seqs(file)[0]!;
    expect(await check(file)).toEqual({ year: 2030, first, last: seqs(file).at(-1), fault: null });
    expect(JSON.parse(file[0]!)).toMatchObject({ year: 2030, after: { seq: first - 1 } });
    // The next one goes on where it ended.
    expect(JSON.parse((await fileOf(2031))[0]!).after.seq).toBe(seqs(file).at(-1));
    expect(await fileOf(1999)).toEqual([]);
  });

  test("names nobody and nothing, and holds no secret", async () => {
    const file = (await fileOf(2030)).join("\n");
    for (const word of ["Canary", "Person", "canary-archive", "tarrowick"]) expect(file).not.toContain(word);
  });
});

test("packed into a file it is read again; cut off, or no archive at all, it is said so", async () => {
  const folder = mkdtempSync(path.join(tmpdir(), "archive-"));
  const lines = await fileOf(2030);
  const packed = gzipSync(`${lines.join("\n")}\n`);
  const read = async (bytes: Uint8Array) => {
    const file = path.join(folder, "journal.jsonl.gz");
    writeFileSync(file, bytes);
    return (await checkArchive(db().db, db().keys.journal, linesOfArchive(file), ZONE)).fault;
  };
  expect(await read(packed)).toBeNull();
  expect(await read(packed.subarray(0, packed.length - 40))).not.toBeNull();
  expect(await read(Buffer.from("no archive"))).not.toBeNull();
  expect(await read(gzipSync("x".repeat(3_000_000)))).not.toBeNull();
  await expect(
    checkArchive(db().db, db().keys.journal, linesOfArchive(path.join(folder, "none.gz")), ZONE),
  ).rejects.toMatchObject({ code: "ENOENT" });
  rmSync(folder, { recursive: true });
});

describe("altered", () => {
  test("a file: each word of each line, a line gone, put in or moved, its head; by somebody without the key, whatever they do", async () => {
    const file = await fileOf(2030);
    const other = (at: number, change: (line: Record<string, unknown>) => void) => {
      const line = JSON.parse(file[at]!);
      change(line);
      return [...file.slice(0, at), JSON.stringify(line), ...file.slice(at + 1)];
    };
    const second = seqs(file)[1]!;
    for (const field of ["at", "act", "outcome", "person", "node", "details", "names", "hash", "mac", "previous"])
      expect(
        (
          await check(
            other(2, (line) =>
              Object.assign(line, { [field]: field === "at" ? 7 : field === "outcome" ? "refused" : "x" }),
            ),
          )
        ).fault,
        field,
      ).toMatchObject({ line: second });
    expect((await check([...file.slice(0, 2), ...file.slice(3)])).fault).not.toBeNull();
    expect((await check([file[0]!, file[2]!, file[1]!, ...file.slice(3)])).fault).not.toBeNull();
    expect((await check([...file.slice(0, 3), ...file.slice(2)])).fault).not.toBeNull();
    expect(
      (await check(other(0, (head) => Object.assign(head, { after: { seq: 1, hash: "0" } })))).fault,
    ).not.toBeNull();
    // Whole lines gone from its end or its beginning, with a head to match: the year has more.
    expect((await check(file.slice(0, -1))).fault).toMatchObject({ line: seqs(file).at(-1) });
    const { previous } = JSON.parse(file[2]!);
    const later = JSON.stringify({ ...JSON.parse(file[0]!), after: { seq: second - 1, hash: previous } });
    expect((await check([later, ...file.slice(2)])).fault).toMatchObject({ line: second - 1 });
    for (const wrong of [[], [""], ["{}"], ["not json"], [file[0]!, "not json"], [file[0]!, "{}"]])
      expect((await check(wrong)).fault, wrong.join()).toMatchObject({ line: 0 });
    const forged = other(2, (line) => {
      line.person = "somebody else";
      line.hash = lineHash(line as never, line.previous as string);
      line.mac = lineMac(randomBytes(32), line.hash as string);
    });
    expect((await check(forged)).fault).toMatchObject({ line: second, why: "Galtry did not write it" });
    expect((await check(file, randomBytes(32))).fault).not.toBeNull();
  });

  test("the database, though its own chain was made to fit: the file says at which line", async () => {
    const file = await fileOf(2030);
    const at = seqs(file)[1]!;
    const rows = (await db().db.select().from(journal)).sort((a, b) => a.seq - b.seq);
    let previous = rows.find(({ seq }) => seq === at - 1)!.hash;
    for (const row of rows.filter(({ seq }) => seq >= at)) {
      const line = { ...row, ...(row.seq === at && { person: f.ids.nothing }) };
      const hash = lineHash(line, previous);
      const set = { person: line.person, previous, hash, mac: lineMac(db().keys.journal, hash) };
      await db().db.update(journal).set(set).where(eq(journal.seq, row.seq));
      previous = hash;
    }
    expect((await check(file)).fault).toMatchObject({ line: at, why: expect.stringContaining("another line") });
    expect((await check(await fileOf(2030))).fault).toBeNull();
    await db()
      .db.delete(journal)
      .where(eq(journal.seq, seqs(file).at(-1)!));
    expect((await check([file[0]!, ...(await fileOf(2030)).slice(1), ...file.slice(-1)])).fault).not.toBeNull();
  });
});
