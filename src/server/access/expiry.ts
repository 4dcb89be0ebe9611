/**
 * Stewardship that ends by itself. Nobody is refused for that: owners are told a week ahead, and again when it has
 * happened, wherever nobody would be a steward any more.
 */

import { and, between, eq, isNull, sql } from "drizzle-orm";
import { z } from "zod";
import { exactTime } from "../../core/time";
import { command } from "../command";
import type { Reader } from "../database/client";
import { grants, memberships, notices } from "../database/schema";
import { timeZone } from "../organisation";
import { addNotice } from "../people/telling";
import { nodeName } from "./nodeName";
import { loadByRole } from "./person";
import { stewardsAt } from "./stewards";
import { expiry as t } from "./strings";

const AHEAD_MS = 7 * 86_400_000;
/** How far back an end is still told of, should Galtry have been stopped. */
const BACK_MS = 86_400_000;

export const tellOfExpiry = command({
  name: "access.tellOfExpiry",
  input: z.strictObject({}),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at }) => {
    const ends = await endsOfStewardship(tx, at - BACK_MS, at + AHEAD_MS);
    if (ends.length === 0) return [];
    const zone = await timeZone(tx);
    const told: string[] = [];
    for (const { nodeId, end } of ends) {
      if ((await countStewards(tx, nodeId, end - 1)) === 0 || (await countStewards(tx, nodeId, end)) > 0) continue;
      const what = await nodeName(tx, nodeId);
      const when = exactTime(end, zone);
      const text =
        end > at ? t.willHaveNoStewardFromExtendThe(what, when) : t.hasNoStewardTheLastStewardship(what, when);
      const owners = (await loadByRole(tx, ["owner"], at)).filter((person) => person.standing === "active");
      for (const owner of owners) if (await tellOnce(tx, owner.id, text, nodeId, at)) told.push(owner.id);
    }
    return told;
  },
  journal: null,
  tell: ({ result }) => result.map((id) => `person:${id}` as const),
});

/** Every moment at which a grant of Steward, a membership that one comes by, or whoever has it, ends; with its node. */
async function endsOfStewardship(tx: Reader, from: number, to: number): Promise<{ nodeId: string; end: number }[]> {
  const steward = and(eq(grants.level, "steward"), isNull(grants.validUntil));
  const own = await tx
    .select({ nodeId: grants.nodeId, end: grants.until })
    .from(grants)
    .where(and(steward, between(grants.until, from, to)));
  const byGroup = await tx
    .select({ nodeId: grants.nodeId, end: memberships.until })
    .from(memberships)
    .innerJoin(grants, and(eq(grants.subjectKind, "group"), eq(grants.subjectId, memberships.groupId)))
    .where(and(steward, isNull(memberships.validUntil), between(memberships.until, from, to)));
  const ofPerson = await tx.all<{ nodeId: string; end: number }>(sql`
    with leaving as (
      select person_id, until_at from standings where valid_until is null and until_at between ${from} and ${to}
    ), subjects as (
      select person_id as id, until_at from leaving
      union all select m.group_id, l.until_at from leaving l join memberships m on m.person_id = l.person_id
        where m.valid_until is null
    )
    select g.node_id as "nodeId", s.until_at as end from subjects s cross join grants g on g.subject_id = s.id
    where g.level = 'steward' and g.valid_until is null`);
  const seen = new Map([...own, ...byGroup, ...ofPerson].map((row) => [`${row.nodeId} ${row.end}`, row]));
  return [...seen.values()].map(({ nodeId, end }) => ({ nodeId, end: end! })).sort((a, b) => a.end - b.end);
}

/** How many active members of staff have Steward at a node at a moment. */
async function countStewards(tx: Reader, nodeId: string, moment: number): Promise<number> {
  return (await stewardsAt(tx, nodeId, moment)).length;
}

async function tellOnce(
  tx: Parameters<typeof addNotice>[0],
  personId: string,
  text: string,
  nodeId: string,
  at: number,
): Promise<boolean> {
  const [known] = await tx
    .select({ id: notices.id })
    .from(notices)
    .where(and(eq(notices.personId, personId), eq(notices.nodeId, nodeId), eq(notices.text, text)))
    .limit(1);
  if (known) return false;
  await addNotice(tx, { to: personId, at, sort: "ending", text, nodeId });
  return true;
}
