/** Migrations, applied at start by one process, after a backup; a newer database is refused. */
import { existsSync, readFileSync } from "node:fs";
import path from "node:path";
import { sql } from "drizzle-orm";
import { migrate } from "drizzle-orm/libsql/migrator";
import { StartError } from "../startError";
import type { OpenDatabase } from "./client";
import { isBusy } from "./client";

const LOCK_MS = 60_000;

export async function applyMigrations(opened: OpenDatabase, backup: () => Promise<void>): Promise<void> {
  const folder = migrationsFolder();
  const known = JSON.parse(readFileSync(path.join(folder, "meta/_journal.json"), "utf8")).entries.length as number;
  await retry(() =>
    opened.client.execute("create table if not exists start_lock (id integer primary key, until integer not null)"),
  );
  if ((await applied(opened)) === known) return;
  await takeLock(opened);
  try {
    const done = await applied(opened);
    if (done > known)
      throw new StartError("This data was written by a newer Galtry. Start that one, or bring back an earlier backup.");
    if (done === known) return;
    if (done > 0) await backup();
    await migrate(opened.db, { migrationsFolder: folder });
  } finally {
    await opened.client.execute("delete from start_lock");
  }
}

async function applied(opened: OpenDatabase): Promise<number> {
  const table = await opened.db.get<{ n: number }>(
    sql`select count(*) as n from sqlite_master where name = '__drizzle_migrations'`,
  );
  if (!table?.n) return 0;
  return (await opened.db.get<{ n: number }>(sql`select count(*) as n from __drizzle_migrations`))?.n ?? 0;
}

async function takeLock(opened: OpenDatabase): Promise<void> {
  await retry(async () => {
    const now = Date.now();
    await opened.client.execute({ sql: "delete from start_lock where until < ?", args: [now] });
    await opened.client.execute({ sql: "insert into start_lock (id, until) values (1, ?)", args: [now + LOCK_MS] });
  }, /UNIQUE|PRIMARY KEY/);
}

async function retry(work: () => Promise<unknown>, also?: RegExp): Promise<void> {
  for (const start = Date.now(); ; ) {
    try {
      await work();
      return;
    } catch (error) {
      const again = isBusy(error) || also?.test(String(error));
      if (!again || Date.now() - start > LOCK_MS) throw error;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  }
}

/** The migrations lie beside the sources; a built server finds them from the folder it is started in. */
function migrationsFolder(): string {
  const folder = path.join(/* turbopackIgnore: true */ process.cwd(), "src/server/database/migrations");
  if (!existsSync(folder)) throw new StartError("Galtry is started from another folder than its own.");
  return folder;
}
