/** Who is in a group. Membership is access: administrators and keepers change it, never their own. */
import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { type Given, isActive, levelWord } from "../../core/access";
import { nodeName } from "../access/nodeName";
import { withoutSteward } from "../access/stewards";
import { isAdministrator, personIdOf } from "../caller";
import { type Context, command, idSchema, instantSchema, type Topic } from "../command";
import { inJson } from "../database/bulk";
import type { Reader, Transaction } from "../database/client";
import { grants, groups, memberships, persons, places } from "../database/schema";
import { uuidv7 } from "../ids";
import type { Says } from "../journal/says";
import { notFound, Refused } from "../refused";
import { groups as t } from "./strings";
import { nodesOfGroup, tellingOwners, tellStewards } from "./telling";

const ofMember = { groupId: idSchema, personId: idSchema };

const memberSchema = z.strictObject({
  ...ofMember,
  from: instantSchema.default(null),
  until: instantSchema.default(null),
  keeper: z.boolean().default(false),
});
type Held = z.output<typeof memberSchema>;

const sayMember: Says = ({ details, subject, nameOf, from, until }) => {
  const group = nameOf(String(details.group));
  if (!("keeper" in details)) return `removed ${subject} from ${group}`;
  const keeper = details.keeper ? " as keeper" : "";
  return details.was
    ? `changed ${subject} in ${group}${keeper}${from}${until}`
    : `added ${subject} to ${group}${keeper}${from}${until}`;
};

export const setMember = command({
  name: "people.setMember",
  input: memberSchema,
  by: ["person"],
  allow: (context) => requireChange(context, context.input),
  run: async (context) => {
    const { tx, input, at, caller, allowed } = context;
    await tellReached(
      tx,
      input.groupId,
      (level, node) => t.wasAddedToWhichHasOn(allowed.person, allowed.group, level, node),
      at,
      personIdOf(caller),
    );
    await keepStewards(context, [input.groupId], () => put(context, input, allowed.until));
  },
  journal: ({ input, allowed }) => lineOf(input, allowed),
  says: sayMember,
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
    await keepStewards(context, [input.groupId], () => take(context, input));
  },
  journal: ({ input, allowed }) => lineOf(input, allowed),
  says: sayMember,
  tell: ({ input, allowed }) => topics(input, allowed.vaults),
});

const MOST_MEMBERS = 200;

/**
 * Several people come into groups or leave them, all of it or nothing: somebody who changes teams, a season's
 * volunteers. What is wrong names its line as `changes.3.until`.
 */
export const changeMembers = command({
  name: "people.changeMembers",
  input: z.strictObject({
    changes: z
      .array(z.strictObject({ ...ofMember, held: memberSchema.omit({ groupId: true, personId: true }).nullable() }))
      .min(1)
      .max(MOST_MEMBERS),
  }),
  by: ["person"],
  allow: async (context) => {
    const found: { change: Held | { groupId: string; personId: string; held: null }; allowed: Allowed }[] = [];
    for (const [line, { held, ...of }] of context.input.changes.entries()) {
      const change = held ? { ...of, ...held } : { ...of, held: null };
      const allowed = await atLine(line, () =>
        "held" in change ? requireMembership(context, of) : requireChange(context, change),
      );
      found.push({ change, allowed });
    }
    return found;
  },
  run: async (context) => {
    const { tx, at, caller, allowed } = context;
    const groupIds = [...new Set(allowed.map(({ change }) => change.groupId))];
    // Stewards read one notice for each group and direction, however many people it is about.
    for (const groupId of groupIds)
      for (const leaves of [false, true]) {
        const those = allowed.filter(({ change }) => change.groupId === groupId && "held" in change === leaves);
        if (those.length === 0) continue;
        const who = t.several(those.map(({ allowed: { person } }) => person));
        const says = leaves ? t.wereRemovedFrom : t.wereAddedTo;
        await tellReached(
          tx,
          groupId,
          (level, node) => says(who, those.length, those[0]!.allowed.group, level, node),
          at,
          personIdOf(caller),
        );
      }
    await keepStewards(context, groupIds, async () => {
      for (const [line, { change, allowed: found }] of allowed.entries())
        await atLine(line, () => ("held" in change ? take(context, change) : put(context, change, found.until)));
    });
  },
  journal: ({ allowed }) => allowed.map(({ change, allowed: found }) => lineOf(change, found)),
  says: sayMember,
  tell: ({ allowed }) => [...new Set(allowed.flatMap(({ change, allowed: { vaults } }) => topics(change, vaults)))],
});

/** Refusals of one of many name it. */
async function atLine<R>(line: number, act: () => Promise<R>): Promise<R> {
  try {
    return await act();
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    throw new Refused(error.code, error.message, `changes.${line}.${error.field ?? "personId"}`, error.data);
  }
}

