/** Stewardship over time: who will still be a steward, and what would be left without one. */
import { type SQL, sql } from "drizzle-orm";
import { endOf, type Grant, isLastingSteward, type Level, resolve, type Step, type Subject } from "../../core/access";
import { byName } from "../byName";
import type { Reader } from "../database/client";
import { grants } from "../database/schema";
import { loadSteps } from "./load";
import { loadConcerned, type Person } from "./person";

/**
 * When a person falls below `needed` at a node: milliseconds, or null for never.
 * @param found the person and the way up, as `resolveAt` and `requireLevel` give them
 */
export const reachEnd = (
  { person, steps }: { person: Person; steps: readonly Step[] },
  needed: Level,
  at: number,
): number | null => endOf({ ...person, until: person.ends }, steps, needed, at);

/** Subjects of the grants on a way up that count, as far as it is looked along. */
function subjectsAlong(steps: readonly Step[], counts: (grant: Grant) => boolean): Subject[] {
  const cut = steps.findIndex((step) => step.separate);
  const looked = cut < 0 ? steps : steps.slice(0, cut + 1);
  return looked.flatMap((step) => step.grants.filter(counts).map(({ subject }) => subject));
}

const isSteward = ({ level }: Grant): boolean => level === "steward";

/** The stewards of a node at a moment, in the order of their names. */
export async function stewardsAt(tx: Reader, nodeId: string, at: number): Promise<Person[]> {
  const { steps } = await loadSteps(tx, nodeId);
  const concerned = await loadConcerned(tx, subjectsAlong(steps, isSteward), at);
  return concerned.filter((person) => resolve(person, steps, at).level === "steward").sort(byName);
}

/**
 * For each node the nearest one, itself or above it, that has grants of its own or stands apart: whatever is asked of access
 * at the one is answered at the other. Many in one statement.
 */
export async function regionsOf(tx: Reader, nodeIds: readonly string[]): Promise<Map<string, string>> {
  const rows = await tx.all<{ id: string; region: string }>(sql`
    with recursive up(id, node, parent, own) as (
      select p.node_id, p.node_id, p.parent_id, ${hasOwnSay(sql`p.node_id`)} from json_each(${JSON.stringify(nodeIds)}) w
        join places p on p.node_id = w.value and p.valid_until is null
      union all
      select up.id, p.node_id, p.parent_id, ${hasOwnSay(sql`p.node_id`)} from up
        join places p on p.node_id = up.parent and p.valid_until is null
        where up.own = 0
    )
    select id, node as region from up where own = 1 or parent is null`);
  return new Map(rows.map(({ id, region }) => [id, region]));
}

const hasOwnSay = (
  id: SQL,
): SQL => sql`(exists (select 1 from grants g where g.node_id = ${id} and g.valid_until is null)
  or exists (select 1 from separations s where s.node_id = ${id} and s.valid_until is null))`;

/** Stewards of each of several nodes: those that answer alike are worked out once. */
export async function stewardsOfEach(
  tx: Reader,
  nodeIds: readonly string[],
  at: number,
): Promise<Map<string, Person[]>> {
  const regions = await regionsOf(tx, nodeIds);
  const known = new Map<string, Person[]>();
  for (const region of new Set(regions.values())) known.set(region, await stewardsAt(tx, region, at));
  return new Map([...regions].map(([id, region]) => [id, known.get(region) ?? []]));
}

/** Everybody whom one of these ways up could give or take something, with the groups they hold at `at`. */
export const concernedBy = (tx: Reader, ways: readonly (readonly Step[])[], at: number): Promise<Person[]> =>
  loadConcerned(
    tx,
    ways.flatMap((steps) => subjectsAlong(steps, () => true)),
    at,
  );

/**
 * Nodes at and below `nodeId` that no active member of staff is a steward of without an end.
 * A node without grants of its own answers as what is above it, so only those with grants or a separate mark count.
 */
export async function withoutSteward(tx: Reader, nodeId: string, at: number): Promise<string[]> {
  if (tx.access) return tx.access.withoutSteward(nodeId, at);
  const withoutSteward: string[] = [];
  for (const id of await distinctBelow(tx, nodeId)) {
    const { steps } = await loadSteps(tx, id);
    const concerned = await loadConcerned(tx, subjectsAlong(steps, isSteward), at);
    if (!concerned.some((person) => isLastingSteward({ ...person, until: person.ends }, steps, at)))
      withoutSteward.push(id);
  }
  return withoutSteward;
}

/** The node, and what is below it with grants or a separate mark of its own. */
export async function distinctBelow(tx: Reader, nodeId: string): Promise<string[]> {
  if (tx.access) return tx.access.distinctBelow(nodeId);
  const rows = await tx.all<{ id: string }>(sql`
    with recursive down(id) as (
      select ${nodeId}
      union all
      select p.node_id from places p join down on p.parent_id = down.id where p.valid_until is null
    )
    select distinct down.id as id from down
    where down.id = ${nodeId}
      or exists (select 1 from ${grants} g where g.node_id = down.id and g.valid_until is null)
      or exists (select 1 from separations s where s.node_id = down.id and s.valid_until is null)`);
  return rows.map((row) => row.id);
}
