/** The one place that opens the database. Local files are opened with libSQL's own encryption. */
import { type Client, createClient } from "@libsql/client";
import { drizzle, type LibSQLDatabase } from "drizzle-orm/libsql";
import { type Bytes, toHex } from "../../core/crypto";
import type { OpenIndex } from "../access/openIndex";
import { PreparedReader, withPrepared } from "./preparedReader";
import * as schema from "./schema";

export type Database = LibSQLDatabase<typeof schema>;
export type Transaction = Parameters<Parameters<Database["transaction"]>[0]>[0];
/** Where reads may run: inside a transaction, from the rows; or outside, where the access index comes with it. */
export type Reader = Pick<Database | Transaction, "select" | "selectDistinct" | "run" | "all" | "get"> & {
  access?: OpenIndex;
  /** What was read for this page and is asked for more than once. */
  kept?: Map<string, Promise<unknown>>;
};

/** A database that is read together with the access index, for one answer or one page. */
export const readerWith = (db: Database, access: OpenIndex): Reader =>
  Object.assign(Object.create(db), { access, kept: new Map() });

/** Reads something once for a page; in a command, which changes things, each time. */
export function onceIn<T>(tx: Reader, name: string, read: () => Promise<T>): Promise<T> {
  if (!tx.kept) return read();
  const known = tx.kept.get(name) as Promise<T> | undefined;
  if (known) return known;
  const reading = read();
  tx.kept.set(name, reading);
  return reading;
}

export interface OpenDatabase {
  client: Client;
  db: Database;
  local: boolean;
}

export async function openDatabase(url: string, key: Bytes, token?: string): Promise<OpenDatabase> {
  const local = url.startsWith("file:");
  const connected = connect(url, key, token);
  if (local) await connected.client.execute("PRAGMA journal_mode = WAL");
  return { ...connected, local };
}

/**
 * A client of its own, with its own connections.
 * @param patience how long a write waits for another process's, in milliseconds; the event loop waits with it
 */
export function connect(
  url: string,
  key: Bytes,
  token?: string,
  patience?: number,
): Pick<OpenDatabase, "client" | "db"> {
  const client = createClient(
    url.startsWith("file:")
      ? { url, encryptionKey: toHex(key), ...(patience ? { timeout: patience } : {}) }
      : { url, authToken: token, fetch: fetchInTime },
  );
  return { client, db: drizzle(client, { schema }) };
}

/** What is read from: a file, by statements that are prepared once; whatever else it is asked for, as any client. */
export function connectReader(file: string, key: Bytes): Pick<OpenDatabase, "client" | "db"> {
  const { client } = connect(`file:${file}`, key);
  const prepared = withPrepared(client, new PreparedReader(file, toHex(key)));
  return { client: prepared, db: drizzle(prepared, { schema }) };
}

/** Longer than any statement takes. A server that hangs is one that is away. */
const ANSWERED_MS = 10_000;

const fetchInTime: typeof fetch = (request, options) =>
  fetch(request, { ...options, signal: AbortSignal.timeout(ANSWERED_MS) });

/** Whether an error says that another process holds the write lock. */
export function isBusy(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause)
    if (/SQLITE_BUSY|database is locked/.test(`${(at as { code?: string }).code} ${at.message}`)) return true;
  return false;
}
