/** Groups: created, renamed, ended, deleted. Who is in them is in members.ts. */

import { eq } from "drizzle-orm";
import { z } from "zod";
import { sayDate } from "../../core/time";
import { isAdministrator, personIdOf } from "../caller";
import { command, idSchema, instantSchema, nameSchema, type Topic } from "../command";
import type { Reader } from "../database/client";
import { groups, memberships } from "../database/schema";
import { uuidv7 } from "../ids";
import { timeZone } from "../organisation";
import { Refused } from "../refused";
import { requireMaker } from "../rules/rules";
import { keepStewards, membersOf, requireKeeper, sooner, tellReached } from "./members";
import { groups as t } from "./strings";

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
    await keepStewards(context, [group.id], async () => {
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
