/** The computation alone: access over a large vault, and the finder. */
import { type Change, type Grant, LEVELS, Lookup, preview, resolveTree, type TreeNode } from "../src/core/access";
import { type Findable, find, prepare } from "../src/core/finder";
import { pack } from "../src/core/packed";
import { cellAt, columnsOf, gridOf, rowsOf } from "../src/interface/access/grid";
import type { GridGrant, GridModel, GridNode } from "../src/server/access/grid";
import { middleOf, tell } from "./measure";

/** A vault of 10,000 entries and an organisation of 500 people, as the access grid has it. */
function largeModel(): GridModel {
  const nodes: GridNode[] = [{ id: "v", parent: null, type: "vault", name: "Vault", separate: false, mine: true }];
  for (let f = 0; f < 200; f++)
    nodes.push({
      ...{ id: `f${f}`, parent: f < 20 ? "v" : `f${f % 20}`, type: "folder", name: `Folder ${f}` },
      ...{ separate: f % 50 === 7, mine: true },
    });
  for (let e = 0; e < 10_000; e++)
    nodes.push({ id: `e${e}`, parent: `f${e % 200}`, type: "entry", name: `Entry ${e}`, separate: false, mine: true });
  const grants: GridGrant[] = Array.from({ length: 500 }, (_, i) => ({
    ...{ id: `${i}`, node: i % 3 === 0 ? `f${i % 200}` : `e${(i * 37) % 10_000}`, level: LEVELS[i % 4]! },
    ...{ kind: i % 4 === 0 ? "person" : "group", subjectId: i % 4 === 0 ? `p${i}` : `g${i % 20}` },
    ...{ from: null, until: i % 5 === 0 ? NOW + i * DAY : null, weekly: null, why: "", by: "", since: 0 },
  }));
  return {
    ...{
      vault: { id: "v", name: "Vault" },
      zone: "Europe/London",
      reads: false,
      past: null,
      rounds: true,
      round: false,
      staff: 500,
    },
    nodes: pack(nodes),
    grants: pack(grants),
    people: pack(
      Array.from({ length: 500 }, (_, i) => ({ id: `p${i}`, name: `Person ${i}`, guest: false, standing: "active" })),
    ) as GridModel["people"],
    memberships: pack(
      Array.from({ length: 1000 }, (_, i) => ({
        ...{ personId: `p${i % 500}`, groupId: i < 500 ? "all" : `g${i % 20}`, from: null, until: null },
      })),
    ),
    groups: [
      { id: "all", name: "All", until: null },
      ...Array.from({ length: 20 }, (_, i) => ({ id: `g${i}`, name: `Group ${i}`, until: null })),
    ],
  };
}

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 4, 3);

async function benchGrid(): Promise<void> {
  const model = largeModel();
  const grid = gridOf(model);
  const lookup = new Lookup(grid.organised);
  const open = new Set([...grid.node.values()].filter((node) => node.type === "folder").map((node) => node.id));
  const rows = rowsOf(grid, { open, text: "", only: null });
  const columns = columnsOf(grid, lookup, { all: true, text: "", guests: false, unfolded: new Set() }, NOW, "p0");
  let from = 0;
  const seen = (fresh: Lookup) => {
    for (const row of rows.slice(from, from + 60))
      for (const column of columns.slice(from % 400, (from % 400) + 20)) cellAt(fresh, column, row.node.id, NOW);
    from = (from + 997) % (rows.length - 60);
  };
  tell(
    `the window of the access grid that is seen, of ${rows.length} rows by ${columns.length} columns, from nothing`,
    await middleOf(9, () => seen(new Lookup(gridOf(model).organised))),
    150,
    " ms",
  );
  tell("the next window", await middleOf(30, () => seen(lookup)), 16, " ms");
  const change: Change = {
    ...{ type: "set", nodeId: "v", subject: { kind: "group", id: "all" } },
    grants: [{ level: "reveal", from: null, until: null }],
  };
  tell(
    "what giving a group of 500 people something over 10,000 entries would do",
    await middleOf(5, () => preview(grid.organised, [change], NOW)),
    1000,
    " ms",
  );
}

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

  await benchGrid();

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
