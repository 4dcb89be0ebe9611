/**
 * Runs: many logins whose passwords are changed, or which are tested, kept by the server. A run goes on when its page is
 * closed and when Galtry starts again; at each entry the access of whoever began it counts as it is at that moment.
 */
import { and, asc, count, eq, inArray, isNull, lt, or, sql } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import { RUN_WHATS } from "../../core/signin/changing";
import { reachOf } from "../access/load";
import { type Context, command, idSchema, query } from "../command";
import { bulkInsert, inJson } from "../database/bulk";
import type { Reader, Transaction } from "../database/client";
import { entries, runItems, runs } from "../database/schema";
import { uuidv7 } from "../ids";
import { addNotice, settleNotices, tellStewards } from "../people/telling";
import { notFound, Refused } from "../refused";
import { requireEntries, requireInUse, severalIds } from "../vaults/entries";
import { runs as t } from "./strings";

/** Runs of one person that are under way: more only wait for each other. */
const MOST_RUNS = 5;
/** Logins under way at once, of all runs together: each visits a site, and may have a browser of its own. */
const MOST_AT_ONCE = 2;
/** From the end of one to the beginning of the next at one host: no site takes it for an attack. */
export const PAUSE_MS = 3_000;
/** Longer than a change and all its proofs take. */
const LONGEST_MS = 13 * 60_000;

type Run = typeof runs.$inferSelect;

const aboutRun = (runId: string) => `run ${runId}`;
const ofRun = z.strictObject({ runId: idSchema });

/** Whoever may edit these entries has their passwords changed, or the logins tested, one after the other at each site. */
export const beginRun = command({
  name: "signIn.beginRun",
  input: z.strictObject({
    what: z.enum(RUN_WHATS),
    entryIds: severalIds,
    /** Whose sightings it is about. */
    aboutId: idSchema.nullable(),
    /** The browser in which they asked, as sites are told of it. */
    userAgent: z.string().max(500),
    language: z.string().max(200),
  }),
  by: ["person"],
  internal: true,
  allow: async (context) => {
    const { tx, me, input } = context;
    const { found } = await requireEntries(context, input.entryIds, "edit");
    for (const { entry } of found) {
      requireInUse(entry);
      if (entry.signInPage === "") throw new Refused("conflict", t.noSignInPage(entry.name));
    }
    const [mine] = await tx
      .select({ n: count() })
      .from(runs)
      .where(and(eq(runs.personId, me.id), isNull(runs.dismissedAt), isNull(runs.endedAt)));
    if ((mine?.n ?? 0) >= MOST_RUNS) throw new Refused("too-many", t.waitForOne);
  },
  run: async ({ tx, input, me, caller, at }) => {
    const { what, entryIds, aboutId, userAgent, language } = input;
    // What is over is out of the way of what begins.
    await dismiss(tx, and(eq(runs.personId, me.id), sql`${runs.endedAt} is not null`)!, at);
    const runId = uuidv7();
    await tx.insert(runs).values({
      ...{ id: runId, what, personId: me.id, aboutId, begunAt: at },
      ...{ provedAt: caller.provedAt, address: caller.address, browser: userAgent, language },
    });
    await addItems(tx, runId, entryIds);
    return { runId };
  },
  journal: null,
  tell: () => [],
});

async function addItems(tx: Transaction, runId: string, entryIds: readonly string[]): Promise<void> {
  await bulkInsert(
    tx,
    runItems,
    entryIds.map((entryId, number) => ({ runId, number, entryId, good: false, says: "" })),
  );
}

/** The run of the house rules: what is due, one after the other. */
export const beginRuleRun = command({
  name: "signIn.beginRuleRun",
  input: z.strictObject({ entryIds: z.array(idSchema).min(1).max(100) }),
  by: ["server"],
  internal: true,
  lowPriority: true,
  allow: () => undefined,
  run: async ({ tx, input, at }) => {
    const runId = uuidv7();
    await tx.insert(runs).values({
      ...{ id: runId, what: "change", personId: null, aboutId: null, begunAt: at },
      ...{ provedAt: 0, address: "", browser: "", language: "" },
    });
    await addItems(tx, runId, input.entryIds);
    return { runId };
  },
  journal: null,
  tell: () => [],
});

async function requireOwnRun({
  tx,
  me,
  input,
}: Pick<Context<z.output<typeof ofRun>, Transaction>, "tx" | "me" | "input">) {
  const [run] = await tx.select().from(runs).where(eq(runs.id, input.runId));
  if (!run || run.personId !== me.id || run.dismissedAt !== null) throw notFound();
  return run;
}

