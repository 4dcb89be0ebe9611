/** Somebody leaves: what ends with it, who looks after what they looked after alone, and what they have seen that still works. */
import { and, eq, gt, isNotNull, isNull, sql } from "drizzle-orm";
import { z } from "zod";
import { isLastingSteward } from "../../core/access";
import { loadSteps, requireLevel } from "../access/load";
import { nodeName } from "../access/nodeName";
import { loadByRole, loadPerson, type Person } from "../access/person";
import { concernedBy, distinctBelow } from "../access/stewards";
import { byName } from "../byName";
import { personIdOf } from "../caller";
import { command, idSchema, instantSchema, query, type Topic } from "../command";
import { inJson } from "../database/bulk";
import type { Reader, Transaction } from "../database/client";
import {
  grants,
  groups,
  handovers,
  lanyards,
  letterboxes,
  memberships,
  personStates,
  persons,
  providerAccounts,
  providers,
  sessions,
  signIns,
  vaults,
} from "../database/schema";
import { uuidv7 } from "../ids";
import { notFound, Refused } from "../refused";
import { requireConfirmed } from "../rules/confirming";
import { requireOther } from "./administrators";
import { endBelongings } from "./belongings";
import { knownBy, openChangeList } from "./changeLists";
import { endAll } from "./sessions";
import { isLastOwner, setStanding } from "./state";
import { leaving as t } from "./strings";
import { addNotice, tellingOwners, tellStewards, vaultsRevealedTo } from "./telling";

export interface Alone {
  nodeId: string;
  /** As far as the reader may know it. */
  what: string;
}

/** Nodes of which nobody else is a lasting steward; what is below one that is named and follows it is left out. */
async function aloneAt(tx: Reader, person: Person, at: number): Promise<string[]> {
  const held = await tx
    .select({ nodeId: grants.nodeId })
    .from(grants)
    .where(
      and(
        isNull(grants.validUntil),
        eq(grants.level, "steward"),
        inJson(grants.subjectId, [person.id, ...person.groups]),
      ),
    );
  const alone: string[] = [];
  for (const { nodeId } of held)
    for (const id of await distinctBelow(tx, nodeId)) {
      if (alone.includes(id)) continue;
      const { steps, path } = await loadSteps(tx, id);
      const concerned = await concernedBy(tx, [steps], at);
      const lasting = concerned.filter((one) => isLastingSteward({ ...one, until: one.ends }, steps, at));
      if (!lasting.some((one) => one.id === person.id) || lasting.some((one) => one.id !== person.id)) continue;
      // A new steward above is steward here as well, unless it stands apart.
      const above = path.slice(1).some((node) => alone.includes(node.id));
      if (!above || steps[0]?.separate) alone.push(id);
    }
  return alone;
}

/** What an administrator may know of a node: the name of a vault; of what is in it, only with a level there. */
async function whatOf(context: Parameters<typeof requireLevel>[0], nodeId: string): Promise<string> {
  const { path } = await loadSteps(context.tx, nodeId);
  const [node] = path;
  if (!node) return "";
  const vault = await nodeName(context.tx, node.vaultId);
  if (node.type === "vault") return vault;
  const known = await requireLevel(context, nodeId, "use").catch(() => null);
  if (known) return t.inVault(await nodeName(context.tx, nodeId), vault);
  return node.type === "folder" ? t.aFolderIn(vault) : t.anEntryIn(vault);
}

