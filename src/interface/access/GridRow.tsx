"use client";

import { ChevronDown, ChevronRight } from "lucide-react";
import { type KeyboardEvent, memo, type PointerEvent, type ReactNode } from "react";
import { type Lookup, levelWord } from "@/core/access";
import { exactTime } from "@/core/time";
import { CutKey } from "../shared/CutKey";
import { type Chosen, isChosen, type Place } from "./cells";
import { type Column, cellAt, type Row, sameCell } from "./grid";
import { COLUMN } from "./gridLook";
import { sayCell } from "./sayCell";
import { gridTable as t } from "./strings";

export interface TableProps {
  rows: readonly Row[];
  columns: readonly Column[];
  before: Lookup;
  after: Lookup;
  /** Places of the slip. */
  drafted: ReadonlySet<string>;
  within: ReadonlyMap<string, ReadonlyMap<string, number>>;
  entries: ReadonlyMap<string, number>;
  at: number;
  zone: string;
  chosen: Chosen;
  label: string;
  onChoose: (chosen: Chosen) => void;
  onFold: (row: Row) => void;
  onUnfold: (column: Column) => void;
  unfolded: ReadonlySet<string>;
  /** A word at some cells, by place and subject. */
  marks?: ReadonlyMap<string, string>;
  onKey: (event: KeyboardEvent) => boolean;
  children?: ReactNode;
}

export const classes = (of: Record<string, boolean>): string =>
  Object.entries(of)
    .filter(([, on]) => on)
    .map(([name]) => name)
    .join(" ");

export const cellId = ({ row, column }: Place): string => `cell-${row}-${column}`;

/** The columns that are drawn, each with the room of those left out before it. */
export const runsOf = (seen: readonly number[]): { index: number; gap: number }[] =>
  seen.map((index, i) => ({ index, gap: i === 0 ? 0 : index - seen[i - 1]! - 1 }));

interface LineProps extends TableProps {
  index: number;
  top: number;
  seen: readonly number[];
  press: (event: PointerEvent, row: number, column: number) => void;
}

export function Line(props: LineProps) {
  const { rows, columns, index, top, seen, chosen, press } = props;
  const row = rows[index]!;
  const { node, depth, open } = row;
  const focused = chosen.to.row === index;
  const name = chosen.to.row === index && chosen.to.column === -1;
  const count = props.entries.get(node.id) ?? 0;
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      className={`line${node.type === "entry" ? "" : " place"}${focused ? " here" : ""}`}
      style={{ top, "--depth": depth } as React.CSSProperties}
    >
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: the grid has the focus and the keys */}
      <div
        id={cellId({ row: index, column: -1 })}
        role="rowheader"
        aria-colindex={1}
        aria-expanded={node.type === "folder" ? open : undefined}
        className={name ? "focus" : ""}
        tabIndex={-1}
        title={node.name}
        onClick={() => node.type === "folder" && props.onFold(row)}
        onPointerDown={(event) => press(event, index, -1)}
      >
        {node.type === "folder" && (open ? <ChevronDown size={16} /> : <ChevronRight size={16} />)}
        <span>{node.name}</span>
        {node.type === "folder" && (
          <span className="soft small" style={{ flex: "none", fontWeight: 400 }}>
            {count.toLocaleString("en-GB")}
            {node.separate && t.separate}
          </span>
        )}
      </div>
      <span aria-hidden style={{ flex: "none", width: (seen[0] ?? 0) * COLUMN }} />
      {runsOf(seen).map(({ index: at, gap }) => (
        <OneCell key={columns[at]!.key} {...props} column={columns[at]!} columnIndex={at} gap={gap} row={row} />
      ))}
    </div>
  );
}

interface CellProps extends LineProps {
  column: Column;
  columnIndex: number;
  gap: number;
  row: Row;
}

const OneCell = memo(
  function OneCell({ column, columnIndex, gap, row, index, press, chosen, ...props }: CellProps) {
    const { node } = row;
    const at = { row: index, column: columnIndex };
    const focused = chosen.to.row === index && chosen.to.column === columnIndex;
    const cell = node.mine ? cellAt(props.after, column, node.id, props.at) : null;
    const was = node.mine ? cellAt(props.before, column, node.id, props.at) : null;
    const drafted = cell !== null && props.drafted.has(`set ${node.id} ${subjectText(column)}`);
    const changed = cell !== null && was !== null && !sameCell(cell, was);
    const mark = markAt({ ...props, row, column });
    const within = !row.open && node.type !== "entry" ? (props.within.get(node.id)?.get(subjectText(column)) ?? 0) : 0;
    return (
      <div
        id={cellId(at)}
        role="gridcell"
        aria-colindex={columnIndex + 2}
        aria-selected={isChosen(chosen, index, columnIndex)}
        aria-label={
          cell ? `${sayCell(cell, was, within, drafted, props.zone)}${mark && t.inTheRound(mark)}` : t.notShownToYou
        }
        tabIndex={-1}
        className={classes({
          cell: true,
          at: chosen.to.column === columnIndex,
          focus: focused,
          first: column.first,
          under: column.under,
          chosen: isChosen(chosen, index, columnIndex) && !focused,
          drafted,
          follows: changed && !drafted,
        })}
        style={gap > 0 ? { marginLeft: gap * COLUMN } : undefined}
        onPointerDown={(event) => press(event, index, columnIndex)}
        onPointerEnter={(event) => press(event, index, columnIndex)}
      >
        {cell && (
          <>
            {cell.level === "none" && drafted && changed && <span className="was">{levelWord(was!.level)}</span>}
            {cell.level === "none" ? (
              within > 0 ? (
                t.inside(within)
              ) : (
                drafted && levelWord("none")
              )
            ) : (
              <>
                <CutKey
                  level={cell.level}
                  inherited={!cell.set}
                  until={cell.until === null ? (cell.weekly ? t.weekly : null) : exactTime(cell.until, props.zone)}
                  silent
                />
                {mark ? (
                  <i>{mark}</i>
                ) : drafted && changed ? (
                  <span className="pair">
                    <span className="was">{levelWord(was!.level)}</span> {levelWord(cell.level)}
                  </span>
                ) : (
                  <b>{levelWord(cell.level)}</b>
                )}
              </>
            )}
          </>
        )}
      </div>
    );
  },
  (a, b) =>
    a.after === b.after &&
    a.before === b.before &&
    a.at === b.at &&
    a.row.node === b.row.node &&
    a.row.open === b.row.open &&
    a.index === b.index &&
    a.column === b.column &&
    a.columnIndex === b.columnIndex &&
    a.gap === b.gap &&
    a.press === b.press &&
    a.drafted === b.drafted &&
    a.within === b.within &&
    markAt(a) === markAt(b) &&
    JSON.stringify(marksOf(a)) === JSON.stringify(marksOf(b)),
);

const marksOf = ({ chosen, index, columnIndex }: CellProps) => [
  isChosen(chosen, index, columnIndex),
  chosen.to.row === index && chosen.to.column === columnIndex,
  chosen.to.column === columnIndex,
];

const markAt = ({ marks, row, column }: Pick<CellProps, "marks" | "row" | "column">): string =>
  marks?.get(`${row.node.id} ${subjectText(column)}`) ?? "";

const subjectText = ({ subject }: Column): string =>
  subject.kind === "everyone" ? "everyone" : `${subject.kind}:${subject.id}`;
