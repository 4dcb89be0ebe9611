/** Groups. Membership is access: administrators and keepers change it, never their own. */
import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { type Given, isActive, levelWord } from "../../core/access";
import { nodeName } from "../access/nodeName";
import { withoutSteward } from "../access/stewards";
import { byName } from "../byName";
import { isAdministrator, personIdOf } from "../caller";
import { type Context, command, idSchema, instantSchema, nameSchema, none, query, type Topic } from "../command";
import type { Transaction } from "../database/client";
import { grants, groups, memberships, persons, places, standings } from "../database/schema";
import { uuidv7 } from "../ids";
import { notFound, Refused } from "../refused";
import { nodesOfGroup, tellStewards } from "./telling";

export const makeGroup = command({
  name: "people.makeGroup",
  input: z.strictObject({ name: nameSchema, description: z.string().trim().max(300).default("") }),
  by: ["person"],
  allow: async ({ tx, role, input }) => {
    if (!role || !isAdministrator(role)) throw new Refused("not-allowed", "An administrator makes groups.");
    const all = await tx.select({ name: groups.name }).from(groups);
    if (
      input.name.toLowerCase() === "everyone" ||
      all.some((group) => group.name.toLowerCase() === input.name.toLowerCase())
    )
      throw new Refused("conflict", "There is a group of this name already.", "name");
  },
  run: async ({ tx, input, at }) => {
    const groupId = uuidv7();
    await tx.insert(groups).values({ id: groupId, ...input, createdAt: at });
    return { groupId };
  },
  journal: ({ input, result }) => ({ subject: result.groupId, names: { [result.groupId]: input.name } }),
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
    if (input.until !== null && input.until <= at) throw new Refused("bad-input", "This end is in the past.", "until");
    if (input.from !== null && input.until !== null && input.until <= input.from)
      throw new Refused("bad-input", "It would end before it starts.", "until");
    return requireKeeper(context, input);
  },
  run: async (context) => {
    const { tx, input, at, commandId, caller, allowed } = context;
    await tellReached(
      tx,
      input.groupId,
      (level, node) => `${allowed.person} was put in ${allowed.group}, which has ${level} on ${node}.`,
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
  tell: ({ input, allowed }) => topics(input, allowed.vaults),
});

export const removeMember = command({
  name: "people.removeMember",
  input: z.strictObject(ofMember),
  by: ["person"],
  allow: (context) => requireKeeper(context, context.input),
  run: async (context) => {
    const { tx, input, at, caller, allowed } = context;
    await tellReached(
      tx,
      input.groupId,
      (level, node) => `${allowed.person} was taken out of ${allowed.group}, which has ${level} on ${node}.`,
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
      if (gone.length === 0) throw new Refused("conflict", "This person is not in the group any more.");
    });
  },
  journal: ({ input, allowed }) => ({
    subject: input.personId,
    details: { group: input.groupId },
    names: { [input.personId]: allowed.person, [input.groupId]: allowed.group },
  }),
  tell: ({ input, allowed }) => topics(input, allowed.vaults),
});

const topics = (input: { personId: string; groupId: string }, vaults: string[]): Topic[] => [
  `person:${input.personId}`,
  `group:${input.groupId}`,
  "administrators",
  ...vaults.map((id): Topic => `vault:${id}`),
];

async function requireKeeper(
  { tx, caller, role }: Pick<Context<unknown>, "tx" | "caller" | "role">,
  { groupId, personId }: { groupId: string; personId: string },
) {
  const me = personIdOf(caller)!;
  const [group] = await tx.select().from(groups).where(eq(groups.id, groupId));
  const [keeping] = await tx
    .select()
    .from(memberships)
    .where(
      and(
        eq(memberships.groupId, groupId),
        eq(memberships.personId, me),
        isNull(memberships.validUntil),
        eq(memberships.keeper, true),
      ),
    );
  if (!group) throw notFound();
  if (!(role && isAdministrator(role)) && !keeping)
    throw new Refused("not-allowed", "Administrators and the group's keepers change who is in it.");
  const reached = await tx
    .select({ vaultId: places.vaultId })
    .from(grants)
    .innerJoin(places, and(eq(places.nodeId, grants.nodeId), isNull(places.validUntil)))
    .where(and(eq(grants.subjectId, groupId), isNull(grants.validUntil)));
  if (personId === me && reached.length > 0)
    throw new Refused(
      "not-allowed",
      "This group gives access: nobody adds or removes themselves. Ask another administrator or keeper.",
    );
  const [person] = await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, personId));
  if (!person) throw notFound();
  return { group: group.name, person: person.name, vaults: [...new Set(reached.map((row) => row.vaultId))] };
}

/** The stewards of every node that the group reaches are told of each change. */
async function tellReached(
  tx: Transaction,
  groupId: string,
  says: (level: string, node: string) => string,
  at: number,
  but: string | null,
): Promise<void> {
  for (const { nodeId, level } of await nodesOfGroup(tx, groupId))
    await tellStewards(tx, [nodeId], (node) => says(levelWord(level as Given), node), at, but);
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
  const bare = async () => (await Promise.all(reached.map(({ id }) => withoutSteward(tx, id, at)))).flat();
  const before = new Set(await bare());
  await change();
  const left = (await bare()).find((id) => !before.has(id));
  if (left)
    throw new Refused(
      "not-allowed",
      `${await nodeName(tx, left)} would be left without a steward. Make somebody else its steward first, without an end.`,
    );
}

export const groupList = query({
  name: "people.groups",
  input: none,
  by: ["person"],
  allow: ({ role }) => {
    if (!role || role === "guest") throw notFound();
  },
  run: async ({ tx, caller, role, at }) => {
    const me = personIdOf(caller)!;
    const [all, held] = await Promise.all([
      tx.select().from(groups),
      tx
        .select({ membership: memberships, name: persons.name, standing: standings.standing })
        .from(memberships)
        .innerJoin(persons, eq(persons.id, memberships.personId))
        .innerJoin(standings, and(eq(standings.personId, persons.id), isNull(standings.validUntil)))
        .where(isNull(memberships.validUntil)),
    ]);
    const sees = (groupId: string) =>
      (role && isAdministrator(role)) ||
      held.some((row) => row.membership.groupId === groupId && row.membership.personId === me && row.membership.keeper);
    return all
      .filter((group) => sees(group.id))
      .map((group) => ({
        id: group.id,
        name: group.name,
        description: group.description,
        members: held
          .filter((row) => row.membership.groupId === group.id)
          .map(({ membership, name, standing }) => ({
            personId: membership.personId,
            name,
            standing,
            from: membership.from,
            until: membership.until,
            keeper: membership.keeper,
            now: isActive(membership, at),
          }))
          .sort(byName),
      }))
      .sort(byName);
  },
});
