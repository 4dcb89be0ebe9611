import { createClient } from "@libsql/client";
import { drizzle } from "drizzle-orm/libsql";
import { sqliteTable, text } from "drizzle-orm/sqlite-core";
import { describe, expect, test } from "vitest";
import { z } from "zod";
import * as stored from "./stored";

const table = sqliteTable("kept_line", {
  id: text("id").primaryKey(),
  changes: stored.json("changes", z.array(stored.change)),
  said: stored.json("said", z.array(stored.roundSaid)).notNull().default([]),
});

async function empty() {
  const client = createClient({ url: ":memory:" });
  await client.execute("create table kept_line (id text primary key, changes text, said text not null default '[]')");
  return { client, db: drizzle(client) };
}

const move = { type: "move" as const, nodeId: "a", parentId: "b" };
const set = {
  ...{ type: "set" as const, nodeId: "a", subject: { kind: "everyone" as const } },
  grants: [{ level: "use" as const, from: null, until: 5, weekly: { days: [1], start: 60, end: 120, zone: "UTC" } }],
};

describe("a column with JSON", () => {
  test("gives back what was put into it, its default, and null", async () => {
    const { db } = await empty();
    await db.insert(table).values([{ id: "1", changes: [move, set] }, { id: "2" }]);
    expect(await db.select().from(table)).toEqual([
      { id: "1", changes: [move, set], said: [] },
      { id: "2", changes: null, said: [] },
    ]);
  });

  test("that holds something else is met where it is read, without what it holds", async () => {
    const { client, db } = await empty();
    for (const [wrong, says] of [
      ['[{"type":"move","nodeId":"canary-node"}]', "changes: invalid_type at 0.parentId"],
      ['{"canary":1}', "changes: invalid_type at its top"],
      ["canary", "changes: not JSON"],
    ] as const) {
      await client.execute({ sql: "insert or replace into kept_line (id, changes) values ('1', ?)", args: [wrong] });
      const reading = db.select().from(table);
      await expect(reading).rejects.toThrow(says);
      expect(await reading.then(String, String)).not.toContain("canary");
    }
  });
});
