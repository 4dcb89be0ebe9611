/** What a preview says before is what has become of everybody's access after: of moves, separations and slips, in random turns. */
import { isNull } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { type Fixture, KINDS, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import type { Reach } from "../src/core/access";
import { giveAccess } from "../src/server/access/grants";
import { resolveAt } from "../src/server/access/load";
import { applySlip, draftSlip, ownSlip, previewChanges } from "../src/server/access/slip/slip";
import { entries, folders, places } from "../src/server/database/schema";
import { createGroup } from "../src/server/people/groups";
import { setMember } from "../src/server/people/members";
import { Refused } from "../src/server/refused";
import { carryPreview, moveAcross } from "../src/server/vaults/copying";
import { addEntry } from "../src/server/vaults/entries";
import { createFolder } from "../src/server/vaults/folders";
import { type MoveEffect, moveNodes, movePreview } from "../src/server/vaults/moving";
import { markSeparate, separatePreview } from "../src/server/vaults/separating";
import { createVault } from "../src/server/vaults/vaults";
import { numbers } from "./numbers";

const TURNS = 70;
const LEVELS = ["use", "reveal", "edit", "steward", "blocked"] as const;
let app: InProcess;
let f: Fixture;
let otherVault: string;
const folderIds: string[] = [];
const entryIds: string[] = [];
const groupIds: string[] = [];
const db = () => app.galtry;
/** Leavers and suspended people have nothing, before and after. */
const PEOPLE = KINDS.filter((kind) => kind !== "steward");

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  otherVault = (await createVault.execute(db(), { name: "Workshop", description: "" }, f.as("administrator"))).vaultId;
  for (const nodeId of [f.vaultId, otherVault])
    await giveAccess
      .execute(
        db(),
        { nodeId, subject: { kind: "person", id: f.ids.steward }, level: "steward" },
        f.as("administrator"),
      )
      .catch(() => undefined);
  for (const name of ["Desk", "Tours"])
    groupIds.push((await createGroup.execute(db(), { name }, f.as("administrator"))).groupId);
  for (const [i, kind] of (["use", "reveal", "edit", "nothing"] as const).entries())
    await setMember.execute(db(), { groupId: groupIds[i % 2]!, personId: f.ids[kind] }, f.as("administrator"));
  const inside = [f.vaultId, otherVault];
  for (const name of ["Alder", "Birch", "Cedar", "Damson"]) {
    const parentId = name === "Birch" ? folderIds[0]! : inside[folderIds.length % 2]!;
    folderIds.push((await createFolder.execute(db(), { parentId, name }, f.as("steward"))).folderId);
  }
  for (const [i, parentId] of [...folderIds, ...folderIds, ...inside].entries()) {
    const values = { name: `Login ${i}`, signInPage: "https://foretold.example/in", password: `canary-${i}` };
    entryIds.push((await addEntry.execute(db(), { parentId, captured: false, values }, f.as("steward"))).entryId);
  }
});
afterAll(() => app.close());

type Levels = Map<string, Reach>;

/** Of everybody everywhere, from the rows. */
async function levels(): Promise<Levels> {
  const found: Levels = new Map();
  const at = Date.now();
  for (const nodeId of [f.vaultId, otherVault, ...folderIds, ...entryIds])
    for (const kind of PEOPLE) {
      const held = await resolveAt(db().db, f.ids[kind], nodeId, at);
      found.set(`${f.ids[kind]} ${nodeId}`, held?.resolution.level ?? "none");
    }
  return found;
}

const differences = (before: Levels, after: Levels) =>
  [...before].flatMap(([key, level]) => {
    const [personId, nodeId] = key.split(" ") as [string, string];
    const now = after.get(key)!;
    return now === level ? [] : [{ personId, nodeId, before: level, after: now }];
  });

async function names(): Promise<Map<string, string>> {
  const both = [
    ...(await db().db.select({ id: entries.nodeId, name: entries.name }).from(entries)),
    ...(await db().db.select({ id: folders.nodeId, name: folders.name }).from(folders)),
  ];
  return new Map(both.map(({ id, name }) => [id, name]));
}

async function above(nodeId: string): Promise<string[]> {
  const rows = await db().db.select().from(places).where(isNull(places.validUntil));
  const parent = new Map(rows.map((row) => [row.nodeId, row.parentId]));
  const way: string[] = [];
  for (let at: string | null | undefined = nodeId; at; at = parent.get(at)) way.push(at);
  return way;
}

