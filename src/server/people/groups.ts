/** Groups. Membership is access: administrators and keepers change it, never their own. */

import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { type Given, isActive, levelWord } from "../../core/access";
import { sayDate } from "../../core/time";
import { nodeName } from "../access/nodeName";
import { withoutSteward } from "../access/stewards";
import { isAdministrator, personIdOf } from "../caller";
import { type Context, command, idSchema, instantSchema, nameSchema, type Topic } from "../command";
import { inJson } from "../database/bulk";
import type { Reader, Transaction } from "../database/client";
import { grants, groups, memberships, persons, places } from "../database/schema";
import { uuidv7 } from "../ids";
import { timeZone } from "../organisation";
import { notFound, Refused } from "../refused";
import { requireMaker } from "../rules/rules";
import { groups as t } from "./strings";
import { nodesOfGroup, tellingOwners, tellStewards } from "./telling";

export const createGroup = command({
  name: "people.createGroup",
  input: z.strictObject({ name: nameSchema, description: z.string().trim().max(300).default("") }),
  by: ["person"],
  allow: async ({ tx, role, input }) => {
    await requireMaker(tx, role, "groups");
    await requireFreeName(tx, input.name, null);
  },
  run: async ({ tx, input, me, at, commandId }) => {
    const groupId = uuidv7();
    await tx.insert(groups).values({ id: groupId, ...input, createdAt: at });
    // Whoever is no administrator could not come back to it otherwise.
    if (!isAdministrator(me.role))
      await tx.insert(memberships).values({
        ...{ id: uuidv7(), groupId, personId: me.id, from: null, until: null, keeper: true },
        ...{ validFrom: at, commandId },
      });
    return { groupId };
  },
  journal: ({ input, result }) => ({ subject: result.groupId, names: { [result.groupId]: input.name } }),
  says: ({ subject }) => `created the group ${subject}`,
  tell: () => ["administrators"],
});

const ofMember = { groupId: idSchema, personId: idSchema };

export const setMember = command({
  name: "people.setMember",
  input: z.strictObject({
    ...ofMember,
    from: instantSchema.default(null),
    until: instantSchema.default(null),
    keeper: z.boolean().default(false),
  }),
  by: ["person"],
  allow: async (context) => {
    const { input, at } = context;
    if (input.until !== null && input.until <= at) throw new Refused("bad-input", t.theEndDateIsInThePast, "until");
    if (input.from !== null && input.until !== null && input.until <= input.from)
      throw new Refused("bad-input", t.theEndDateMustBeAfterThe, "until");
    return requireMembership(context, input);
  },
  run: async (context) => {
    const { tx, at, commandId, caller, allowed } = context;
    const input = { ...context.input, until: sooner(context.input.until, allowed.until) };
    await tellReached(
      tx,
      input.groupId,
      (level, node) => t.wasAddedToWhichHasOn(allowed.person, allowed.group, level, node),
      at,
      personIdOf(caller),
    );
    await keepStewards(context, input.groupId, async () => {
      await tx
        .update(memberships)
        .set({ validUntil: at })
        .where(
          and(
            eq(memberships.groupId, input.groupId),
            eq(memberships.personId, input.personId),
            isNull(memberships.validUntil),
          ),
        );
      await tx.insert(memberships).values({ id: uuidv7(), ...input, validFrom: at, commandId });
    });
  },
  journal: ({ input, allowed }) => ({
    subject: input.personId,
    details: {
      group: input.groupId,
      keeper: input.keeper,
      ...(input.from ? { from: input.from } : {}),
      ...(input.until ? { until: input.until } : {}),
    },
    names: { [input.personId]: allowed.person, [input.groupId]: allowed.group },
  }),
  says: ({ details, subject, nameOf, from, until }) =>
    `added ${subject} to ${nameOf(String(details.group))}${details.keeper ? " as keeper" : ""}${from}${until}`,
  tell: ({ input, allowed }) => topics(input, allowed.vaults),
});

export const removeMember = command({
  name: "people.removeMember",
  input: z.strictObject(ofMember),
  by: ["person"],
  allow: (context) => requireMembership(context, context.input),
  run: async (context) => {
    const { tx, input, at, caller, allowed } = context;
    await tellReached(
      tx,
      input.groupId,
      (level, node) => t.wasRemovedFromWhichHasOn(allowed.person, allowed.group, level, node),
      at,
      personIdOf(caller),
    );
    await keepStewards(context, input.groupId, async () => {
      const gone = await tx
        .update(memberships)
        .set({ validUntil: at })
        .where(
          and(
            eq(memberships.groupId, input.groupId),
            eq(memberships.personId, input.personId),
            isNull(memberships.validUntil),
          ),
        )
        .returning();
      if (gone.length === 0) throw new Refused("conflict", t.thisPersonIsNoLongerInThe);
    });
  },
  journal: ({ input, allowed }) => ({
    subject: input.personId,
    details: { group: input.groupId },
    names: { [input.personId]: allowed.person, [input.groupId]: allowed.group },
  }),
  says: ({ details, subject, nameOf }) => `removed ${subject} from ${nameOf(String(details.group))}`,
  tell: ({ input, allowed }) => topics(input, allowed.vaults),
});

