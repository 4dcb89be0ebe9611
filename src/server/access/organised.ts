/** The rows of access as `core/access` looks at them: some vaults whole, as they are or as they were. */
import { type SQL, sql } from "drizzle-orm";
import type { Grant, Member, Organised, TreeNode } from "../../core/access";
import { bulk } from "../database/bulk";
import type { Reader } from "../database/client";
import type { NodeType } from "../database/schema";
import { groupBy } from "../groupBy";
import { GRANT_COLUMNS, type GrantRow, type StoredGrant, toGrant, toRow } from "./rows";

export interface PlacedNode extends TreeNode {
  type: NodeType;
  vaultId: string;
}

export interface OrganisedVaults extends Organised {
  nodes: readonly PlacedNode[];
  rows: readonly GrantRow[];
}

/** Which rows held at a moment; null for those that hold now. */
const held = (alias: string, then: number | null): SQL => {
  const column = (name: string) => sql.raw(`${alias}.${name}`);
  return then === null
    ? sql`${column("valid_until")} is null`
    : sql`${column("valid_from")} <= ${then} and (${column("valid_until")} is null or ${column("valid_until")} > ${then})`;
};

/**
 * @param vaultIds whose nodes and grants are read; people are read all
 * @param then a moment that is over, or null for the rows that hold now (and say what is to come)
 */
export async function loadOrganised(
  tx: Reader,
  vaultIds: Iterable<string>,
  then: number | null = null,
): Promise<OrganisedVaults> {
  if (tx.access && then === null) {
    const organised = tx.access.organised(vaultIds);
    return { ...organised, rows: organised.grants };
  }
  const inVaults = sql`p.vault_id in (select value from json_each(${JSON.stringify([...vaultIds])})) and ${held("p", then)}`;
  const [nodes, separate, rows, people] = await Promise.all([
    bulk<{ id: string; parent: string | null; vaultId: string; type: NodeType }>(
      tx,
      { id: sql`p.node_id`, parent: sql`p.parent_id`, vaultId: sql`p.vault_id`, type: sql`n.type` },
      sql`from places p join nodes n on n.id = p.node_id where ${inVaults}`,
    ),
    tx.all<{ id: string }>(sql`select s.node_id as id from separations s where ${held("s", then)}`),
    bulk<StoredGrant>(
      tx,
      GRANT_COLUMNS,
      sql`from grants g join places p on p.node_id = g.node_id where ${inVaults} and ${held("g", then)}`,
    ),
    loadMembers(tx, then),
  ]);
  const cut = new Set(separate.map((row) => row.id));
  const grants = rows.map(toRow);
  return {
    nodes: nodes.map((node) => ({ ...node, separate: cut.has(node.id) })),
    grants: grants.map((row): Grant => toGrant(row)),
    rows: grants,
    people,
  };
}

interface MemberRow {
  id: string;
  role: string;
  standing: Member["standing"];
  groupId: string | null;
  from: number | null;
  until: number | null;
  ends: number | null;
}

async function loadMembers(tx: Reader, then: number | null): Promise<Member[]> {
  const rows = await tx.all<MemberRow>(sql`
    select s.person_id as id, s.role as role, s.standing as standing, s.until_at as ends,
      m.group_id as "groupId", m.from_at as "from", m.until_at as until
    from standings s left join memberships m on m.person_id = s.person_id and ${held("m", then)}
    where ${held("s", then)}`);
  return [...groupBy(rows, (row) => row.id).values()].map(([first, ...more]) => ({
    id: first!.id,
    standing: first!.standing,
    guest: first!.role === "guest",
    auditor: first!.role === "auditor",
    until: first!.ends,
    held: [first!, ...more].flatMap(({ groupId, from, until }) => (groupId === null ? [] : [{ groupId, from, until }])),
  }));
}
