/** What a node is called. */
import { sql } from "drizzle-orm";
import type { Reader } from "../database/client";
import { entries, folders, vaults } from "../database/schema";

/** What some nodes are called, by their ids; those that are not there have no name. */
export async function nodeNames(tx: Reader, ids: Iterable<string>): Promise<ReadonlyMap<string, string>> {
  const wanted = sql`(select value from json_each(${JSON.stringify([...new Set(ids)])}))`;
  const rows = await tx.all<{ id: string; name: string }>(sql`
    select node_id as id, name from ${entries} where node_id in ${wanted}
    union all select node_id, name from ${vaults} where node_id in ${wanted}
    union all select node_id, name from ${folders} where node_id in ${wanted}`);
  return new Map(rows.map((row) => [row.id, row.name]));
}

export async function nodeName(tx: Reader, nodeId: string): Promise<string> {
  const [named] = await tx.all<{ name: string }>(sql`
    select name from ${entries} where node_id = ${nodeId}
    union all select name from ${vaults} where node_id = ${nodeId}
    union all select name from ${folders} where node_id = ${nodeId}`);
  return named?.name ?? "";
}
