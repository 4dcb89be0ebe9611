import { levelWord, sayWeekly } from "@/core/access";
import { exactTime } from "@/core/time";
import { type Cell, sameCell } from "./grid";
import { gridTable as t } from "./strings";

/** A cell in words, for those who hear it. */
export function sayCell(cell: Cell, was: Cell | null, within: number, drafted: boolean, zone: string): string {
  const parts = [
    levelWord(cell.level),
    ...(cell.level === "none" ? [] : [cell.set ? t.setDirectly : "inherited"]),
    ...(cell.until === null ? [] : [t.until(exactTime(cell.until, zone))]),
    ...(cell.weekly ? [sayWeekly(cell.weekly)] : []),
    ...(within > 0 ? [t.inside(within)] : []),
    ...(was && !sameCell(cell, was) ? [t.was(drafted ? t.onTheSlip : t.effectOfTheSlip, levelWord(was.level))] : []),
  ];
  return parts.join(", ");
}
