/**
 * Looks at the plan of every statement that a test has run: none goes over all of a table that grows with the organisation,
 * but for those that are named here with the reason. Plans are looked at in an empty database, after the tests of a file.
 */
import { createHash } from "node:crypto";
import { appendFileSync, existsSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { createClient } from "@libsql/client";
import * as driver from "@libsql/client/sqlite3";
import { drizzle } from "drizzle-orm/libsql";
import { migrate } from "drizzle-orm/libsql/migrator";
import { afterAll, expect } from "vitest";
import { PreparedReader } from "../src/server/database/preparedReader";

const SAYS_WHAT_HOLDS = [
  "integration/statements.ts",
  "package-lock.json",
  "src/server/database/migrations/meta/_journal.json",
];
const version = SAYS_WHAT_HOLDS.reduce((hash, file) => hash.update(readFileSync(file)), createHash("sha256")).digest(
  "hex",
);
const HELD = path.join(tmpdir(), `galtry-plans-${version.slice(0, 16)}`);

type Statement = string | { sql: string; args?: unknown };
interface Executor {
  execute: (statement: Statement, args?: unknown) => Promise<unknown>;
}

/** These hold a few rows, however large the organisation is. */
const SMALL = new Set([
  "providers",
  "organisation",
  "kinds",
  "sites",
  "vaults",
  "vault_keys",
  "groups",
  "failed_sign_ins",
  "start_lock",
]);

/** Whole tables that are read on purpose. */
const ON_PURPOSE: readonly { in: string; because: string }[] = [
  { in: "json_group_array(json_object(", because: "the access index is filled once at the start of a process" },
  { in: "from separations s where s.valid_from <=", because: "access as it was at a moment that is over" },
  { in: "from standings s left join memberships m", because: "what a slip would do is worked out over everybody" },
  { in: "s.node_id as id from separations s where s.valid_until is null", because: "the same" },
  { in: 'from "journal" order by "journal"."seq" asc', because: "the check of the whole chain" },
  { in: 'from "journal" order by "journal"."seq" desc limit', because: "it stops at the page's last line" },
  { in: "select max(seq) from journal", because: "it stops at the first" },
  { in: 'from "outbox" order by "outbox"."seq" desc limit', because: "it stops at the first" },
  {
    in: "where e.changed_regularly = 1",
    because: "what stewards have chosen, looked through every ten minutes at night",
  },
  { in: 'group by "entries"."kind"', because: "administrators read how many entries are of each kind" },
  {
    in: "select p.id as id, p.name as name from standings s join persons p",
    because: "administrators read who of all people lacks what a rule requires",
  },
  ...[
    'delete from "links" where "links"."person_id" = ?',
    'delete from "device_sign_ins" where "device_sign_ins"."approved_by" = ?',
    'where instr("notices"."text", ?) > 0 or instr("notices"."text", ?) > 0',
    'delete from "mails" where "mails"."to" = ?',
  ].map((text) => ({ in: text, because: "a leaver is erased, once" })),
  { in: 'from "unchecked" order by seq desc limit', because: "it stops at the page's last line" },
  { in: "from (select 1 from entries limit ?)", because: "it stops at the fifth" },
  { in: 'instr(lower("persons"."mail")', because: "administrators look for people by a part of their address" },
];

/** Statements of tests themselves, which look at everything. */
const OF_TESTS = [
  /^select \* from \S+$/,
  /^select count\(\*\)( as n)? from/,
  /^select ("\w+",? )+from "\w+"( "\w+")?$/,
  /"mail_to" = \?/,
  /set "sealed" = \? where "attachment_pieces"/,
  /from "places" where "places"."valid_until" is null$/,
  /kept_line/,
  /from "attachment_pieces" inner join "attachments"/,
  /^delete from "sign_ins"$/,
  /^insert( or ignore)? into unchecked \(kind, ref\) select '/,
  /^delete from findings$/,
  / as line from findings /,
  /'Person /,
  /'vm:/,
];

/** This is run before each file of tests; what it hears by is put in place once for their process. */
const shared = globalThis as { statementsHeard?: Map<string, unknown> };
const first = !shared.statementsHeard;
shared.statementsHeard ??= new Map();
const statements = shared.statementsHeard;
statements.clear();

function listenTo(prototype: Executor): void {
  const { execute } = prototype;
  prototype.execute = function (statement, args) {
    const [text, values] = typeof statement === "string" ? [statement, args] : [statement.sql, statement.args];
    statements.set(text, values);
    return execute.call(this, statement, args);
  };
}

if (first) {
  const { Sqlite3Client, Sqlite3Transaction } = driver as unknown as Record<string, { prototype: Executor }>;
  const { read } = PreparedReader.prototype;
  PreparedReader.prototype.read = function (text, values) {
    const found = read.call(this, text, values);
    if (found) statements.set(text, values);
    return found;
  };
  listenTo(Sqlite3Client!.prototype);
  listenTo(Sqlite3Transaction!.prototype);
}

const plain = (text: string) => text.replaceAll(/\s+/g, " ").trim();

/** What a name stands for in a statement. */
function tableOf(alias: string, text: string): string {
  return (
    new RegExp(`(?:from|join|,)\\s+"?(\\w+)"?\\s+(?:as\\s+)?"?${alias}"?[\\s)]`, "i").exec(`${text} `)?.[1] ?? alias
  );
}

afterAll(async () => {
  const run = [...statements].filter(
    ([text]) =>
      /^\s*(select|with|update|delete|insert)/i.test(text) && !/__drizzle|sqlite_|start_lock|where false$/.test(text),
  );
  const fine = plansThatHold();
  const unknown = run.filter(([text]) => !fine.has(plain(text)));
  if (unknown.length === 0) return;
  const client = createClient({ url: ":memory:" });
  await migrate(drizzle(client), { migrationsFolder: "src/server/database/migrations" });
  const tables = new Set(
    (await client.execute("select name from sqlite_master where type = 'table'")).rows.map((row) => String(row.name)),
  );
  const found = new Set<string>();
  for (const [text, args] of unknown) {
    const said = plain(text);
    if (OF_TESTS.some((one) => one.test(said)) || ON_PURPOSE.some((one) => said.includes(one.in))) continue;
    const plan = await client.execute({ sql: `explain query plan ${text}`, args: (args ?? []) as [] });
    for (const { detail } of plan.rows) {
      const scanned = /^SCAN (\w+)(?: USING (?:COVERING )?INDEX (\w+))?$/.exec(String(detail));
      const table = scanned && tableOf(scanned[1]!, text);
      // An index of few rows, such as those that are open, is what it is for to be read whole.
      if (!table || !tables.has(table) || SMALL.has(table) || FEW.has(scanned[2] ?? "")) continue;
      found.add(`${detail}: ${said}`);
    }
  }
  client.close();
  expect([...found], "statements that go over a whole table").toEqual([]);
  appendFileSync(HELD, unknown.map(([text]) => `${JSON.stringify(plain(text))}\n`).join(""));
});

/** Most files run the same statements: those that were looked at already, with this schema, are not looked at again. */
function plansThatHold(): ReadonlySet<string> {
  if (!existsSync(HELD)) return new Set();
  const lines = readFileSync(HELD, "utf8").split("\n");
  return new Set(lines.filter(Boolean).map((line) => JSON.parse(line) as string));
}

/** Indexes of few rows: read whole, they cost what is under way and not what there is. */
const FEW = new Set([
  "entries_unrated",
  "handovers_live",
  "rounds_open",
  "imports_open",
  "imports_cancelled",
  "sign_ins_kept",
  "password_changes_open",
  "sign_ins_kept_person",
  "sign_ins_kept_entry",
  "attachments_begun",
  "folders_binned",
  "memberships_from",
  "memberships_end",
  "standings_end",
  "grants_weekly",
]);
