import { describe, expect, test } from "vitest";
import { type Change, type Level, Lookup, type Organised, type Subject, type Terms } from "@/core/access";
import {
  actOfKey,
  type ChosenCell,
  cellsIn,
  countOf,
  draftCells,
  plainTerms,
  startOf,
  within,
  withoutCells,
} from "./cells";

const LATER = Date.UTC(2027, 0, 4);
const shop: Subject = { kind: "group", id: "shop" };
const ada: Subject = { kind: "person", id: "ada" };

const node = (id: string, parent: string | null): ChosenCell["row"]["node"] => ({
  ...{ id, parent, type: parent === null ? "vault" : "entry", name: id, separate: false, mine: true },
});
const vault = node("Vault", null);
const till = node("till", "Vault");
const organised: Organised = {
  nodes: [vault, till],
  grants: [
    { id: "1", node: "till", level: "use", from: null, until: LATER, weekly: null, subject: shop },
    { id: "2", node: "Vault", level: "reveal", from: null, until: null, weekly: null, subject: shop },
  ],
  people: [],
};
const lookup = new Lookup(organised);
const cell = (row: ChosenCell["row"]["node"], subject: Subject): ChosenCell => ({
  row: { node: row },
  column: { subject },
});
const draft = (was: readonly Change[], cells: ChosenCell[], wanted: Terms | null, timed = false) =>
  draftCells(was, lookup, cells, wanted, timed);
const grantsOf = (changes: readonly Change[]) => changes.map((one) => (one.type === "set" ? one.grants : null));

describe("the chosen cells", () => {
  const rows = [{ node: vault }, { node: till }];
  const columns = [{ subject: shop }, { subject: ada }];

  test("are the rectangle between where it began and where the keys are, in any direction", () => {
    const back = { from: { row: 1, column: 1 }, to: { row: 0, column: 1 } };
    expect(cellsIn(rows, columns, back).map(({ row, column }) => [row.node.id, column.subject])).toEqual([
      ["Vault", ada],
      ["till", ada],
    ]);
    expect(countOf(back)).toBe(2);
  });

  test("on the name of a row there is none", () => {
    const name = { from: { row: 0, column: -1 }, to: { row: 0, column: -1 } };
    expect([countOf(name), cellsIn(rows, columns, name)]).toEqual([0, []]);
  });

  test("stay within the grid when rows or columns become fewer", () => {
    const far = { from: { row: 8, column: 0 }, to: { row: 9, column: 5 } };
    expect(within(far, 2, 1)).toEqual({ from: { row: 1, column: 0 }, to: { row: 1, column: 0 } });
  });
});

describe("drafting", () => {
  test("a level keeps the time that stands at the cell, unless it brings its own", () => {
    expect(grantsOf(draft([], [cell(till, shop)], plainTerms("edit")))).toEqual([
      [{ level: "edit", from: null, until: LATER, weekly: null }],
    ]);
    expect(grantsOf(draft([], [cell(till, shop)], plainTerms("edit"), true))).toEqual([[plainTerms("edit")]]);
  });

  test("a second level on the slip keeps the time of the first", () => {
    const timed = draft([], [cell(till, ada)], { ...plainTerms("use"), until: LATER }, true);
    expect(grantsOf(draft(timed, [cell(till, ada)], plainTerms("reveal")))).toEqual([
      [{ level: "reveal", from: null, until: LATER, weekly: null }],
    ]);
  });

  test("what leaves a cell as it is leaves the slip", () => {
    const changed = draft([], [cell(vault, shop)], plainTerms("edit"));
    expect(changed).toHaveLength(1);
    expect(draft(changed, [cell(vault, shop)], plainTerms("reveal"))).toEqual([]);
  });

  test("nothing in place of a grant takes it away; where none is set there is nothing to draft", () => {
    expect(grantsOf(draft([], [cell(till, shop)], null))).toEqual([[]]);
    expect(draft([], [cell(till, ada)], null)).toEqual([]);
  });

  test("cells are taken off the slip, the others stay", () => {
    const both = draft([], [cell(till, ada), cell(vault, ada)], plainTerms("use"));
    expect(withoutCells(both, [cell(till, ada)]).map((one) => one.type === "set" && one.nodeId)).toEqual(["Vault"]);
  });

  test("the dialog begins from what is set directly, never from what is inherited", () => {
    expect(startOf(lookup, cell(till, shop))?.level).toBe("use" satisfies Level);
    expect(startOf(lookup, cell(till, ada))).toBeNull();
    expect(startOf(lookup, {})).toBeNull();
  });
});

describe("keys", () => {
  test.each([
    ["0", { do: "set", terms: null }],
    ["1", { do: "set", terms: plainTerms("use") }],
    ["4", { do: "set", terms: plainTerms("steward") }],
    ["B", { do: "set", terms: plainTerms("blocked") }],
    [".", { do: "again" }],
    ["g", { do: "unfold" }],
    ["G", { do: "unfold" }],
    ["Enter", { do: "terms" }],
    ["Backspace", { do: "take off" }],
    ["Escape", { do: "one cell" }],
    [" ", { do: "why" }],
  ])("%j", (key, act) => {
    expect(actOfKey(key)).toEqual(act);
  });

  test.each(["5", "9", "x", "Tab", "F5", "enter", ""])("%j does nothing", (key) => {
    expect(actOfKey(key)).toBeNull();
  });
});
