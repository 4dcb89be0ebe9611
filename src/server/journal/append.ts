/** Appends a line to the journal's chain, inside the transaction that made it true. */
import { sql } from "drizzle-orm";
import { type Bytes, randomBytes, toHex } from "../../core/crypto";
import { FIRST_PREVIOUS, lineHash, lineMac } from "../../core/journal/chain";
import { nameHash } from "../../core/journal/names";
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
  const names = Object.entries(entry.names ?? {});
  // The end of the chain and the names that are known, in one statement: every act reads them.
  const [end] = await tx.all<{ seq: number; hash: string; known: string }>(sql`
    select coalesce((select max(seq) from journal), 0) as seq,
      coalesce((select hash from journal order by seq desc limit 1), ${FIRST_PREVIOUS}) as hash,
      (select json_group_array(json_object('ref', ref, 'name', name, 'hash', hash)) from journal_names
        where ref in ${names.length > 0 ? names.map(([ref]) => ref) : [""]}) as known`);
  const previous = end!.hash;
  const line = {
    seq: end!.seq + 1,
    at: entry.at,
    act: entry.act,
    outcome: entry.outcome,
    person: entry.person ?? null,
    node: entry.node ?? null,
    vault: entry.vault ?? null,
    subject: entry.subject ?? null,
    details: JSON.stringify(entry.details ?? {}),
    names: JSON.stringify(await nameHashes(tx, names, JSON.parse(end!.known))),
  };
  const hash = lineHash(line, previous);
  await tx.insert(journal).values({ ...line, previous, hash, mac: lineMac(key, hash) });
}

/** The salted hash of each name; a name that is new for its id gets a salt and a row of its own. */
async function nameHashes(
  tx: Transaction,
  names: readonly [ref: string, name: string][],
  known: readonly { ref: string; name: string; hash: string }[],
): Promise<Record<string, string>> {
  const hashes: Record<string, string> = {};
  for (const [ref, name] of names)
    hashes[ref] = known.find((row) => row.ref === ref && row.name === name)?.hash ?? (await keepName(tx, ref, name));
  return hashes;
}

async function keepName(tx: Transaction, ref: string, name: string): Promise<string> {
  const salt = toHex(randomBytes(16));
  const hash = nameHash({ salt, ref, name });
  await tx.insert(journalNames).values({ hash, ref, name, salt });
  return hash;
}
