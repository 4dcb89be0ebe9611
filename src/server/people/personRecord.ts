/** What an administrator looks after at a person: how they sign in, where they are signed in, their groups, what waits. */
import { and, desc, eq, gt, inArray, isNull, sql } from "drizzle-orm";
import { z } from "zod";
import { NAMED_BY_OWNERS } from "../../core/people/role";
import { isAdministrator } from "../caller";
import { idSchema, query } from "../command";
import type { Reader } from "../database/client";
import {
  approvals,
  asks,
  codeApps,
  groups,
  lanyards,
  memberships,
  passkeys,
  persons,
  providerAccounts,
  providers,
  type Role,
  sessions,
  slips,
} from "../database/schema";
import { notFound } from "../refused";
import { requireOther } from "./administrators";
import { SESSION_IDLE_MS } from "./sessions";
import { loadWays } from "./waysIn/ways";

/** Administrators, of others; of owners only owners. */
export const personRecord = query({
  name: "people.personRecord",
  input: z.strictObject({ personId: idSchema }),
  by: ["person"],
  allow: (context) => requireOther(context, context.input.personId),
  run: async ({ tx, input: { personId }, at }) => {
    const [ways, keys, [app], accounts, open, connected, held, waits] = await Promise.all([
      loadWays(tx, personId),
      tx
        .select({
          id: passkeys.id,
          name: passkeys.name,
          createdAt: passkeys.createdAt,
          lastUsedAt: passkeys.lastUsedAt,
        })
        .from(passkeys)
        .where(eq(passkeys.personId, personId))
        .orderBy(passkeys.createdAt),
      tx
        .select({ since: codeApps.confirmedAt, lastUsedAt: codeApps.lastUsedAt })
        .from(codeApps)
        .where(eq(codeApps.personId, personId)),
      tx
        .select({ provider: providers.name, linkedAt: providerAccounts.linkedAt })
        .from(providerAccounts)
        .innerJoin(providers, eq(providers.id, providerAccounts.providerId))
        .where(eq(providerAccounts.personId, personId)),
      tx
        .select({
          ...{ id: sessions.id, browser: sessions.browser, address: sessions.address },
          ...{ createdAt: sessions.createdAt, lastSeenAt: sessions.lastSeenAt },
        })
        .from(sessions)
        .where(
          and(
            eq(sessions.personId, personId),
            isNull(sessions.endedAt),
            gt(sessions.expiresAt, at),
            gt(sessions.lastSeenAt, at - SESSION_IDLE_MS),
          ),
        )
        .orderBy(desc(sessions.lastSeenAt)),
      tx
        .select({
          ...{ id: lanyards.id, browser: lanyards.browser },
          ...{ createdAt: lanyards.createdAt, lastUsedAt: lanyards.lastUsedAt },
        })
        .from(lanyards)
        .where(and(eq(lanyards.personId, personId), isNull(lanyards.endedAt), gt(lanyards.expiresAt, at)))
        .orderBy(desc(lanyards.lastUsedAt)),
      heldBy(tx, personId),
      waitingFor(tx, personId),
    ]);
    const [row] = await tx
      .select({ createdAt: persons.createdAt, invitedBy: persons.invitedBy })
      .from(persons)
      .where(eq(persons.id, personId));
    if (!row) throw notFound();
    const [by] = row.invitedBy
      ? await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, row.invitedBy))
      : [];
    return {
      added: { at: row.createdAt, by: by?.name ?? null },
      ways: { ...ways, keys, codeApp: app?.since ? { since: app.since, lastUsedAt: app.lastUsedAt } : null, accounts },
      sessions: open,
      lanyards: connected,
      groups: held,
      waits,
    };
  },
});

/** Groups with their times, those to come and those over included until somebody changes them. */
async function heldBy(tx: Reader, personId: string) {
  const rows = await tx
    .select({
      ...{ id: groups.id, name: groups.name, keeper: memberships.keeper },
      ...{ from: memberships.from, until: memberships.until, since: memberships.validFrom },
    })
    .from(memberships)
    .innerJoin(groups, eq(groups.id, memberships.groupId))
    .where(and(eq(memberships.personId, personId), isNull(memberships.validUntil)));
  return rows.sort((a, b) => a.name.localeCompare(b.name));
}

/** How much of theirs waits for somebody's answer. */
async function waitingFor(tx: Reader, personId: string) {
  const count = sql<number>`count(*)`;
  const [[asked], [wanted], [sent]] = await Promise.all([
    tx
      .select({ count })
      .from(asks)
      .where(and(eq(asks.personId, personId), eq(asks.state, "open"))),
    tx
      .select({ count })
      .from(approvals)
      .where(and(eq(approvals.personId, personId), isNull(approvals.closedAt), isNull(approvals.until))),
    tx
      .select({ count })
      .from(slips)
      .where(and(eq(slips.personId, personId), inArray(slips.state, ["waiting"]))),
  ]);
  return { requests: asked?.count ?? 0, approvals: wanted?.count ?? 0, slips: sent?.count ?? 0 };
}

/** Whether a reader may see and change what an administrator looks after at somebody. */
export const looksAfter = (role: Role | null, other: { self: boolean; role: Role }): boolean =>
  !other.self && role !== null && isAdministrator(role) && (role === "owner" || !NAMED_BY_OWNERS.has(other.role));
