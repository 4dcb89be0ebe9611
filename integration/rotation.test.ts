/** Rotation of a vault's key: whatever happens meanwhile, everything opens, and at the end nothing old is left. */
import { spawn } from "node:child_process";
import { setTimeout as rest } from "node:timers/promises";
import { and, eq, isNotNull, isNull, sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { seal, utf8 } from "../src/core/crypto";
import { PIECE_BYTES } from "../src/core/pieces";
import { readConfiguration } from "../src/server/configuration";
import {
  attachmentPieces,
  attachments,
  entries,
  entryVersions,
  journal,
  places,
  signIns,
  vaultKeys,
} from "../src/server/database/schema";
import { closeGaltry, type Galtry, startGaltry } from "../src/server/galtry";
import { uuidv7 } from "../src/server/ids";
import { holdLease, LEASE_MS } from "../src/server/lease";
import { openJar } from "../src/server/signin/sealed";
import { moveAcross } from "../src/server/vaults/copying";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { beginImport, cancelImport } from "../src/server/vaults/importing";
import { revealField } from "../src/server/vaults/revealing";
import {
  dropKeys,
  keyState,
  Rotating,
  rotateAllKeys,
  rotateKey,
  rotateSome,
  stopRotation,
  UNUSED_MS,
} from "../src/server/vaults/rotation";
import { openPiece, sealValues } from "../src/server/vaults/sealing";
import { openValues, vaultKey } from "../src/server/vaults/vaultKeys";
import { createVault } from "../src/server/vaults/vaults";
import { attachFile, fetchFile } from "./attaching";

const SERVER = { kind: "server" } as const;
const CONTENT = Buffer.alloc(2 * PIECE_BYTES + 99, "canary-file ");
let app: InProcess;
let f: Fixture;
let attachmentId: string;
const db = () => app.galtry;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  for (let i = 0; i < 120; i++) await add(`Login ${i}`, `canary-${i}`);
  attachmentId = await attachFile(db(), f.entryId, "plan.txt", CONTENT, f.as("steward"));
  await keepJar(f.entryId);
});
afterAll(() => app.close());

async function add(name: string, password: string, on: Galtry = db()): Promise<string> {
  const values = { name, signInPage: "https://rotated.example/in", userName: name, password };
  return (await addEntry.execute(on, { parentId: f.vaultId, captured: false, values }, f.as("steward"))).entryId;
}

async function keepJar(entryId: string): Promise<string> {
  const id = uuidv7();
  const { key, version } = await vaultKey(db().db, db().keys, f.vaultId);
  const jar = Buffer.from(await seal(key, utf8(JSON.stringify([{ name: "s" }])), ["sign-in jar", f.vaultId, id]));
  await db().writer.write((tx) =>
    tx.insert(signIns).values({
      ...{ id, entryId, versionId: "v", personId: f.ids.use, lanyardId: "l", how: "sealed", queueKey: "q", jar },
      ...{
        process: "elsewhere:1",
        begunAt: Date.now(),
        endedAt: Date.now(),
        outcome: "signed-in",
        keyVersion: version,
      },
    }),
  );
  return id;
}

const rotate = (vaultId = f.vaultId) => rotateKey.execute(db(), { vaultId }, f.as("steward"));
const versionsOfKeys = async (vaultId = f.vaultId) =>
  (await db().db.select().from(vaultKeys).where(eq(vaultKeys.vaultId, vaultId))).map(({ version }) => version).sort();

/** A row and its key are read one after the other; the tests let keys go at once, so whoever came between reads again. */
const orAgain = <T>(look: () => Promise<T>): Promise<T> => look().catch(look);

