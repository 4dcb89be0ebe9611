/** Why somebody who could sign in with a key cannot any more: of their own line only, never of anybody else's. */

import { and, eq, gte, inArray, isNotNull, isNull, lte, ne, or } from "drizzle-orm";
import { z } from "zod";
import { atLeast, isActive, resolve, sayWeekly } from "../../core/access";
import { sayTime } from "../../core/time";
import { idSchema, query } from "../command";
import type { Reader } from "../database/client";
import { entries, grants, groups, journal, memberships, persons, signIns } from "../database/schema";
import { timeZone } from "../organisation";
import { loadSteps } from "./load";
import type { Person } from "./person";
import { whyEnded as t } from "./strings";

interface Ending {
  at: number;
  says: (when: string) => string;
  blocks?: boolean;
}

/** Null as long as it has not ended, and for whoever never had it: nobody learns that an entry exists. */
export const whyEnded = query({
  name: "access.whyEnded",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person", "lanyard"],
  allow: () => undefined,
  run: async ({ tx, input, me, at }): Promise<{ says: string } | null> => {
    const person = me;
    const { path, steps } = await loadSteps(tx, input.entryId);
    const [entry] = await tx
      .select({ binnedAt: entries.binnedAt })
      .from(entries)
      .where(eq(entries.nodeId, input.entryId));
    if (!entry) return null;
    const nodeIds = path.map((node) => node.id);
    const { level } = resolve(person, steps, at);
    const reaches = atLeast(level, "use");
    if (reaches && (entry.binnedAt === null || level === "steward")) return null;
    const own = await ownEndings(tx, person, nodeIds, at);
    if (!own.had && !(await signedInBefore(tx, person.id, input.entryId))) return null;
    const zone = await timeZone(tx);
    const when = (moment: number) => sayTime(moment, at, zone);
    if (reaches) return { says: t.itWasPutInTheBin(when(entry.binnedAt!)) };
    const endings = [...own.endings, ...(await membershipEndings(tx, person, nodeIds, at))];
    const last = endings.sort((a, b) => b.at - a.at || Number(b.blocks ?? 0) - Number(a.blocks ?? 0))[0];
    return { says: last ? last.says(when(last.at)) : t.theGrantBehindItHasEnded };
  },
});

async function signedInBefore(tx: Reader, personId: string, entryId: string): Promise<boolean> {
  const found = await tx
    .select({ id: signIns.id })
    .from(signIns)
    .where(
      and(
        eq(signIns.personId, personId),
        eq(signIns.entryId, entryId),
        eq(signIns.outcome, "signed-in"),
        ne(signIns.how, "tested"),
      ),
    )
    .limit(1);
  return found.length > 0;
}

/** Grants of the person's own on the way up: how each ended, or that it blocks now (which comes after what it ended). */
async function ownEndings(
  tx: Reader,
  person: Person,
  nodeIds: string[],
  at: number,
): Promise<{ had: boolean; endings: Ending[] }> {
  const rows = await tx
    .select()
    .from(grants)
    .where(and(eq(grants.subjectKind, "person"), eq(grants.subjectId, person.id), inArray(grants.nodeId, nodeIds)));
  const endings: Ending[] = [];
  for (const row of rows) {
    if (row.level === "blocked") {
      if (row.validUntil === null && (row.from ?? 0) <= at && (row.until ?? at + 1) > at) {
        const begun = Math.max(row.validFrom, row.from ?? 0);
        const by = await nameFor(tx, person, row.givenBy);
        endings.push({ at: begun, says: (when) => t.setYouToBlocked(by, when), blocks: true });
      }
      continue;
    }
    if (row.until !== null && row.until <= at && row.until <= (row.validUntil ?? row.until))
      endings.push({ at: row.until, says: (when) => t.itWasGivenUntil(when) });
    else if (row.validUntil !== null) {
      const by = await nameFor(tx, person, await whoWithdrew(tx, person, row.nodeId, row.validUntil));
      endings.push({ at: row.validUntil, says: (when) => `${by} ended it (${when}).` });
    } else if (row.weekly && !isActive(row, at) && (row.from ?? 0) <= at) {
      const weekly = sayWeekly(row.weekly);
      endings.push({ at, says: () => t.youHaveIt(weekly) });
    }
  }
  return { had: rows.some((row) => row.level !== "blocked" && (row.from ?? row.validFrom) <= at), endings };
}

async function whoWithdrew(tx: Reader, person: Person, nodeId: string, at: number): Promise<string | null> {
  const [line] = await tx
    .select({ person: journal.person })
    .from(journal)
    .where(
      and(
        eq(journal.node, nodeId),
        eq(journal.subject, person.id),
        inArray(journal.act, ["access.endAccess", "access.changeAccess", "access.withdraw", "access.change"]),
        eq(journal.outcome, "done"),
        gte(journal.at, at),
      ),
    )
    .orderBy(journal.seq)
    .limit(1);
  return line?.person ?? null;
}

/** A guest learns no names of the organisation's people. */
async function nameFor(tx: Reader, person: Person, id: string | null): Promise<string> {
  if (person.guest || id === null) return "Its steward";
  const [row] = await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, id));
  return row?.name ?? "Its steward";
}

/** Memberships that have ended, of groups that had something on the way up. */
async function membershipEndings(tx: Reader, person: Person, nodeIds: string[], at: number): Promise<Ending[]> {
  const rows = await tx
    .selectDistinct({
      groupId: groups.id,
      group: groups.name,
      until: memberships.until,
      validUntil: memberships.validUntil,
    })
    .from(memberships)
    .innerJoin(groups, eq(groups.id, memberships.groupId))
    .innerJoin(grants, and(eq(grants.subjectKind, "group"), eq(grants.subjectId, memberships.groupId)))
    .where(
      and(
        eq(memberships.personId, person.id),
        inArray(grants.nodeId, nodeIds),
        isNull(grants.validUntil),
        or(isNotNull(memberships.validUntil), lte(memberships.until, at)),
      ),
    );
  return rows
    .filter((row) => !person.groups.has(row.groupId))
    .map((row) => ({
      at: Math.min(row.until ?? Number.MAX_SAFE_INTEGER, row.validUntil ?? Number.MAX_SAFE_INTEGER),
      says: (when) => t.youAreNoLongerIn(row.group, when),
    }));
}
