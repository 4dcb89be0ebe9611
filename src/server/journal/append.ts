/** Appends a line to the journal's chain, inside the transaction that made it true. */
import { and, desc, eq } from "drizzle-orm";
import { type Bytes, randomBytes, sha256, toHex, utf8 } from "../../core/crypto";
import { FIRST_PREVIOUS, lineHash, lineMac } from "../../core/journal/chain";
import type { Transaction } from "../database/client";
import { journal, journalNames } from "../database/schema";

export interface JournalEntry {
  /** Defaults to the caller. */
  person?: string | null;
  node?: string | null;
  vault?: string | null;
  /** Whom the act concerns: a person, group or Everyone. */
  subject?: string | null;
  /** Small plain facts (a level, a moment, a field's name). Never a value of a field. */
  details?: Record<string, string | number | boolean | null>;
  /** Names as they are now, by the id they belong to. */
  names?: Record<string, string>;
}

export async function appendLine(
  tx: Transaction,
  key: Bytes,
  entry: JournalEntry & { act: string; outcome: "done" | "refused"; at: number },
): Promise<void> {
  const [last] = await tx
    .select({ seq: journal.seq, hash: journal.hash })
    .from(journal)
    .orderBy(desc(journal.seq))
    .limit(1);
  const line = {
    seq: (last?.seq ?? 0) + 1,
    at: entry.at,
    act: entry.act,
    outcome: entry.outcome,
    person: entry.person ?? null,
    node: entry.node ?? null,
    vault: entry.vault ?? null,
    subject: entry.subject ?? null,
    details: JSON.stringify(entry.details ?? {}),
    names: JSON.stringify(await nameHashes(tx, entry.names ?? {})),
  };
  const previous = last?.hash ?? FIRST_PREVIOUS;
  const hash = await lineHash(line, previous);
  await tx.insert(journal).values({ ...line, previous, hash, mac: await lineMac(key, hash) });
}

async function nameHashes(tx: Transaction, names: Record<string, string>): Promise<Record<string, string>> {
  const hashes: Record<string, string> = {};
  for (const [ref, name] of Object.entries(names)) hashes[ref] = await nameHash(tx, ref, name);
  return hashes;
}

async function nameHash(tx: Transaction, ref: string, name: string): Promise<string> {
  const [known] = await tx
    .select({ hash: journalNames.hash })
    .from(journalNames)
    .where(and(eq(journalNames.ref, ref), eq(journalNames.name, name)));
  if (known) return known.hash;
  const salt = toHex(randomBytes(16));
  const hash = toHex(await sha256(utf8(JSON.stringify([salt, ref, name]))));
  await tx.insert(journalNames).values({ hash, ref, name, salt });
  return hash;
}
