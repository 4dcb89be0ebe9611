/**
 * Thousands of rows in one read. SQLite writes them as one JSON text, because the client takes as long for two
 * values of a row as SQLite for the whole of it.
 */
import { getTableColumns, type SQL, sql } from "drizzle-orm";
import type { SQLiteColumn, SQLiteTable } from "drizzle-orm/sqlite-core";
import { yieldToEventLoop } from "../yieldToEventLoop";
import type { Reader, Transaction } from "./client";

/**
 * @param columns what each row has, by name; booleans come as 0 and 1, blobs are not possible
 * @param from the statement from its "from" on, without "order by"
 */
export async function bulk<R extends object>(tx: Reader, columns: { [K in keyof R]-?: SQL }, from: SQL): Promise<R[]> {
  const values = sql.join(
    (Object.keys(columns) as (keyof R & string)[]).map((name) => sql`${sql.raw(`'${name}'`)}, ${columns[name]}`),
    sql`, `,
  );
  const [read] = await tx.all<{ rows: string }>(sql`select json_group_array(json_object(${values})) as rows ${from}`);
  await yieldToEventLoop();
  return JSON.parse(read!.rows) as R[];
}

/** `column in (…)` for any number of values, as one parameter: a statement has a limit of them. */
export const inJson = (column: SQLiteColumn, values: readonly (string | number)[]): SQL =>
  sql`${column} in (select value from json_each(${JSON.stringify(values)}))`;

/** Rows written with one statement take up to so many at once; more in one text would stand in memory whole. */
const MOST_WRITTEN = 1000;

/** Rows of one table on their way into it. Plain data. */
export interface BulkRows {
  /** Keys of the table's columns, in the order of the values. */
  columns: string[];
  /** A JSON text for each thousand rows. */
  texts: string[];
}

/**
 * Writes many rows of one table, in one statement each thousand: the values go as one JSON text and are taken apart by
 * SQLite, which is several times faster than a parameter for each.
 */
export const bulkInsert = <T extends SQLiteTable>(
  tx: Transaction,
  table: T,
  rows: T["$inferInsert"][],
): Promise<void> => insertBulk(tx, table, bulkRows(table, rows));

/** The values of `bulkInsert`, made before the transaction. */
export function bulkRows<T extends SQLiteTable>(table: T, rows: T["$inferInsert"][]): BulkRows {
  const columns = Object.entries(getTableColumns(table)).filter(([key]) => key in (rows[0] ?? {}));
  const texts: string[] = [];
  for (let from = 0; from < rows.length; from += MOST_WRITTEN)
    texts.push(
      JSON.stringify(
        rows
          .slice(from, from + MOST_WRITTEN)
          .map((row) => columns.map(([key, column]) => plain(column, (row as Record<string, unknown>)[key]))),
      ),
    );
  return { columns: columns.map(([key]) => key), texts };
}

export async function insertBulk(tx: Transaction, table: SQLiteTable, { columns, texts }: BulkRows): Promise<void> {
  const all = getTableColumns(table);
  const names = sql.join(
    columns.map((key) => sql.identifier(all[key]!.name)),
    sql`, `,
  );
  const values = sql.join(
    columns.map((key, i) => {
      const value = sql`value ->> ${sql.raw(String(i))}`;
      return all[key]!.dataType === "buffer" ? sql`unhex(${value})` : value;
    }),
    sql`, `,
  );
  for (const text of texts) await tx.run(sql`insert into ${table} (${names}) select ${values} from json_each(${text})`);
}

function plain(column: SQLiteColumn, value: unknown): unknown {
  if (value === null || value === undefined) return null;
  const driven = column.mapToDriverValue(value);
  return driven instanceof Uint8Array ? Buffer.from(driven).toString("hex") : driven;
}
