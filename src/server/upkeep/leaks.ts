/**
 * Looks up what is kept in the list of leaked passwords: what was just written first, and each once a day, slowly. What
 * is looked up is opened for that moment; five digits of its SHA-1 leave, and nothing else of it.
 */
import { setTimeout as sleep } from "node:timers/promises";
import { asc, eq, lt, sql } from "drizzle-orm";
import { z } from "zod";
import { PASSWORD } from "../../core/kinds/kind";
import { command, idSchema } from "../command";
import { entryVersions, leaks } from "../database/schema";
import type { Galtry } from "../galtry";
import { endLease, holdLease } from "../lease";
import { failed } from "../log";
import { timesLeaked } from "../timesLeaked";
import { orSealError } from "../vaults/sealing";
import { openValues } from "../vaults/vaultKeys";
import { addressesDue, lookUpAddresses } from "./leakedAddresses";

const DAY = 86_400_000;
const AT_ONCE = 20;
const SERVER = { kind: "server" } as const;
const WORK = "upkeep.lookUpLeaks";

const lookedUp = z.strictObject({ versionId: idSchema, times: z.number().int().min(0) });

export const recordLeaks = command({
  name: "upkeep.recordLeaks",
  input: z.strictObject({ rows: z.array(lookedUp).max(100) }),
  by: ["server"],
  lowPriority: true,
  allow: () => undefined,
  run: async ({ tx, input, at }) => {
    for (const { versionId, times } of input.rows)
      await tx.update(leaks).set({ times, lookedUpAt: at }).where(eq(leaks.versionId, versionId));
  },
  journal: null,
  tell: () => [],
});

/**
 * Looks up some that were not looked up for a day, what was just written before all others.
 * @returns how many there were
 * @throws where the list does not answer
 */
export async function lookUpSome(app: Galtry, list: URL, at = Date.now()): Promise<number> {
  const due = await app.db
    .select({ version: entryVersions })
    .from(leaks)
    .innerJoin(entryVersions, eq(entryVersions.id, leaks.versionId))
    .where(lt(leaks.lookedUpAt, at - DAY))
    .orderBy(asc(leaks.lookedUpAt))
    .limit(AT_ONCE);
  const rows: z.output<typeof lookedUp>[] = [];
  for (const { version } of due) {
    const value = (await openValues(app.db, app.keys, version).catch(orSealError))?.fields[PASSWORD];
    rows.push({ versionId: version.id, times: value ? await timesLeaked(list, value) : 0 });
  }
  if (rows.length > 0) await recordLeaks.execute(app, { rows }, SERVER, at);
  return due.length;
}

/** When the list was read last; null where it never was. */
export async function leaksReadAt(tx: Pick<Galtry["db"], "get">): Promise<number | null> {
  const row = await tx.get<{ at: number | null }>(sql`select max(looked_up_at) as at from leaks`);
  return row?.at || null;
}

const LOOK_EVERY_MS = 5_000;
/** From one handful to the next: a list that others keep is asked gently. */
const PAUSE_MS = 1_000;
/** So long a list that does not answer is left alone, longer each time. */
const AWAY_MS = [5_000, 30_000, 2 * 60_000, 10 * 60_000] as const;

/** As long as this process lives, for each list that the operator has set up. */
export async function keepLookingUp(app: Galtry): Promise<void> {
  const { leakedPasswords, leakedAddresses } = app.configuration;
  const passwordsDue = async (at: number) =>
    (
      await app.db.get<{ any: number }>(sql`
      select exists (select 1 from leaks where looked_up_at < ${at - DAY}) as any`)
    )?.any === 1;
  await Promise.all([
    leakedPasswords && keepAsking(app, WORK, passwordsDue, () => lookUpSome(app, leakedPasswords)),
    leakedAddresses &&
      keepAsking(
        app,
        "upkeep.lookUpAddresses",
        (at) => addressesDue(app.db, at),
        () => lookUpAddresses(app, leakedAddresses),
      ),
  ]);
}

/** Gently; a list that does not answer is left alone, longer each time. */
async function keepAsking(
  app: Galtry,
  work: string,
  isDue: (at: number) => Promise<boolean>,
  lookUp: () => Promise<unknown>,
): Promise<void> {
  for (let away = 0; ; ) {
    const next = await look().catch((error: unknown) => {
      failed(work, error);
      return null;
    });
    away = next === null ? away + 1 : 0;
    const pause = next ?? AWAY_MS[Math.min(away, AWAY_MS.length) - 1]!;
    await sleep(pause, undefined, { ref: false });
  }
  async function look(): Promise<number> {
    // Asked every few seconds, and so without writing anything.
    if (!(await isDue(Date.now())) || !(await holdLease(app, work))) return LOOK_EVERY_MS;
    await lookUp().finally(() => endLease(app, work));
    return PAUSE_MS;
  }
}
