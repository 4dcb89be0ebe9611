import { eq } from "drizzle-orm";
import type { Reader } from "../database/client";
import { fingerprints } from "../database/schema";

/** Fingerprints of a version's values, by field. */
export async function currentMarks(tx: Reader, versionId: string): Promise<Map<string, string>> {
  const rows = await tx.select().from(fingerprints).where(eq(fingerprints.versionId, versionId));
  return new Map(rows.map((row) => [row.field, row.fingerprint]));
}
