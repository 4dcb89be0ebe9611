/** What a person has and what they opened: ended when they leave, given again as far as it is ticked. */
import { and, eq, inArray, isNotNull, isNull } from "drizzle-orm";
import type { Given } from "../../core/access";
import { nodeNames } from "../access/nodeName";
import { loadPerson, type Person } from "../access/person";
import { inJson } from "../database/bulk";
import type { Reader, Transaction } from "../database/client";
import {
  approvals,
  asks,
  grants,
  groups,
  handovers,
  letterboxes,
  links,
  memberships,
  places,
  providerAccounts,
  slips,
} from "../database/schema";
import { uuidv7 } from "../ids";
import { leaving as t } from "./strings";
import { settleNotices, tellStewards } from "./telling";

/** What was given to somebody, and what they had open, is over; what they gave stays. */
export async function endBelongings(tx: Transaction, personId: string, at: number): Promise<void> {
  await tx
    .update(grants)
    .set({ validUntil: at })
    .where(and(eq(grants.subjectKind, "person"), eq(grants.subjectId, personId), isNull(grants.validUntil)));
  await tx
    .update(memberships)
    .set({ validUntil: at })
    .where(and(eq(memberships.personId, personId), isNull(memberships.validUntil)));
  await tx
    .update(handovers)
    .set({ withdrawnAt: at, sealed: null })
    .where(and(eq(handovers.makerId, personId), isNotNull(handovers.sealed)));
  await tx
    .update(letterboxes)
    .set({ closedAt: at })
    .where(and(eq(letterboxes.makerId, personId), isNull(letterboxes.closedAt), isNull(letterboxes.droppedAt)));
  await tx
    .update(links)
    .set({ withdrawnAt: at })
    .where(and(eq(links.personId, personId), isNull(links.usedAt), isNull(links.withdrawnAt)));
  await tx
    .update(providerAccounts)
    .set({ personId: null, linkedAt: null, changedAt: at })
    .where(eq(providerAccounts.personId, personId));
  const asked = await tx
    .update(asks)
    .set({ state: "withdrawn", answeredAt: at })
    .where(and(eq(asks.personId, personId), eq(asks.state, "open")))
    .returning({ id: asks.id });
  const wanted = await tx
    .update(approvals)
    .set({ closedAt: at, closedBy: personId })
    .where(and(eq(approvals.personId, personId), isNull(approvals.closedAt)))
    .returning({ id: approvals.id });
  const drafted = await tx
    .update(slips)
    .set({ state: "dropped", changedAt: at })
    .where(and(eq(slips.personId, personId), inArray(slips.state, ["draft", "waiting"])))
    .returning({ id: slips.id });
  for (const { id } of [...asked, ...wanted, ...drafted]) await settleNotices(tx, id, at);
}

/** Whether some of what would be given again is Steward, by a grant of their own or by a group. */
export async function givesSteward(
  tx: Reader,
  { grantIds, membershipIds }: { grantIds: readonly string[]; membershipIds: readonly string[] },
): Promise<boolean> {
  const [own] = await tx
    .select({ id: grants.id })
    .from(grants)
    .where(and(inJson(grants.id, [...grantIds]), eq(grants.level, "steward")))
    .limit(1);
  if (own) return true;
  const [byGroup] = await tx
    .select({ id: grants.id })
    .from(memberships)
    .innerJoin(grants, and(eq(grants.subjectId, memberships.groupId), isNull(grants.validUntil)))
    .where(and(inJson(memberships.id, [...membershipIds]), eq(grants.level, "steward")))
    .limit(1);
  return byGroup !== undefined;
}

/** Gives again what ended with leaving, as far as it is ticked; whoever looks after it is told. */
export async function giveAgain(
  tx: Transaction,
  {
    personId,
    leftAt,
    grantIds,
    membershipIds,
    by,
    at,
    commandId,
  }: {
    personId: string;
    leftAt: number;
    grantIds: readonly string[];
    membershipIds: readonly string[];
    by: Person;
    at: number;
    commandId: string;
  },
): Promise<{ grants: number; groups: number }> {
  const rows = await tx
    .select()
    .from(grants)
    .where(and(eq(grants.subjectId, personId), eq(grants.validUntil, leftAt), inJson(grants.id, [...grantIds])));
  const name = (await loadPerson(tx, personId, at))?.name ?? "";
  const live = await nodesThere(
    tx,
    rows.map(({ nodeId }) => nodeId),
  );
  let given = 0;
  for (const row of rows) {
    // Ended meanwhile of itself, or its place is gone.
    if ((row.until !== null && row.until <= at) || !live.has(row.nodeId)) continue;
    await tx.insert(grants).values({ ...row, id: uuidv7(), validFrom: at, validUntil: null, commandId });
    await tellStewards(tx, [row.nodeId], (node) => t.hasAgain(name, row.level as Given, node, by.name), at, by.id);
    given += 1;
  }
  const held = await tx
    .select({ row: memberships, providerId: groups.providerId })
    .from(memberships)
    .innerJoin(groups, eq(groups.id, memberships.groupId))
    .where(
      and(
        eq(memberships.personId, personId),
        eq(memberships.validUntil, leftAt),
        inJson(memberships.id, [...membershipIds]),
      ),
    );
  let joined = 0;
  for (const { row, providerId } of held) {
    if (providerId !== null || (row.until !== null && row.until <= at)) continue;
    await tx
      .insert(memberships)
      .values({ ...row, id: uuidv7(), keeper: false, validFrom: at, validUntil: null, commandId });
    joined += 1;
  }
  return { grants: given, groups: joined };
}

async function nodesThere(tx: Reader, ids: string[]): Promise<Set<string>> {
  const names = await nodeNames(tx, ids);
  const rows = await tx
    .select({ id: places.nodeId })
    .from(places)
    .where(and(inJson(places.nodeId, ids), isNull(places.validUntil)));
  return new Set(rows.map(({ id }) => id).filter((id) => names.has(id)));
}
