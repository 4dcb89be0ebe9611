/**
 * A consistent, encrypted copy of the database while Galtry runs. Of a local one the write lock is held while the file and
 * its log are copied; a remote one is copied as for reading. Then the copy is opened and its journal checked. The root key
 * is never part of it.
 */
import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, rmSync } from "node:fs";
import path from "node:path";
import { asc } from "drizzle-orm";
import { toHex } from "../core/crypto";
import { checkChain } from "../core/journal/chain";
import { type Configuration, databaseFile, isLocal } from "./configuration";
import { connect, isBusy, openDatabase } from "./database/client";
import { Replica } from "./database/replica";
import { journal, organisation } from "./database/schema";
import { type KeyRing, keyFilePath } from "./keys/keyFile";
import { StartError } from "./startError";

export interface BackupReport {
  folder: string;
  lines: number;
  head: string;
}

/** @throws StartError when the copy does not hold */
export async function writeBackup(configuration: Configuration, keys: KeyRing, folder: string): Promise<BackupReport> {
  if (existsSync(folder)) throw new StartError(`${folder} is there already: a backup never overwrites one.`);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const copy = path.join(folder, "galtry.db");
  const keyFile = keyFilePath(configuration.dataFolder);
  if (!isLocal(configuration)) {
    const { databaseUrl: url, databaseToken: token } = configuration;
    // Encrypted with the same key as a local database: the backup is one, and opens without any server.
    const replica = await Replica.begin(copy, { url, ...(token ? { token } : {}), key: toHex(keys.database) });
    await replica.close();
    copyElsewhere([[keyFile, path.join(folder, "keys.json")]]);
    return { folder, ...(await checkCopy(copy, keys)) };
  }
  const file = databaseFile(configuration);
  const { client } = await openDatabase(`file:${file}`, keys.database);
  try {
    await whileLocked(client, () => {
      const pairs = [
        [file, copy],
        [`${file}-wal`, `${copy}-wal`],
        [keyFile, path.join(folder, "keys.json")],
      ];
      copyElsewhere(pairs.filter(([from]) => existsSync(from!)) as [string, string][]);
    });
  } finally {
    client.close();
  }
  return { folder, ...(await checkCopy(copy, keys)) };
}

/** Written down, so that the first steps of a new organisation know it. */
export async function noteBackup(configuration: Configuration, keys: KeyRing, at = Date.now()): Promise<void> {
  const url = isLocal(configuration) ? `file:${databaseFile(configuration)}` : configuration.databaseUrl;
  const { client, db } = connect(url, keys.database, configuration.databaseToken ?? undefined, 10_000);
  try {
    await db.update(organisation).set({ backedUpAt: at });
  } finally {
    client.close();
  }
}

/**
 * Copies in a process of its own: closing any handle on a file drops all locks that this process holds on it (POSIX
 * advisory locks), and with them the database's.
 */
function copyElsewhere(pairs: [string, string][]): void {
  const script = "for (const [from, to] of JSON.parse(process.argv[1])) require('node:fs').copyFileSync(from, to)";
  execFileSync(process.execPath, ["-e", script, JSON.stringify(pairs)]);
}

async function whileLocked(
  client: Awaited<ReturnType<typeof openDatabase>>["client"],
  work: () => void,
): Promise<void> {
  for (const start = Date.now(); ; ) {
    try {
      const tx = await client.transaction("write");
      try {
        work();
      } finally {
        await tx.rollback();
      }
      return;
    } catch (error) {
      if (!isBusy(error) || Date.now() - start > 30_000) throw error;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  }
}

/** Folds the log into the copy, and checks pages and journal. */
async function checkCopy(copy: string, keys: KeyRing): Promise<{ lines: number; head: string }> {
  const { client, db } = await openDatabase(`file:${copy}`, keys.database);
  try {
    await client.execute("PRAGMA wal_checkpoint(TRUNCATE)");
    const check = await client.execute("PRAGMA integrity_check");
    if (String(check.rows[0]?.[0]) !== "ok") throw new StartError("The copy does not hold: its pages are damaged.");
    const { lines, head, broken } = await checkChain(
      await db.select().from(journal).orderBy(asc(journal.seq)),
      keys.journal,
    );
    if (broken)
      throw new StartError(`The copy does not hold: its journal is broken at line ${broken.seq} (${broken.why}).`);
    return { lines, head };
  } finally {
    client.close();
    for (const rest of ["-wal", "-shm", "-info", "-client_wal_index"]) rmSync(`${copy}${rest}`, { force: true });
  }
}
