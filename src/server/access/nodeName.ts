/** What a node is called. */
import { sql } from "drizzle-orm";
import type { Reader } from "../database/client";
import { entries, folders, places, vaults } from "../database/schema";

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

/** The pages of nodes, by id. Only for nodes that the reader can open. */
export async function nodeLinks(tx: Reader, ids: Iterable<string>): Promise<ReadonlyMap<string, string>> {
  const wanted = sql`(select value from json_each(${JSON.stringify([...new Set(ids)])}))`;
  const rows = await tx.all<{ id: string; link: string }>(sql`
    select node_id as id, '/entry/' || node_id as link from ${entries} where node_id in ${wanted}
    union all select node_id, '/vaults/' || node_id from ${vaults} where node_id in ${wanted}
    union all select f.node_id, '/vaults/' || p.vault_id || '/folder/' || f.node_id
      from ${folders} f join ${places} p on p.node_id = f.node_id and p.valid_until is null where f.node_id in ${wanted}`);
  return new Map(rows.map((row) => [row.id, row.link]));
}
