/** The Front desk: everything one can reach, pinned, new and ending soon. */
import { and, desc, eq, isNull, ne, sql } from "drizzle-orm";
import { z } from "zod";
import { isActive, type Level } from "../../core/access";
import { siteName } from "../../core/signin/address";
import { reachOf } from "../access/load";
import { peopleNames } from "../access/peopleNames";
import type { GrantRow } from "../access/rows";
import { sortByName } from "../byName";
import { personIdOf } from "../caller";
import { command, idSchema, none, query } from "../command";
import { bulk } from "../database/bulk";
import { firstSeen, lanyards, pins, signIns } from "../database/schema";
import { groupBy } from "../groupBy";
import { requireEntry } from "../vaults/entries";
import { kindsById } from "../vaults/kinds";
import { pictureAddress } from "../vaults/pictureAddress";
import { vaultNames } from "../vaults/places";

const SOON_MS = 7 * 24 * 3_600_000;
/** Longer than this nothing is new any more, opened or not. */
const NEW_MS = 14 * 24 * 3_600_000;

export interface DeskLine {
  id: string;
  name: string;
  description: string;
  site: string;
  vault: string;
  tags: string[];
  level: Level;
  kind: string;
  how: "sealed" | "sealed with code" | "opened";
  pinned: boolean;
  /** Who gave it, while it has not been opened or used yet. */
  newFrom: string | null;
  /** What it was given for, to this very person. */
  newWhy: string;
  /** When the access ends, if within a week. */
  endsAt: number | null;
  lastUsedAt: number | null;
  refused: boolean;
  /** Address of its picture. */
  picture: string | null;
}

interface KeptEntry {
  nodeId: string;
  name: string;
  description: string;
  kind: string;
  signInPage: string;
  tags: string[];
  hasCode: number;
  refused: number;
  picture: string | null;
}

