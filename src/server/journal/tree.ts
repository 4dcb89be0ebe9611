/** The tree over the Journal's lines as it is kept: roots of its complete parts, from 2^8 lines on. */
import { and, asc, eq, gt, lte, max } from "drizzle-orm";
import { fromHex, toHex } from "../../core/crypto";
import { leafOf, nodeOf, type Subtree, subtreeOf } from "../../core/journal/tree";
import type { Reader } from "../database/client";
import { journal, journalTree } from "../database/schema";
import type { Galtry } from "../galtry";
import { yieldToEventLoop } from "../yieldToEventLoop";

/** Parts of so many lines are kept: what is smaller is worked out from at most so many lines. */
const KEPT_LEVEL = 8;
const KEPT_LINES = 2 ** KEPT_LEVEL;
/** So many parts are worked out at a time. */
const AT_ONCE = 16;

/** A line that should be there is not. */
export class MissingLine extends Error {
  override name = "MissingLine";
}

async function leaves(tx: Reader, after: number, until: number): Promise<Uint8Array[]> {
  const rows = await tx
    .select({ hash: journal.hash })
    .from(journal)
    .where(and(gt(journal.seq, after), lte(journal.seq, until)))
    .orderBy(asc(journal.seq));
  return rows.map(({ hash }) => leafOf(hash));
}

/**
 * Parts of the tree, read where they are kept and worked out where they are not.
 * @throws MissingLine
 */
export function treeOf(tx: Reader, size: number): Subtree {
  const blocks = new Map<number, Promise<Subtree>>();
  const readBlock = async (block: number): Promise<Subtree> => {
    const until = Math.min((block + 1) * KEPT_LINES, size);
    const found = await leaves(tx, block * KEPT_LINES, until);
    if (found.length !== until - block * KEPT_LINES) throw new MissingLine();
    return subtreeOf(found);
  };
  const subtree: Subtree = async (level, index) => {
    if (level >= KEPT_LEVEL) {
      const [kept] = await tx
        .select({ hash: journalTree.hash })
        .from(journalTree)
        .where(and(eq(journalTree.level, level), eq(journalTree.position, index)));
      if (kept) return fromHex(kept.hash);
      if (level > KEPT_LEVEL)
        return nodeOf(await subtree(level - 1, 2 * index), await subtree(level - 1, 2 * index + 1));
    }
    const inBlock = 2 ** (KEPT_LEVEL - level);
    const block = Math.floor(index / inBlock);
    const lines = blocks.get(block) ?? readBlock(block);
    blocks.set(block, lines);
    return (await lines)(level, index % inBlock);
  };
  return subtree;
}

/** How many lines lie in parts that are kept. */
export async function linesInTree(tx: Reader): Promise<number> {
  const [last] = await tx
    .select({ position: max(journalTree.position) })
    .from(journalTree)
    .where(eq(journalTree.level, KEPT_LEVEL));
  return last?.position == null ? 0 : (last.position + 1) * KEPT_LINES;
}

/**
 * Keeps what has become complete. A piece at a time, each in a transaction of its own: two that do it at once write the
 * same.
 * @throws MissingLine
 */
export async function growTree(app: Galtry): Promise<void> {
  const [end] = await app.db.select({ seq: max(journal.seq) }).from(journal);
  const size = end?.seq ?? 0;
  for (let from = await linesInTree(app.db); from + KEPT_LINES <= size; ) {
    const until = Math.min(from + AT_ONCE * KEPT_LINES, size - (size % KEPT_LINES));
    const subtree = treeOf(app.db, until);
    const rows: (typeof journalTree.$inferInsert)[] = [];
    for (let block = from / KEPT_LINES; block < until / KEPT_LINES; block++) {
      let [level, position, hash] = [KEPT_LEVEL, block, await subtree(KEPT_LEVEL, block)];
      rows.push({ level, position, hash: toHex(hash) });
      // The right half of a larger part makes that complete.
      while (position % 2 === 1) {
        const left = rows.find((row) => row.level === level && row.position === position - 1);
        hash = nodeOf(left ? fromHex(left.hash) : await subtree(level, position - 1), hash);
        [level, position] = [level + 1, (position - 1) / 2];
        rows.push({ level, position, hash: toHex(hash) });
      }
      await yieldToEventLoop();
    }
    await app.writer.write((tx) => tx.insert(journalTree).values(rows).onConflictDoNothing(), true);
    from = until;
  }
}
