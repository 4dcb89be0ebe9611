import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { fromHex, sha256, toHex, utf8 } from "../crypto";
import {
  EMPTY_ROOT,
  Growing,
  growthPath,
  hasGrownFrom,
  inclusionPath,
  isIncluded,
  leafOf,
  nodeOf,
  rootOf,
  subtreeOf,
} from "./tree";

const hashes = (count: number) => Array.from({ length: count }, (_, at) => toHex(sha256(utf8(`line ${at}`))));
const tree = (count: number) => subtreeOf(hashes(count).map(leafOf));

/** As RFC 6962 writes it down: the whole list, cut at the largest power of two below its length. */
function slowRoot(leaves: Uint8Array[]): Uint8Array {
  if (leaves.length === 0) return EMPTY_ROOT;
  if (leaves.length === 1) return leaves[0]!;
  const split = 2 ** Math.floor(Math.log2(leaves.length - 1));
  return nodeOf(slowRoot(leaves.slice(0, split)), slowRoot(leaves.slice(split)));
}

const size = fc.integer({ min: 1, max: 140 });

describe("the tree over the lines", () => {
  test("nothing at all has the hash of nothing", () => {
    expect(toHex(EMPTY_ROOT)).toBe("e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855");
    expect(toHex(new Growing().root())).toBe(toHex(EMPTY_ROOT));
  });

  test("a leaf and a node are told apart by their first byte", () => {
    const [a, b] = [hashes(1)[0]!, hashes(2)[1]!];
    expect(toHex(leafOf(a))).toBe(toHex(sha256(Uint8Array.of(0, ...fromHex(a)))));
    expect(toHex(nodeOf(fromHex(a), fromHex(b)))).toBe(toHex(sha256(Uint8Array.of(1, ...fromHex(a), ...fromHex(b)))));
  });

  test("has the root of the standard's own definition, at once or line by line", async () => {
    const growing = new Growing();
    for (let count = 1; count <= 140; count++) {
      growing.add(hashes(count).at(-1)!);
      const slow = toHex(slowRoot(hashes(count).map(leafOf)));
      expect(toHex(await rootOf(tree(count), count))).toBe(slow);
      expect(toHex(growing.root())).toBe(slow);
    }
  });

  test("every line of every size is shown to be in, and to be nowhere else", async () => {
    await fc.assert(
      fc.asyncProperty(size, fc.nat(), fc.nat(), async (count, one, other) => {
        const [index, elsewhere] = [one % count, other % count];
        const root = await rootOf(tree(count), count);
        const path = await inclusionPath(tree(count), index, count);
        const leaf = leafOf(hashes(count)[index]!);
        expect(isIncluded(leaf, index, count, path, root)).toBe(true);
        expect(isIncluded(leaf, elsewhere, count, path, root)).toBe(elsewhere === index);
        expect(isIncluded(leafOf(toHex(sha256(leaf))), index, count, path, root)).toBe(false);
        expect(isIncluded(leaf, index, count, [...path, leaf], root)).toBe(false);
        expect(isIncluded(leaf, index, count, path.slice(1), root)).toBe(path.length === 0);
      }),
      { numRuns: 60 },
    );
  });

  test("of no number that is none of the lines'", async () => {
    const root = await rootOf(tree(3), 3);
    for (const index of [-1, 3, 0.5, Number.NaN, Number.POSITIVE_INFINITY])
      expect(isIncluded(leafOf(hashes(1)[0]!), index, 3, await inclusionPath(tree(3), 0, 3), root)).toBe(false);
  });

  test("grown from each smaller size, and from no other", async () => {
    await fc.assert(
      fc.asyncProperty(size, fc.nat(), async (count, less) => {
        const before = less % (count + 1);
        const now = { size: count, root: await rootOf(tree(count), count) };
        const old = { size: before, root: await rootOf(tree(before), before) };
        const path = await growthPath(tree(count), before, count);
        expect(hasGrownFrom(old, now, path)).toBe(true);
        expect(hasGrownFrom(now, old, path)).toBe(before === count);
        const other = { ...old, root: sha256(old.root) };
        expect(hasGrownFrom(other, now, path)).toBe(false);
        if (path.length > 0) expect(hasGrownFrom(old, now, path.slice(1))).toBe(false);
      }),
      { numRuns: 60 },
    );
  });

  test("a line that was changed among the first is seen at every later size", async () => {
    const lines = hashes(21);
    const old = { size: 9, root: await rootOf(subtreeOf(lines.map(leafOf)), 9) };
    for (let changed = 0; changed < 21; changed++) {
      const now = lines.map((line, at) => (at === changed ? toHex(sha256(fromHex(line))) : line));
      const subtree = subtreeOf(now.map(leafOf));
      const path = await growthPath(subtree, 9, 21);
      expect(hasGrownFrom(old, { size: 21, root: await rootOf(subtree, 21) }, path)).toBe(changed >= 9);
    }
  });
});
