/** What every way in ends with: a session for somebody who is active, in a browser that is known from then on. */
import { and, eq, isNull } from "drizzle-orm";
import { standingAt } from "../access/person";
import type { Caller } from "../caller";
import type { Reader, Transaction } from "../database/client";
import { knownBrowsers, personStates, persons } from "../database/schema";
import { openSession } from "./sessions";
import { newToken, tokenHash } from "./tokens";

export async function standingOf(tx: Reader, personId: string, at: number) {
  const [row] = await tx
    .select({ standing: standingAt(at) })
    .from(personStates)
    .where(and(eq(personStates.personId, personId), isNull(personStates.validUntil)));
  return row?.standing ?? null;
}

/** @returns null where the person is not active (any more) */
export async function enter(
  tx: Transaction,
  personId: string,
  caller: Extract<Caller, { kind: "nobody" }>,
  at: number,
) {
  const [person] = await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, personId));
  if (!person || (await standingOf(tx, personId, at)) !== "active") return null;
  const browserToken = caller.knownBrowser ?? newToken();
  await tx
    .insert(knownBrowsers)
    .values({ tokenHash: tokenHash(browserToken), personId, lastUsedAt: at })
    .onConflictDoUpdate({ target: [knownBrowsers.tokenHash, knownBrowsers.personId], set: { lastUsedAt: at } });
  return {
    signedIn: true as const,
    personId,
    name: person.name,
    browserToken,
    ...(await openSession(tx, personId, caller, at)),
  };
}
