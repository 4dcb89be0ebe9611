/** Sessions that were handed over: who may still be signed in at a site, and signing out from the sealed jar. */
import { and, desc, eq, inArray, isNotNull, isNull } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import { hostOf } from "../../core/signin/address";
import { matches } from "../../core/signin/site";
import { requireLevel, resolveAt } from "../access/load";
import { command, idSchema, query } from "../command";
import { entries, persons, signIns } from "../database/schema";
import type { Galtry } from "../galtry";
import { GuardedClient } from "./guardedClient";
import { openJar } from "./sealed";

/** A site's session rarely outlives this; older ones are not spoken of. */
const SESSION_MS = 30 * 24 * 3_600_000;

/** Who may still be signed in at the entry's site, latest first; each person once. */
export const openSessions = query({
  name: "signIn.sessions",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person"],
  allow: (context) => requireLevel(context, context.input.entryId, "steward"),
  run: async ({ tx, input, at }) => {
    const rows = await tx
      .select({ personId: signIns.personId, name: persons.name, at: signIns.begunAt, how: signIns.how })
      .from(signIns)
      .innerJoin(persons, eq(persons.id, signIns.personId))
      .where(and(eq(signIns.entryId, input.entryId), eq(signIns.outcome, "signed-in"), isNull(signIns.signedOutAt)))
      .orderBy(desc(signIns.begunAt))
      .limit(500);
    const latest = new Map<string, { personId: string; name: string; at: number; how: string; mayUse: boolean }>();
    for (const row of rows) {
      if (latest.has(row.personId) || at - row.at > SESSION_MS) continue;
      const now = await resolveAt(tx, row.personId, input.entryId, at);
      latest.set(row.personId, { ...row, mayUse: now !== null && atLeast(now.resolution.level, "use") });
    }
    return [...latest.values()];
  },
});

/** What became of a jar: signed out at the site, or dropped because nothing can be done with it. */
export const dropJar = command({
  name: "signIn.signedOut",
  input: z.strictObject({ signInId: idSchema, signedOut: z.boolean() }),
  by: ["server"],
  internal: true,
  allow: () => undefined,
  run: async ({ tx, input, at }) => {
    const [row] = await tx
      .update(signIns)
      .set({ jar: null, ...(input.signedOut ? { signedOutAt: at } : {}) })
      .where(eq(signIns.id, input.signInId))
      .returning();
    return { entryId: row?.entryId ?? null, personId: row?.personId ?? null };
  },
  journal: ({ input, result }) =>
    input.signedOut && result.entryId
      ? { person: result.personId, node: result.entryId, details: { signIn: input.signInId } }
      : null,
  tell: () => [],
});

/** For everybody whose access has ended: signs out where the steps say how, and forgets the jar. */
export async function signOutEnded(house: Galtry): Promise<void> {
  const rows = await house.db
    .select({
      id: signIns.id,
      entryId: signIns.entryId,
      personId: signIns.personId,
      jar: signIns.jar,
      keyVersion: signIns.keyVersion,
    })
    .from(signIns)
    .where(and(isNotNull(signIns.jar), isNull(signIns.signedOutAt)))
    .limit(200);
  if (rows.length === 0) return;
  const kept = await house.db
    .select()
    .from(entries)
    .where(inArray(entries.nodeId, [...new Set(rows.map((row) => row.entryId))]));
  for (const row of rows) {
    const now = await resolveAt(house.db, row.personId, row.entryId, Date.now());
    const entry = kept.find((one) => one.nodeId === row.entryId);
    if (now && entry && entry.binnedAt === null && atLeast(now.resolution.level, "use")) continue;
    const vaultId = now?.path[0]?.vaultId;
    const page = entry?.steps.signOutPage;
    const signedOut =
      entry && vaultId && page ? await visitSignOut(house, entry, page, await openJar(house, vaultId, row)) : false;
    await dropJar.execute(house, { signInId: row.id, signedOut }, { kind: "server" });
  }
}

async function visitSignOut(
  house: Galtry,
  entry: typeof entries.$inferSelect,
  page: string,
  jar: Awaited<ReturnType<typeof openJar>>,
): Promise<boolean> {
  const hosts = new Set(entry.steps.hosts);
  const client = new GuardedClient({
    allows: (address) => matches(entry, address) || hosts.has(hostOf(address) ?? ""),
    allowedTargets: house.configuration.allowedTargets,
    ownPort: house.configuration.port,
    plainHttp: entry.plainHttp,
  });
  try {
    const url = new URL(page, entry.signInPage);
    const cookie = jar
      .filter((one) => url.hostname === one.domain || (!one.hostOnly && url.hostname.endsWith(`.${one.domain}`)))
      .map((one) => `${one.name}=${one.value}`)
      .join("; ");
    const reply = await client.send(url.href, {
      method: "GET",
      headers: { cookie, "user-agent": "Galtry" },
      signal: AbortSignal.timeout(10_000),
    });
    return reply.status < 400;
  } catch {
    return false;
  } finally {
    await client.close();
  }
}
