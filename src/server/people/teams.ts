/** Somebody changes teams: groups they leave and groups they join, at one moment, with what they have before and after. */
import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { LEVELS, type Level, whoAt } from "../../core/access";
import { idSchema, query } from "../command";
import { inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { entries, groups, memberships, vaults } from "../database/schema";
import { notFound, Refused } from "../refused";
import { requireOther } from "./administrators";
import { teams as t } from "./strings";

/** Entries by the level on them. */
export type ByLevel = Record<Level, number>;

export interface TeamsVault {
  id: string;
  name: string;
  before: ByLevel;
  after: ByLevel;
}

export const teamsPage = query({
  name: "people.teamsPage",
  input: z.strictObject({ personId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const found = await requireOther(context, context.input.personId);
    if (found.standing.standing === "leaver") throw new Refused("conflict", t.reinstateFirst);
    return found;
  },
  run: async ({ tx, input, allowed }) => {
    const held = await tx
      .select({
        ...{ id: groups.id, name: groups.name, provider: groups.providerId, keeper: memberships.keeper },
        ...{ from: memberships.from, until: memberships.until },
      })
      .from(memberships)
      .innerJoin(groups, eq(groups.id, memberships.groupId))
      .where(and(eq(memberships.personId, input.personId), isNull(memberships.validUntil)));
    return {
      id: input.personId,
      name: allowed.person.name,
      groups: held
        .map(({ provider, ...group }) => ({ ...group, byProvider: provider !== null }))
        .sort((a, b) => a.name.localeCompare(b.name)),
    };
  },
});

/**
 * What a person has at a moment, as it is and with other groups, by vault: administrators know the names of vaults, and
 * of nothing in them.
 */
export const teamsPreview = query({
  name: "people.teamsPreview",
  input: z.strictObject({
    personId: idSchema,
    leave: z.array(idSchema).max(100),
    join: z.array(idSchema).max(100),
    /** Null for now. */
    when: z.number().int().nullable(),
  }),
  by: ["person"],
  offMainThread: true,
  allow: (context) => requireOther(context, context.input.personId),
  run: async ({ tx, input, at }): Promise<TeamsVault[]> => {
    const index = tx.access;
    const then = Math.max(input.when ?? at, at);
    const person = index?.person(input.personId);
    if (!index || !person) throw notFound();
    // What they would have once they have joined counts, too, for somebody who has not joined yet.
    const who = whoAt({ ...person, standing: "active", until: null }, then);
    const groupIds = new Set([...who.groups].filter((id) => !input.leave.includes(id)));
    for (const id of input.join) groupIds.add(id);
    const [before, after] = [index.reachedBy(who, then), index.reachedBy({ ...who, groups: groupIds }, then)];
    const used = await inUse(tx, [...new Set([...before.keys(), ...after.keys()])]);
    const found = new Map<string, { before: ByLevel; after: ByLevel }>();
    for (const [side, reached] of [
      ["before", before],
      ["after", after],
    ] as const)
      for (const [id, level] of reached) {
        const vaultId = used.has(id) ? index.node(id)?.vaultId : undefined;
        if (vaultId === undefined) continue;
        const counted = found.get(vaultId) ?? { before: none(), after: none() };
        counted[side][level] += 1;
        found.set(vaultId, counted);
      }
    const names = await tx
      .select({ id: vaults.nodeId, name: vaults.name })
      .from(vaults)
      .where(inJson(vaults.nodeId, [...found.keys()]));
    return names.map(({ id, name }) => ({ id, name, ...found.get(id)! })).sort((a, b) => a.name.localeCompare(b.name));
  },
});

const none = (): ByLevel => Object.fromEntries(LEVELS.map((level) => [level, 0])) as ByLevel;

/** Of some nodes, the entries that are neither in the bin nor set aside. */
export async function inUse(tx: Reader, ids: string[]): Promise<ReadonlySet<string>> {
  const rows = await tx
    .select({ id: entries.nodeId })
    .from(entries)
    .where(and(inJson(entries.nodeId, ids), isNull(entries.binnedAt), isNull(entries.asideAt)));
  return new Set(rows.map(({ id }) => id));
}
