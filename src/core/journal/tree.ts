/**
 * The Journal's lines as the leaves of a Merkle tree (RFC 6962, section 2.1). A leaf's data is the 32 bytes of its line's
 * hash, which covers everything that the line says. The root over the first `size` lines stands for all of them: a few
 * hashes show that a line is one of them, or that a larger tree begins with a smaller one.
 */
import { type Bytes, concat, fromHex, sameBytes, sha256 } from "../crypto";

const LEAF = Uint8Array.of(0);
const NODE = Uint8Array.of(1);

/** @param lineHash hexadecimal, as `lineHash` makes it */
export const leafOf = (lineHash: string): Bytes => sha256(concat(LEAF, fromHex(lineHash)));

export const nodeOf = (left: Uint8Array, right: Uint8Array): Bytes => sha256(concat(NODE, left, right));

/** The root over no lines at all: the hash of nothing. */
export const EMPTY_ROOT: Bytes = sha256(new Uint8Array());

/** The root of the complete subtree of 2^level leaves that is the `index`-th from the left, counted from 0. */
export type Subtree = (level: number, index: number) => Promise<Uint8Array>;

/** The root over leaves in memory, by way of the subtrees. */
export const subtreeOf = (leaves: readonly Uint8Array[]): Subtree => {
  const subtree: Subtree = async (level, index) =>
    level === 0 ? leaves[index]! : nodeOf(await subtree(level - 1, 2 * index), await subtree(level - 1, 2 * index + 1));
  return subtree;
};

/** The largest power of two that is smaller than a number above 1. */
function splitOf(size: number): number {
  let split = 1;
  while (split * 2 < size) split *= 2;
  return split;
}

/** Of `size` leaves from `start`, as they lie under one node of the tree. */
async function rangeRoot(subtree: Subtree, start: number, size: number): Promise<Uint8Array> {
  const level = Math.log2(size);
  if (Number.isInteger(level)) return subtree(level, start / size);
  const split = splitOf(size);
  return nodeOf(await rangeRoot(subtree, start, split), await rangeRoot(subtree, start + split, size - split));
}

export const rootOf = async (subtree: Subtree, size: number): Promise<Uint8Array> =>
  size === 0 ? EMPTY_ROOT : rangeRoot(subtree, 0, size);

/**
 * That a leaf is one of the first `size` (RFC 6962, section 2.1.1).
 * @param index counted from 0, below `size`
 * @returns hashes from the leaf's own side upward
 */
export async function inclusionPath(subtree: Subtree, index: number, size: number): Promise<Uint8Array[]> {
  const path = async (at: number, start: number, of: number): Promise<Uint8Array[]> => {
    if (of === 1) return [];
    const split = splitOf(of);
    return at < split
      ? [...(await path(at, start, split)), await rangeRoot(subtree, start + split, of - split)]
      : [...(await path(at - split, start + split, of - split)), await rangeRoot(subtree, start, split)];
  };
  return path(index, 0, size);
}

/**
 * That the tree of `size` leaves begins with that of the first `before` (RFC 6962, section 2.1.2).
 * @param before from 0 to `size`
 */
export async function growthPath(subtree: Subtree, before: number, size: number): Promise<Uint8Array[]> {
  const path = async (at: number, start: number, of: number, known: boolean): Promise<Uint8Array[]> => {
    if (at === of) return known ? [] : [await rangeRoot(subtree, start, of)];
    const split = splitOf(of);
    return at <= split
      ? [...(await path(at, start, split, known)), await rangeRoot(subtree, start + split, of - split)]
      : [...(await path(at - split, start + split, of - split, false)), await rangeRoot(subtree, start, split)];
  };
  return before === 0 ? [] : path(before, 0, size, true);
}

const half = (number: number) => Math.floor(number / 2);
const isOdd = (number: number) => number % 2 === 1;

/** Whether a leaf is the one at `index` of the tree with that root (RFC 9162, section 2.1.3.2). */
export function isIncluded(
  leaf: Uint8Array,
  index: number,
  size: number,
  path: readonly Uint8Array[],
  root: Uint8Array,
): boolean {
  if (!(Number.isSafeInteger(index) && Number.isSafeInteger(size) && index >= 0 && index < size)) return false;
  let [at, last, hash] = [index, size - 1, leaf];
  for (const beside of path) {
    if (last === 0) return false;
    if (isOdd(at) || at === last) {
      hash = nodeOf(beside, hash);
      while (!isOdd(at) && at !== 0) [at, last] = [half(at), half(last)];
    } else hash = nodeOf(hash, beside);
    [at, last] = [half(at), half(last)];
  }
  return last === 0 && sameBytes(hash, root);
}

/** Whether the tree with one root begins with that of the other, which is no larger (RFC 9162, section 2.1.4.2). */
export function hasGrownFrom(
  before: { size: number; root: Uint8Array },
  now: { size: number; root: Uint8Array },
  path: readonly Uint8Array[],
): boolean {
  if (![before.size, now.size].every((size) => Number.isSafeInteger(size) && size >= 0)) return false;
  if (before.size > now.size) return false;
  if (before.size === 0) return path.length === 0 && sameBytes(before.root, EMPTY_ROOT);
  if (before.size === now.size) return path.length === 0 && sameBytes(before.root, now.root);
  const whole = Number.isInteger(Math.log2(before.size)) ? [before.root, ...path] : path;
  const [first, ...rest] = whole;
  if (!first) return false;
  let [at, last] = [before.size - 1, now.size - 1];
  while (isOdd(at)) [at, last] = [half(at), half(last)];
  let [old, fresh] = [first, first];
  for (const beside of rest) {
    if (last === 0) return false;
    if (isOdd(at) || at === last) {
      old = nodeOf(beside, old);
      fresh = nodeOf(beside, fresh);
      while (!isOdd(at) && at !== 0) [at, last] = [half(at), half(last)];
    } else fresh = nodeOf(fresh, beside);
    [at, last] = [half(at), half(last)];
  }
  return last === 0 && sameBytes(old, before.root) && sameBytes(fresh, now.root);
}

/**
 * The tree as it grows line by line, holding only the roots of its complete parts: for a walk over all lines.
 */
export class Growing {
  size = 0;
  readonly #parts: { level: number; hash: Bytes }[] = [];

  add(lineHash: string): void {
    let part = { level: 0, hash: leafOf(lineHash) };
    for (let last = this.#parts.at(-1); last?.level === part.level; last = this.#parts.at(-1)) {
      this.#parts.pop();
      part = { level: part.level + 1, hash: nodeOf(last.hash, part.hash) };
    }
    this.#parts.push(part);
    this.size += 1;
  }

  root(): Bytes {
    const [last, ...before] = this.#parts.map(({ hash }) => hash).reverse();
    return last ? before.reduce((right, left) => nodeOf(left, right), last) : EMPTY_ROOT;
  }
}
