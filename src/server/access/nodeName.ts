/** What a node is called. */
import { sql } from "drizzle-orm";
import type { Reader } from "../database/client";
import { entries, folders, vaults } from "../database/schema";

export async function nodeName(tx: Reader, nodeId: string): Promise<string> {
  const [named] = await tx.all<{ name: string }>(sql`
    select name from ${entries} where node_id = ${nodeId}
    union all select name from ${vaults} where node_id = ${nodeId}
    union all select name from ${folders} where node_id = ${nodeId}`);
  return named?.name ?? "";
}
