/** Groups that a provider decides: which there is which here, a dry run before it counts, and keeping them alike. */
import { and, eq, isNotNull, isNull } from "drizzle-orm";
import { z } from "zod";
import { byName } from "../byName";
import { personIdOf } from "../caller";
import { command, idSchema, query, type Topic } from "../command";
import { inJson } from "../database/bulk";
import type { Reader, Transaction } from "../database/client";
import { grants, groups, memberships, providerAccounts, providerGroups, providerMembers } from "../database/schema";
import { groupBy } from "../groupBy";
import { uuidv7 } from "../ids";
import type { JournalEntry } from "../journal/append";
import type { Told } from "../journal/says";
import { requireAdministrator } from "../people/administrators";
import { setByProvider } from "../people/members";
import { peopleNamed } from "../people/state";
import { requireJustProved } from "../people/waysIn/ways";
import { notFound, Refused } from "../refused";
import { loadProvider } from "./providers";
import { providerGroups as t } from "./strings";

type GroupRow = typeof providerGroups.$inferSelect;

export interface GroupChange {
  personId: string;
  groupId: string;
  joined: boolean;
  group: string;
  vaults: string[];
}

/** Names that a sign-in told of, so that they can be matched. */
export async function noteGroups(
  tx: Transaction,
  providerId: string,
  names: readonly string[],
  at: number,
): Promise<void> {
  if (names.length === 0) return;
  const known = await tx
    .select({ name: providerGroups.name })
    .from(providerGroups)
    .where(and(eq(providerGroups.providerId, providerId), inJson(providerGroups.name, [...names])));
  const there = new Set(known.map(({ name }) => name));
  for (const name of names)
    if (!there.has(name))
      await tx.insert(providerGroups).values({ id: uuidv7(), providerId, name, createdAt: at, changedAt: at });
}

async function membersHere(tx: Reader, groupId: string): Promise<Set<string>> {
  const rows = await tx
    .select({ personId: memberships.personId })
    .from(memberships)
    .where(and(eq(memberships.groupId, groupId), isNull(memberships.validUntil)));
  return new Set(rows.map(({ personId }) => personId));
}

const differences = (there: ReadonlySet<string>, here: ReadonlySet<string>) => ({
  join: [...there].filter((id) => !here.has(id)),
  leave: [...here].filter((id) => !there.has(id)),
});

/** Who would join and leave: from the list that SCIM sent, or from what each sign-in said. */
async function changesOf(tx: Reader, group: GroupRow): Promise<{ join: string[]; leave: string[] }> {
  const there = await everybodyThere(tx, group.providerId, [group]);
  return differences(there.get(group.id) ?? new Set(), await membersHere(tx, group.groupId ?? ""));
}

/** One person as the provider says, in all groups that it decides. */
export async function syncPerson(
  tx: Transaction,
  accountId: string,
  at: number,
  commandId: string,
): Promise<GroupChange[]> {
  const [account] = await tx.select().from(providerAccounts).where(eq(providerAccounts.id, accountId));
  if (!account?.personId) return [];
  const decided = await tx
    .select()
    .from(providerGroups)
    .where(and(eq(providerGroups.providerId, account.providerId), isNotNull(providerGroups.appliedAt)));
  const told = await tx
    .select({ id: providerMembers.providerGroupId })
    .from(providerMembers)
    .where(eq(providerMembers.accountId, accountId));
  const by = new Set(told.map(({ id }) => id));
  const changes: GroupChange[] = [];
  for (const group of decided) {
    if (group.groupId === null || (!group.scim && account.groups === null)) continue;
    const member = account.active && (group.scim ? by.has(group.id) : account.groups!.includes(group.name));
    changes.push(...(await setOne(tx, group.groupId, account.personId, member, at, commandId)));
  }
  return changes;
}

async function setOne(
  tx: Transaction,
  groupId: string,
  personId: string,
  member: boolean,
  at: number,
  commandId: string,
): Promise<GroupChange[]> {
  const done = await setByProvider(tx, { groupId, personId, member, at, commandId });
  return done ? [{ personId, groupId, joined: member, ...done }] : [];
}

/** A whole group as the provider says. */
export async function syncGroup(
  tx: Transaction,
  group: GroupRow,
  at: number,
  commandId: string,
): Promise<GroupChange[]> {
  if (group.appliedAt === null || group.groupId === null) return [];
  const { join, leave } = await changesOf(tx, group);
  const changes: GroupChange[] = [];
  for (const id of join) changes.push(...(await setOne(tx, group.groupId, id, true, at, commandId)));
  for (const id of leave) changes.push(...(await setOne(tx, group.groupId, id, false, at, commandId)));
  return changes;
}