export const changeGroup = command({
  name: "people.changeGroup",
  input: z.strictObject({
    groupId: idSchema,
    name: nameSchema,
    description: z.string().trim().max(300, t.aDescriptionHasAtMost300).default(""),
  }),
  by: ["person"],
  allow: async (context) => {
    const { group, vaults } = await requireKeeper(context, context.input.groupId);
    await requireFreeName(context.tx, context.input.name, group.id);
    return { before: group.name, vaults };
  },
  run: async ({ tx, input }) => {
    const { name, description } = input;
    await tx.update(groups).set({ name, description }).where(eq(groups.id, input.groupId));
  },
  journal: ({ input }) => ({ subject: input.groupId, names: { [input.groupId]: input.name } }),
  says: ({ subject }) => `renamed a group to ${subject}`,
  tell: ({ input, allowed }) => groupTopics(input.groupId, allowed.vaults),
});

/**
 * Everybody's membership of a group ends at one moment, and nobody's lasts longer: the team of a season. Moving the
 * date extends what ended with it in one act; no date takes the common end away.
 */
export const endGroup = command({
  name: "people.endGroup",
  input: z.strictObject({ groupId: idSchema, until: instantSchema }),
  by: ["person"],
  allow: async (context) => {
    const { input, at } = context;
    if (input.until !== null && input.until <= at) throw new Refused("bad-input", t.theEndDateIsInThePast, "until");
    const found = await requireKeeper(context, input.groupId);
    if (found.inIt && found.vaults.length > 0) throw new Refused("not-allowed", t.youAreInThisGroupAndIt);
    return found;
  },
  run: async (context) => {
    const { tx, input, at, commandId, caller, allowed } = context;
    const { group } = allowed;
    const when = input.until === null ? "no end date" : `until ${sayDate(input.until, at, await timeZone(tx))}`;
    await tellReached(
      tx,
      group.id,
      (level, node) => t.theGroupWhichHasOnHasA(group.name, level, node, when),
      at,
      personIdOf(caller),
    );
    await keepStewards(context, group.id, async () => {
      await tx.update(groups).set({ until: input.until }).where(eq(groups.id, group.id));
      for (const row of await membersOf(tx, group.id)) {
        // Whoever's own end was the common one moves with it; an earlier one of their own stands.
        const until = row.until === group.until ? input.until : sooner(row.until, input.until);
        if (until === row.until) continue;
        await tx.update(memberships).set({ validUntil: at }).where(eq(memberships.id, row.id));
        await tx.insert(memberships).values({ ...row, id: uuidv7(), until, validFrom: at, commandId });
      }
    });
  },
  journal: ({ input, allowed }) => ({
    subject: input.groupId,
    details: { until: input.until },
    names: { [input.groupId]: allowed.group.name },
  }),
  says: ({ subject, until }) =>
    until
      ? `set the end date of the group ${subject} to${until.slice(" until".length)}`
      : `removed the end date of the group ${subject}`,
  tell: ({ input, allowed }) => groupTopics(input.groupId, allowed.vaults),
});

/** A group that holds nobody and gives nothing. */
export const deleteGroup = command({
  name: "people.deleteGroup",
  input: z.strictObject({ groupId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    if (!context.role || !isAdministrator(context.role))
      throw new Refused("not-allowed", t.onlyAnAdministratorCanDeleteA);
    const { group, vaults } = await requireKeeper(context, context.input.groupId);
    const members = await membersOf(context.tx, group.id);
    if (members.length > 0) throw new Refused("conflict", t.thereAreStillPeopleInThisGroup);
    if (vaults.length > 0) throw new Refused("conflict", t.thisGroupStillHasAccessIts);
    return group;
  },
  run: async ({ tx, input }) => {
    await tx.delete(groups).where(eq(groups.id, input.groupId));
  },
  journal: ({ input, allowed }) => ({ subject: input.groupId, names: { [input.groupId]: allowed.name } }),
  says: ({ subject }) => `deleted the group ${subject}`,
  tell: () => ["administrators"],
});

/**
 * As an identity provider says: in or out, whoever keeps the group here. It is never refused for what it leaves without
 * a steward; owners are told of that.
 * @returns whether it changed anything
 */
export async function setByProvider(
  tx: Transaction,
  {
    groupId,
    personId,
    member,
    at,
    commandId,
  }: { groupId: string; personId: string; member: boolean; at: number; commandId: string },
): Promise<{ group: string; vaults: string[] } | null> {
  const [group] = await tx.select().from(groups).where(eq(groups.id, groupId));
  const [person] = await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, personId));
  if (!group || !person) return null;
  const own = and(eq(memberships.groupId, groupId), eq(memberships.personId, personId), isNull(memberships.validUntil));
  const [now] = await tx.select().from(memberships).where(own);
  if ((now !== undefined) === member) return null;
  const says = member ? t.wasAddedToWhichHasOn : t.wasRemovedFromWhichHasOn;
  await tellReached(tx, groupId, (level, node) => says(person.name, group.name, level, node), at, null);
  if (member)
    await tx.insert(memberships).values({
      ...{ id: uuidv7(), groupId, personId, from: null, until: group.until, keeper: false },
      ...{ validFrom: at, commandId },
    });
  else
    await tellingOwners(tx, personId, person.name, at, async () => {
      await tx.update(memberships).set({ validUntil: at }).where(own);
    });
  const reached = await nodesOfGroup(tx, groupId);
  const vaults = await tx
    .selectDistinct({ id: places.vaultId })
    .from(places)
    .where(
      and(
        inJson(
          places.nodeId,
          reached.map(({ nodeId }) => nodeId),
        ),
        isNull(places.validUntil),
      ),
    );
  return { group: group.name, vaults: vaults.map(({ id }) => id) };
}

