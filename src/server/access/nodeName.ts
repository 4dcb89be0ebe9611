/** What a node is called. */
import { eq } from "drizzle-orm";
import type { Reader } from "../database/client";
import { entries, vaults } from "../database/schema";

export async function nodeName(tx: Reader, nodeId: string): Promise<string> {
  const [vault] = await tx.select({ name: vaults.name }).from(vaults).where(eq(vaults.nodeId, nodeId));
  if (vault) return vault.name;
  const [entry] = await tx.select({ name: entries.name }).from(entries).where(eq(entries.nodeId, nodeId));
  return entry?.name ?? "";
}
