/**
 * Thousands of rows in one read. SQLite writes them as one JSON text, because the client takes as long for two
 * values of a row as SQLite for the whole of it.
 */
import { type SQL, sql } from "drizzle-orm";
import type { Reader } from "./client";

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
  return JSON.parse(read!.rows) as R[];
}
