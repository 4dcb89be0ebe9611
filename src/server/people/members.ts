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
import { requireConfirmed } from "../rules/confirming";
import { groups as t } from "./strings";
import { nodesOfGroup, tellingOwners, tellStewards } from "./telling";

const ofMember = { groupId: idSchema, personId: idSchema };

const termsSchema = z.strictObject({
  from: instantSchema.default(null),
  until: instantSchema.default(null),
  keeper: z.boolean().default(false),
});
type Terms = z.output<typeof termsSchema>;

/** A person comes into a group or stays in it on these terms; `null`: they leave it. */
interface Change {
  groupId: string;
  personId: string;
  held: Terms | null;
}

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
  input: termsSchema.extend(ofMember),
  by: ["person"],
  allow: (context) => {
    const { groupId, personId, ...held } = context.input;
    return requireChanges(context, [{ groupId, personId, held }], alone);
  },
  run: (context) => apply(context, context.allowed, alone),
  journal: ({ allowed }) => allowed.map(lineOf),
  says: sayMember,
  tell: ({ allowed }) => topicsOf(allowed),
});

export const removeMember = command({
  name: "people.removeMember",
  input: z.strictObject(ofMember),
  by: ["person"],
  allow: (context) => requireChanges(context, [{ ...context.input, held: null }], alone),
  run: (context) => apply(context, context.allowed, alone),
  journal: ({ allowed }) => allowed.map(lineOf),
  says: sayMember,
  tell: ({ allowed }) => topicsOf(allowed),
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
      .array(z.strictObject({ ...ofMember, held: termsSchema.nullable() }))
      .min(1)
      .max(MOST_MEMBERS),
  }),
  by: ["person"],
  allow: (context) => requireChanges(context, context.input.changes, atLine),
  run: (context) => apply(context, context.allowed, atLine),
  journal: ({ allowed }) => allowed.map(lineOf),
  says: sayMember,
  tell: ({ allowed }) => topicsOf(allowed),
});

type AtLine = <R>(line: number, act: () => Promise<R>) => Promise<R>;

const alone: AtLine = (_, act) => act();

/** Refusals of one of many name it. */
const atLine: AtLine = async (line, act) => {
  try {
    return await act();
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    throw new Refused(error.code, error.message, `changes.${line}.${error.field ?? "personId"}`, error.data);
  }
};

/** A change that may be made, with the names and the state that it starts from. */
interface Allowed {
  change: Change;
  person: string;
  group: Awaited<ReturnType<typeof requireKeeper>>["group"];
  vaults: string[];
  /** Whether the person is in the group before the change. */
  was: boolean;
}

/** Keepers and administrators, for anybody but themselves where the group gives access. */
async function requireChanges(context: Keeping, changes: readonly Change[], at: AtLine): Promise<Allowed[]> {
  const kept = new Map<string, Awaited<ReturnType<typeof requireKeeper>>>();
  const allowed: Allowed[] = [];
  for (const [line, change] of changes.entries())
    await at(line, async () => {
      requireTime(context, change.held);
      const keeper = kept.get(change.groupId) ?? (await requireKeeper(context, change.groupId));
      kept.set(change.groupId, keeper);
      const { group, vaults, asSteward } = keeper;
      if (group.providerId !== null) throw new Refused("conflict", t.theProviderDecidesWhoIsInIt(group.name));
      if (change.personId === personIdOf(context.caller) && vaults.length > 0)
        throw new Refused("not-allowed", t.thisGroupGivesAccessSoYou);
      const [person] = await context.tx
        .select({ name: persons.name })
        .from(persons)
        .where(eq(persons.id, change.personId));
      if (!person) throw notFound();
      const [now] = await context.tx.select({ id: memberships.id }).from(memberships).where(currentRow(change));
      if (asSteward && change.held !== null && !now) await requireConfirmed(context, "steward");
      allowed.push({ change, person: person.name, group, vaults, was: now !== undefined });
    });
  return allowed;
}

function requireTime({ at }: Keeping, held: Terms | null): void {
  if (held === null || held.until === null) return;
  if (held.until <= at) throw new Refused("bad-input", t.theEndDateIsInThePast, "until");
  if (held.from !== null && held.until <= held.from)
    throw new Refused("bad-input", t.theEndDateMustBeAfterThe, "until");
}

/** Stewards read one notice for each group and kind of change, however many people it is about. */
const NOTICES = [
  { of: ({ change, was }: Allowed) => change.held !== null && !was, says: t.wereAddedTo },
  { of: ({ change, was }: Allowed) => change.held !== null && was, says: t.wereChangedIn },
  { of: ({ change }: Allowed) => change.held === null, says: t.wereRemovedFrom },
];

