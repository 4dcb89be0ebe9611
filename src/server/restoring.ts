/**
 * A backup onto an empty database server: its tables, rows, indexes and triggers, as they lie in the file. What a virtual
 * table keeps of others is made anew from them.
 */
import type { Client, InStatement } from "@libsql/client";
import { StartError } from "./startError";

/** The index of the words of reasons holds none of them itself. */
const MADE_ANEW: Record<string, string> = {
  journal_words: `insert into journal_words (rowid, why)
    select seq, json_extract(details, '$.why') from journal where details like '%"why":"_%'`,
};

/** Rows that go over in one request; a row may hold a mebibyte. */
const AT_ONCE = 50;

/**
 * @param from the opened copy
 * @param to a server
 * @throws StartError when the server holds something already
 */
export async function copyInto(from: Client, to: Client): Promise<void> {
  const { rows: there } = await to.execute("select name from sqlite_master where name not like 'sqlite_%' limit 1");
  if (there.length > 0) throw new StartError("The database server is not empty: a restore overwrites nothing.");
  const made = async (type: string) =>
    (
      await from.execute({
        sql: "select name, sql from sqlite_master where type = ? and sql is not null and name not like 'sqlite_%' order by rowid",
        args: [type],
      })
    ).rows as unknown as { name: string; sql: string }[];
  const { rows: types } = await from.execute("select name, type from pragma_table_list where schema = 'main'");
  const typeOf = new Map(types.map(({ name, type }) => [String(name), String(type)]));
  // A virtual table makes those in which it keeps itself.
  const tables = (await made("table")).filter(({ name }) => typeOf.get(name) !== "shadow");
  // Without the checks of foreign keys, and before the triggers: rows go over as they are, in any order.
  await to.migrate(tables.map(({ sql }) => sql));
  for (const { name } of tables.filter((table) => typeOf.get(table.name) !== "virtual")) {
    for (let after = Number.MIN_SAFE_INTEGER; ; ) {
      const { rows, columns } = await from.execute({
        sql: `select rowid as "rowid of it", * from "${name}" where rowid > ? order by rowid limit ${AT_ONCE}`,
        args: [after],
      });
      if (rows.length === 0) break;
      const own = columns.slice(1);
      const statement = `insert into "${name}" (${own.map((one) => `"${one}"`).join(", ")}) values (${own.map(() => "?").join(", ")})`;
      await to.migrate(rows.map((row): InStatement => ({ sql: statement, args: own.map((_, i) => row[i + 1]!) })));
      after = Number(rows.at(-1)![0]);
    }
  }
  for (const { name } of tables) if (MADE_ANEW[name]) await to.migrate([MADE_ANEW[name]]);
  const { rows: counters } = await from.execute("select name, seq from sqlite_sequence");
  await to.migrate([
    ...(await made("index")).map(({ sql }) => sql),
    ...(await made("trigger")).map(({ sql }) => sql),
    ...counters.map(({ name, seq }) => ({
      sql: "update sqlite_sequence set seq = ? where name = ?",
      args: [seq!, name!],
    })),
  ]);
}