const currentRow = ({ groupId, personId }: { groupId: string; personId: string }) =>
  and(eq(memberships.groupId, groupId), eq(memberships.personId, personId), isNull(memberships.validUntil));

/** In the group from now on as it is said, never longer than the group itself lasts. */
async function put(
  { tx, at, commandId }: Pick<Context<unknown>, "tx" | "at" | "commandId">,
  held: Held,
  groupEnds: number | null,
): Promise<void> {
  await tx.update(memberships).set({ validUntil: at }).where(currentRow(held));
  const until = sooner(held.until, groupEnds);
  await tx.insert(memberships).values({ id: uuidv7(), ...held, until, validFrom: at, commandId });
}

async function take(
  { tx, at }: Pick<Context<unknown>, "tx" | "at">,
  of: { groupId: string; personId: string },
): Promise<void> {
  const gone = await tx.update(memberships).set({ validUntil: at }).where(currentRow(of)).returning();
  if (gone.length === 0) throw new Refused("conflict", t.thisPersonIsNoLongerInThe);
}

/** The Journal's line of one change; without a word of keepers, of somebody who left. */
function lineOf(of: { groupId: string; personId: string } & Partial<Held>, { person, group, was }: Allowed) {
  const { groupId, personId, from, until, keeper } = of;
  return {
    subject: personId,
    details: {
      group: groupId,
      ...(keeper !== undefined && { keeper, was }),
      ...(from ? { from } : {}),
      ...(until ? { until } : {}),
    },
    names: { [personId]: person, [groupId]: group },
  };
}

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

const topics = (input: { personId: string; groupId: string }, vaults: string[]): Topic[] => [
  `person:${input.personId}`,
  `group:${input.groupId}`,
  "administrators",
  ...vaults.map((id): Topic => `vault:${id}`),
];

export const sooner = (a: number | null, b: number | null): number | null =>
  a === null ? b : b === null ? a : Math.min(a, b);

type Keeping = Pick<Context<unknown, Reader>, "tx" | "caller" | "role" | "at">;

/** Administrators and the group's keepers. */
export async function requireKeeper({ tx, caller, role, at }: Keeping, groupId: string) {
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

export const membersOf = (tx: Reader, groupId: string) =>
  tx
    .select()
    .from(memberships)
    .where(and(eq(memberships.groupId, groupId), isNull(memberships.validUntil)));

/** Keepers and administrators, for anybody but themselves where the group gives access. */
async function requireMembership(context: Keeping, of: { groupId: string; personId: string }) {
  const { group, vaults } = await requireKeeper(context, of.groupId);
  if (group.providerId !== null) throw new Refused("conflict", t.theProviderDecidesWhoIsInIt(group.name));
  if (of.personId === personIdOf(context.caller) && vaults.length > 0)
    throw new Refused("not-allowed", t.thisGroupGivesAccessSoYou);
  const [person] = await context.tx.select({ name: persons.name }).from(persons).where(eq(persons.id, of.personId));
  if (!person) throw notFound();
  const [now] = await context.tx.select({ id: memberships.id }).from(memberships).where(currentRow(of));
  return { group: group.name, until: group.until, person: person.name, vaults, was: now !== undefined };
}
type Allowed = Awaited<ReturnType<typeof requireMembership>>;

/** The same for a time that can be. */
async function requireChange(context: Keeping, held: Held): Promise<Allowed> {
  if (held.until !== null && held.until <= context.at) throw new Refused("bad-input", t.theEndDateIsInThePast, "until");
  if (held.from !== null && held.until !== null && held.until <= held.from)
    throw new Refused("bad-input", t.theEndDateMustBeAfterThe, "until");
  return requireMembership(context, held);
}

/** The stewards of every node that the group reaches are told of each change. */
export async function tellReached(
  tx: Transaction,
  groupId: string,
  says: (level: string, node: string) => string,
  at: number,
  except: string | null,
): Promise<void> {
  for (const { nodeId, level } of await nodesOfGroup(tx, groupId))
    await tellStewards(tx, [nodeId], (node) => says(levelWord(level as Given), node), at, except);
}

/** A deliberate change of groups must not leave a node that they reach without a steward. */
export async function keepStewards(
  { tx, at }: Pick<Context<unknown>, "tx" | "at">,
  groupIds: readonly string[],
  change: () => Promise<void>,
): Promise<void> {
  const reached = await tx
    .selectDistinct({ id: grants.nodeId })
    .from(grants)
    .where(and(inJson(grants.subjectId, [...groupIds]), isNull(grants.validUntil), eq(grants.level, "steward")));
  const unstewarded = async () => (await Promise.all(reached.map(({ id }) => withoutSteward(tx, id, at)))).flat();
  const before = new Set(await unstewarded());
  await change();
  const left = (await unstewarded()).find((id) => !before.has(id));
  if (left) throw new Refused("not-allowed", t.wouldBeLeftWithoutAStewardMake(await nodeName(tx, left)));
}
