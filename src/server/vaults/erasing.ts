/** What is erased with a node that is deleted for good: one list, whether an entry, a folder or a whole vault goes. */
import { type SQL, sql } from "drizzle-orm";
import type { Transaction } from "../database/client";

const versionsOf = (inside: SQL) => sql`select id from entry_versions where entry_id in ${inside}`;
const filesOf = (inside: SQL) => sql`select id from attachments where entry_id in ${inside}`;
const picturesOf = (inside: SQL) => sql`
  select picture_id from entries where node_id in ${inside} union all select picture_id from vaults where node_id in ${inside}`;

/**
 * In the order in which it is erased: what refers to something goes before it. Tables that are not in it keep what they
 * say of a node: the journal, closed rows of history, who signed in when, requests and notices (docs/security.md).
 */
const ERASED: readonly ((inside: SQL) => SQL)[] = [
  (inside) => sql`delete from fingerprints where version_id in (${versionsOf(inside)})`,
  (inside) => sql`delete from conditions where version_id in (${versionsOf(inside)})`,
  (inside) => sql`delete from attachment_pieces where attachment_id in (${filesOf(inside)})`,
  ...[
    "attachments",
    "sightings",
    "pins",
    "met",
    "ticks",
    "yeses",
    "handovers",
    "import_updates",
    "import_rows",
    "sign_in_tests",
    "password_changes",
    "step_versions",
    "entry_versions",
  ].map((table) => (inside: SQL) => sql`delete from ${sql.identifier(table)} where entry_id in ${inside}`),
  (inside) => sql`update sign_ins set jar = null where entry_id in ${inside} and jar is not null`,
  ...["letterboxes", "findings", "checks"].map(
    (table) => (inside: SQL) => sql`delete from ${sql.identifier(table)} where node_id in ${inside}`,
  ),
  (inside) => sql`delete from pictures where id in (${picturesOf(inside)})`,
  (inside) => sql`delete from entries where node_id in ${inside}`,
  (inside) => sql`delete from folders where node_id in ${inside}`,
  ...["acceptances", "ledger_views", "vault_keys"].map(
    (table) => (inside: SQL) => sql`delete from ${sql.identifier(table)} where vault_id in ${inside}`,
  ),
  (inside) => sql`delete from vaults where node_id in ${inside}`,
];

/** History that ends with its node. */
const CLOSED = ["grants", "separations", "places"] as const;

/** @param inside a subquery of node ids in brackets, the same before and after what it names is gone */
async function eraseInside(tx: Transaction, inside: SQL, at: number): Promise<void> {
  for (const erase of ERASED) await tx.run(erase(inside));
  for (const table of CLOSED)
    await tx.run(
      sql`update ${sql.identifier(table)} set valid_until = ${at} where node_id in ${inside} and valid_until is null`,
    );
}

/** All that is kept of nodes; what stays are the journal's lines and closed rows of where they lay and who had access. */
export async function eraseNodes(tx: Transaction, nodeIds: readonly string[], at: number): Promise<void> {
  if (nodeIds.length > 0) await eraseInside(tx, sql`(select value from json_each(${JSON.stringify(nodeIds)}))`, at);
}

/** A vault, with all that lies in it. */
export async function eraseVault(tx: Transaction, vaultId: string, at: number): Promise<void> {
  await eraseInside(tx, sql`(select node_id from places where vault_id = ${vaultId} and valid_until is null)`, at);
}