/** What has begun is brought to its end; the rest is not begun. */
export const stopRun = command({
  name: "signIn.stopRun",
  input: ofRun,
  by: ["person"],
  allow: requireOwnRun,
  run: async ({ tx, input, at, allowed }) => {
    if (allowed.endedAt !== null) return;
    await tx.update(runs).set({ stoppedAt: at }).where(eq(runs.id, input.runId));
    await tx
      .update(runItems)
      .set({ endedAt: at, says: "" })
      .where(and(eq(runItems.runId, input.runId), isNull(runItems.begunAt)));
    await endIfDone(tx, { ...allowed, stoppedAt: at }, at);
  },
  journal: null,
  tell: ({ allowed }) => [`person:${allowed.personId!}`],
});

/** Read, and out of the way. */
export const dismissRun = command({
  name: "signIn.dismissRun",
  input: ofRun,
  by: ["person"],
  allow: async (context) => {
    const run = await requireOwnRun(context);
    if (run.endedAt === null) throw new Refused("conflict", t.notOverYet);
    return run;
  },
  run: async ({ tx, input, at }) => dismiss(tx, eq(runs.id, input.runId), at),
  journal: null,
  tell: ({ allowed }) => [`person:${allowed.personId!}`],
});

async function dismiss(tx: Transaction, which: ReturnType<typeof eq>, at: number): Promise<void> {
  const gone = await tx
    .update(runs)
    .set({ dismissedAt: at })
    .where(and(isNull(runs.dismissedAt), which))
    .returning({ id: runs.id });
  for (const { id } of gone) await settleNotices(tx, aboutRun(id), at);
}

export interface RunLine {
  entryId: string;
  /** As far as its reader still reaches it. */
  name: string;
  state: "waiting" | "running" | "ended" | "not begun";
  good: boolean;
  says: string;
}

export interface RunView {
  id: string;
  what: Run["what"];
  stopping: boolean;
  over: boolean;
  lines: RunLine[];
}

/** Runs of the reader's own that are under way, or over and not dismissed. */
export const ownRuns = query({
  name: "signIn.ownRuns",
  /** Whose sightings they are about; null for those that are about nobody's. */
  input: z.strictObject({ aboutId: idSchema.nullable() }),
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at, input }): Promise<RunView[]> => {
    const own = (
      await tx
        .select()
        .from(runs)
        .where(and(eq(runs.personId, me.id), isNull(runs.dismissedAt)))
        .orderBy(asc(runs.begunAt))
    ).filter(({ aboutId }) => aboutId === input.aboutId);
    if (own.length === 0) return [];
    const items = await tx
      .select({ row: runItems, name: entries.name })
      .from(runItems)
      .leftJoin(entries, eq(entries.nodeId, runItems.entryId))
      .where(
        inArray(
          runItems.runId,
          own.map(({ id }) => id),
        ),
      )
      .orderBy(asc(runItems.runId), asc(runItems.number));
    const { levels } = reachOf(tx, me, at);
    return own.map((run) => ({
      ...{ id: run.id, what: run.what, stopping: run.stoppedAt !== null, over: run.endedAt !== null },
      lines: items
        .filter(({ row }) => row.runId === run.id)
        .map(({ row, name }) => ({
          entryId: row.entryId,
          name: atLeast(levels.get(row.entryId) ?? "none", "use") && name !== null ? name : t.anEntry,
          state: stateOf(row),
          ...{ good: row.good, says: row.says },
        })),
    }));
  },
});

function stateOf({ begunAt, endedAt }: Pick<typeof runItems.$inferSelect, "begunAt" | "endedAt">): RunLine["state"] {
  if (begunAt === null) return endedAt === null ? "waiting" : "not begun";
  return endedAt === null ? "running" : "ended";
}

export interface Taken {
  run: Run;
  number: number;
  entryId: string;
}

/** The next one at a host that is free, where not too many are under way. */
export const takeRunItem = command({
  name: "signIn.takeRunItem",
  input: z.strictObject({ pauseMs: z.number().int().min(0).max(600_000) }),
  by: ["server"],
  internal: true,
  lowPriority: true,
  allow: () => undefined,
  run: async ({ tx, input, at, app }): Promise<Taken | null> => {
    const busy = await tx.all<{ host: string; running: number }>(sql`
      select coalesce(e.host, '') as host, i.ended_at is null as running
        from run_items i left join entries e on e.node_id = i.entry_id
        where i.ended_at is null and i.begun_at is not null
      union all
      select coalesce(e.host, ''), 0 from run_items i left join entries e on e.node_id = i.entry_id
        where i.ended_at > ${at - input.pauseMs} and i.begun_at is not null`);
    if (busy.filter(({ running }) => running === 1).length >= MOST_AT_ONCE) return null;
    const hosts = JSON.stringify(busy.map(({ host }) => host));
    const [next] = await tx.all<{ runId: string; number: number; entryId: string }>(sql`
      select i.run_id as "runId", i.number as number, i.entry_id as "entryId"
      from runs r join run_items i on i.run_id = r.id and i.begun_at is null and i.ended_at is null
        left join entries e on e.node_id = i.entry_id
      where r.ended_at is null and coalesce(e.host, '') not in (select value from json_each(${hosts}))
      order by r.begun_at, i.number limit 1`);
    if (!next) return null;
    await tx
      .update(runItems)
      .set({ begunAt: at, process: app.process })
      .where(and(eq(runItems.runId, next.runId), eq(runItems.number, next.number)));
    const [run] = await tx.select().from(runs).where(eq(runs.id, next.runId));
    return { run: run!, number: next.number, entryId: next.entryId };
  },
  journal: null,
  tell: ({ result }) => (result?.run.personId ? [`person:${result.run.personId}`] : []),
});