export const leavingPage = query({
  name: "people.leavingPage",
  input: z.strictObject({ personId: idSchema }),
  by: ["person"],
  offMainThread: true,
  allow: (context) => requireOther(context, context.input.personId),
  run: async (context) => {
    const { tx, input, me, at, allowed } = context;
    const { personId } = input;
    const person = await loadPerson(tx, personId, at);
    if (!person) throw notFound();
    const { standing, role, until, validFrom } = allowed.standing;
    const left = standing === "leaver";
    const count = async (rows: Promise<unknown[]>): Promise<number> => (await rows).length;
    const own = await tx
      .select({ nodeId: grants.nodeId })
      .from(grants)
      .where(and(eq(grants.subjectKind, "person"), eq(grants.subjectId, personId), isNull(grants.validUntil)));
    const inGroups = await tx
      .select({ id: groups.id, name: groups.name, keeper: memberships.keeper })
      .from(memberships)
      .innerJoin(groups, eq(groups.id, memberships.groupId))
      .where(and(eq(memberships.personId, personId), isNull(memberships.validUntil)));
    const ends = {
      sessions: await count(
        tx
          .select({ id: sessions.id })
          .from(sessions)
          .where(and(eq(sessions.personId, personId), isNull(sessions.endedAt), gt(sessions.expiresAt, at))),
      ),
      lanyards: await count(
        tx
          .select({ id: lanyards.id })
          .from(lanyards)
          .where(and(eq(lanyards.personId, personId), isNull(lanyards.endedAt), gt(lanyards.expiresAt, at))),
      ),
      sites: await count(
        tx
          .select({ id: signIns.id })
          .from(signIns)
          .where(and(eq(signIns.personId, personId), isNotNull(signIns.jar))),
      ),
      grants: own.length,
      groups: inGroups.map(({ name }) => name).sort(),
      handovers: await count(
        tx
          .select({ id: handovers.id })
          .from(handovers)
          .where(and(eq(handovers.makerId, personId), isNotNull(handovers.sealed), gt(handovers.expiresAt, at))),
      ),
      letterboxes: await count(
        tx
          .select({ id: letterboxes.id })
          .from(letterboxes)
          .where(
            and(
              eq(letterboxes.makerId, personId),
              isNull(letterboxes.closedAt),
              isNull(letterboxes.droppedAt),
              gt(letterboxes.expiresAt, at),
            ),
          ),
      ),
      accounts: (
        await tx
          .select({ name: providers.name })
          .from(providerAccounts)
          .innerJoin(providers, eq(providers.id, providerAccounts.providerId))
          .where(eq(providerAccounts.personId, personId))
      ).map(({ name }) => name),
      given: await count(
        tx
          .select({ id: grants.id })
          .from(grants)
          .where(and(eq(grants.givenBy, personId), isNull(grants.validUntil))),
      ),
    };
    const asking = { tx, me, at };
    const alone: Alone[] = [];
    if (!left)
      for (const nodeId of await aloneAt(tx, person, at)) alone.push({ nodeId, what: await whatOf(asking, nodeId) });
    const keeperAlone: { groupId: string; name: string }[] = [];
    for (const { id, name, keeper } of left ? [] : inGroups) {
      if (!keeper) continue;
      const [other] = await tx
        .select({ id: memberships.id })
        .from(memberships)
        .where(
          and(
            eq(memberships.groupId, id),
            isNull(memberships.validUntil),
            eq(memberships.keeper, true),
            sql`${memberships.personId} <> ${personId}`,
          ),
        )
        .limit(1);
      if (!other) keeperAlone.push({ groupId: id, name });
    }
    const known = await knownBy(asking, personId);
    const revealed = left ? [] : await vaultsRevealedTo(tx, personId, at);
    const told = await tx
      .select({ id: vaults.nodeId, name: vaults.name })
      .from(vaults)
      .where(inJson(vaults.nodeId, revealed));
    return {
      ...{ id: personId, name: allowed.person.name, mail: allowed.person.mail, role, standing, until },
      leftAt: left ? validFrom : null,
      erased: allowed.person.erasedAt !== null,
      lastOwner: role === "owner" && (await isLastOwner(tx, personId)),
      ...{ ends, alone, keeperAlone, known },
      toldVaults: told.map(({ name }) => name).sort(),
      had: left ? await hadBefore(tx, personId, validFrom, asking) : { grants: [], groups: [] },
    };
  },
});

/** What ended with leaving, to be given again as far as it is ticked. */
async function hadBefore(tx: Reader, personId: string, leftAt: number, asking: Parameters<typeof requireLevel>[0]) {
  const rows = await tx
    .select({ id: grants.id, nodeId: grants.nodeId, level: grants.level, until: grants.until })
    .from(grants)
    .where(and(eq(grants.subjectKind, "person"), eq(grants.subjectId, personId), eq(grants.validUntil, leftAt)));
  const held = await tx
    .select({ id: memberships.id, groupId: groups.id, name: groups.name, providerId: groups.providerId })
    .from(memberships)
    .innerJoin(groups, eq(groups.id, memberships.groupId))
    .where(and(eq(memberships.personId, personId), eq(memberships.validUntil, leftAt)));
  const known = [];
  for (const row of rows)
    known.push({ id: row.id, level: row.level, until: row.until, what: await whatOf(asking, row.nodeId) });
  return {
    grants: known.filter(({ what }) => what !== ""),
    groups: held
      .filter(({ providerId }) => providerId === null)
      .map(({ id, name }) => ({ id, name }))
      .sort(byName),
  };
}