/** Opens every blob there is. @returns under which versions of which vaults' keys they lie */
async function requireAllOpen(on: Galtry = db()): Promise<Set<string>> {
  const under = new Set<string>();
  for (const { id } of await on.db.select({ id: entryVersions.id }).from(entryVersions))
    await orAgain(async () => {
      const [row] = await on.db.select().from(entryVersions).where(eq(entryVersions.id, id));
      expect((await openValues(on.db, on.keys, row!)).fields).toBeTruthy();
      under.add(`${row!.vaultId} ${row!.keyVersion}`);
    });
  const pieces = await on.db
    .select({ id: attachmentPieces.attachmentId, number: attachmentPieces.number })
    .from(attachmentPieces);
  for (const { id, number } of pieces)
    await orAgain(async () => {
      const [row] = await on.db
        .select({ file: attachments, piece: attachmentPieces })
        .from(attachmentPieces)
        .innerJoin(attachments, eq(attachments.id, attachmentPieces.attachmentId))
        .where(and(eq(attachmentPieces.attachmentId, id), eq(attachmentPieces.number, number)));
      const { file, piece } = row!;
      const version = piece.keyVersion ?? file.keyVersion;
      await openPiece(await vaultKey(on.db, on.keys, file.vaultId, version), file, number, piece.sealed);
      under.add(`${file.vaultId} ${version}`).add(`${file.vaultId} ${file.keyVersion}`);
    });
  await orAgain(async () => {
    const jars = await on.db
      .select({ id: signIns.id, vaultId: places.vaultId, jar: signIns.jar, keyVersion: signIns.keyVersion })
      .from(signIns)
      .innerJoin(places, and(eq(places.nodeId, signIns.entryId), isNull(places.validUntil)))
      .where(isNotNull(signIns.jar));
    expect(jars).toHaveLength(1);
    for (const row of jars) {
      expect(await openJar(on, row.vaultId, row)).toEqual([{ name: "s" }]);
      under.add(`${row.vaultId} ${row.keyVersion}`);
    }
  });
  return under;
}

test("everything is sealed anew, opens as before, and the old key goes after a while", async () => {
  const [before] = await db().db.select().from(entryVersions);
  const blobs = async () =>
    new Set((await db().db.select().from(entryVersions)).map((row) => row.sealed.toString("hex")));
  const old = await blobs();
  await rotate();
  await expect(rotate()).rejects.toThrow("already being rotated");
  const state = () => keyState.execute(db(), { vaultId: f.vaultId }, f.as("steward"));
  expect(await state()).toMatchObject({ version: 2, rotating: true, stopped: false });
  expect((await state()).left).toBe((await state()).all);

  const now = Date.now();
  const rotating = new Rotating(db());
  expect(await rotating.look(now)).toBe(1);
  expect(await requireAllOpen()).toEqual(new Set([`${f.vaultId} 2`]));
  expect(await state()).toMatchObject({ rotating: false, left: 0 });
  expect([...(await blobs())].filter((blob) => old.has(blob))).toEqual([]);
  expect(
    (await revealField.execute(db(), { entryId: before!.entryId, field: "password", how: "revealed" }, f.as("steward")))
      .value,
  ).toMatch(/canary/);
  expect((await fetchFile(db(), attachmentId, f.as("reveal"))).equals(CONTENT)).toBe(true);

  // Whoever has just read a row still finds its key; later it is gone from the file.
  expect(await versionsOfKeys()).toEqual([1, 2]);
  await rotating.look(now + UNUSED_MS - 1);
  expect(await versionsOfKeys()).toEqual([1, 2]);
  await rotating.look(now + 2 * UNUSED_MS);
  expect(await versionsOfKeys()).toEqual([2]);
  await requireAllOpen();

  const lines = (await db().db.select().from(journal)).filter((line) => line.act === "vaults.rotateKey");
  expect(lines.filter((line) => line.outcome === "done")).toHaveLength(1);
  expect(lines[0]!.vault).toBe(f.vaultId);
});

describe("an earlier version that something still needs", () => {
  test("is not let go by the database, and nothing is written under one that is gone", async () => {
    const gone = db().writer.write((tx) => tx.delete(vaultKeys).where(eq(vaultKeys.vaultId, f.vaultId)));
    await expect(gone).rejects.toThrow();
    const [row] = await db().db.select().from(entryVersions).where(eq(entryVersions.entryId, f.entryId));
    // Sealed by somebody slow, with the key that was dropped meanwhile.
    const late = sealValues(
      { version: 1, key: new Uint8Array(32) },
      { ...row!, versionId: row!.id },
      { fields: {}, code: null },
    );
    const writing = db().writer.write((tx) =>
      tx.insert(entryVersions).values({ ...row!, ...late, id: uuidv7(), number: 99 }),
    );
    await expect(writing).rejects.toThrow();
    await requireAllOpen();
  });

  test("stays while something is being brought in", async () => {
    const { importId } = await beginImport.execute(db(), { parentId: f.vaultId }, f.as("steward"));
    await rotate();
    const now = Date.now();
    const looks = new Rotating(db());
    for (const later of [0, 2, 4]) await looks.look(now + later * UNUSED_MS);
    expect(await versionsOfKeys()).toEqual([2, 3]);
    await cancelImport.execute(db(), { importId }, f.as("steward"));
    for (const later of [6, 8]) await looks.look(now + later * UNUSED_MS);
    expect(await versionsOfKeys()).toEqual([3]);
  });

  test("stays as long as a blob does not open", async () => {
    const [row] = await db().db.select().from(entryVersions).where(eq(entryVersions.entryId, f.otherEntryId));
    const damaged = Buffer.from(row!.sealed);
    damaged[damaged.length - 1]! ^= 1;
    const put = (sealed: Buffer) =>
      db().writer.write((tx) => tx.update(entryVersions).set({ sealed }).where(eq(entryVersions.id, row!.id)));
    await put(damaged);
    await rotate();
    const rotating = new Rotating(db());
    const now = Date.now();
    await rotating.look(now);
    // All others are through; the one that is damaged keeps what would open it, should it be mended from a backup.
    expect((await keyState.execute(db(), { vaultId: f.vaultId }, f.as("steward"))).left).toBe(1);
    await rotating.look(now + 2 * UNUSED_MS);
    expect(await versionsOfKeys()).toEqual([3, 4]);
    await put(row!.sealed);
    await rotating.look(now + 3 * UNUSED_MS);
    await rotating.look(now + 5 * UNUSED_MS);
    expect(await versionsOfKeys()).toEqual([4]);
    await requireAllOpen();
  });
});

