/** Data of an earlier Galtry, with what it had left behind, brought up to date. */
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { type Client, createClient } from "@libsql/client";
import { drizzle } from "drizzle-orm/libsql";
import { migrate } from "drizzle-orm/libsql/migrator";
import { afterAll, beforeAll, expect, test } from "vitest";

const FOLDER = path.join(process.cwd(), "src/server/database/migrations");
const BEFORE = 7;
let folder: string;
let client: Client;

beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), "galtry-migrations-"));
  client = createClient({ url: `file:${path.join(folder, "data.db")}` });
});
afterAll(() => {
  client.close();
  rmSync(folder, { recursive: true, force: true });
});

const { entries: steps } = JSON.parse(readFileSync(path.join(FOLDER, "meta/_journal.json"), "utf8")) as {
  entries: { tag: string; when: number }[];
};

/** As a Galtry did that knew only the first of them. */
async function migrateFirst(count: number): Promise<void> {
  for (const { tag } of steps.slice(0, count)) {
    const text = readFileSync(path.join(FOLDER, `${tag}.sql`), "utf8");
    await client.migrate(text.split("--> statement-breakpoint"));
  }
  await client.execute(
    "create table __drizzle_migrations (id integer primary key, hash text not null, created_at numeric)",
  );
  for (const { when } of steps.slice(0, count))
    await client.execute({
      sql: "insert into __drizzle_migrations (hash, created_at) values ('', ?)",
      args: [when],
    });
}

const triggers = async () =>
  (await client.execute("select name from sqlite_master where type = 'trigger' order by name")).rows.map(
    (row) => row.name,
  );
const counted = async (table: string) =>
  Number((await client.execute(`select count(*) as n from ${table}`)).rows[0]!.n);

test("rows stay, what was left of something erased goes, and everything refers to something", async () => {
  await migrateFirst(BEFORE);
  const before = await triggers();
  expect(before.length).toBeGreaterThan(10);
  const version = (id: string, entry: string, number: number) =>
    `insert into entry_versions values ('${id}', '${entry}', ${number}, 'v', 1, '{}', x'01', 1, 'p', null)`;
  await client.batch([
    "insert into persons (id, mail, name, created_at) values ('p', 'p@kept.example', 'P', 1)",
    ...["v", "e"].map((id) => `insert into nodes values ('${id}', '${id === "v" ? "vault" : "entry"}', 1, 'p')`),
    "insert into vaults (node_id, name) values ('v', 'V')",
    "insert into vault_keys values ('v', 1, x'01', 1)",
    "insert into vault_keys values ('erased', 1, x'01', 1)",
    `insert into entries (node_id, kind, name, fields, sign_in_page, reach, host, site, tags, extras, steps, version_id,
       changed_at, changed_by, created_at, created_by)
     values ('e', 'login', 'E', '{}', '', 'site', '', '', '[]', '[]', '{}', 'e2', 1, 'p', 1, 'p')`,
    version("e1", "e", 1),
    version("e2", "e", 2),
    version("gone1", "gone", 1),
    "insert into fingerprints values ('e2', 'password', 'f'), ('gone1', 'password', 'f')",
    "insert into pins values ('p', 'e', 1), ('p', 'gone', 1)",
    "insert into places (id, node_id, vault_id, valid_from, command_id) values ('1', 'e', 'v', 1, 'c')",
  ]);
  await migrate(drizzle(client), { migrationsFolder: FOLDER });
  expect((await client.execute("pragma foreign_key_check")).rows).toEqual([]);
  // Those that were there, and what came with later versions.
  expect(await triggers()).toEqual(expect.arrayContaining(before));
  expect([await counted("entry_versions"), await counted("fingerprints"), await counted("pins")]).toEqual([2, 1, 1]);
  expect([await counted("vault_keys"), await counted("entries"), await counted("places")]).toEqual([1, 1, 1]);
  // The triggers are those of the new tables, and foreign keys hold again.
  const changes = await counted("access_changes");
  await client.execute("update places set valid_until = 2 where id = '1'");
  expect(await counted("access_changes")).toBe(changes + 1);
  await expect(client.execute("insert into pins values ('nobody', 'e', 1)")).rejects.toThrow(/FOREIGN KEY/);
  await expect(client.execute("delete from vault_keys")).rejects.toThrow(/FOREIGN KEY/);
});
