import { expect, test } from "vitest";
import { folderAndAbove, growTree, matchingRows, shownRows } from "./tree";

const row = (id: string, type: "folder" | "entry", parentId: string | null = null) => ({
  id,
  type,
  parentId,
  name: id,
});
const rows = [
  row("Almery", "entry"),
  row("Bookings", "entry", "Season"),
  row("Closed", "folder"),
  row("Season", "folder", "Ticketing"),
  row("Ticketing", "folder"),
  row("Tills", "entry", "Ticketing"),
];
const tree = growTree(rows);
const names = (open: string[]) => shownRows(tree, new Set(open)).map((one) => `${"  ".repeat(one.depth)}${one.row.id}`);

test("folders stand first, closed ones hide what lies in them", () => {
  expect(names([])).toEqual(["Closed", "Ticketing", "Almery"]);
  expect(names(["Ticketing"])).toEqual(["Closed", "Ticketing", "  Season", "  Tills", "Almery"]);
  // Open within a closed one: not seen.
  expect(names(["Season"])).toEqual(["Closed", "Ticketing", "Almery"]);
  expect(names(["Ticketing", "Season"])).toContain("    Bookings");
});

test("a folder says how many entries lie in it, at any depth", () => {
  expect(shownRows(tree, new Set()).map((one) => one.inside)).toEqual([0, 2, 0]);
});

test("what matches is found wherever it lies, with its way", () => {
  const found = matchingRows(tree, rows, (one, way) => `${one.name} ${way}`.includes("Season"));
  expect(found.map((one) => [one.row.id, one.way])).toEqual([
    ["Bookings", "Ticketing › Season"],
    ["Season", "Ticketing"],
  ]);
});

test("the folders around a row", () => {
  expect(folderAndAbove(rows, "Season")).toEqual(["Season", "Ticketing"]);
  expect(folderAndAbove(rows, "elsewhere")).toEqual([]);
});
