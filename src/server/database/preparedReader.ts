/**
 * Reads a database file by statements that are prepared once. The libSQL client prepares each anew and asks twice for its
 * columns, which for the twenty short statements of a page takes longer than they do. A connection of its own, that only
 * reads; whatever else it is asked for goes to the client.
 */
import type { Client, InArgs, InStatement, ResultSet, Row } from "@libsql/client";
import Database from "libsql";

/** Statements differ by their text; those with lists of values in them are many. */
const MOST_KEPT = 400;

interface Kept {
  statement: Database.Statement;
  columns: string[];
  types: string[];
  rowOf: (values: unknown[]) => Row;
}

export class PreparedReader {
  #database: Database.Database;
  /** The last one used comes last. */
  readonly #kept = new Map<string, Kept>();

  /** @param key hexadecimal */
  constructor(
    private readonly file: string,
    private readonly key: string,
  ) {
    this.#database = this.#open();
  }

  /** Runs one that gives rows; null where this is none. */
  read(text: string, values: InArgs): ResultSet | null {
    if (!READS.test(text)) return null;
    const { statement, columns, types, rowOf } = this.#prepared(text);
    const given = Array.isArray(values) ? values.map(toSqlite) : values;
    const rows = this.#all(statement, given).map(rowOf);
    return { columns, columnTypes: types, rows, rowsAffected: 0, lastInsertRowid: undefined, toJSON: () => ({ rows }) };
  }

  // The types of the library do not know that key.
  #open = () => new Database(this.file, { encryptionKey: this.key } as Database.Options);

  /** One that failed in the middle is not done, and would hold on to what the database was then: all begins anew. */
  #all(statement: Database.Statement, given: unknown): unknown[][] {
    try {
      return statement.all(given) as unknown[][];
    } catch (error) {
      this.close();
      this.#database = this.#open();
      throw error;
    }
  }

  close(): void {
    this.#kept.clear();
    if (this.#database.open) this.#database.close();
  }

  #prepared(text: string): Kept {
    const known = this.#kept.get(text);
    if (known) {
      this.#kept.delete(text);
      this.#kept.set(text, known);
      return known;
    }
    const statement = this.#database.prepare(text).raw(true);
    const described = statement.columns();
    const columns = described.map(({ name }) => name);
    const kept = { statement, columns, types: described.map(({ type }) => type ?? ""), rowOf: rowsWith(columns) };
    if (this.#kept.size >= MOST_KEPT) this.#kept.delete(this.#kept.keys().next().value!);
    this.#kept.set(text, kept);
    return kept;
  }
}

const READS = /^\s*(select|with)\b/i;

function toSqlite(value: unknown): unknown {
  if (typeof value === "boolean") return value ? 1 : 0;
  if (value instanceof Date) return value.valueOf();
  if (value instanceof ArrayBuffer) return Buffer.from(value);
  if (value === undefined) throw new TypeError("undefined cannot be passed to the database");
  if (typeof value === "number" && !Number.isFinite(value)) throw new RangeError("only finite numbers can be passed");
  return value;
}

/** Rows as the client gives them: by the name of a column, which counts as theirs, and by its place, which does not. */
function rowsWith(columns: readonly string[]): (values: unknown[]) => Row {
  class Taken {
    readonly #values: unknown[];
    constructor(values: unknown[]) {
      this.#values = values;
    }
    static at = (row: Taken, place: number) => row.#values[place];
  }
  const places: PropertyDescriptorMap = { length: { value: columns.length } };
  for (let i = 0; i < columns.length; i++)
    places[i] = {
      get(this: Taken) {
        return Taken.at(this, i);
      },
    };
  Object.defineProperties(Taken.prototype, places);
  return (values) => {
    const row = new Taken(values) as unknown as Record<string, unknown>;
    // Of two columns of one name the first counts.
    for (let i = columns.length - 1; i >= 0; i--) row[columns[i]!] = values[i];
    return row as unknown as Row;
  };
}

/** A client that reads by prepared statements. */
export function withPrepared(client: Client, reader: PreparedReader): Client {
  const { execute, close } = client;
  return Object.assign(client, {
    execute: async (statement: InStatement, args?: InArgs): Promise<ResultSet> => {
      const [text, values] =
        typeof statement === "string" ? [statement, args ?? []] : [statement.sql, statement.args ?? []];
      return reader.read(text, values) ?? execute.call(client, statement as string, args);
    },
    close: () => {
      reader.close();
      close.call(client);
    },
  });
}
