/** The computation alone: access over a large vault, and the finder. */
import { type Grant, LEVELS, resolveTree, type TreeNode } from "../src/core/access";
import { type Findable, find, prepare } from "../src/core/finder";
import { middleOf, tell } from "./measure";

export async function benchCore(): Promise<void> {
  const nodes: TreeNode[] = [{ id: "v", parent: null, separate: false }];
  for (let f = 0; f < 200; f++)
    nodes.push({ id: `f${f}`, parent: f < 20 ? "v" : `f${f % 20}`, separate: f % 50 === 7 });
  for (let e = 0; e < 10_000; e++) nodes.push({ id: `e${e}`, parent: `f${e % 200}`, separate: false });
  const grants: Grant[] = Array.from({ length: 500 }, (_, i) => ({
    id: String(i),
    node: i % 3 === 0 ? `f${i % 200}` : `e${(i * 37) % 10_000}`,
    level: LEVELS[i % 4]!,
    from: null,
    until: i % 5 === 0 ? 10 : null,
    subject:
      i % 4 === 0
        ? { kind: "person", id: "P" }
        : i % 4 === 1
          ? { kind: "everyone" }
          : { kind: "group", id: `g${i % 6}` },
  }));
  const who = { id: "P", standing: "active" as const, guest: false, groups: new Set(["g1", "g2", "g3"]) };
  tell(
    "one person over 10,000 entries with 500 grants",
    await middleOf(30, () => resolveTree(who, nodes, grants, 5)),
    20,
    " ms",
  );

  const words = [
    "Harbour",
    "Lantern",
    "Museum",
    "Courier",
    "Observatory",
    "Ticket",
    "Paper",
    "Glass",
    "Weather",
    "Payroll",
    "Größe",
    "Café",
  ];
  const lines: Findable[] = Array.from({ length: 20_000 }, (_, i) => ({
    id: String(i),
    name: `${words[i % 12]} ${words[(i * 7) % 12]} ${i}`,
    description: words[(i * 5) % 12]!,
    site: `${words[(i * 3) % 12]!.toLowerCase()}${i}.example`,
    vault: "Vault",
    tags: [],
    kind: "Website login",
    lastUsedAt: i % 9 ? null : i,
    pinned: i % 400 === 0,
  }));
  const index = prepare(lines);
  let worst = 0;
  for (const typed of [
    "h",
    "ha",
    "har",
    "harb",
    "mus pap",
    "grosse",
    "cafe 11",
    "e",
    "zzz",
    "19999",
    "muesum",
    "harbuor caffe",
  ])
    worst = Math.max(worst, await middleOf(9, () => find(index, typed)));
  tell("the slowest key in the finder over 20,000 entries", worst, 16, " ms");
}
