import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { type Client, createClient } from "@libsql/client";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { PreparedReader, withPrepared } from "./preparedReader";

const KEY = "ab".repeat(32);
let folder: string;
let file: string;
let plain: Client;
let reader: Client;
let prepared: PreparedReader;

beforeAll(async () => {
  folder = mkdtempSync(path.join(tmpdir(), "galtry-reader-"));
  file = path.join(folder, "kept_line.db");
  const open = () => createClient({ url: `file:${file}`, encryptionKey: KEY });
  plain = open();
  await plain.execute("pragma journal_mode = wal");
  await plain.execute("create table kept_line (id integer primary key, t text, r real, b blob, n text)");
  for (let i = 0; i < 250; i++)
    await plain.execute({
      sql: "insert into kept_line (t, r, b, n) values (?, ?, ?, null)",
      args: [`text ${i}`, i / 3, new Uint8Array([i % 256, 0, 255])],
    });
  prepared = new PreparedReader(file, KEY);
  reader = withPrepared(open(), prepared);
});
afterAll(() => {
  reader.close();
  plain.close();
  rmSync(folder, { recursive: true, force: true });
});

const plainly = (rows: ArrayLike<unknown>[]) =>
  rows.map((row) => Array.from(row, (value) => (value instanceof ArrayBuffer ? Buffer.from(value) : value)));

describe("reading by prepared statements", () => {
  test("gives what the client gives: by place, by name, of every type, with the first of two columns of one name", async () => {
    for (const [sql, args] of [
      ["select * from kept_line where id > ? order by id", [0]],
      ["select a.id, b.id, a.t as n, b.n from kept_line a join kept_line b on b.id = a.id + ? limit 7", [1]],
      [
        "with some as (select id from kept_line where id in (select value from json_each(?))) select * from some",
        ["[3,9]"],
      ],
      ["select ? as yes, ? as no, ? as none, 9007199254740991 as big", [true, false, null]],
      ["select * from kept_line where id < ?", [0]],
    ] as const) {
      const [one, two] = [
        await plain.execute({ sql, args: [...args] }),
        await reader.execute({ sql, args: [...args] }),
      ];
      expect(two.columns).toEqual(one.columns);
      expect(plainly(two.rows)).toEqual(plainly(one.rows));
      expect(two.rows.map((row) => Object.keys(row).sort())).toEqual(one.rows.map((row) => Object.keys(row).sort()));
      const [first, expected] = [two.rows[0], one.rows[0]];
      for (const name of one.columns)
        if (first && !(expected![name] instanceof ArrayBuffer)) expect(first[name]).toEqual(expected![name]);
    }
  });

  test("sees what is written after it was prepared", async () => {
    const count = async () => Number((await reader.execute("select count(*) as n from kept_line")).rows[0]!.n);
    const before = await count();
    await plain.execute("insert into kept_line (t) values ('later')");
    expect(await count()).toBe(before + 1);
    // A statement that writes goes to the client, and is seen too.
    await reader.execute("delete from kept_line where t = 'later'");
    expect(await count()).toBe(before);
  });

  test("holds on to nothing after one that failed in the middle: the log can be folded away, and it reads on", async () => {
    const wrong = "select json_extract(case when id > 120 then '{' else '{}' end, '$.x') as v from kept_line";
    await expect(reader.execute(wrong)).rejects.toThrow(/JSON/);
    await plain.execute("insert into kept_line (t) values ('after')");
    const folded = await plain.execute("pragma wal_checkpoint(truncate)");
    expect(Number(folded.rows[0]!.busy)).toBe(0);
    expect((await reader.execute("select t from kept_line order by id desc limit 1")).rows[0]!.t).toBe("after");
  });

  test("keeps only so many statements, and all go on to work", async () => {
    for (let i = 0; i < 900; i++)
      expect((await reader.execute(`select ${i} as n, count(*) from kept_line`)).rows[0]!.n).toBe(i);
    expect((await reader.execute("select 7 as n, count(*) from kept_line")).rows[0]!.n).toBe(7);
  });

  test("is of no use without the key, and after it was closed", async () => {
    expect(() => new PreparedReader(file, "cd".repeat(32)).read("select count(*) from kept_line", [])).toThrow();
    const other = new PreparedReader(file, KEY);
    other.close();
    expect(() => other.read("select 1", [])).toThrow();
    expect(prepared.read("insert into kept_line (t) values ('no')", [])).toBeNull();
  });
});
