/** What somebody has seen of secrets and still works. */
import { sql } from "drizzle-orm";
import type { ChangedBy } from "../../core/signin/changing";
import type { Reader } from "../database/client";
import { CHANGED_BY } from "../signin/changeable";
import { isSecret } from "../vaults/composing";
import { kindsById } from "../vaults/kinds";

export interface StillWorks {
  entryId: string;
  versionId: string;
  /** When they saw it last. */
  at: number;
  hasCode: boolean;
  changedBy: ChangedBy;
}

/**
 * Entries with a current secret that somebody has seen, the latest first.
 * @param until what they saw later does not count
 */
export async function stillWorks(tx: Reader, personId: string, until: number): Promise<StillWorks[]> {
  const rows = await tx.all<{
    entryId: string;
    versionId: string;
    kind: string;
    field: string;
    at: number;
    hasCode: number;
    changedBy: ChangedBy;
  }>(sql`
    select s.entry_id as "entryId", v.id as "versionId", e.kind as kind, s.field as field, max(s.at) as at,
      e.has_code as "hasCode", ${CHANGED_BY} as "changedBy"
    from sightings s
    join entries e on e.node_id = s.entry_id and e.binned_at is null
    join entry_versions v on v.id = e.version_id
    join fingerprints f on f.version_id = e.version_id and f.field = s.field and f.fingerprint = s.fingerprint
    where s.person_id = ${personId} and s.at <= ${until}
    group by s.entry_id, s.field order by max(s.at) desc`);
  const kinds = await kindsById(tx);
  const found = new Map<string, StillWorks>();
  // A user name that is known opens nothing.
  for (const { kind, field, hasCode, ...row } of rows)
    if (!found.has(row.entryId) && isSecret(kinds.get(kind)!, field))
      found.set(row.entryId, { ...row, hasCode: hasCode === 1 });
  return [...found.values()];
}