export const topicsOf = (changes: readonly GroupChange[]): Topic[] => [
  ...new Set(
    changes.flatMap(({ personId, groupId, vaults }): Topic[] => [
      `person:${personId}`,
      `group:${groupId}`,
      ...vaults.map((id): Topic => `vault:${id}`),
    ]),
  ),
  ...(changes.length > 0 ? (["administrators"] as const) : []),
];

/** A line for each. @param names of the people, by id */
export const linesOf = (
  changes: readonly GroupChange[],
  names: ReadonlyMap<string, string>,
  provider: string,
): JournalEntry[] =>
  changes.map(({ personId, groupId, group, joined }) => ({
    subject: personId,
    details: { what: joined ? "joined a group" : "left a group", group: groupId, name: provider },
    names: { [personId]: names.get(personId) ?? "", [groupId]: group },
  }));

/** The sentence of such a line; null for a line that is about something else. */
export function sayGroup({ details, subject, nameOf }: Told): string | null {
  const group = () => nameOf(String(details.group));
  if (details.what === "joined a group") return `added ${subject} to ${group()}, as ${details.name} says`;
  if (details.what === "left a group") return `removed ${subject} from ${group()}, as ${details.name} says`;
  return null;
}

const MOST_NAMED = 200;

/** Each group there beside the one here, and who would join and leave: worked out from one reading of both. */
export const groupTable = query({
  name: "provider.groupTable",
  input: z.strictObject({ providerId: idSchema }),
  by: ["person"],
  offMainThread: true,
  allow: async (context) => {
    requireAdministrator(context);
    await loadProvider(context.tx, context.input.providerId);
  },
  run: async ({ tx, input: { providerId } }) => {
    const rows = await tx.select().from(providerGroups).where(eq(providerGroups.providerId, providerId));
    const all = await tx.select({ id: groups.id, name: groups.name, providerId: groups.providerId }).from(groups);
    const there = await everybodyThere(tx, providerId, rows);
    const matched = rows.flatMap(({ groupId }) => (groupId === null ? [] : [groupId]));
    const inIt = await tx
      .select({ groupId: memberships.groupId, personId: memberships.personId })
      .from(memberships)
      .where(and(inJson(memberships.groupId, matched), isNull(memberships.validUntil)));
    const here = groupBy(inIt, ({ groupId }) => groupId);
    const compared = rows.sort(byName).map((row) => {
      const members = there.get(row.id) ?? new Set<string>();
      const own = new Set(here.get(row.groupId ?? "")?.map(({ personId }) => personId));
      return { row, members, ...differences(row.groupId === null ? own : members, own) };
    });
    const names = await peopleNamed(
      tx,
      compared.flatMap(({ join, leave }) => [...join.slice(0, MOST_NAMED), ...leave.slice(0, MOST_NAMED)]),
    );
    const named = (ids: string[]) =>
      ids
        .slice(0, MOST_NAMED)
        .map((id) => names.get(id) ?? "")
        .sort();
    return {
      lines: compared.map(({ row, members, join, leave }) => ({
        ...{ id: row.id, name: row.name, scim: row.scim, groupId: row.groupId, applied: row.appliedAt !== null },
        ...{ there: members.size, joins: join.length, leaves: leave.length, join: named(join), leave: named(leave) },
      })),
      here: all.filter((one) => one.providerId === null || one.providerId === providerId).sort(byName),
    };
  },
});

/** Whom each group there holds, of those who are linked with somebody here. */
async function everybodyThere(
  tx: Reader,
  providerId: string,
  rows: readonly GroupRow[],
): Promise<Map<string, Set<string>>> {
  const accounts = await tx
    .select({ id: providerAccounts.id, personId: providerAccounts.personId, groups: providerAccounts.groups })
    .from(providerAccounts)
    .where(and(eq(providerAccounts.providerId, providerId), isNotNull(providerAccounts.personId)));
  const told = await tx
    .select()
    .from(providerMembers)
    .where(
      inJson(
        providerMembers.providerGroupId,
        rows.map(({ id }) => id),
      ),
    );
  const personOf = new Map(accounts.map(({ id, personId }) => [id, personId!]));
  const byClaim = new Map(rows.flatMap(({ id, name, scim }) => (scim ? [] : [[name, id] as const])));
  const found = new Map(rows.map(({ id }) => [id, new Set<string>()]));
  for (const { providerGroupId, accountId } of told) {
    const personId = personOf.get(accountId);
    if (personId) found.get(providerGroupId)?.add(personId);
  }
  for (const { personId, groups: names } of accounts)
    for (const name of names ?? []) found.get(byClaim.get(name) ?? "")?.add(personId!);
  return found;
}

async function requireGroup(tx: Reader, id: string): Promise<GroupRow> {
  const [row] = await tx.select().from(providerGroups).where(eq(providerGroups.id, id));
  if (!row) throw notFound();
  return row;
}

