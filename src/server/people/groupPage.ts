/** Groups as they are looked at: all that one may know of, and one with who is in it and what it gives. */
import { and, eq, isNull, sql } from "drizzle-orm";
import { z } from "zod";
import { type Given, isActive, rank, type Weekly } from "../../core/access";
import { resolveAt } from "../access/load";
import { nodeName } from "../access/nodeName";
import { type Person, standingAt } from "../access/person";
import { byName, sortByName } from "../byName";
import { isAdministrator, readsAll } from "../caller";
import { idSchema, query } from "../command";
import type { Reader } from "../database/client";
import { grants, groups, memberships, personStates, persons, places } from "../database/schema";
import { notFound } from "../refused";

const loadHeld = (tx: Reader, groupId: string, at: number) =>
  tx
    .select({ membership: memberships, name: persons.name, standing: standingAt(at) })
    .from(memberships)
    .innerJoin(persons, eq(persons.id, memberships.personId))
    .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
    .where(and(eq(memberships.groupId, groupId), isNull(memberships.validUntil)));

/** Those that the caller may change: administrators all, keepers theirs. */
/** Groups that stand on the page at first; all of them are one link away. */
const GROUPS_AT_FIRST = 20;

export const groupList = query({
  name: "people.groupList",
  input: z.strictObject({ all: z.boolean().default(false) }),
  by: ["person"],
  allow: ({ role }) => {
    if (!role || role === "guest") throw notFound();
  },
  run: async ({ tx, input, me, role }) => {
    const every = role && readsAll(role) ? 1 : 0;
    const named = await tx.all<{ id: string; name: string }>(sql`
      select g.id as id, g.name as name from groups g where ${every} or exists (select 1 from memberships m
        where m.group_id = g.id and m.person_id = ${me.id} and m.valid_until is null and m.keeper)`);
    const wanted = sortByName(named).slice(0, input.all ? named.length : GROUPS_AT_FIRST);
    const found = await tx.all<{
      id: string;
      name: string;
      description: string;
      until: number | null;
      members: number;
      keepers: string;
    }>(sql`
      select g.id as id, g.name as name, g.description as description, g.until_at as until,
        (select count(*) from memberships m where m.group_id = g.id and m.valid_until is null) as members,
        (select json_group_array(p.name) from memberships m join persons p on p.id = m.person_id
          where m.group_id = g.id and m.valid_until is null and m.keeper) as keepers
      from groups g where g.id in (select value from json_each(${JSON.stringify(wanted.map(({ id }) => id))}))`);
    const groups = found.map((group) => ({ ...group, keepers: (JSON.parse(group.keepers) as string[]).sort() }));
    return { groups: sortByName(groups), count: named.length };
  },
});

export interface GroupGives {
  grantId: string;
  /** Null where the reader may not open it. */
  link: string | null;
  what: string;
  level: Given;
  from: number | null;
  until: number | null;
  weekly: Weekly | null;
}

/**
 * One group: its keepers to whoever is in it; who is in it to keepers, administrators and the stewards of what it
 * reaches; what it gives as far as each may know of it.
 */
export const groupPage = query({
  name: "people.groupPage",
  input: z.strictObject({ groupId: idSchema }),
  by: ["person"],
  allow: async ({ tx, input, me, at }) => {
    const [group] = await tx.select().from(groups).where(eq(groups.id, input.groupId));
    if (!group || me.guest) throw notFound();
    const held = await loadHeld(tx, group.id, at);
    const own = held.find((row) => row.membership.personId === me.id && isActive(row.membership, at));
    const given = await tx
      .select({ grant: grants, vaultId: places.vaultId })
      .from(grants)
      .innerJoin(places, and(eq(places.nodeId, grants.nodeId), isNull(places.validUntil)))
      .where(and(eq(grants.subjectKind, "group"), eq(grants.subjectId, group.id), isNull(grants.validUntil)));
    const levels = new Map<string, Awaited<ReturnType<typeof resolveAt>>>();
    for (const { grant } of given) levels.set(grant.nodeId, await resolveAt(tx, me, grant.nodeId, at));
    const stewards = [...levels.values()].some((found) => found?.resolution.level === "steward");
    const changes = isAdministrator(me.role) || (own?.membership.keeper ?? false);
    const reads = me.role === "auditor";
    if (!changes && !stewards && !own && !reads) throw notFound();
    return {
      group,
      held,
      given,
      levels,
      changes,
      seesAll: changes || stewards || reads,
      keeps: own?.membership.keeper ?? false,
    };
  },
  run: async ({ tx, me, at, allowed }) => {
    const { group, held, given, levels, changes, seesAll, keeps } = allowed;
    const gives: GroupGives[] = [];
    for (const { grant, vaultId } of given) {
      const found = levels.get(grant.nodeId) ?? null;
      const what = await wordFor(tx, me, { nodeId: grant.nodeId, vaultId, found, keeps });
      if (what === null) continue;
      const { id: grantId, level, from, until, weekly } = grant;
      gives.push({ grantId, ...what, level, from, until, weekly });
    }
    return {
      id: group.id,
      name: group.name,
      description: group.description,
      until: group.until,
      changes,
      deletes: isAdministrator(me.role) && held.length === 0 && given.length === 0,
      keepers: held
        .filter(({ membership }) => membership.keeper)
        .map(({ name }) => name)
        .sort(),
      members: seesAll
        ? held
            .map(({ membership, name, standing }) => ({
              personId: membership.personId,
              name,
              standing,
              from: membership.from,
              until: membership.until,
              keeper: membership.keeper,
              now: isActive(membership, at),
            }))
            .sort(byName)
        : null,
      gives: gives.sort((a, b) => weight(b.level) - weight(a.level) || a.what.localeCompare(b.what)),
    };
  },
});

const weight = (level: Given): number => (level === "blocked" ? 0 : rank(level));

interface OnNode {
  nodeId: string;
  vaultId: string;
  found: Awaited<ReturnType<typeof resolveAt>>;
  keeps: boolean;
}

/** What a grant is on, in words for this reader; null where they may not know of it. */
async function wordFor(
  tx: Reader,
  me: Person,
  { nodeId, vaultId, found, keeps }: OnNode,
): Promise<{ what: string; link: string | null } | null> {
  const type = found?.path[0]?.type;
  if (!type) return null;
  const reaches = found.resolution.level !== "none";
  if (me.role === "auditor") return { what: await nodeName(tx, nodeId), link: null };
  if (reaches || keeps) {
    const link = !reaches ? null : type === "entry" ? `/entry/${nodeId}` : `/vaults/${vaultId}`;
    return { what: await nodeName(tx, nodeId), link };
  }
  if (!isAdministrator(me.role)) return null;
  const vault = await nodeName(tx, vaultId);
  const what = type === "vault" ? vault : type === "folder" ? `a folder in ${vault}` : `an entry in ${vault}`;
  return { what, link: null };
}
