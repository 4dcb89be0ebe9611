/** What the caller gave that ends within a week, where they are steward still: extended in one act, or let end. */
import { and, eq, gt, isNull, lte } from "drizzle-orm";
import type { Given } from "../../core/access";
import { none, query } from "../command";
import { grants } from "../database/schema";
import { resolveAt } from "./load";
import { nodeName } from "./nodeName";
import { toSubject } from "./rows";
import { loadNames } from "./who";

const SOON_MS = 7 * 86_400_000;

export interface Ending {
  grantId: string;
  who: string;
  nodeId: string;
  what: string;
  entry: boolean;
  level: Given;
  from: number | null;
  until: number;
  why: string;
}

export const endingSoon = query({
  name: "access.endingSoon",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at }): Promise<Ending[]> => {
    const rows = await tx
      .select()
      .from(grants)
      .where(
        and(
          eq(grants.givenBy, me.id),
          isNull(grants.validUntil),
          isNull(grants.weekly),
          gt(grants.until, at),
          lte(grants.until, at + SOON_MS),
        ),
      );
    if (rows.length === 0) return [];
    const names = await loadNames(
      tx,
      rows.map((row) => row.subjectId),
    );
    const found: Ending[] = [];
    for (const row of rows) {
      const here = await resolveAt(tx, me, row.nodeId, at);
      if (here?.resolution.level !== "steward") continue;
      found.push({
        ...{ grantId: row.id, who: names.subject(toSubject(row.subjectKind, row.subjectId)), nodeId: row.nodeId },
        ...{ what: await nodeName(tx, row.nodeId), entry: here.path[0].type === "entry", level: row.level },
        ...{ from: row.from, until: row.until!, why: row.why },
      });
    }
    return found.sort((a, b) => a.until - b.until);
  },
});
