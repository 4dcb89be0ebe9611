import type { Lookup } from "@/core/access";
import { harmless, writeCsv } from "@/core/formats/csv";
import { exactTime } from "@/core/time";
import { type Column, cellAt, type Row } from "./grid";
import { sayCell } from "./sayCell";
import { gridCsv as t } from "./strings";

/** The grid as it is shown, a line a place, in words. Names that a spreadsheet would run are made harmless. */
export function gridCsv(
  rows: readonly Row[],
  columns: readonly Column[],
  lookup: Lookup,
  at: number,
  zone: string,
): string {
  return writeCsv(
    [
      t.placeAsAt(exactTime(at, zone)),
      t.kind,
      ...columns.map((column) => harmless(`${column.name} (${column.note || t.person})`)),
    ],
    rows.map(({ node, depth }) => [
      `${"· ".repeat(depth)}${node.name}`,
      node.type,
      ...columns.map((column) => {
        if (!node.mine) return "";
        const cell = cellAt(lookup, column, node.id, at);
        return cell.level === "none" ? "" : sayCell(cell, null, 0, false, zone);
      }),
    ]),
  );
}
