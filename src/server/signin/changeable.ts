/** Whether Galtry can change a password at its site, by what is known before it tries. */
import { type SQL, sql } from "drizzle-orm";
import type { ChangedBy } from "../../core/signin/changing";

/**
 * Of `entries e` and its version `v`: there is a page to sign in at, the site did not refuse the password, and the last try
 * with this password found a way to change it.
 */
export const CHANGEABLE: SQL = sql`(e.sign_in_page <> '' and v.refused_at is null and coalesce((
  select c.outcome from password_changes c where c.entry_id = e.node_id and c.version_id = v.id
  order by c.begun_at desc limit 1), '') not in ('no-change-page', 'only-by-hand', 'rejected'))`;

/** Of the same: how its password is changed next. */
export const CHANGED_BY = sql<ChangedBy>`case when ${CHANGEABLE} then 'galtry'
  when e.sign_in_page <> '' then 'hand-at-site' else 'hand' end`;
