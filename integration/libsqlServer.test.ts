/**
 * Two Galtrys on one real libSQL server, each with its own copy of what it holds: what one writes the other shows at once,
 * a page costs few questions, and neither the server's end nor a Galtry's loses anything.
 */
import { execFileSync, spawn } from "node:child_process";
import { cpSync, mkdirSync, readdirSync, rmSync, statSync } from "node:fs";
import path from "node:path";
import { setTimeout as rest } from "node:timers/promises";
import { createClient } from "@libsql/client";
import { asc, eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test, vi } from "vitest";
import { type Fixture, makeFixture } from "../demo/fixture";
import { freePort } from "../demo/freePort";
import { type InProcess, inProcess } from "../demo/inProcess";
import { hasLibsqlServer, type LibsqlServer, startLibsqlServer } from "../demo/libsqlServer";
import { checkChain } from "../src/core/journal/chain";
import { endAccess, giveAccess } from "../src/server/access/grants";
import { readConfiguration } from "../src/server/configuration";
import { Replica } from "../src/server/database/replica";
import { entries, grants, journal } from "../src/server/database/schema";
import { isUnreachable } from "../src/server/database/unreachable";
import { frontDesk } from "../src/server/frontdesk/frontDesk";
import { closeGaltry, type Galtry, startGaltry, upToDate } from "../src/server/galtry";
import { journalPage } from "../src/server/journal/page";
import { Hub } from "../src/server/live/hub";
import { addEntry } from "../src/server/vaults/entries";
import { entryPage } from "../src/server/vaults/entryPage";
import { revealField } from "../src/server/vaults/revealing";
import { vaultLedger } from "../src/server/vaults/vaults";

const CANARY = "canary-on-the-server/Quince 14";
let server: LibsqlServer;
let app: InProcess;
let other: Galtry;
let environment: Record<string, string>;
let f: Fixture;
const db = () => app.galtry;