const successor = z.strictObject({ nodeId: idSchema, personId: idSchema.nullable() });

const keeper = z.strictObject({ groupId: idSchema, personId: idSchema.nullable() });

/**
 * At once or on a date. Where something would have no steward or keeper the namer says who takes over, or that nobody
 * does; it gives the namer nothing.
 */
export const markLeaver = command({
  name: "people.markLeaver",
  input: z.strictObject({
    personId: idSchema,
    why: z.string().trim().max(300).default(""),
    /** All of their access ends then; null for now. */
    until: instantSchema.default(null),
    successors: z.array(successor).max(200).default([]),
    keepers: z.array(keeper).max(200).default([]),
    /** When the passwords that they have seen are to be changed; null for within a week. */
    changeBy: instantSchema.default(null),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, caller, at } = context;
    const found = await requireOther(context, input.personId);
    if (found.standing.standing === "leaver") throw new Refused("conflict", t.alreadyLeft);
    if (found.standing.role === "owner" && (await isLastOwner(tx, input.personId)))
      throw new Refused("not-allowed", t.lastOwner);
    if (input.until !== null && input.until <= at) throw new Refused("bad-input", t.endIsPast, "until");
    if (input.changeBy !== null && input.changeBy <= at) throw new Refused("bad-input", t.endIsPast, "changeBy");
    const person = await loadPerson(tx, input.personId, at);
    if (!person) throw notFound();
    const alone = await aloneAt(tx, person, at);
    const said = new Map(input.successors.map((one) => [one.nodeId, one.personId]));
    if (alone.some((id) => !said.has(id)) || [...said.keys()].some((id) => !alone.includes(id)))
      throw new Refused("conflict", t.successorsChanged, "successors");
    const names = new Map<string, string>();
    for (const id of [...said.values(), ...input.keepers.map((one) => one.personId)]) {
      if (id === null || names.has(id)) continue;
      const next = await loadPerson(tx, id, at);
      if (next?.standing !== "active" || next.guest || id === input.personId || next.ends !== null)
        throw new Refused("bad-input", t.activeStaffOnly, "successors");
      if (id === personIdOf(caller)) throw new Refused("not-allowed", t.notYourself, "successors");
      names.set(id, next.name);
    }
    if (input.successors.some((one) => one.personId !== null)) await requireConfirmed(context, "steward");
    return { ...found, names, vaultIds: await vaultsRevealedTo(tx, input.personId, at) };
  },
  run: async ({ tx, input, caller, me, at, commandId, allowed }) => {
    const { personId } = input;
    const { person, standing, names, vaultIds } = allowed;
    const named: { nodeId: string; node: string; vaultId: string; personId: string; name: string }[] = [];
    for (const one of input.successors) {
      if (one.personId === null) continue;
      const { path } = await loadSteps(tx, one.nodeId);
      const node = await nodeName(tx, one.nodeId);
      // An own lower say on the node would win over it.
      const before = and(
        eq(grants.nodeId, one.nodeId),
        eq(grants.subjectKind, "person"),
        eq(grants.subjectId, one.personId),
        isNull(grants.validUntil),
      );
      await tx.update(grants).set({ validUntil: at }).where(before);
      await tx.insert(grants).values({
        ...{ id: uuidv7(), nodeId: one.nodeId, subjectKind: "person", subjectId: one.personId, level: "steward" },
        ...{ from: null, until: null, why: t.follows(person.name), givenBy: me.id, validFrom: at, commandId },
      });
      const next = names.get(one.personId) ?? "";
      const text = t.isStewardNow(next, person.name, me.name);
      await tellStewards(
        tx,
        path.map(({ id }) => id),
        (what) => text(what),
        at,
        me.id,
      );
      named.push({ nodeId: one.nodeId, node, vaultId: path[0]!.vaultId, personId: one.personId, name: next });
    }
    if (named.length > 0)
      for (const owner of await loadByRole(tx, ["owner"], at))
        if (owner.standing === "active" && owner.id !== me.id)
          await addNotice(tx, {
            to: owner.id,
            at,
            sort: "watch",
            text: t.ownersRead(me.name, person.name, named.length),
          });
    for (const one of input.keepers)
      if (one.personId !== null) await makeKeeper(tx, one.groupId, one.personId, at, commandId);
    const told = new Set([personIdOf(caller)]);
    if (input.until === null) {
      await endAll(tx, personId, at, personIdOf(caller), input.why || t.accessEnded);
      await tellingOwners(tx, personId, person.name, at, async () => {
        await setStanding(tx, personId, { role: standing.role, standing: "leaver", until: null }, at, commandId);
        await endBelongings(tx, personId, at);
      });
      const list = { person, sort: "left", why: input.why, dueAt: input.changeBy, by: me.id, at } as const;
      for (const id of (await openChangeList(tx, list)) ?? []) told.add(id);
    } else
      await setStanding(
        tx,
        personId,
        { role: standing.role, standing: standing.standing, until: input.until },
        at,
        commandId,
      );
    // Who has something to change knows it by that.
    await tellStewards(tx, vaultIds, (vault) => t.leaves(person.name, vault), at, told);
    return { named };
  },
  journal: ({ input, allowed, result }) => [
    {
      subject: input.personId,
      details: { why: input.why, ...(input.until !== null && { until: input.until }) },
      names: { [input.personId]: allowed.person.name },
    },
    ...result.named.map((one) => ({
      node: one.nodeId,
      vault: one.vaultId,
      subject: one.personId,
      details: { follows: allowed.person.name },
      names: { [one.nodeId]: one.node, [one.personId]: one.name },
    })),
  ],
  says: ({ details, subject, place, until, why }) =>
    details.follows
      ? `named ${subject} as steward${place("of")}, after ${details.follows}`
      : until
        ? `set ${subject} to leave${until}${why}`
        : `marked ${subject} as a leaver${why}`,
  tell: ({ input, result, allowed }): Topic[] => [
    `person:${input.personId}`,
    "administrators",
    "everyone",
    ...[...new Set([...allowed.vaultIds, ...result.named.map(({ vaultId }) => vaultId)])].map(
      (id): Topic => `vault:${id}`,
    ),
    ...result.named.map(({ personId }): Topic => `person:${personId}`),
  ],
});

