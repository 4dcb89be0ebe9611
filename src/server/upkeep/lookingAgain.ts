/** What decides about findings and is in no row of the entry or its access: a change has all that it is about looked at. */
import { type SQL, sql } from "drizzle-orm";
import type { Transaction } from "../database/client";

/** @param ids a select of one column */
export const lookAgainAt = (tx: Transaction, ids: SQL, part: "entry" | "access" = "entry") =>
  tx.run(sql`insert or ignore into unchecked (kind, ref) select ${part}, id.* from (${ids}) id`);