// Only where there is a binary for this platform.
describe.runIf(hasLibsqlServer)("on a libSQL server", () => {
  beforeAll(async () => {
    server = await startLibsqlServer();
    app = await inProcess({ GALTRY_DATABASE_URL: server.url, GALTRY_DATABASE_TOKEN: server.token }, { serves: true });
    f = await makeFixture(db());
    environment = await elsewhere("second");
    other = await startGaltry(readConfiguration(environment), { serves: true });
  }, 120_000);
  afterAll(async () => {
    if (other) await closeGaltry(other);
    await app?.close();
    await server?.close();
  });

  /** As on another machine: a folder and a port of its own, the same key file. */
  async function elsewhere(name: string): Promise<Record<string, string>> {
    const folder = path.join(app.folder, name);
    mkdirSync(folder);
    cpSync(path.join(app.environment.GALTRY_DATA!, "keys.json"), path.join(folder, "keys.json"));
    return {
      ...(app.environment as Record<string, string>),
      GALTRY_DATA: folder,
      GALTRY_PORT: String(await freePort()),
    };
  }

  const add = async (on: Galtry, name: string, password = CANARY) => {
    const values = { name, signInPage: "https://kept.example/in", userName: "u", password };
    return (await addEntry.execute(on, { parentId: f.vaultId, captured: false, values }, f.as("steward"))).entryId;
  };
  const namesAt = async (on: Galtry) => {
    await upToDate(on);
    return (await on.db.select({ name: entries.name }).from(entries)).map(({ name }) => name);
  };

  test("what one writes is there for the other at once, both ways, and its own for itself", async () => {
    for (const [one, two] of [
      [db(), other],
      [other, db()],
    ] as const) {
      const entryId = await add(one, `Written ${one === other ? "there" : "here"}`);
      const asked = await revealField.execute(one, { entryId, field: "password", how: "revealed" }, f.as("steward"));
      expect(asked.value).toBe(CANARY);
      await upToDate(two);
      const there = await entryPage.execute(two, { entryId }, f.as("steward"));
      expect(there.name).toContain("Written");
    }
    // Access that ended here has ended there: the index of the other follows.
    await upToDate(other);
    const level = async () => (await other.access.fresh()).level(f.ids.reveal, f.entryId, Date.now());
    expect(await level()).toBe("reveal");
    const [grant] = (await db().db.select().from(grants).where(eq(grants.subjectId, f.ids.reveal))).filter(
      (row) => row.validUntil === null,
    );
    await endAccess.execute(db(), { grantId: grant!.id }, f.as("steward"));
    await upToDate(other);
    expect(await level()).toBe("none");
  });

  test("a page costs one question to the server, whatever it reads", async () => {
    const asked = vi.spyOn(globalThis, "fetch");
    const synced = vi.spyOn(Replica.prototype, "fresh");
    for (const page of [
      () => frontDesk.execute(db(), {}, f.as("use")),
      () => entryPage.execute(db(), { entryId: f.entryId }, f.as("use")),
      () => vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("steward")),
    ]) {
      await upToDate(db());
      await page();
    }
    expect([synced.mock.calls.length, asked.mock.calls.length]).toEqual([3, 0]);
    vi.restoreAllMocks();
  });

  test("those who ask at the same time ask together, and each gets what was written before", async () => {
    await Promise.all(
      Array.from({ length: 20 }, async (_, i) => {
        const entryId = await add(i % 2 ? db() : other, `Together ${i}`);
        const reader = i % 2 ? other : db();
        await upToDate(reader);
        expect((await entryPage.execute(reader, { entryId }, f.as("steward"))).name).toBe(`Together ${i}`);
      }),
    );
  });

  test("a change is told at the other's stream within a second", async () => {
    const hub = new Hub(other);
    let heard = 0;
    const stop = await hub.listen(f.ids.steward, () => {
      heard = Date.now();
    });
    // What else the machine does only ever adds to it: the best of five is what Galtry takes.
    const waits: number[] = [];
    for (let turn = 0; turn < 5 && !waits.some((wait) => wait < 1_000); turn++) {
      await rest(400);
      const began = Date.now();
      await add(db(), `Told of ${turn}`);
      while (heard < began && Date.now() - began < 5_000) await rest(20);
      waits.push(heard - began);
    }
    stop();
    expect(waits.every((wait) => wait >= 0)).toBe(true);
    expect(Math.min(...waits)).toBeLessThan(1_000);
  });

  test("what lies on the disks: names on the server's, as docs say, no secret anywhere, nothing readable in the copies", async () => {
    await add(db(), "Canary name on disk");
    await upToDate(db());
    const holds = (folder: string, text: string): boolean =>
      (readdirSync(folder, { recursive: true }) as string[])
        .map((name) => path.join(folder, name))
        .filter((file) => statSync(file).isFile())
        // Read by another process: closing a file here would drop the database's locks on it.
        .some((file) => execFileSync("cat", [file], { maxBuffer: 1 << 28 }).includes(text));
    expect(holds(server.folder, "Canary name on disk")).toBe(true);
    expect(holds(server.folder, CANARY)).toBe(false);
    for (const folder of [app.environment.GALTRY_DATA!, environment.GALTRY_DATA!]) {
      expect(readdirSync(folder).some((name) => name.startsWith("replica-"))).toBe(true);
      for (const text of [CANARY, "Canary name on disk", "SQLite format 3"]) expect(holds(folder, text)).toBe(false);
      for (const name of readdirSync(folder).filter((one) => one.startsWith("replica-")))
        expect(statSync(path.join(folder, name)).mode & 0o077).toBe(0);
    }
  });

  test("a server behind it follows, and holds all of it", { timeout: 60_000 }, async () => {
    const behind = await server.replica();
    const client = createClient({ url: behind.url, authToken: behind.token });
    await add(db(), "For the one behind");
    const counted = async () =>
      Number(
        (await client.execute("select count(*) as n from entries").catch(() => ({ rows: [{ n: 0 }] }))).rows[0]!.n,
      );
    const all = (await namesAt(db())).length;
    for (const began = Date.now(); (await counted()) < all && Date.now() - began < 20_000; ) await rest(100);
    expect(await counted()).toBe(all);
    client.close();
  });

  test("a backup of it is a local one, and goes back onto an empty server with all that it held", {
    timeout: 90_000,
  }, async () => {
    const run = (name: string, args: string[], more: Record<string, string>) =>
      execFileSync(process.execPath, ["scripts/run.mjs", name, ...args], {
        env: { ...environment, ...more } as NodeJS.ProcessEnv,
        encoding: "utf8",
        stdio: ["ignore", "pipe", "pipe"],
      });
    const backup = path.join(app.folder, "backup");
    const subjectOfIt = { kind: "person" as const, id: f.ids.nothing };
    const reason = { nodeId: f.entryId, subject: subjectOfIt, level: "use" as const, why: "for the plumbers" };
    await giveAccess.execute(db(), reason, f.as("steward"));
    await upToDate(db());
    const all = (await namesAt(db())).sort();
    expect(run("backup", [backup], {})).toMatch(/journal lines, head/);
    expect(readdirSync(backup).sort()).toEqual(["galtry.db", "keys.json"]);
    const empty = await startLibsqlServer();
    const onto = {
      GALTRY_DATABASE_URL: empty.url,
      GALTRY_DATABASE_TOKEN: empty.token,
      GALTRY_DATA: path.join(app.folder, "restored"),
    };
    expect(run("restore", [backup], onto)).toContain("Restored into the database server");
    const restored = await startGaltry(readConfiguration({ ...environment, ...onto }), { serves: true });
    expect((await namesAt(restored)).sort()).toEqual(all);
    const asked = await revealField.execute(
      restored,
      { entryId: f.entryId, field: "password", how: "revealed" },
      f.as("steward"),
    );
    expect(asked.value).toBeTruthy();
    const before = (await restored.access.fresh()).level(f.ids.edit, f.entryId, Date.now());
    expect(before).toBe("edit");
    // Words of reasons are found, those from before the backup and later ones.
    const found = async (on: Galtry) =>
      (await journalPage.execute(on, { words: "plumbers" }, f.as("owner"))).lines.length;
    expect(await found(restored)).toBe(1);
    const subject = { kind: "person" as const, id: f.ids.reveal };
    const given = { nodeId: f.entryId, subject, level: "edit" as const, why: "plumbers again" };
    await giveAccess.execute(restored, given, f.as("steward"));
    expect(await found(restored)).toBe(2);
    // Its triggers tell the index, and its numbers go on.
    const [grant] = (await restored.db.select().from(grants).where(eq(grants.subjectId, f.ids.edit))).filter(
      (row) => row.validUntil === null && row.nodeId === f.entryId,
    );
    await endAccess.execute(restored, { grantId: grant!.id }, f.as("steward"));
    expect((await restored.access.fresh()).level(f.ids.edit, f.entryId, Date.now())).toBe("none");
    await closeGaltry(restored);
    rmSync(onto.GALTRY_DATA, { recursive: true });
    expect(() => run("restore", [backup], onto)).toThrow(/not empty/);
    await empty.close();
  });

  describe("the start", () => {
    const refused = async (more: Record<string, string>) => {
      try {
        await closeGaltry(await startGaltry(readConfiguration({ ...environment, ...more }), { serves: true }));
        return "started";
      } catch (error) {
        return (error as Error).message;
      }
    };

    test("says in one line what is wrong: no server, a wrong token, no keys, keys of another", async () => {
      expect(await refused({ GALTRY_DATABASE_URL: `http://127.0.0.1:${await freePort()}` })).toMatch(
        /^The database server at 127\.0\.0\.1:\d+ cannot be reached\.$/,
      );
      expect(await refused({ GALTRY_DATABASE_TOKEN: "not a token" })).toContain(
        "does not accept GALTRY_DATABASE_TOKEN",
      );
      const empty = path.join(app.folder, "empty");
      expect(await refused({ GALTRY_DATA: empty })).toContain(`no key file in ${empty}`);
      const { folder, environment: own, close } = await inProcess();
      const wrong = path.join(app.folder, "wrong");
      cpSync(own.GALTRY_DATA!, wrong, { recursive: true });
      // Two that begin at once on an empty server, each with keys of its own: one of them goes on.
      const contested = await startLibsqlServer();
      const first = ["one", "two"].map((name) =>
        refused({
          GALTRY_DATABASE_URL: contested.url,
          GALTRY_DATABASE_TOKEN: contested.token,
          GALTRY_DATA: path.join(app.folder, `first-${name}`),
          GALTRY_PORT: String(20_000 + name.length),
        }),
      );
      const said = await Promise.all(first);
      expect(said.filter((one) => one === "started")).toHaveLength(1);
      expect(said.some((one) => one.includes("does not belong to this database"))).toBe(true);
      await contested.close();
      expect(await refused({ GALTRY_DATA: wrong, GALTRY_ROOT_KEY_FILE: path.join(folder, "root.key") })).toContain(
        "does not belong to this database",
      );
      await close();
    });
  });

  /** The chain is whole, and everything that was said to be kept is there. */
  async function requireWhole(kept: readonly string[]): Promise<void> {
    await upToDate(db());
    const lines = await db().db.select().from(journal).orderBy(asc(journal.seq));
    expect((await checkChain(lines, db().keys.journal)).broken).toBeNull();
    const names = new Set(await namesAt(db()));
    expect(kept.filter((name) => !names.has(name))).toEqual([]);
    expect(new Set(lines.filter((line) => line.act === "vaults.addEntry").map((line) => line.node)).size).toBe(
      names.size,
    );
  }

  /** Within a few seconds, and by themselves. */
  async function bothAnswer(): Promise<void> {
    for (const on of [db(), other])
      for (const start = Date.now(); Date.now() - start < 10_000; await rest(100)) {
        const back = await upToDate(on).then(
          () => true,
          () => false,
        );
        if (back) break;
      }
  }

  test("the server ended with SIGKILL in the middle of writes from both: both go on by themselves", {
    timeout: 120_000,
  }, async () => {
    const kept: string[] = [];
    const wrong: unknown[] = [];
    let over = false;
    const writing = [db(), other].map(async (on, which) => {
      for (let i = 0; !over; i++) {
        const name = `Through it ${which} ${i}`;
        await add(on, name).then(
          () => kept.push(name),
          (error) => wrong.push(error),
        );
        await rest(5);
      }
    });
    for (let round = 0; round < 3; round++) {
      await rest(600);
      await server.kill();
      const before = kept.length;
      await rest(400);
      // Nobody is kept waiting, and nothing is shown that may have changed.
      const began = Date.now();
      await expect(upToDate(db())).rejects.toSatisfy(isUnreachable);
      expect(Date.now() - began).toBeLessThan(5_000);
      // What was written before it ended may be acknowledged after, and no more than that.
      expect(kept.length).toBeLessThanOrEqual(before + 2);
      await server.start();
      for (const start = Date.now(); kept.length < before + 4 && Date.now() - start < 15_000; ) await rest(50);
      expect(kept.length).toBeGreaterThanOrEqual(before + 4);
    }
    over = true;
    await Promise.all(writing);
    // What went wrong was the server, and every caller was told so.
    expect(wrong.length).toBeGreaterThan(0);
    expect(wrong.filter((error) => !isUnreachable(error)).map(String)).toEqual([]);
    await bothAnswer();
    await requireWhole(kept);
  });

  test("a Galtry ended with SIGKILL in the middle of writes: all or nothing, and its lock is not for ever", {
    timeout: 120_000,
  }, async () => {
    const { lanyardId, personId } = f.lanyard("steward");
    for (let round = 0; round < 2; round++) {
      const child = spawn(
        process.execPath,
        ["--import", "tsx", "integration/writer.ts", f.vaultId, personId, lanyardId, "-", "100000"],
        { env: environment as NodeJS.ProcessEnv, stdio: ["ignore", "pipe", "inherit"] },
      );
      let said = "";
      child.stdout.on("data", (part: Buffer) => {
        said += part;
      });
      const ended = new Promise((done) => child.once("exit", done));
      while (!said.includes("kept ")) await rest(20);
      await rest(100 + round * 50);
      child.kill("SIGKILL");
      await ended;
      expect(said).not.toContain("wrong ");
      const ids = [...said.matchAll(/^kept (\S+)$/gm)].map(([, id]) => id!);
      await upToDate(db());
      const there = new Set((await db().db.select({ id: entries.nodeId }).from(entries)).map(({ id }) => id));
      expect(ids.filter((id) => !there.has(id))).toEqual([]);
      const began = Date.now();
      await add(db(), `After ${round}`);
      expect(Date.now() - began).toBeLessThan(12_000);
    }
    await requireWhole([]);
  });

  test("a database that was replaced by an earlier one is what everybody sees, with the access of then", {
    timeout: 60_000,
  }, async () => {
    const data = path.join(server.folder, "data");
    const level = async (on: Galtry) => {
      await upToDate(on);
      return (await on.access.fresh()).level(f.ids.guest, f.entryId, Date.now());
    };
    await server.kill();
    cpSync(data, path.join(server.folder, "backup"), { recursive: true });
    await server.start();
    await bothAnswer();
    expect([await level(db()), await level(other)]).toEqual(["use", "use"]);
    const own = await db().db.select().from(grants).where(eq(grants.subjectId, f.ids.guest));
    await endAccess.execute(
      db(),
      { grantId: own.find((row) => row.validUntil === null && row.nodeId === f.entryId)!.id },
      f.as("steward"),
    );
    await add(db(), "After the backup");
    expect([await level(db()), await level(other)]).toEqual(["none", "none"]);
    await server.kill();
    rmSync(data, { recursive: true });
    cpSync(path.join(server.folder, "backup"), data, { recursive: true });
    await server.start();
    await bothAnswer();
    expect([await level(db()), await level(other)]).toEqual(["use", "use"]);
    expect(await namesAt(other)).not.toContain("After the backup");
    await requireWhole([]);
  });
});
