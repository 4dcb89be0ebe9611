/**
 * What the access grid of a vault is drawn from: its nodes, grants and people, as far as the reader is steward. The
 * cells are worked out where they are seen, by the same walk, so that nothing waits and nothing stands in memory that
 * is not on the screen.
 */

import { eq, sql } from "drizzle-orm";
import { z } from "zod";
import { atLeast, Lookup, type Member, type Weekly } from "../../core/access";
import { type Packed, pack } from "../../core/packed";
import { byName } from "../byName";
import { idSchema, none, query } from "../command";
import { bulk, inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { groups, type NodeType, vaults } from "../database/schema";
import { timeZone } from "../organisation";
import { notFound } from "../refused";
import { reachOf } from "./load";
import { loadOrganised, type OrganisedVaults } from "./organised";
import { peopleNames } from "./peopleNames";
import { openRound } from "./rounds/openRound";

export interface GridNode {
  id: string;
  parent: string | null;
  type: NodeType;
  name: string;
  separate: boolean;
  /** The reader is steward of it. Others are on the way down to those, and only named. */
  mine: boolean;
}

export interface GridGrant {
  id: string;
  node: string;
  kind: "person" | "group" | "everyone";
  subjectId: string;
  level: "use" | "reveal" | "edit" | "steward" | "blocked";
  from: number | null;
  until: number | null;
  weekly: Weekly | null;
  why: string;
  by: string;
  since: number;
}

export interface GridPerson {
  auditor: boolean;
  id: string;
  name: string;
  guest: boolean;
  standing: Member["standing"];
  until: number | null;
}

export interface GridMembership {
  personId: string;
  groupId: string;
  from: number | null;
  until: number | null;
}

export interface GridModel {
  vault: { id: string; name: string };
  /** The reader is an auditor: sees all of it, and changes nothing. */
  reads: boolean;
  /** The reader is steward of the vault itself: makes its rounds. */
  rounds: boolean;
  /** One is under way that the reader may answer. */
  round: boolean;
  zone: string;
  /** Number of active members of staff. */
  staff: number;
  /** A moment that is over: the rows are those that held then, of what the reader is steward of today. */
  past: number | null;
  nodes: Packed<GridNode>;
  grants: Packed<GridGrant>;
  people: Packed<GridPerson>;
  memberships: Packed<GridMembership>;
  groups: { id: string; name: string; until: number | null }[];
}

/** Vaults in which the caller is steward of something. */
export const gridVaults = query({
  name: "access.gridVaults",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at }) => {
    const { levels, node } = reachOf(tx, me, at);
    const mine = new Set<string>();
    for (const [id, level] of levels) if (level === "steward") mine.add(node(id)!.vaultId);
    if (me.role === "auditor") for (const id of tx.access!.vaultIds) mine.add(id);
    const rows = await tx
      .select({ id: vaults.nodeId, name: vaults.name })
      .from(vaults)
      .where(inJson(vaults.nodeId, [...mine]));
    return rows.sort(byName);
  },
});

