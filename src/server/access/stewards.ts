/** Stewardship over time: who will still be a steward, and what would be left without one. */
import { sql } from "drizzle-orm";
import {
  atLeast,
  type Grant,
  HORIZON_MS,
  type Level,
  momentsAhead,
  resolve,
  type Step,
  type Window,
  windowsOf,
} from "../../core/access";
import type { Reader } from "../database/client";
import { grants } from "../database/schema";
import { loadSteps } from "./load";
import { loadEverybody, type Person, personAt } from "./person";

/**
 * When a person falls below `needed` at a node: milliseconds, or null for never.
 * Every coming boundary of a window on the way up, or of a membership of theirs, is looked at in order.
 * @param found the person and the way up, as `resolveAt` and `requireLevel` give them
 */
export function reachEnd(
  { person, steps }: { person: Person; steps: readonly Step[] },
  needed: Level,
  at: number,
): number | null {
  const windows: Window[] = [...steps.flatMap((step) => step.grants), ...windowsOf({ ...person, until: person.ends })];
  const last = windows.flatMap(({ from, until }) => [from ?? 0, until ?? 0]).reduce((a, b) => Math.max(a, b), at);
  for (const moment of momentsAhead(windows, at, Math.max(last, at + HORIZON_MS))) {
    if (!atLeast(resolve(personAt(person, moment), steps, moment).level, needed)) return moment;
  }
  return null;
}

/**
 * Nodes at and below `nodeId` that no active member of staff is a steward of without an end.
 * A node without grants of its own answers as what is above it, so only those with grants or a separate mark count.
 */
export async function withoutSteward(tx: Reader, nodeId: string, at: number): Promise<string[]> {
  const [everybody, below] = await Promise.all([loadEverybody(tx, at), distinctBelow(tx, nodeId)]);
  const staff = everybody.filter((person) => person.standing === "active" && !person.guest);
  const bare: string[] = [];
  for (const id of below) {
    const { steps } = await loadSteps(tx, id);
    const candidates = staff.filter((person) =>
      mentions(
        person,
        steps.flatMap((step) => step.grants),
      ),
    );
    if (!candidates.some((person) => reachEnd({ person, steps }, "steward", at) === null)) bare.push(id);
  }
  return bare;
}

/** Cheap test before the walk: some grant of Steward could be this person's. */
function mentions(person: Person, all: readonly Grant[]): boolean {
  return all.some(
    ({ subject, level }) =>
      level === "steward" &&
      (subject.kind === "everyone" ||
        subject.id === person.id ||
        (subject.kind === "group" && person.held.some((row) => row.groupId === subject.id))),
  );
}

/** The node, and what is below it with grants or a separate mark of its own. */
export async function distinctBelow(tx: Reader, nodeId: string): Promise<string[]> {
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