export const frontDesk = query({
  name: "frontdesk.frontDesk",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at }) => {
    const person = me;
    const personId = person.id;
    const { levels, node: nodeAt, grants: own } = reachOf(tx, person, at);
    const reached = [...levels.keys()].filter((id) => nodeAt(id)!.type === "entry");
    const [rows, vaultName, pinned, known, used, connected, kinds] = await Promise.all([
      bulk<KeptEntry>(
        tx,
        {
          nodeId: sql`e.node_id`,
          name: sql`e.name`,
          description: sql`e.description`,
          kind: sql`e.kind`,
          signInPage: sql`e.sign_in_page`,
          tags: sql`json(e.tags)`,
          hasCode: sql`e.has_code`,
          refused: sql`v.refused_at is not null`,
          picture: sql`e.picture_id`,
        },
        sql`from entries e join entry_versions v on v.id = e.version_id
          where e.node_id in (select value from json_each(${JSON.stringify(reached)})) and e.binned_at is null and e.aside_at is null`,
      ),
      vaultNames(
        tx,
        person,
        reached.map((id) => nodeAt(id)!.vaultId),
        at,
      ),
      tx.select().from(pins).where(eq(pins.personId, personId)),
      tx.select().from(firstSeen).where(eq(firstSeen.personId, personId)),
      tx
        .select({ entryId: signIns.entryId, at: signIns.begunAt })
        .from(signIns)
        .where(and(eq(signIns.personId, personId), eq(signIns.outcome, "signed-in"), ne(signIns.how, "tested")))
        .orderBy(desc(signIns.begunAt))
        .limit(1000),
      tx
        .select({ id: lanyards.id, createdAt: lanyards.createdAt, lastUsedAt: lanyards.lastUsedAt })
        .from(lanyards)
        .where(and(eq(lanyards.personId, personId), isNull(lanyards.endedAt)))
        .orderBy(desc(lanyards.lastUsedAt)),
      kindsById(tx),
    ]);
    const { held } = person;
    const pins_ = new Set(pinned.map((row) => row.entryId));
    const met_ = new Set(known.map((row) => row.entryId));
    const lastUse = new Map<string, number>();
    for (const row of used) if (!lastUse.has(row.entryId)) lastUse.set(row.entryId, row.at);
    const giver = await peopleNames(
      tx,
      person,
      own.map((row) => row.givenBy),
    );
    const endOfMembership = new Map(held.map((row) => [row.groupId, row.until]));
    const active = own.filter((row) => isActive(row, at) && row.level !== "blocked");
    const byNode = groupBy(active, (row) => row.nodeId);

    const lines = rows.flatMap((entry): DeskLine[] => {
      const level = levels.get(entry.nodeId)!;
      const node = nodeAt(entry.nodeId)!;
      const reasons: GrantRow[] = [];
      for (let at: typeof node | undefined = node; at; at = at.separate || !at.parent ? undefined : nodeAt(at.parent))
        reasons.push(...(byNode.get(at.id) ?? []));
      const ends = reasons.map((row) =>
        soonest(
          person.ends,
          soonest(row.until, row.subjectKind === "group" ? (endOfMembership.get(row.subjectId) ?? null) : null),
        ),
      );
      const endsAt = ends.length > 0 && ends.every((end) => end !== null) ? Math.max(...(ends as number[])) : null;
      const newest = reasons.toSorted((a, b) => b.validFrom - a.validFrom)[0];
      const isNew = !met_.has(entry.nodeId) && newest && newest.givenBy !== personId && at - newest.validFrom < NEW_MS;
      return [
        {
          id: entry.nodeId,
          name: entry.name,
          description: entry.description,
          site: siteName(entry.signInPage),
          vault: vaultName(node.vaultId),
          tags: entry.tags,
          level,
          kind: kinds.get(entry.kind)!.name,
          how: entry.signInPage === "" ? "opened" : entry.hasCode === 1 ? "sealed with code" : "sealed",
          pinned: pins_.has(entry.nodeId),
          // A guest knows nobody but the person who invited them.
          newFrom: isNew ? giver(newest.givenBy) || (person.guest ? "its steward" : null) : null,
          newWhy: isNew && newest.subjectKind === "person" ? newest.why : "",
          endsAt: endsAt !== null && endsAt - at < SOON_MS ? endsAt : null,
          lastUsedAt: lastUse.get(entry.nodeId) ?? null,
          refused: entry.refused === 1,
          picture: pictureAddress(entry.nodeId, entry.picture) ?? kinds.get(entry.kind)!.picture ?? null,
        },
      ];
    });
    return { lines: sortByName(lines), lanyard: connected[0] ?? null };
  },
});

function soonest(a: number | null, b: number | null): number | null {
  if (a === null) return b;
  return b === null ? a : Math.min(a, b);
}

export const pinEntry = command({
  name: "frontdesk.pinEntry",
  input: z.strictObject({ entryId: idSchema, pinned: z.boolean() }),
  by: ["person"],
  allow: (context) => requireEntry(context, context.input.entryId, "use"),
  run: async ({ tx, input, caller, at }) => {
    const personId = personIdOf(caller);
    if (input.pinned) await tx.insert(pins).values({ personId, entryId: input.entryId, at }).onConflictDoNothing();
    else await tx.delete(pins).where(and(eq(pins.personId, personId), eq(pins.entryId, input.entryId)));
  },
  journal: null,
  tell: () => [],
});

/** The person has opened the entry's page: it is not new to them any more. */
export const markEntrySeen = command({
  name: "frontdesk.markEntrySeen",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person"],
  allow: (context) => requireEntry(context, context.input.entryId, "use"),
  run: async ({ tx, input, caller, at }) => {
    await tx
      .insert(firstSeen)
      .values({ personId: personIdOf(caller), entryId: input.entryId, at })
      .onConflictDoNothing();
  },
  journal: null,
  tell: () => [],
});