/** Which group here a group there stands for; nothing changes yet. */
export const matchGroup = command({
  name: "provider.matchGroup",
  input: z.strictObject({ providerGroupId: idSchema, groupId: idSchema.nullable() }),
  by: ["person"],
  allow: async (context) => {
    requireAdministrator(context);
    const row = await requireGroup(context.tx, context.input.providerGroupId);
    if (row.appliedAt !== null) throw new Refused("conflict", t.releaseItFirst);
    if (context.input.groupId !== null) {
      const [group] = await context.tx.select().from(groups).where(eq(groups.id, context.input.groupId));
      if (!group) throw notFound();
      const [taken] = await context.tx
        .select({ id: providerGroups.id })
        .from(providerGroups)
        .where(eq(providerGroups.groupId, group.id));
      if (taken && taken.id !== row.id) throw new Refused("conflict", t.matchedAlready(group.name), "groupId");
    }
    return row;
  },
  run: async ({ tx, input }) => {
    await tx.update(providerGroups).set({ groupId: input.groupId }).where(eq(providerGroups.id, input.providerGroupId));
  },
  journal: null,
  tell: () => ["administrators"],
});

/** From now on the provider decides who is in it: all join and leave that the dry run named. */
export const applyGroup = command({
  name: "provider.applyGroup",
  input: z.strictObject({
    providerGroupId: idSchema,
    /** As the dry run said; another number means that something has changed since. */
    joins: z.number().int(),
    leaves: z.number().int(),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, caller } = context;
    requireAdministrator(context);
    requireJustProved(context);
    const row = await requireGroup(tx, input.providerGroupId);
    if (row.groupId === null) throw new Refused("conflict", t.matchItFirst);
    if (row.appliedAt !== null) throw new Refused("conflict", t.itIsAppliedAlready);
    const changes = await changesOf(tx, row);
    if (changes.join.length !== input.joins || changes.leave.length !== input.leaves)
      throw new Refused("conflict", t.somethingHasChanged);
    const own = personIdOf(caller);
    const [gives] = await tx
      .select({ id: grants.id })
      .from(grants)
      .where(and(eq(grants.subjectId, row.groupId), isNull(grants.validUntil)))
      .limit(1);
    if (gives && [...changes.join, ...changes.leave].includes(own))
      throw new Refused("not-allowed", t.itWouldChangeYours);
    const [group] = await tx.select().from(groups).where(eq(groups.id, row.groupId));
    return { row, group: group!, provider: await loadProvider(tx, row.providerId) };
  },
  run: async ({ tx, at, commandId, allowed: { row, group, provider } }) => {
    await tx.update(groups).set({ providerId: provider.id }).where(eq(groups.id, group.id));
    await tx
      .update(memberships)
      .set({ keeper: false })
      .where(and(eq(memberships.groupId, group.id), isNull(memberships.validUntil), eq(memberships.keeper, true)));
    await tx.update(providerGroups).set({ appliedAt: at }).where(eq(providerGroups.id, row.id));
    return syncGroup(tx, { ...row, appliedAt: at }, at, commandId);
  },
  journal: ({ allowed, result }) => ({
    subject: allowed.group.id,
    details: {
      name: allowed.provider.name,
      joined: result.filter(({ joined }) => joined).length,
      left: result.filter(({ joined }) => !joined).length,
    },
    names: { [allowed.group.id]: allowed.group.name },
  }),
  says: ({ details, subject }) =>
    `let ${details.name} decide who is in ${subject}: ${details.joined} joined, ${details.left} left`,
  tell: ({ allowed, result }) => [...topicsOf(result), `group:${allowed.group.id}`, "administrators"],
});

/** Kept here again, with whoever is in it now. */
export const releaseGroup = command({
  name: "provider.releaseGroup",
  input: z.strictObject({ providerGroupId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    requireAdministrator(context);
    const row = await requireGroup(context.tx, context.input.providerGroupId);
    if (row.appliedAt === null || row.groupId === null) throw new Refused("conflict", t.itIsKeptHere);
    const [group] = await context.tx.select().from(groups).where(eq(groups.id, row.groupId));
    return { row, group: group! };
  },
  run: async ({ tx, allowed: { row, group } }) => {
    await tx.update(groups).set({ providerId: null }).where(eq(groups.id, group.id));
    await tx.update(providerGroups).set({ appliedAt: null }).where(eq(providerGroups.id, row.id));
  },
  journal: ({ allowed }) => ({ subject: allowed.group.id, names: { [allowed.group.id]: allowed.group.name } }),
  says: ({ subject }) => `keeps the group ${subject} in Galtry again`,
  tell: ({ allowed }) => [`group:${allowed.group.id}`, "administrators"],
});
