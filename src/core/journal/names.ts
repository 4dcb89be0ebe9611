/**
 * Names stand beside the chain as salted SHA-256 hashes (FIPS 180-4): a line holds the hash, a row the name and the salt.
 * A row may be erased; one that is there says what was written down then, or its hash tells.
 */
import { sha256, toHex, utf8 } from "../crypto";

export interface KeptName {
  hash: string;
  ref: string;
  name: string;
  salt: string;
}

/** Hexadecimal. */
export const nameHash = ({ salt, ref, name }: Omit<KeptName, "hash">): string =>
  toHex(sha256(utf8(JSON.stringify([salt, ref, name]))));

/**
 * @param kept every row of names
 * @param mentioned of every line, the hashes by what they name
 * @returns the hash of the first row that does not hold, and how many hashes have no row any more
 */
export async function checkNames(
  kept: AsyncIterable<KeptName> | Iterable<KeptName>,
  mentioned: AsyncIterable<Record<string, string>> | Iterable<Record<string, string>>,
): Promise<{ altered: string | null; erased: number }> {
  const refs = new Map<string, string>();
  for await (const row of kept) {
    if (nameHash(row) !== row.hash) return { altered: row.hash, erased: 0 };
    refs.set(row.hash, row.ref);
  }
  const erased = new Set<string>();
  for await (const names of mentioned)
    for (const [ref, hash] of Object.entries(names)) {
      const known = refs.get(hash);
      if (known === undefined) erased.add(hash);
      else if (known !== ref) return { altered: hash, erased: 0 };
    }
  return { altered: null, erased: erased.size };
}
