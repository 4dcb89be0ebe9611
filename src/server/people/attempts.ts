/**
 * Slows guessing, per account and per address, in the database so that every process counts alike. Accounts are
 * counted by a keyed hash of what was typed, so known and unknown ones answer alike and neither is written down.
 */
import { and, eq, gt, gte, lt, sql } from "drizzle-orm";
import { hmac, toHex, utf8 } from "../../core/crypto";
import type { Reader, Transaction } from "../database/client";
import { attempts } from "../database/schema";
import type { Galtry } from "../galtry";
import type { KeyRing } from "../keys/keyFile";
import { Refused } from "../refused";
import { attempts as t } from "./strings";

const WINDOW_MS = 60_000;
const LOOK_BACK = 15;

export function attemptKey(keys: KeyRing, scope: string, what: string): string {
  return toHex(hmac(keys.fingerprints, utf8(`attempt\u0000${scope}\u0000${what}`)));
}

/** How many were counted in the last fifteen minutes. */
export async function attemptsOf(tx: Reader, key: string, at: number): Promise<number> {
  const since = Math.floor(at / WINDOW_MS) - LOOK_BACK;
  const [row] = await tx
    .select({ n: sql<number>`coalesce(sum(${attempts.count}), 0)` })
    .from(attempts)
    .where(and(eq(attempts.key, key), gte(attempts.window, since)));
  return row?.n ?? 0;
}

/** @throws Refused too-many when `most` or more were counted in the last fifteen minutes */
export async function requireFewAttempts(tx: Reader, key: string, most: number, at: number): Promise<void> {
  const since = Math.floor(at / WINDOW_MS) - LOOK_BACK;
  const [row] = await tx
    .select({ n: sql<number>`coalesce(sum(${attempts.count}), 0)`, first: sql<number>`min(${attempts.window})` })
    .from(attempts)
    .where(and(eq(attempts.key, key), gte(attempts.window, since)));
  if (!row || row.n < most) return;
  const minutes = Math.max(1, row.first + LOOK_BACK + 1 - Math.floor(at / WINDOW_MS));
  throw new Refused(
    "too-many",
    t.tooManyTriesWaitAndTryAgain(minutes, minutes === 1 ? "minute" : "minutes"),
    undefined,
    {
      minutes,
    },
  );
}

/** @param more counted at once */
export async function countAttempt(tx: Transaction, key: string, at: number, more = 1): Promise<void> {
  const window = Math.floor(at / WINDOW_MS);
  await tx
    .insert(attempts)
    .values({ key, window, count: more })
    .onConflictDoUpdate({ target: [attempts.key, attempts.window], set: { count: sql`${attempts.count} + ${more}` } });
  await tx.delete(attempts).where(lt(attempts.window, window - 2 * LOOK_BACK));
}

/**
 * Counts a try before it is looked at, so that a hundred at once are a hundred tries and not one.
 * @throws Refused too-many, and counts nothing, where one of the keys has had its tries
 */
export const takeAttempt = (
  app: Pick<Galtry, "writer">,
  keys: readonly { key: string; most: number }[],
  at: number,
): Promise<void> =>
  app.writer.write(async (tx) => {
    for (const { key, most } of keys) await requireFewAttempts(tx, key, most, at);
    for (const { key } of keys) await countAttempt(tx, key, at);
  });

/** A try that was right after all; it may have been counted in a minute that is over by now. */
export async function giveBackAttempt(tx: Transaction, key: string, at: number): Promise<void> {
  const since = Math.floor(at / WINDOW_MS) - LOOK_BACK;
  const [last] = await tx
    .select({ window: sql<number | null>`max(${attempts.window})` })
    .from(attempts)
    .where(and(eq(attempts.key, key), gte(attempts.window, since), gt(attempts.count, 0)));
  if (last?.window == null) return;
  await tx
    .update(attempts)
    .set({ count: sql`${attempts.count} - 1` })
    .where(and(eq(attempts.key, key), eq(attempts.window, last.window)));
}

export async function forgetAttempts(tx: Transaction, key: string): Promise<void> {
  await tx.delete(attempts).where(eq(attempts.key, key));
}
