/** Rows of grants as `core/access` looks at them. */
import { type SQL, sql } from "drizzle-orm";
import type { Grant, Subject } from "../../core/access";
import type { grants } from "../database/schema";

export type GrantRow = typeof grants.$inferSelect;

/** As it comes in bulk: the window of the week is a text. */
export type StoredGrant = Omit<GrantRow, "weekly"> & { weekly: string | null };

/** Of `grants g`. */
export const GRANT_COLUMNS = {
  id: sql`g.id`,
  nodeId: sql`g.node_id`,
  subjectKind: sql`g.subject_kind`,
  subjectId: sql`g.subject_id`,
  level: sql`g.level`,
  from: sql`g.from_at`,
  until: sql`g.until_at`,
  weekly: sql`g.weekly`,
  why: sql`g.why`,
  givenBy: sql`g.given_by`,
  validFrom: sql`g.valid_from`,
  validUntil: sql`g.valid_until`,
  commandId: sql`g.command_id`,
} satisfies Record<keyof GrantRow, SQL>;

export const toRow = ({ weekly, ...row }: StoredGrant): GrantRow => ({
  ...row,
  weekly: weekly === null ? null : JSON.parse(weekly),
});

export function toGrant(row: GrantRow): Grant {
  return {
    id: row.id,
    node: row.nodeId,
    subject: toSubject(row.subjectKind, row.subjectId),
    level: row.level,
    from: row.from,
    until: row.until,
    weekly: row.weekly,
  };
}

export function toSubject(kind: GrantRow["subjectKind"], id: string): Subject {
  return kind === "everyone" ? { kind } : { kind, id };
}