test("what moves to another vault between being read and being written keeps the blob of that vault", async () => {
  const { vaultId: away } = await createVault.execute(db(), { name: "Away", description: "" }, f.as("administrator"));
  await give(db(), f.as("administrator"), away, f.ids.steward, "steward");
  const move = (parentId: string) => moveAcross.execute(db(), { nodeIds: [f.entryId], parentId }, f.as("steward"));
  let moves = 1;
  const write: Galtry["writer"]["write"] = async (work, lowPriority) => {
    if (lowPriority && moves-- > 0) await move(away);
    return db().writer.write(work, lowPriority);
  };
  const between = { ...db(), writer: { write } } as Galtry;
  // Once where its versions are read, and once where only pieces of its file are left.
  for (const leave of ["versions", "pieces"]) {
    await rotate();
    if (leave === "pieces")
      for (let left = 3; left > 0; left--) await rotateSome.execute(db(), { vaultId: f.vaultId, damaged: [] }, SERVER);
    moves = 1;
    await rotateSome.execute(between, { vaultId: f.vaultId, damaged: [] }, SERVER);
    expect(moves).toBe(0);
    expect([...(await requireAllOpen())].some((one) => one.startsWith(away))).toBe(true);
    expect((await fetchFile(db(), attachmentId, f.as("steward"))).equals(CONTENT)).toBe(true);
    await move(f.vaultId);
    await new Rotating(db()).look();
    expect((await requireAllOpen()).size).toBe(1);
  }
});

test("stopped in the middle, it stays where it is until somebody goes on", async () => {
  await rotate();
  const rotating = new Rotating(db());
  const stop = (stopped: boolean) => stopRotation.execute(db(), { vaultId: f.vaultId, stopped }, f.as("steward"));
  const looking = rotating.look();
  await stop(true);
  await looking;
  const { left, stopped } = await keyState.execute(db(), { vaultId: f.vaultId }, f.as("steward"));
  expect([left > 0, stopped]).toEqual([true, true]);
  expect(await rotating.look(Date.now() + LEASE_MS)).toBe(0);
  expect((await keyState.execute(db(), { vaultId: f.vaultId }, f.as("steward"))).left).toBe(left);
  await requireAllOpen();
  await stop(false);
  await rotating.look(Date.now() + 2 * LEASE_MS);
  expect((await keyState.execute(db(), { vaultId: f.vaultId }, f.as("steward"))).left).toBe(0);
  await dropKeys.execute(db(), { vaultId: f.vaultId }, SERVER, Date.now() + UNUSED_MS * 2);
});

