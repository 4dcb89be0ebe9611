/** The Journal narrowed by person, place, act, days and words of a reason: what is found is what a reading of all lines finds. */
import { asc } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { giveAccess } from "../src/server/access/grants";
import { journal } from "../src/server/database/schema";
import { type Acts, journalPage } from "../src/server/journal/page";
import { JOURNAL_ACTS } from "../src/server/journal/story";
import { revealField } from "../src/server/vaults/revealing";

let app: InProcess;
let f: Fixture;
const START = Date.now();

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  const reasons = ["Cover for the spring order", "Bürobedarf, second delivery", "stocktaking", ""];
  for (let i = 0; i < 150; i++) {
    const at = START + i * 60_000;
    const subject = { kind: "person" as const, id: f.ids[(["use", "reveal", "edit"] as const)[i % 3]!] };
    if (i % 4 === 3)
      await revealField.execute(
        app.galtry,
        { entryId: f.entryId, field: "password", how: "revealed" },
        f.as("reveal"),
        at,
      );
    else {
      const nodeId = i % 2 === 0 ? f.entryId : f.vaultId;
      await giveAccess.execute(
        app.galtry,
        { nodeId, subject, level: "use", from: at + 1_000 + i, until: at + 1_001 + i, why: reasons[i % 4]! },
        f.as("steward"),
        at,
      );
    }
  }
});
afterAll(() => app.close());

interface Narrowed {
  personId?: string;
  nodeId?: string;
  acts?: Acts;
  words?: string;
  from?: number;
  until?: number;
}

/** Everything that is found, page by page. */
async function found(filters: Narrowed, kind: Kind): Promise<number[]> {
  const at: number[] = [];
  let before: string | null = null;
  do {
    const page: Awaited<ReturnType<typeof journalPage.execute>> = await journalPage.execute(
      app.galtry,
      { ...filters, before },
      f.as(kind),
      START + 86_400_000,
    );
    at.push(...page.lines.map((line) => line.at));
    before = page.more;
  } while (before !== null);
  return at;
}

/** The same by reading all lines, newest first. */
async function slowly({ personId, nodeId, acts, words, from, until }: Narrowed): Promise<number[]> {
  const plain = (text: string) => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();
  const rows = await app.galtry.db.select().from(journal).orderBy(asc(journal.seq));
  return rows
    .filter((row) => {
      const of = plain(JSON.parse(row.details).why ?? "").split(/[^\p{L}\p{N}]+/u);
      return (
        (personId === undefined || row.person === personId || row.subject === personId) &&
        (nodeId === undefined || row.node === nodeId || row.vault === nodeId) &&
        (acts === undefined || JOURNAL_ACTS[acts].some((prefix) => row.act.startsWith(prefix))) &&
        (from === undefined || row.at >= from) &&
        (until === undefined || row.at < until) &&
        (words === undefined ||
          plain(words)
            .split(/[^\p{L}\p{N}]+/u)
            .filter(Boolean)
            .every((word) => of.some((one) => one.startsWith(word))))
      );
    })
    .map((row) => row.at)
    .reverse();
}

/** Lines that only begin what a later one ends are not told. */
async function told(filters: Narrowed): Promise<number[]> {
  const all = new Set(await found({}, "owner"));
  return (await slowly(filters)).filter((at) => all.has(at));
}

describe("an administrator finds", () => {
  const half = START + 75 * 60_000;
  const cases: [string, () => Narrowed][] = [
    ["all of it", () => ({})],
    ["by person", () => ({ personId: f.ids.use })],
    ["by entry", () => ({ nodeId: f.entryId })],
    ["by vault", () => ({ nodeId: f.vaultId })],
    ["by act", () => ({ acts: "revealed" })],
    ["by days", () => ({ from: half })],
    ["before a day", () => ({ until: half })],
    ["by a word", () => ({ words: "stocktaking" })],
    ["by the beginnings of words, in any order", () => ({ words: "ord SPRI" })],
    ["without its accent", () => ({ words: "burobedarf" })],
    ["with it", () => ({ words: "Bürobedarf, delivery" })],
    ["by a word and a person", () => ({ words: "spring", personId: f.ids.reveal })],
    ["by a word, an entry and an act", () => ({ words: "spring", nodeId: f.entryId, acts: "access" })],
    ["by a word and days", () => ({ words: "second", from: half, until: half + 1_800_000 })],
    ["by a word and an act", () => ({ words: "second", acts: "access" })],
    ["by person and act and days", () => ({ personId: f.ids.reveal, acts: "revealed", from: half })],
    ["by act and days", () => ({ acts: "access", from: half, until: half + 1_800_000 })],
    ["by person and vault", () => ({ personId: f.ids.edit, nodeId: f.vaultId })],
    ["nothing by a word that is nowhere", () => ({ words: "zeppelin" })],
    ["all of it by no words at all", () => ({ words: " ,. " })],
  ];
  test.each(cases)("%s", async (_, filters) => {
    expect(await found(filters(), "owner")).toEqual(await told(filters()));
  });

  test("what stands in the words for the index is looked for, and asks it for nothing else", async () => {
    for (const words of [
      '"',
      "spring OR zeppelin",
      "why:spring",
      "spring*",
      "NEAR(spring, order)",
      "(",
      "-",
      "{why}: x",
    ])
      expect(await found({ words }, "owner")).toEqual(await told({ words: words.replaceAll(/[":*(),{}-]/g, " ") }));
  });
});

test("a steward finds what they may read, and others their own", async () => {
  expect((await found({ words: "stocktaking" }, "steward")).length).toBeGreaterThan(30);
  expect(await found({ words: "stocktaking" }, "steward")).toEqual(await slowly({ words: "stocktaking" }));
  expect(await found({ words: "stocktaking", nodeId: f.entryId }, "steward")).toEqual(
    await slowly({ words: "stocktaking", nodeId: f.entryId }),
  );
  for (const kind of ["use", "reveal", "guest", "nothing"] as const) {
    expect(await found({ words: "stocktaking" }, kind)).toEqual([]);
    expect(await found({ nodeId: f.vaultId, words: "spring" }, kind)).toEqual([]);
    expect(await found({ personId: f.ids.steward, words: "spring" }, kind)).toEqual([]);
  }
  const own = await found({ nodeId: f.vaultId, personId: f.ids.reveal, acts: "revealed" }, "reveal");
  expect(own).toEqual(await slowly({ personId: f.ids.reveal, acts: "revealed" }));
});