export const endRunItem = command({
  name: "signIn.endRunItem",
  input: ofRun.extend({ number: z.number().int().min(0), good: z.boolean(), says: z.string().max(300) }),
  by: ["server"],
  internal: true,
  allow: async ({ tx, input }) => {
    const [run] = await tx.select().from(runs).where(eq(runs.id, input.runId));
    if (!run) throw new Refused("conflict", t.hasAlreadyEnded);
    return run;
  },
  run: async ({ tx, input, at, allowed }) => {
    const { runId, number, good, says } = input;
    const [item] = await tx
      .update(runItems)
      .set({ endedAt: at, good, says })
      .where(and(eq(runItems.runId, runId), eq(runItems.number, number), isNull(runItems.endedAt)))
      .returning();
    if (item) await afterItem(tx, allowed, item, at);
  },
  journal: null,
  tell: ({ allowed }) => (allowed.personId ? [`person:${allowed.personId}`] : []),
});

type Item = Pick<typeof runItems.$inferSelect, "entryId" | "good" | "says">;

async function afterItem(tx: Transaction, run: Run, item: Item, at: number): Promise<void> {
  // Nobody waits for it in front of a page: its stewards are told of what needs them.
  if (run.personId === null && !item.good)
    await tellStewards(tx, [item.entryId], (name) => t.notChangedByRule(name, item.says), at, null);
  await endIfDone(tx, run, at);
}

async function endIfDone(tx: Transaction, run: Run, at: number): Promise<void> {
  const rows = await tx
    .select({ good: runItems.good, begunAt: runItems.begunAt, endedAt: runItems.endedAt })
    .from(runItems)
    .where(eq(runItems.runId, run.id));
  if (run.endedAt !== null || rows.some(({ endedAt }) => endedAt === null)) return;
  await tx.update(runs).set({ endedAt: at }).where(eq(runs.id, run.id));
  const good = rows.filter((row) => row.good).length;
  if (run.personId !== null)
    await addNotice(tx, {
      ...{ to: run.personId, at, sort: "upkeep", mailed: true, about: aboutRun(run.id) },
      text: t.isOver(run.what, good, rows.length),
    });
}

/** What was under way as its process ended; what waits goes on. The change itself says what became of its password. */
export async function closeBrokenRunItems(tx: Transaction, dead: readonly string[], at: number): Promise<string[]> {
  const items = await tx
    .update(runItems)
    .set({ endedAt: at, good: false, says: t.galtryWasStopped })
    .where(
      and(
        isNull(runItems.endedAt),
        sql`${runItems.begunAt} is not null`,
        or(inJson(runItems.process, dead), lt(runItems.begunAt, at - LONGEST_MS)),
      ),
    )
    .returning();
  const owners: string[] = [];
  for (const item of items) {
    const [run] = await tx.select().from(runs).where(eq(runs.id, item.runId));
    if (!run) continue;
    await afterItem(tx, run, item, at);
    if (run.personId !== null) owners.push(run.personId);
  }
  return owners;
}

/** Whether anything waits: asked often, and so without writing anything. */
export const runWaits = async (tx: Pick<Reader, "get">): Promise<boolean> =>
  (
    await tx.get<{ any: number }>(
      sql`select exists (select 1 from run_items where ended_at is null and begun_at is null) as any`,
    )
  )?.any === 1;

/** Stewards say of several entries whether the house rule that changes passwords regularly is for them. */
export const changeRegularly = command({
  name: "signIn.changeRegularly",
  input: z.strictObject({ entryIds: severalIds, regularly: z.boolean() }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireEntries(context, context.input.entryIds, "steward");
    if (context.input.regularly)
      for (const { entry } of allowed.found)
        if (entry.signInPage === "") throw new Refused("conflict", t.noSignInPage(entry.name));
    return allowed;
  },
  run: async ({ tx, input }) => {
    await tx.update(entries).set({ changedRegularly: input.regularly }).where(inJson(entries.nodeId, input.entryIds));
  },
  journal: ({ input, allowed }) => allowed.lines({ regularly: input.regularly }),
  says: ({ details, it }) =>
    details.regularly
      ? `has Galtry change the password of ${it} regularly`
      : `no longer has Galtry change the password of ${it} regularly`,
  tell: ({ allowed }) => allowed.topics,
});
