/** Rows of grants as `core/access` looks at them. */
import type { Grant, Subject } from "../../core/access";
import type { grants } from "../database/schema";

export type GrantRow = typeof grants.$inferSelect;

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
