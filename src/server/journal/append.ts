/** Appends a line to the journal's chain, inside the transaction that made it true. */
import { inArray, sql } from "drizzle-orm";
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
  const [last] = await tx.all<{ seq: number; hash: string }>(sql`
    select seq, hash from journal order by seq desc limit 1`);
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
  const hash = lineHash(line, previous);
  await tx.insert(journal).values({ ...line, previous, hash, mac: lineMac(key, hash) });
}

/** The salted hash of each name; a name that is new for its id gets a salt and a row of its own. */
async function nameHashes(tx: Transaction, names: Record<string, string>): Promise<Record<string, string>> {
  const refs = Object.keys(names);
  if (refs.length === 0) return {};
  const known = await tx
    .select({ ref: journalNames.ref, name: journalNames.name, hash: journalNames.hash })
    .from(journalNames)
    .where(inArray(journalNames.ref, refs));
  const hashes: Record<string, string> = {};
  for (const [ref, name] of Object.entries(names))
    hashes[ref] = known.find((row) => row.ref === ref && row.name === name)?.hash ?? (await keepName(tx, ref, name));
  return hashes;
}

async function keepName(tx: Transaction, ref: string, name: string): Promise<string> {
  const salt = toHex(randomBytes(16));
  const hash = toHex(sha256(utf8(JSON.stringify([salt, ref, name]))));
  await tx.insert(journalNames).values({ hash, ref, name, salt });
  return hash;
}
