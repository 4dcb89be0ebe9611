/**
 * A running Galtry: configuration, keys, database, the queue of writes. One per process, however many bundles
 * the framework makes of this module.
 */
import { chmodSync, existsSync, mkdirSync, readdirSync } from "node:fs";
import { hostname } from "node:os";
import path from "node:path";
import { LiveAccess } from "./access/liveAccess";
import { writeBackup } from "./backup";
import { type Configuration, databaseFile, readConfiguration } from "./configuration";
import { connect, type Database, type OpenDatabase, openDatabase } from "./database/client";
import { applyMigrations } from "./database/migrate";
import { Writer } from "./database/writer";
import { hasKeyFile, type KeyRing, newKeyRing, readKeyFile, writeKeyFile } from "./keys/keyFile";
import { hasRootKey, makeRootKey, readRootKey } from "./keys/rootKey";
import type { ReadingThread } from "./reading/readingThread";
import type { PageReader } from "./signin/pageReader";
import { StartError } from "./startError";
import type { Composer } from "./vaults/composer";
import type { PictureDrawer } from "./vaults/pictureDrawer";

/** Closes what a Galtry has open, after its last write. */
export async function closeGaltry(house: Galtry): Promise<void> {
  await house.writer.close();
  house.pages?.close();
  house.pictures?.close();
  house.opened.client.close();
}

export interface Galtry {
  configuration: Configuration;
  keys: KeyRing;
  opened: OpenDatabase;
  db: Database;
  writer: Writer;
  /** What everybody reaches, held ready. */
  access: LiveAccess;
  /** This machine and process, in the rows of sign-ins it has under way. */
  process: string;
  /** When a person last asked for something. */
  askedAt?: number;
  /** Reads strangers' pages, where Galtry runs for people. */
  pages?: PageReader;
  /** Draws strangers' pictures, where Galtry runs for people. */
  pictures?: PictureDrawer;
  /** Composes what is brought in beside this thread, where Galtry runs for people. */
  composer?: Composer;
  /** Reads over thousands of rows beside this thread, where Galtry runs for people. */
  reading?: ReadingThread;
}

/** Long enough for another process to finish a command, too short for anybody to notice. */
const WRITE_PATIENCE_MS = 30;

const holder = globalThis as typeof globalThis & { __galtry?: Promise<Galtry> };

/** The running Galtry, started on first use. */
export function galtry(): Promise<Galtry> {
  holder.__galtry ??= startGaltry(readConfiguration());
  return holder.__galtry;
}

/**
 * Opens keys, then the database, then brings it up to date.
 * @throws StartError, ConfigurationError with one line for the terminal
 */
export async function startGaltry(configuration: Configuration): Promise<Galtry> {
  keepToItself(configuration.dataFolder);
  const keys = await keysOf(configuration);
  const opened = await openChecked(configuration, keys);
  await applyMigrations(opened, async () => {
    await writeBackup(configuration, keys, `${configuration.dataFolder}/before-update-${Date.now()}`);
  });
  return {
    configuration,
    keys,
    opened,
    db: opened.db,
    access: new LiveAccess(opened.db),
    writer: new Writer(() =>
      connect(configuration.databaseUrl, keys.database, configuration.databaseToken, WRITE_PATIENCE_MS),
    ),
    process: `${hostname()}:${process.pid}`,
  };
}

/** What Galtry writes is for its own account on this machine alone; also what an earlier Galtry wrote. */
function keepToItself(dataFolder: string): void {
  if (process.platform === "win32") return;
  process.umask(0o077);
  if (!existsSync(dataFolder)) return;
  chmodSync(dataFolder, 0o700);
  for (const file of readdirSync(dataFolder, { withFileTypes: true }))
    chmodSync(path.join(dataFolder, file.name), file.isDirectory() ? 0o700 : 0o600);
}

/** Makes keys only where there is no data yet: never a new one over existing data. */
async function keysOf(configuration: Configuration): Promise<KeyRing> {
  const { dataFolder } = configuration;
  if (hasKeyFile(dataFolder)) return readKeyFile(dataFolder, readRootKey(configuration));
  if (databaseExists(configuration))
    throw new StartError(`There is data in ${dataFolder} but no key file. Bring keys.json back from a backup.`);
  mkdirSync(dataFolder, { recursive: true, mode: 0o700 });
  const rootKey = hasRootKey(configuration)
    ? readRootKey(configuration)
    : makeRootKey(configuration.rootKeyFile, dataFolder);
  const ring = newKeyRing();
  await writeKeyFile(dataFolder, rootKey, ring);
  return ring;
}

function databaseExists(configuration: Configuration): boolean {
  return configuration.databaseUrl.startsWith("file:") && existsSync(databaseFile(configuration));
}

async function openChecked(configuration: Configuration, keys: KeyRing): Promise<OpenDatabase> {
  try {
    return await openDatabase(configuration.databaseUrl, keys.database, configuration.databaseToken);
  } catch (error) {
    if (/not a database|encrypted/i.test(String(error)))
      throw new StartError(
        "The database does not open with its key. Bring it back from a backup together with its keys.json.",
      );
    throw error;
  }
}