export const accessGrid = query({
  name: "access.accessGrid",
  input: z.strictObject({
    vaultId: idSchema,
    at: z.number().int().min(0).nullable().default(null),
    /** With every person and group there is, not only those that a grant concerns. */
    everybody: z.boolean().default(false),
  }),
  by: ["person"],
  offMainThread: true,
  allow: () => undefined,
  run: async ({ tx, me, input, at }): Promise<GridModel> => {
    const [vault] = await tx.select().from(vaults).where(eq(vaults.nodeId, input.vaultId));
    const now = await loadOrganised(tx, [input.vaultId]);
    const mine = new Set<string>();
    for (const [node, level] of tx.access!.reachedIn(input.vaultId, me.id, at))
      if (level === "steward") mine.add(node.id);
    // An auditor reads what its stewards read, and changes nothing.
    const reads = me.role === "auditor";
    if (reads) for (const { id } of now.nodes) mine.add(id);
    if (!vault || mine.size === 0) throw notFound();
    const then = input.at !== null && input.at < at ? input.at : null;
    const shown = then === null ? now : await loadOrganised(tx, [input.vaultId], then);
    const names = await namesIn(tx, input.vaultId);
    const visible = withAbove(shown, mine);
    const zone = await timeZone(tx);
    const rows = shown.rows.filter((row) => visible.has(row.nodeId));
    const said = new Set(rows.filter((row) => row.subjectKind === "group").map((row) => row.subjectId));
    const giver = await peopleNames(
      tx,
      me,
      rows.map((row) => row.givenBy),
    );
    // Whoever has a column at first: named by a grant, or in a group that one names. Others come when they are looked for.
    const named = new Set(rows.map((row) => row.subjectId));
    const people = shown.people.filter(
      ({ id, standing, held }) =>
        standing !== "leaver" &&
        (input.everybody || id === me.id || named.has(id) || held.some(({ groupId }) => said.has(groupId))),
    );
    return {
      vault: { id: vault.nodeId, name: vault.name },
      staff: tx.access!.staff(at).size,
      reads,
      rounds: mine.has(vault.nodeId),
      round: then === null && mine.has(vault.nodeId) && (await openRound(tx, input.vaultId)) !== undefined,
      zone,
      past: then,
      nodes: pack(
        shown.nodes
          .filter(({ id }) => visible.has(id) && (names.has(id) || id === vault.nodeId))
          .map(({ id, parent, type, separate }) => ({
            id,
            parent,
            type,
            name: names.get(id) ?? vault.name,
            separate,
            mine: mine.has(id),
          })),
      ),
      grants: pack(
        rows.map((row) => ({
          id: row.id,
          node: row.nodeId,
          kind: row.subjectKind,
          subjectId: row.subjectId,
          level: row.level,
          from: row.from,
          until: row.until,
          weekly: row.weekly,
          why: row.why,
          by: giver(row.givenBy),
          since: row.validFrom,
        })),
      ),
      people: pack(
        people
          .map(({ id, guest, auditor, standing, until }) => ({
            ...{ id, guest, auditor: auditor ?? false, standing, name: tx.access!.person(id)?.name ?? "" },
            until: until ?? null,
          }))
          .sort(byName),
      ),
      memberships: pack(
        people.flatMap(({ id, held }) =>
          held
            .filter(({ groupId }) => input.everybody || said.has(groupId))
            .map(({ groupId, from, until }) => ({ personId: id, groupId, from, until })),
        ),
      ),
      groups: (
        await tx
          .select({ id: groups.id, name: groups.name, until: groups.until })
          .from(groups)
          .where(input.everybody ? undefined : inJson(groups.id, [...said]))
      ).sort(byName),
    };
  },
});

/** What a person is steward of now. */
export function nodesOfSteward(organised: OrganisedVaults, personId: string, at: number): Set<string> {
  const lookup = new Lookup(organised);
  const me = lookup.person.get(personId);
  if (!me) return new Set();
  return new Set(organised.nodes.filter(({ id }) => atLeast(lookup.level(me, id, at), "steward")).map(({ id }) => id));
}

function withAbove({ nodes }: OrganisedVaults, mine: ReadonlySet<string>): Set<string> {
  const byId = new Map(nodes.map((node) => [node.id, node]));
  const visible = new Set<string>();
  for (const id of mine)
    for (let up = byId.get(id); up && !visible.has(up.id); up = up.parent === null ? undefined : byId.get(up.parent))
      visible.add(up.id);
  return visible;
}

/** Entries and folders of a vault that are not in the bin. */
async function namesIn(tx: Reader, vaultId: string): Promise<Map<string, string>> {
  const read = (table: string) =>
    bulk<{ id: string; name: string }>(
      tx,
      { id: sql`x.node_id`, name: sql`x.name` },
      sql`from ${sql.raw(table)} x join places p on p.node_id = x.node_id and p.valid_until is null
        where p.vault_id = ${vaultId} and x.binned_at is null`,
    );
  return new Map([...(await read("entries")), ...(await read("folders"))].map(({ id, name }) => [id, name]));
}