async function makeKeeper(
  tx: Transaction,
  groupId: string,
  personId: string,
  at: number,
  commandId: string,
): Promise<void> {
  const own = and(eq(memberships.groupId, groupId), eq(memberships.personId, personId), isNull(memberships.validUntil));
  const [now] = await tx.select().from(memberships).where(own);
  // Who is not in it does not come in by this: that would be access.
  if (!now) throw new Refused("bad-input", t.keepersAreMembers, "keepers");
  await tx.update(memberships).set({ validUntil: at }).where(own);
  await tx.insert(memberships).values({ ...now, id: uuidv7(), keeper: true, validFrom: at, commandId });
}

/** Who could keep a group: its active members. */
export const groupKeepers = query({
  name: "people.groupKeepers",
  input: z.strictObject({ groupId: idSchema }),
  by: ["person"],
  allow: async ({ tx, role, input }) => {
    if (role !== "owner" && role !== "administrator") throw new Refused("not-allowed", t.administratorsOnly);
    const [group] = await tx.select({ id: groups.id }).from(groups).where(eq(groups.id, input.groupId));
    if (!group) throw notFound();
  },
  run: async ({ tx, input }) => {
    const rows = await tx
      .select({ id: persons.id, name: persons.name })
      .from(memberships)
      .innerJoin(persons, eq(persons.id, memberships.personId))
      .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
      .where(
        and(
          eq(memberships.groupId, input.groupId),
          isNull(memberships.validUntil),
          eq(personStates.standing, "active"),
        ),
      )
      .limit(500);
    return rows.sort(byName);
  },
});
