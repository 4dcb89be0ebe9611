/**
 * A running Galtry: configuration, keys, database, the queue of writes. One per process, however many bundles
 * the framework makes of this module.
 */
import { chmodSync, existsSync, mkdirSync, readdirSync } from "node:fs";
import { hostname } from "node:os";
import path from "node:path";
import type { Client } from "@libsql/client";
import { toHex } from "../core/crypto";
import { lineMac } from "../core/journal/chain";
import { LiveAccess } from "./access/liveAccess";
import { writeBackup } from "./backup";
import { type Configuration, databaseFile, isLocal, readConfiguration } from "./configuration";
import { connect, connectReader, type Database, type OpenDatabase, openDatabase } from "./database/client";
import { applyMigrations } from "./database/migrate";
import { Replica } from "./database/replica";
import { isUnreachable } from "./database/unreachable";
import { Writer } from "./database/writer";
import { hasKeyFile, type KeyRing, newKeyRing, readKeyFile, writeKeyFile } from "./keys/keyFile";
import { hasRootKey, makeRootKey, readRootKey } from "./keys/rootKey";
import type { ReadingThread } from "./reading/readingThread";
import type { BrowserProgram } from "./signin/browser/chromium";
import type { PageReader } from "./signin/pageReader";
import { StartError } from "./startError";
import type { Composer } from "./vaults/composer";
import type { PictureDrawer } from "./vaults/pictureDrawer";

/** Closes what a Galtry has open, after its last write. */
export async function closeGaltry(app: Galtry): Promise<void> {
  await app.writer.close();
  // The one that fills the file outlives those that read it.
  app.reader.close();
  await app.replica?.close();
  app.pages?.close();
  app.pictures?.close();
  app.opened.client.close();
}

export interface Galtry {
  configuration: Configuration;
  keys: KeyRing;
  opened: OpenDatabase;
  /** What is read from: the local database, or this machine's copy of a remote one. */
  db: Database;
  reader: Client;
  /** This machine's copy of a remote database, where Galtry runs for people. */
  replica?: Replica;
  writer: Writer;
  /** What everybody reaches, held ready. */
  access: LiveAccess;
  /** This machine and process, in the rows of sign-ins it has under way. */
  process: string;
  /** When a person last asked for something. */
  askedAt?: number;
  /** Reads strangers' pages, where Galtry runs for people. */
  pages?: PageReader;
  /** The browser that sealed sign-in may start, where the operator named one. */
  signInBrowser?: BrowserProgram;
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
  holder.__galtry ??= startGaltry(readConfiguration(), { serves: true });
  return holder.__galtry;
}

/** Before something is read that another Galtry may have written: asks a remote database for it. @throws Unreachable */
export const upToDate = async (app: Galtry): Promise<void> => app.replica?.fresh();

/**
 * Opens keys, then the database, then brings it up to date.
 * @param serves people: a remote database is read from a copy on this machine
 * @throws StartError, ConfigurationError with one line for the terminal
 */
export async function startGaltry(configuration: Configuration, { serves = false } = {}): Promise<Galtry> {
  keepToItself(configuration.dataFolder);
  const keys = await keysOf(configuration);
  const opened = await openChecked(configuration, keys);
  if (!opened.local) await requireOwnKeys(opened, keys);
  await applyMigrations(opened, async () => {
    await writeBackup(configuration, keys, `${configuration.dataFolder}/before-update-${Date.now()}`);
  });
  const replica = serves && !opened.local ? await beginReplica(configuration, keys) : undefined;
  const file = replica?.file ?? (opened.local ? databaseFile(configuration) : null);
  const reader = file ? connectReader(file, keys.database) : opened;
  return {
    configuration,
    keys,
    opened,
    db: reader.db,
    reader: reader.client,
    ...(replica && { replica }),
    access: new LiveAccess(reader.db, () => replica?.renewals ?? 0),
    writer: new Writer(
      () => connect(configuration.databaseUrl, keys.database, configuration.databaseToken, WRITE_PATIENCE_MS),
      replica && (() => replica.fresh()),
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
  if (await databaseExists(configuration))
    throw new StartError(
      `There is data, but no key file in ${dataFolder}. Bring keys.json from a backup, or from another Galtry on the same database.`,
    );
  mkdirSync(dataFolder, { recursive: true, mode: 0o700 });
  const rootKey = hasRootKey(configuration)
    ? readRootKey(configuration)
    : makeRootKey(configuration.rootKeyFile, dataFolder);
  const ring = newKeyRing();
  await writeKeyFile(dataFolder, rootKey, ring);
  return ring;
}

async function databaseExists(configuration: Configuration): Promise<boolean> {
  const { databaseUrl, databaseToken } = configuration;
  if (isLocal(configuration)) return existsSync(databaseFile(configuration));
  const { client } = connect(databaseUrl, new Uint8Array(), databaseToken);
  try {
    const { rows } = await client.execute("select 1 from sqlite_master where name = 'organisation'");
    return rows.length > 0;
  } catch (error) {
    throw asStartError(error, databaseUrl);
  } finally {
    client.close();
  }
}

const KEYS_OF = "the keys of this database";

/**
 * A remote database is opened by its token, whatever keys one has: that they are those of its data is seen from a mark that
 * whoever came first has put there. Of two that begin at once, each with new keys, one stops here.
 */
async function requireOwnKeys({ client }: OpenDatabase, keys: KeyRing): Promise<void> {
  await client.execute(
    "create table if not exists key_mark (id integer primary key check (id = 1), mark text not null)",
  );
  const mark = lineMac(keys.journal, KEYS_OF);
  await client.execute({ sql: "insert or ignore into key_mark (id, mark) values (1, ?)", args: [mark] });
  const { rows } = await client.execute("select mark from key_mark");
  if (rows[0]!.mark !== mark)
    throw new StartError("The key file does not belong to this database. Bring the right keys.json.");
}

async function beginReplica(configuration: Configuration, keys: KeyRing): Promise<Replica> {
  const { dataFolder, port, databaseUrl: url, databaseToken: token } = configuration;
  // Galtrys on one machine have a port each, and may have a folder together.
  const file = path.join(dataFolder, `replica-${port}.db`);
  return Replica.begin(file, { url, ...(token ? { token } : {}), key: toHex(keys.database) }).catch((error) => {
    throw asStartError(error, url);
  });
}

/** Where a remote database cannot be used: why, in one line. */
function asStartError(error: unknown, url: string): unknown {
  const { host } = new URL(url);
  if (/HTTP status 40[13]/.test(String(error)))
    return new StartError(`The database server at ${host} does not accept GALTRY_DATABASE_TOKEN.`);
  return isUnreachable(error) ? new StartError(`The database server at ${host} cannot be reached.`) : error;
}

async function openChecked(configuration: Configuration, keys: KeyRing): Promise<OpenDatabase> {
  try {
    const opened = await openDatabase(configuration.databaseUrl, keys.database, configuration.databaseToken);
    if (!opened.local) await opened.client.execute("select 1");
    return opened;
  } catch (error) {
    if (!isLocal(configuration)) throw asStartError(error, configuration.databaseUrl);
    if (/not a database|encrypted/i.test(String(error)))
      throw new StartError(
        "The database does not open with its key. Bring it back from a backup together with its keys.json.",
      );
    throw error;
  }
}