async function apply(context: Context<unknown>, allowed: readonly Allowed[], atLine: AtLine): Promise<void> {
  const { tx, at, caller } = context;
  const groups = [...new Map(allowed.map(({ group }) => [group.id, group])).values()];
  for (const group of groups)
    for (const { of, says } of NOTICES) {
      const those = allowed.filter((one) => one.group.id === group.id && of(one));
      if (those.length === 0) continue;
      const names = those.map(({ person }) => person);
      await tellReached(tx, group.id, (level, node) => says(names, group.name, level, node), at, personIdOf(caller));
    }
  await keepStewards(
    context,
    groups.map(({ id }) => id),
    async () => {
      for (const [line, one] of allowed.entries()) await atLine(line, () => set(context, one));
    },
  );
}

const currentRow = ({ groupId, personId }: { groupId: string; personId: string }) =>
  and(eq(memberships.groupId, groupId), eq(memberships.personId, personId), isNull(memberships.validUntil));

/** In the group from now on as it is said, never longer than the group itself lasts; or out of it. */
async function set(
  { tx, at, commandId }: Context<unknown>,
  { change: { groupId, personId, held }, group }: Allowed,
): Promise<void> {
  const of = { groupId, personId };
  const gone = await tx.update(memberships).set({ validUntil: at }).where(currentRow(of)).returning();
  if (held === null) {
    if (gone.length === 0) throw new Refused("conflict", t.thisPersonIsNoLongerInThe);
    return;
  }
  const until = sooner(held.until, group.until);
  await tx.insert(memberships).values({ id: uuidv7(), ...of, ...held, until, validFrom: at, commandId });
}

/** The Journal's line of one change; without a word of keepers, of a person who left. */
function lineOf({ change: { groupId, personId, held }, person, group, was }: Allowed) {
  return {
    subject: personId,
    details: {
      group: groupId,
      ...(held && { keeper: held.keeper, was }),
      ...(held?.from ? { from: held.from } : {}),
      ...(held?.until ? { until: held.until } : {}),
    },
    names: { [personId]: person, [groupId]: group.name },
  };
}

const topicsOf = (allowed: readonly Allowed[]): Topic[] => [
  ...new Set(
    allowed.flatMap(({ change: { groupId, personId }, vaults }): Topic[] => [
      `person:${personId}`,
      `group:${groupId}`,
      "administrators",
      ...vaults.map((id): Topic => `vault:${id}`),
    ]),
  ),
];

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
  const own = currentRow({ groupId, personId });
  const [now] = await tx.select().from(memberships).where(own);
  if ((now !== undefined) === member) return null;
  const says = member ? t.wereAddedTo : t.wereRemovedFrom;
  await tellReached(tx, groupId, (level, node) => says([person.name], group.name, level, node), at, null);
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

export const sooner = (a: number | null, b: number | null): number | null =>
  a === null ? b : b === null ? a : Math.min(a, b);

type Keeping = Pick<Context<unknown, Reader>, "tx" | "caller" | "role" | "at">;

/** Administrators and the group's keepers. */
export async function requireKeeper({ tx, caller, role, at }: Keeping, groupId: string) {
  const [group] = await tx.select().from(groups).where(eq(groups.id, groupId));
  if (!group) throw notFound();
  const personId = personIdOf(caller);
  const [own] = personId ? await tx.select().from(memberships).where(currentRow({ groupId, personId })) : [];
  if (!(role && isAdministrator(role)) && !(own?.keeper && isActive(own, at)))
    throw new Refused("not-allowed", t.onlyAdministratorsAndTheGroups);
  const reached = await tx
    .select({ vaultId: places.vaultId, level: grants.level })
    .from(grants)
    .innerJoin(places, and(eq(places.nodeId, grants.nodeId), isNull(places.validUntil)))
    .where(and(eq(grants.subjectId, groupId), isNull(grants.validUntil)));
  return {
    group,
    inIt: own !== undefined,
    vaults: [...new Set(reached.map((row) => row.vaultId))],
    /** The group has Steward on something. */
    asSteward: reached.some(({ level }) => level === "steward"),
  };
}

export const membersOf = (tx: Reader, groupId: string) =>
  tx
    .select()
    .from(memberships)
    .where(and(eq(memberships.groupId, groupId), isNull(memberships.validUntil)));

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
