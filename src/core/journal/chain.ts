/**
 * The journal's chain. Each line holds the hash of the line before it; its own hash covers everything it says,
 * and a MAC over that hash shows that Galtry wrote it. Names stand elsewhere as salted hashes, so that they can
 * be erased without breaking the chain.
 */
import { type Bytes, hmac, sameBytes, sha256, toHex, utf8 } from "../crypto";
import { Growing } from "./tree";

/** What a line says: ids, an act and small plain details; never a secret, never a name. */
export interface JournalLine {
  seq: number;
  at: number;
  act: string;
  outcome: "done" | "refused";
  person: string | null;
  node: string | null;
  vault: string | null;
  subject: string | null;
  details: string;
  names: string;
}

export interface ChainedLine extends JournalLine {
  previous: string;
  hash: string;
  mac: string;
}

export const FIRST_PREVIOUS = "0".repeat(64);

/** SHA-256 (hex) over the line's fields in a fixed order, as one JSON array. */
export function lineHash(line: JournalLine, previous: string): string {
  const said = [
    "galtry-journal-1",
    previous,
    line.seq,
    line.at,
    line.act,
    line.outcome,
    line.person,
    line.node,
    line.vault,
    line.subject,
    line.details,
    line.names,
  ];
  return toHex(sha256(utf8(JSON.stringify(said))));
}

export const lineMac = (key: Bytes, hash: string): string => toHex(hmac(key, utf8(hash)));

export type Broken = {
  seq: number;
  why: "sequence" | "previous" | "hash" | "mac" | "missing-head" | "checkpoint" | "missing-lines";
};

/**
 * Walks lines in order and names the first that does not hold.
 * @param head a hash noted earlier, which must still occur: finds a rewritten or cut tail
 * @param checkpoints sizes and roots noted earlier, which the lines must still have; only from the first line on
 * @param after the line that comes before the first of them
 */
export async function checkChain(
  lines: AsyncIterable<ChainedLine> | Iterable<ChainedLine>,
  key: Bytes,
  head?: string,
  checkpoints: readonly { size: number; root: Uint8Array }[] = [],
  after: { seq: number; hash: string } = { seq: 0, hash: FIRST_PREVIOUS },
): Promise<{ lines: number; head: string; broken: Broken | null }> {
  const roots = new Map<number, Uint8Array[]>();
  for (const { size, root } of checkpoints) roots.set(size, [...(roots.get(size) ?? []), root]);
  const tree = new Growing();
  let previous = after.hash;
  let { seq } = after;
  let headSeen = head === undefined || head === FIRST_PREVIOUS;
  for await (const line of lines) {
    seq += 1;
    const broken = brokenLine(line, seq, previous, key);
    if (broken) return { lines: seq, head: previous, broken };
    previous = line.hash;
    if (line.hash === head) headSeen = true;
    tree.add(line.hash);
    if (roots.get(seq)?.some((root) => !sameBytes(root, tree.root())))
      return { lines: seq, head: previous, broken: { seq, why: "checkpoint" } };
  }
  const missing = Math.max(0, ...roots.keys()) > seq;
  if (missing) return { lines: seq, head: previous, broken: { seq, why: "missing-lines" } };
  return { lines: seq, head: previous, broken: headSeen ? null : { seq, why: "missing-head" } };
}

function brokenLine(line: ChainedLine, seq: number, previous: string, key: Bytes): Broken | null {
  if (line.seq !== seq) return { seq, why: "sequence" };
  if (line.previous !== previous) return { seq, why: "previous" };
  if (lineHash(line, previous) !== line.hash) return { seq, why: "hash" };
  if (!sameBytes(utf8(lineMac(key, line.hash)), utf8(line.mac))) return { seq, why: "mac" };
  return null;
}