/** Each that is said has come about; and whatever has come about was said, of the node or of what holds it. */
async function requireForetold(said: readonly MoveEffect[], before: Levels, after: Levels): Promise<void> {
  const called = await names();
  const idOf = new Map([...called].map(([id, name]) => [name, id]));
  const happened = differences(before, after);
  for (const effect of said) {
    if (effect.personId === f.ids.steward) continue;
    const key = `${effect.personId} ${idOf.get(effect.node)!}`;
    expect({ of: key, before: before.get(key), after: after.get(key) }).toEqual({
      ...{ of: key, before: effect.before, after: effect.after },
    });
  }
  for (const one of happened) {
    const way = (await above(one.nodeId)).map((id) => called.get(id));
    const told = said.some(
      (effect) =>
        effect.personId === one.personId &&
        effect.before === one.before &&
        effect.after === one.after &&
        way.includes(effect.node),
    );
    expect({ ...one, node: called.get(one.nodeId), told }).toMatchObject({ told: true });
  }
}

test("in seventy random turns", { timeout: 120_000 }, async () => {
  const next = numbers(20_261_130);
  const pick = <T>(some: readonly T[]): T => some[next(some.length)]!;
  const node = () => pick([...folderIds, ...entryIds]);
  const subject = () =>
    next(5) === 0
      ? ({ kind: "everyone" } as const)
      : next(2) === 0
        ? ({ kind: "group", id: pick(groupIds) } as const)
        : ({ kind: "person", id: f.ids[pick<Kind>(["use", "reveal", "edit", "nothing"])] } as const);
  const as = f.as("steward");
  const done = { move: 0, across: 0, separate: 0, slip: 0 };
  let differed = 0;

  const turns = {
    move: async (before: Levels) => {
      const input = { nodeIds: [node()], parentId: pick([f.vaultId, otherVault, ...folderIds]) };
      const { effects } = await movePreview.execute(db(), input, as);
      await moveNodes.execute(db(), input, as);
      await requireForetold(effects, before, await levels());
    },
    across: async (before: Levels) => {
      const input = { nodeIds: [node()], parentId: pick([f.vaultId, otherVault]) };
      const { effects } = await carryPreview.execute(db(), { ...input, how: "move" }, as);
      await moveAcross.execute(db(), input, as);
      await requireForetold(effects, before, await levels());
    },
    separate: async (before: Levels) => {
      const input = { folderId: pick(folderIds), separate: next(2) === 0 };
      const { effects } = await separatePreview.execute(db(), input, as);
      await markSeparate.execute(db(), input, as);
      await requireForetold(effects, before, await levels());
    },
    slip: async (before: Levels) => {
      const grants = next(4) === 0 ? [] : [{ level: pick(LEVELS), from: null, until: null }];
      const changes = [{ type: "set", nodeId: node(), subject: subject(), grants }];
      const { lines } = await previewChanges.execute(db(), { changes }, as);
      const revision = (await ownSlip.execute(db(), {}, as)).draft?.revision ?? 0;
      await draftSlip.execute(db(), { changes, revision }, as);
      const { draft } = await ownSlip.execute(db(), {}, as);
      await applySlip.execute(
        db(),
        { slipId: draft!.id, revision: draft!.revision, ground: draft!.said.ground, why: "" },
        as,
      );
      const happened = differences(before, await levels()).filter(({ nodeId }) => entryIds.includes(nodeId));
      const counted = new Map<string, number>();
      const count = (personId: string, was: Reach, is: Reach, by: number) => {
        const key = `${personId} ${was} ${is}`;
        counted.set(key, (counted.get(key) ?? 0) + by);
      };
      for (const one of happened) count(one.personId, one.before, one.after, 1);
      for (const said of lines.filter((one) => one.at === null && one.what.some(({ id }) => entryIds.includes(id))))
        for (const { id } of said.people) if (id !== f.ids.steward) count(id, said.before, said.after, -said.count);
      expect([...counted].filter(([, left]) => left !== 0)).toEqual([]);
    },
  };

  for (let turn = 0; turn < TURNS; turn++) {
    const name = pick(Object.keys(turns) as (keyof typeof turns)[]);
    const before = await levels();
    try {
      await turns[name](before);
      done[name] += 1;
      if (differences(before, await levels()).length > 0) differed += 1;
    } catch (error) {
      // What may not be, a folder into itself for one, is nothing to foretell.
      if (!(error instanceof Refused)) throw error;
    }
  }
  expect(Math.min(...Object.values(done))).toBeGreaterThan(4);
  expect(differed).toBeGreaterThan(20);
});