const groupTopics = (groupId: string, vaults: string[]): Topic[] => [
  `group:${groupId}`,
  "administrators",
  ...vaults.map((id): Topic => `vault:${id}`),
];

async function requireFreeName(tx: Reader, name: string, except: string | null): Promise<void> {
  const all = await tx.select({ id: groups.id, name: groups.name }).from(groups);
  const taken = all.some((group) => group.id !== except && group.name.toLowerCase() === name.toLowerCase());
  if (taken || name.toLowerCase() === "everyone") throw new Refused("conflict", t.thereIsAlreadyAGroupWithThis, "name");
}

const topics = (input: { personId: string; groupId: string }, vaults: string[]): Topic[] => [
  `person:${input.personId}`,
  `group:${input.groupId}`,
  "administrators",
  ...vaults.map((id): Topic => `vault:${id}`),
];

const sooner = (a: number | null, b: number | null): number | null =>
  a === null ? b : b === null ? a : Math.min(a, b);

type Keeping = Pick<Context<unknown, Reader>, "tx" | "caller" | "role" | "at">;

/** Administrators and the group's keepers. */
async function requireKeeper({ tx, caller, role, at }: Keeping, groupId: string) {
  const [group] = await tx.select().from(groups).where(eq(groups.id, groupId));
  if (!group) throw notFound();
  const own = (await membersOf(tx, groupId)).find((row) => row.personId === personIdOf(caller));
  if (!(role && isAdministrator(role)) && !(own?.keeper && isActive(own, at)))
    throw new Refused("not-allowed", t.onlyAdministratorsAndTheGroups);
  const reached = await tx
    .select({ vaultId: places.vaultId })
    .from(grants)
    .innerJoin(places, and(eq(places.nodeId, grants.nodeId), isNull(places.validUntil)))
    .where(and(eq(grants.subjectId, groupId), isNull(grants.validUntil)));
  return { group, inIt: own !== undefined, vaults: [...new Set(reached.map((row) => row.vaultId))] };
}

const membersOf = (tx: Reader, groupId: string) =>
  tx
    .select()
    .from(memberships)
    .where(and(eq(memberships.groupId, groupId), isNull(memberships.validUntil)));

/** Keepers and administrators, for anybody but themselves where the group gives access. */
async function requireMembership(context: Keeping, { groupId, personId }: { groupId: string; personId: string }) {
  const { group, vaults } = await requireKeeper(context, groupId);
  if (group.providerId !== null) throw new Refused("conflict", t.theProviderDecidesWhoIsInIt(group.name));
  if (personId === personIdOf(context.caller) && vaults.length > 0)
    throw new Refused("not-allowed", t.thisGroupGivesAccessSoYou);
  const [person] = await context.tx.select({ name: persons.name }).from(persons).where(eq(persons.id, personId));
  if (!person) throw notFound();
  return { group: group.name, until: group.until, person: person.name, vaults };
}

/** The stewards of every node that the group reaches are told of each change. */
async function tellReached(
  tx: Transaction,
  groupId: string,
  says: (level: string, node: string) => string,
  at: number,
  except: string | null,
): Promise<void> {
  for (const { nodeId, level } of await nodesOfGroup(tx, groupId))
    await tellStewards(tx, [nodeId], (node) => says(levelWord(level as Given), node), at, except);
}

/** A deliberate change of a group must not leave a node that it reaches without a steward. */
async function keepStewards(
  { tx, at }: Pick<Context<unknown>, "tx" | "at">,
  groupId: string,
  change: () => Promise<void>,
): Promise<void> {
  const reached = await tx
    .selectDistinct({ id: grants.nodeId })
    .from(grants)
    .where(and(eq(grants.subjectId, groupId), isNull(grants.validUntil), eq(grants.level, "steward")));
  const unstewarded = async () => (await Promise.all(reached.map(({ id }) => withoutSteward(tx, id, at)))).flat();
  const before = new Set(await unstewarded());
  await change();
  const left = (await unstewarded()).find((id) => !before.has(id));
  if (left) throw new Refused("not-allowed", t.wouldBeLeftWithoutAStewardMake(await nodeName(tx, left)));
}