test("under load from two Galtrys, with entries changed and moved away and back, nothing is ever unreadable", {
  timeout: 120_000,
}, async () => {
  const other = await startGaltry(readConfiguration(app.environment));
  const { vaultId: elsewhere } = await createVault.execute(
    db(),
    { name: "Elsewhere", description: "" },
    f.as("administrator"),
  );
  await give(db(), f.as("administrator"), elsewhere, f.ids.steward, "steward");
  const ids = (await db().db.select().from(entries)).map((row) => row.nodeId).slice(0, 12);
  let over = false;
  let moves = 0;
  const move = async () => {
    while (!over) {
      for (const parentId of [elsewhere, f.vaultId])
        await moveAcross.execute(db(), { nodeIds: ids.slice(0, 6), parentId }, f.as("steward"));
      moves += 1;
      await rest(20);
    }
  };
  const change = async () => {
    for (let i = 0; !over; i++) {
      const entryId = ids[6 + (i % 6)]!;
      const [row] = await db().db.select().from(entries).where(eq(entries.nodeId, entryId));
      const values = {
        name: row!.name,
        signInPage: "https://rotated.example/in",
        userName: "u",
        password: `canary-${i}`,
      };
      await changeEntry.execute(
        other,
        { entryId, baseVersionId: row!.versionId, captured: false, values },
        f.as("steward"),
      );
      await rest(20);
    }
  };
  const read = async () => {
    while (!over) {
      await rest(5);
      await requireAllOpen(other);
    }
  };
  const rotations = async () => {
    for (let round = 0; round < 3; round++) {
      await rotate();
      const both = [new Rotating(db()), new Rotating(other)];
      await Promise.all(both.map((one) => one.look(Date.now() + round * 3 * UNUSED_MS)));
      for (let left = 1; left > 0; ) {
        await rest(5);
        await Promise.all(both.map((one) => one.look(Date.now() + (1 + round * 3) * UNUSED_MS)));
        left = (await keyState.execute(db(), { vaultId: f.vaultId }, f.as("steward"))).left;
      }
      await dropKeys.execute(db(), { vaultId: f.vaultId }, SERVER, Date.now() + (2 + round * 3) * UNUSED_MS);
    }
    over = true;
  };
  try {
    await Promise.all(
      [move(), change(), read(), rotations()].map((one) =>
        one.finally(() => {
          over = true;
        }),
      ),
    );
  } finally {
    await closeGaltry(other);
  }
  expect(moves).toBeGreaterThan(1);
  await requireAllOpen();
  expect((await fetchFile(db(), attachmentId, f.as("steward"))).equals(CONTENT)).toBe(true);
});

test("ended with SIGKILL over and over, it goes on where it was", { timeout: 120_000 }, async () => {
  await rotate();
  const newest = Math.max(...(await versionsOfKeys()));
  const under = async () =>
    (await db().db.select().from(entryVersions)).filter((row) => row.keyVersion === newest).length;
  let finished = false;
  for (let round = 0; round < 20 && !finished; round++) {
    // A lease outlives the process that had it; here nobody waits for that.
    await db().writer.write((tx) => tx.run(sql`delete from leases`));
    const child = spawn(process.execPath, ["--import", "tsx", "integration/rotator.ts"], {
      env: app.environment,
      stdio: ["ignore", "pipe", "inherit"],
    });
    const ended = new Promise((done) => child.once("exit", done));
    let said = "";
    await new Promise<void>((begun) => {
      child.stdout.on("data", (part: Buffer) => {
        said += part;
        if (said.includes("rotating")) begun();
      });
    });
    const kill = setTimeout(() => child.kill("SIGKILL"), 5 + round * 40);
    await ended;
    clearTimeout(kill);
    finished = said.includes("finished");
    await requireAllOpen();
  }
  expect(finished).toBe(true);
  expect(await under()).toBe(
    (await db().db.select().from(entryVersions)).filter((row) => row.vaultId === f.vaultId).length,
  );
});

test("the operator rotates the keys of all vaults, with a line in each", async () => {
  await dropKeys.execute(db(), { vaultId: f.vaultId }, SERVER, Date.now() + 3 * UNUSED_MS);
  await rotate();
  const { rotated, of } = await rotateAllKeys.execute(db(), {}, SERVER);
  // Its own is already being rotated.
  expect(rotated.map(({ vaultId }) => vaultId)).not.toContain(f.vaultId);
  expect(rotated).toHaveLength(of - 1);
  const lines = (await db().db.select().from(journal)).filter((line) => line.act === "vaults.rotateAllKeys");
  expect(lines.map((line) => line.vault).sort()).toEqual(rotated.map(({ vaultId }) => vaultId).sort());
  await new Rotating(db()).look();
  for (const one of rotated) expect(await requireAllOpen()).not.toContain(`${one.vaultId} ${one.version - 1}`);
});

test("one process at a time has a lease, and another takes it once that one has been gone for long", async () => {
  const other = { ...db(), process: "elsewhere:1" } as Galtry;
  const now = Date.now();
  expect(await holdLease(db(), "some work", now)).toBe(true);
  expect(await holdLease(db(), "some work", now + 1)).toBe(true);
  expect(await holdLease(other, "some work", now + LEASE_MS)).toBe(false);
  expect(await holdLease(other, "some work", now + LEASE_MS + 2)).toBe(true);
  expect(await holdLease(db(), "some work", now + LEASE_MS + 3)).toBe(false);
});
