/** What is drafted for the chosen cells, and which act a key means there. */
import { type Change, LEVELS, type Lookup, placeOf, subjectKey, type Terms } from "@/core/access";
import type { Column, Row } from "./grid";
import { sameTerms, withChange } from "./useSlip";

export interface Place {
  row: number;
  /** -1 is the row's name. */
  column: number;
}

/** A rectangle of cells: where it began, and where the keys are. */
export interface Chosen {
  from: Place;
  to: Place;
}

export interface ChosenCell {
  row: Pick<Row, "node">;
  column: Pick<Column, "subject">;
}

const between = (value: number, a: number, b: number): boolean => value >= Math.min(a, b) && value <= Math.max(a, b);

export const isChosen = ({ from, to }: Chosen, row: number, column: number): boolean =>
  between(row, from.row, to.row) && between(column, from.column, to.column);

/** How many cells it takes up; none on the name of a row. */
export const countOf = ({ from, to }: Chosen): number =>
  (Math.abs(from.row - to.row) + 1) * (to.column < 0 ? 0 : Math.abs(from.column - to.column) + 1);

/** Rows and columns may have become fewer. */
export function within(chosen: Chosen, rows: number, columns: number): Chosen {
  const kept = ({ row, column }: Place): Place => ({
    row: Math.min(row, rows - 1),
    column: Math.min(column, columns - 1),
  });
  return { from: kept(chosen.from), to: kept(chosen.to) };
}

export const cellsIn = <R extends Pick<Row, "node">, C extends Pick<Column, "subject">>(
  rows: readonly R[],
  columns: readonly C[],
  chosen: Chosen,
): { row: R; column: C }[] =>
  rows.flatMap((row, r) => columns.flatMap((column, c) => (isChosen(chosen, r, c) ? [{ row, column }] : [])));

const placeOfCell = ({ row, column }: ChosenCell): string => `set ${row.node.id} ${subjectKey(column.subject)}`;

/** What is set directly at a cell. */
const setAt = (lookup: Lookup, { row, column }: ChosenCell): Terms[] =>
  lookup
    .grantsOn(row.node.id)
    .filter((one) => subjectKey(one.subject) === subjectKey(column.subject))
    .map(({ level, from, until, weekly }) => ({ level, from, until, weekly: weekly ?? null }));

/** The first grant of a cell, as where to begin from. */
export const startOf = (lookup: Lookup, cell: Partial<ChosenCell>): Terms | null =>
  (cell.row && cell.column && setAt(lookup, { row: cell.row, column: cell.column })[0]) ?? null;

/**
 * The slip with one level in each of the cells; null takes away what is set there. The time that stands at a cell stays
 * unless the level is timed. What leaves a cell as it is leaves the slip.
 */
export function draftCells(
  was: readonly Change[],
  before: Lookup,
  cells: readonly ChosenCell[],
  wanted: Terms | null,
  timed: boolean,
): Change[] {
  let next = [...was];
  for (const cell of cells) {
    const standing = setAt(before, cell);
    const earlier = was.find((one) => placeOf(one) === placeOfCell(cell));
    const [time] = earlier?.type === "set" && earlier.grants.length > 0 ? earlier.grants : standing;
    const given = wanted && (timed || !time ? wanted : { ...time, level: wanted.level });
    const change: Change = {
      type: "set",
      nodeId: cell.row.node.id,
      subject: cell.column.subject,
      grants: given ? [given] : [],
    };
    next = sameTerms(change.grants, standing)
      ? next.filter((one) => placeOf(one) !== placeOf(change))
      : withChange(next, change);
  }
  return next;
}

/** The slip without what it says of these cells. */
export function withoutCells(was: readonly Change[], cells: readonly ChosenCell[]): Change[] {
  const places = new Set(cells.map(placeOfCell));
  return was.filter((one) => !places.has(placeOf(one)));
}

export const plainTerms = (level: Terms["level"]): Terms => ({ level, from: null, until: null, weekly: null });

export type GridAct =
  | { do: "set"; terms: Terms | null }
  | { do: "again" | "unfold" | "terms" | "take off" | "one cell" | "why" };

/** What a key does in a cell of the grid; null where it does nothing. */
export function actOfKey(key: string): GridAct | null {
  const level = LEVELS[Number(key) - 1];
  if (key === "0") return { do: "set", terms: null };
  if (/^[1-9]$/.test(key)) return level ? { do: "set", terms: plainTerms(level) } : null;
  switch (key.length === 1 ? key.toLowerCase() : key) {
    case "b":
      return { do: "set", terms: plainTerms("blocked") };
    case ".":
      return { do: "again" };
    case "g":
      return { do: "unfold" };
    case "Enter":
      return { do: "terms" };
    case "Delete":
    case "Backspace":
      return { do: "take off" };
    case "Escape":
      return { do: "one cell" };
    case " ":
      return { do: "why" };
    default:
      return null;
  }
}
