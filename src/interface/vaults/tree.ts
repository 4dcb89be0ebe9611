/** Which rows of a ledger stand on the page: folders that are open show what lies in them; a filter shows all that match. */

interface TreeRow {
  id: string;
  type: "folder" | "entry";
  parentId: string | null;
  name: string;
}

export interface Shown<R> {
  row: R;
  /** 0 at the top. */
  depth: number;
  /** Entries in it, at any depth; 0 for entries. */
  inside: number;
  /** "Ticketing › Season"; empty at the top. */
  way: string;
}

export interface Tree<R> {
  /** What lies in a folder, or at the top (null): folders first, each in the order of the rows. */
  children: Map<string | null, R[]>;
  inside: Map<string, number>;
  ways: Map<string, string>;
}

/** @param rows in the order in which siblings are shown */
export function growTree<R extends TreeRow>(rows: readonly R[]): Tree<R> {
  const children = new Map<string | null, R[]>();
  for (const type of ["folder", "entry"])
    for (const row of rows) {
      if (row.type !== type) continue;
      const siblings = children.get(row.parentId);
      if (siblings) siblings.push(row);
      else children.set(row.parentId, [row]);
    }
  const inside = new Map<string, number>();
  const ways = new Map<string, string>();
  const walk = (parentId: string | null, way: string): number => {
    let count = 0;
    for (const row of children.get(parentId) ?? []) {
      ways.set(row.id, way);
      if (row.type === "entry") count++;
      else {
        const below = walk(row.id, way === "" ? row.name : `${way} › ${row.name}`);
        inside.set(row.id, below);
        count += below;
      }
    }
    return count;
  };
  walk(null, "");
  return { children, inside, ways };
}

export function shownRows<R extends TreeRow>(tree: Tree<R>, open: ReadonlySet<string>): Shown<R>[] {
  const shown: Shown<R>[] = [];
  const walk = (parentId: string | null, depth: number) => {
    for (const row of tree.children.get(parentId) ?? []) {
      shown.push({ row, depth, inside: tree.inside.get(row.id) ?? 0, way: "" });
      if (open.has(row.id)) walk(row.id, depth + 1);
    }
  };
  walk(null, 0);
  return shown;
}

/** All that matches, wherever it lies, with the way to it. */
export function matchingRows<R extends TreeRow>(
  tree: Tree<R>,
  rows: readonly R[],
  matches: (row: R, way: string) => boolean,
): Shown<R>[] {
  return rows.flatMap((row) => {
    const way = tree.ways.get(row.id) ?? "";
    return matches(row, way) ? [{ row, depth: 0, inside: tree.inside.get(row.id) ?? 0, way }] : [];
  });
}

/** Folders around a row, itself included: what must be open for it to be seen. */
export function folderAndAbove<R extends TreeRow>(rows: readonly R[], id: string): string[] {
  const byId = new Map(rows.map((row) => [row.id, row]));
  const found: string[] = [];
  for (let at: string | null = id; at !== null; at = byId.get(at)?.parentId ?? null) if (byId.has(at)) found.push(at);
  return found;
}
