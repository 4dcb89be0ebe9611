/** Two Galtrys on one database: after every act of a random sequence both indexes say what the rows say. */
import { isNull } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { type Fixture, KINDS, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { changeAccess, endAccess, giveAccess } from "../src/server/access/grants";
import { resolveAt } from "../src/server/access/load";
import { readConfiguration } from "../src/server/configuration";
import { grants } from "../src/server/database/schema";
import { closeGaltry, type Galtry, startGaltry } from "../src/server/galtry";
import { createGroup } from "../src/server/people/groups";
import { removeMember, setMember } from "../src/server/people/members";
import { changeRole, reinstate, suspendPerson } from "../src/server/people/persons";
import { Refused } from "../src/server/refused";
import { binEntry, eraseEntry, restoreEntry } from "../src/server/vaults/bin";
import { addEntry } from "../src/server/vaults/entries";
import { createFolder } from "../src/server/vaults/folders";
import { moveNodes } from "../src/server/vaults/moving";
import { markSeparate } from "../src/server/vaults/separating";
import { numbers } from "./numbers";

const STEPS = 60;
const HOUR = 3_600_000;
let app: InProcess;
let other: Galtry;
let f: Fixture;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  other = await startGaltry(readConfiguration(app.environment));
});
afterAll(async () => {
  await closeGaltry(other);
  await app.close();
});

test("after every act", async () => {
  const next = numbers(20_261_129);
  const pick = <T>(some: readonly T[]): T => some[next(some.length)]!;
  const db = app.galtry.db;
  const groups = [
    (await createGroup.execute(app.galtry, { name: "Desk" }, f.as("administrator"))).groupId,
    (await createGroup.execute(app.galtry, { name: "Tours" }, f.as("administrator"))).groupId,
  ];
  const nodes = new Set([f.vaultId, f.folderId, f.entryId, f.otherEntryId]);
  const folders = [f.folderId];
  let done = 0;

  const someGrant = async () => pick(await db.select().from(grants).where(isNull(grants.validUntil)));
  const subject = () =>
    next(4) === 0
      ? ({ kind: "everyone" } as const)
      : next(2) === 0
        ? ({ kind: "group", id: pick(groups) } as const)
        : ({ kind: "person", id: f.ids[pick(KINDS)] } as const);
  const level = () => pick(["use", "reveal", "edit", "steward", "blocked"] as const);
  const end = (at: number) => (next(3) === 0 ? at + (1 + next(40)) * HOUR : null);

  const acts: ((on: Galtry) => Promise<unknown>)[] = [
    (on) =>
      giveAccess.execute(
        on,
        {
          ...{ nodeId: pick([...nodes]), subject: subject(), level: level(), from: null },
          ...{ until: end(Date.now()), why: "daily work" },
        },
        f.as("steward"),
      ),
    async (on) =>
      changeAccess.execute(
        on,
        { grantId: (await someGrant()).id, level: level(), from: null, until: end(Date.now()), why: "daily work" },
        f.as("steward"),
      ),
    async (on) => endAccess.execute(on, { grantId: (await someGrant()).id }, f.as("steward")),
    (on) =>
      setMember.execute(
        on,
        { groupId: pick(groups), personId: f.ids[pick(KINDS)], until: end(Date.now()) },
        f.as("administrator"),
      ),
    (on) => removeMember.execute(on, { groupId: pick(groups), personId: f.ids[pick(KINDS)] }, f.as("administrator")),
    (on) =>
      suspendPerson.execute(on, { personId: f.ids[pick(["use", "edit", "nothing"] as const)], why: "" }, f.as("owner")),
    (on) => reinstate.execute(on, { personId: f.ids[pick(["use", "edit", "suspended"] as const)] }, f.as("owner")),
    (on) =>
      changeRole.execute(
        on,
        { personId: f.ids[pick(["reveal", "nothing"] as const)], role: pick(["member", "administrator"] as const) },
        f.as("owner"),
      ),
    async (on) => {
      const { folderId } = await createFolder.execute(
        on,
        { parentId: pick([f.vaultId, ...folders]), name: `Drawer ${nodes.size}` },
        f.as("steward"),
      );
      folders.push(folderId);
      nodes.add(folderId);
    },
    async (on) => {
      const values = { name: `Login ${nodes.size}`, signInPage: "https://pellam.example/in", password: "x" };
      const { entryId } = await addEntry.execute(
        on,
        { parentId: pick([f.vaultId, ...folders]), captured: false, values },
        f.as("steward"),
      );
      nodes.add(entryId);
    },
    (on) =>
      moveNodes.execute(on, { nodeIds: [pick([...nodes])], parentId: pick([f.vaultId, ...folders]) }, f.as("steward")),
    (on) => markSeparate.execute(on, { folderId: pick(folders), separate: next(2) === 0 }, f.as("steward")),
    (on) => binEntry.execute(on, { entryIds: [pick([...nodes])] }, f.as("steward")),
    (on) => restoreEntry.execute(on, { entryIds: [pick([...nodes])] }, f.as("steward")),
    (on) => eraseEntry.execute(on, { entryId: pick([...nodes]) }, f.as("steward")),
  ];

  for (let i = 0; i < STEPS; i++) {
    const on = i % 2 === 0 ? app.galtry : other;
    try {
      await pick(acts)(on);
      done += 1;
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
    }
    const [mine, theirs] = [await app.galtry.access.fresh(), await other.access.fresh()];
    for (const at of [Date.now(), Date.now() + 30 * HOUR])
      for (const nodeId of nodes) {
        const rows = new Map<string, string>();
        for (const kind of KINDS) {
          const { resolution } = (await resolveAt(db, f.ids[kind], nodeId, at)) ?? {};
          rows.set(kind, resolution?.level ?? "none");
        }
        const said = (index: typeof mine) =>
          new Map(KINDS.map((kind) => [kind as string, index.level(f.ids[kind], nodeId, at) as string]));
        expect(said(mine), `step ${i}, the one that acted or not`).toEqual(rows);
        expect(said(theirs), `step ${i}, the other`).toEqual(rows);
      }
  }
  expect(done).toBeGreaterThan(STEPS / 4);
});
