/** Keys, backup and restore, and the journal's check, as an operator meets them: by the scripts themselves. */
import { execFileSync, spawnSync } from "node:child_process";
import { chmodSync, existsSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import path from "node:path";
import { createClient } from "@libsql/client";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { CANARY, type Fixture, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { readConfiguration } from "../src/server/configuration";
import { closeGaltry, startGaltry } from "../src/server/galtry";
import { checkJournal } from "../src/server/journal/check";
import { revealField } from "../src/server/vaults/revealing";

let app: InProcess;
let f: Fixture;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

function script(
  name: string,
  args: string[] = [],
  more: Record<string, string> = {},
): { status: number | null; out: string } {
  const ran = spawnSync(process.execPath, ["--import", "tsx", `scripts/${name}.ts`, ...args], {
    env: { ...app.environment, ...more } as NodeJS.ProcessEnv,
    encoding: "utf8",
  });
  return { status: ran.status, out: `${ran.stdout}${ran.stderr}`.trim() };
}

/** Read by another process: closing a file here would drop the database's locks on it. */
const contentOf = (file: string): Buffer => execFileSync("cat", [file], { maxBuffer: 1 << 28 });

const data = () => app.environment.GALTRY_DATA!;
const elsewhere = (name: string) => path.join(app.folder, name);

describe("what lies on the disk", () => {
  test("is encrypted: neither names nor secrets stand in the files, and without the key the database does not open", async () => {
    await app.galtry.opened.client.execute("PRAGMA wal_checkpoint(PASSIVE)");
    for (const file of ["galtry.db", "galtry.db-wal", "keys.json"]) {
      const raw = contentOf(path.join(data(), file));
      for (const text of [CANARY, "Pellam Tickets", "SQLite format 3", "tarrowick"])
        expect(raw.includes(text)).toBe(false);
    }
    const copy = elsewhere("stolen.db");
    writeFileSync(copy, contentOf(path.join(data(), "galtry.db")));
    await expect(
      (async () => createClient({ url: `file:${copy}` }).execute("select count(*) from persons"))(),
    ).rejects.toThrow();
  });

  test("and opened with its key it still holds no secret in any column", async () => {
    const { client } = app.galtry.opened;
    for (const { name } of (await client.execute("select name from sqlite_master where type = 'table'"))
      .rows as unknown as { name: string }[])
      for (const row of (await client.execute(`select * from "${name}"`)).rows)
        for (const value of Object.values(row))
          expect(
            (value instanceof ArrayBuffer ? Buffer.from(value).toString("latin1") : String(value)).includes(CANARY),
          ).toBe(false);
  });

  test("the key file is Galtry's alone to read", () => {
    expect(statSync(app.environment.GALTRY_ROOT_KEY_FILE!).mode & 0o777).toBe(0o600);
    expect(statSync(path.join(data(), "keys.json")).mode & 0o777).toBe(0o600);
  });
});

describe("the start", () => {
  const refused = async (more: Record<string, string>) => {
    try {
      const opened = await startGaltry(readConfiguration({ ...app.environment, ...more }));
      await closeGaltry(opened);
      return "started";
    } catch (error) {
      return (error as Error).message;
    }
  };

  test("a missing, wrong or readable root key, or one inside the data, stops it in one line", async () => {
    expect(await refused({ GALTRY_ROOT_KEY_FILE: elsewhere("nowhere.key") })).toContain("The root key is missing");
    expect(existsSync(elsewhere("nowhere.key"))).toBe(false);
    expect(await refused({ GALTRY_ROOT_KEY: Buffer.alloc(32, 7).toString("base64url") })).toContain(
      "not the one that this data was locked with",
    );
    expect(await refused({ GALTRY_ROOT_KEY: "short" })).toContain("not 32 bytes");
    expect(await refused({ GALTRY_ROOT_KEY_FILE: path.join(data(), "root.key") })).toContain("inside the data folder");
    chmodSync(app.environment.GALTRY_ROOT_KEY_FILE!, 0o644);
    expect(await refused({})).toContain("can be read by others");
    chmodSync(app.environment.GALTRY_ROOT_KEY_FILE!, 0o600);
    expect(await refused({})).toBe("started");
  });

  test("data without its key file gets no new keys", async () => {
    renameSync(path.join(data(), "keys.json"), elsewhere("keys.json"));
    expect(await refused({})).toContain("no key file");
    renameSync(elsewhere("keys.json"), path.join(data(), "keys.json"));
  });

  test("plain http off this machine, and Galtry as a target, are refused", async () => {
    expect(await refused({ GALTRY_PUBLIC_URL: "http://galtry.tarrowick.example" })).toContain("only behind https");
    expect(await refused({ GALTRY_ALLOWED_TARGETS: `localhost:${app.environment.GALTRY_PORT}` })).toContain(
      "Galtry itself",
    );
    expect(await refused({ GALTRY_ALLOWED_TARGETS: `evil.localhost:${app.environment.GALTRY_PORT}` })).toContain(
      "Galtry itself",
    );
  });

  test("a database of a newer Galtry is refused", async () => {
    await app.galtry.db.run(sql`insert into __drizzle_migrations (hash, created_at) values ('later', 9999999999999)`);
    expect(await refused({})).toContain("newer Galtry");
    await app.galtry.db.run(sql`delete from __drizzle_migrations where hash = 'later'`);
  });
});

describe("backup, restore, rotation", () => {
  const backup = () => elsewhere("backup");

  test("a backup is made while Galtry runs, and says that the root key is kept elsewhere", () => {
    const { status, out } = script("backup", [backup()]);
    expect(out).toContain("The root key is not part of it");
    expect(status).toBe(0);
    expect(readFileSync(path.join(backup(), "galtry.db")).includes("Pellam")).toBe(false);
    expect(existsSync(path.join(backup(), "root.key"))).toBe(false);
    expect(script("backup", [backup()]).out).toContain("never overwrites");
  });

  test("it is restored into an empty place, opens with the root key only, and says what may be live again", async () => {
    const place = { GALTRY_DATA: elsewhere("restored") };
    expect(
      script("restore", [backup()], { ...place, GALTRY_ROOT_KEY: Buffer.alloc(32, 7).toString("base64url") }).out,
    ).toContain("not the one");
    rmSync(place.GALTRY_DATA, { recursive: true, force: true });
    const { status, out } = script("restore", [backup()], place);
    expect(out).toContain("What was revoked since the backup may be live again");
    expect(status).toBe(0);
    const restored = await startGaltry(readConfiguration({ ...app.environment, ...place }));
    expect(
      (await revealField.execute(restored, { entryId: f.entryId, field: "password", how: "revealed" }, f.as("reveal")))
        .value,
    ).toBe(CANARY);
    await closeGaltry(restored);
    expect(script("checkJournal", [], place).out).toContain("complete");
    expect(script("restore", [backup()], place).out).toContain("is not empty");
  });

  test("the root key is changed while Galtry runs; the old one opens nothing after, the data stays", async () => {
    const next = elsewhere("next.key");
    const before = readFileSync(path.join(data(), "keys.json"), "utf8");
    expect(script("rotateRootKey", [next]).status).toBe(0);
    expect(
      (
        await revealField.execute(
          app.galtry,
          { entryId: f.entryId, field: "password", how: "revealed" },
          f.as("reveal"),
        )
      ).value,
    ).toBe(CANARY);
    expect(readFileSync(path.join(data(), "keys.json"), "utf8")).not.toBe(before);
    expect(script("checkJournal").out).toContain("not the one that this data was locked with");
    expect(script("checkJournal", [], { GALTRY_ROOT_KEY_FILE: next }).out).toContain("complete");
    app.environment.GALTRY_ROOT_KEY_FILE = next;
    // A key file cut off in the middle of writing is never in place of the whole one.
    writeFileSync(path.join(data(), "keys.json.1.new"), "{");
    expect(script("checkJournal").out).toContain("complete");
  });

  test("a link for a locked-out owner is made on the server, journaled and told", async () => {
    const { status, out } = script("ownerLink", ["owner@tarrowick.example"]);
    expect(out).toMatch(/\/join#[\w-]{43}$/);
    expect(status).toBe(0);
    expect(script("ownerLink", ["use@tarrowick.example"]).status).toBe(1);
    expect(
      (await app.galtry.db.query.notices.findMany()).some((notice) => notice.text.includes("on the server itself")),
    ).toBe(true);
  });
});

describe("the journal", () => {
  const check = (...args: string[]) => script("checkJournal", args);

  test("names the first broken line, and a cut tail with a head noted before", async () => {
    const whole = check();
    const head = /head ([0-9a-f]{64})/.exec(whole.out)![1]!;
    expect(check("--head", head).status).toBe(0);
    // The same on screen, for administrators.
    const onScreen = (noted = "") => checkJournal.execute(app.galtry, { head: noted }, f.as("administrator"));
    expect(await onScreen(head)).toMatchObject({ head, broken: null, altered: null });
    await expect(checkJournal.execute(app.galtry, {}, f.as("steward"))).rejects.toMatchObject({ code: "not-allowed" });
    const { db } = app.galtry;
    const [line] = await db.all<{ details: string }>(sql`select details from journal where seq = 7`);
    await db.run(sql`update journal set details = '{"altered":true}' where seq = 7`);
    expect(check()).toMatchObject({
      status: 1,
      out: expect.stringContaining("broken at line 7: what it says was changed"),
    });
    expect((await onScreen()).broken).toEqual({ line: 7, why: "what it says was changed" });
    await db.run(sql`update journal set details = ${line!.details} where seq = 7`);
    const [last] = await db.all<{ seq: number }>(sql`select max(seq) as seq from journal`);
    await db.run(sql`create table kept_line as select * from journal where seq = ${last!.seq}`);
    await db.run(sql`delete from journal where seq = ${last!.seq}`);
    // Without a head noted elsewhere it cannot know, and says so.
    expect(check()).toMatchObject({ status: 0, out: expect.stringContaining("cannot be seen from here") });
    expect(check("--head", head)).toMatchObject({
      status: 1,
      out: expect.stringContaining("the tail was cut or rewritten"),
    });
    expect((await onScreen()).broken).toBeNull();
    expect((await onScreen(head)).broken?.why).toContain("the tail was cut or rewritten");
    await db.run(sql`insert into journal select * from kept_line`);
    await db.run(sql`drop table kept_line`);
    expect(check("--head", head).status).toBe(0);
  });

  test("a name can be erased without breaking the chain", async () => {
    await app.galtry.db.run(sql`delete from journal_names where name = 'Person leaver'`);
    expect(check().out).toContain("complete");
    expect(check().out).toMatch(/erased names: [1-9]/);
  });

  test("a name that was altered, or stands for somebody else now, is found", async () => {
    const { db } = app.galtry;
    const [row] = await db.all<{ hash: string; ref: string }>(
      sql`select hash, ref from journal_names where name = 'Person steward'`,
    );
    for (const change of [sql`name = 'Person somebody'`, sql`ref = ${app.galtry.process}`]) {
      await db.run(sql`update journal_names set ${change} where hash = ${row!.hash}`);
      expect(check()).toMatchObject({ status: 1, out: expect.stringContaining("a name was altered") });
      await db.run(sql`update journal_names set name = 'Person steward', ref = ${row!.ref} where hash = ${row!.hash}`);
    }
    expect(check().status).toBe(0);
  });
});
