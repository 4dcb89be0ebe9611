/** What nobody needs any more: so long it is kept, and no longer (docs/operating.md says the same). */
import { type SQL, sql } from "drizzle-orm";
import type { SQLiteTable } from "drizzle-orm/sqlite-core";
import { command, none } from "../command";
import {
  accessChanges,
  approvals,
  asks,
  ceremonies,
  changeListItems,
  changeLists,
  deviceSignIns,
  findings,
  handovers,
  importRows,
  imports,
  importUpdates,
  joinCodes,
  knownBrowsers,
  lanyards,
  links,
  notices,
  outbox,
  pairings,
  runItems,
  runs,
  secondSteps,
  sessions,
  usedCodes,
} from "../database/schema";

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Of each in one go: what has grown for years is swept in a few hours, and nobody waits for it. */
const MOST = 1_000;

interface Kept {
  table: SQLiteTable;
  /** What is over. */
  over: (at: number) => SQL;
}

const column = (name: string) => sql.identifier(name);
const before = (name: string, ms: number) => (at: number) => sql`${column(name)} < ${at - ms}`;

const ofImports = (ms: number) => (at: number) =>
  sql`import_id in (select id from imports where published_at < ${at - ms})`;

export const KEPT: readonly Kept[] = [
  { table: sessions, over: before("expires_at", 90 * DAY) },
  { table: links, over: before("expires_at", 30 * DAY) },
  { table: ceremonies, over: before("expires_at", HOUR) },
  { table: secondSteps, over: before("expires_at", HOUR) },
  { table: deviceSignIns, over: before("expires_at", DAY) },
  { table: joinCodes, over: before("expires_at", HOUR) },
  { table: pairings, over: before("expires_at", DAY) },
  { table: lanyards, over: before("ended_at", 365 * DAY) },
  { table: lanyards, over: before("expires_at", 365 * DAY) },
  { table: knownBrowsers, over: before("last_used_at", 365 * DAY) },
  { table: notices, over: before("put_away_at", 90 * DAY) },
  { table: notices, over: before("at", 2 * 365 * DAY) },
  { table: approvals, over: before("closed_at", 365 * DAY) },
  { table: asks, over: before("answered_at", 2 * 365 * DAY) },
  { table: handovers, over: before("expires_at", 365 * DAY) },
  // An import can be undone for a day.
  { table: importRows, over: ofImports(7 * DAY) },
  { table: importUpdates, over: ofImports(7 * DAY) },
  {
    table: imports,
    over: (at) => sql`published_at < ${at - 365 * DAY}
      and not exists (select 1 from import_rows r where r.import_id = imports.id)
      and not exists (select 1 from import_updates u where u.import_id = imports.id)`,
  },
  // Steps are of thirty seconds; one is accepted for minutes.
  { table: usedCodes, over: (at) => sql`step < ${Math.floor((at - DAY) / 30_000)}` },
  // The year of a vault shows twelve months.
  { table: findings, over: (at) => sql`ended_at is not null and ended_at < ${at - 400 * DAY}` },
  {
    table: changeListItems,
    over: (at) => sql`list_id in (select id from change_lists where ended_at < ${at - 2 * 365 * DAY})`,
  },
  {
    table: changeLists,
    over: (at) => sql`ended_at < ${at - 2 * 365 * DAY}
      and not exists (select 1 from change_list_items i where i.list_id = change_lists.id)`,
  },
  { table: runItems, over: (at) => sql`run_id in (select id from runs where ended_at < ${at - 90 * DAY})` },
  {
    table: runs,
    over: (at) => sql`ended_at < ${at - 90 * DAY} and not exists (select 1 from run_items i where i.run_id = runs.id)`,
  },
  // The last one stays: it says how far things have come.
  {
    table: outbox,
    over: (at) => sql`seq < (select max(seq) from outbox) and at < ${at - HOUR}`,
  },
  {
    table: accessChanges,
    over: (at) => sql`seq < (select max(seq) from access_changes) and at < ${at - 7 * DAY}`,
  },
];

export const sweepOld = command({
  name: "upkeep.sweepOld",
  input: none,
  by: ["server"],
  lowPriority: true,
  allow: () => undefined,
  run: async ({ tx, at }) => {
    for (const { table, over } of KEPT)
      await tx.run(
        sql`delete from ${table} where rowid in (select rowid from ${table} where ${over(at)} limit ${MOST})`,
      );
  },
  journal: null,
  tell: () => [],
});
