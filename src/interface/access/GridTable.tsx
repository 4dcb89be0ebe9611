"use client";

import { defaultRangeExtractor, type Range, useVirtualizer } from "@tanstack/react-virtual";
import { ChevronDown, ChevronRight } from "lucide-react";
import { type KeyboardEvent, memo, type PointerEvent, type ReactNode, useCallback, useEffect, useRef } from "react";
import { type Lookup, levelWord } from "@/core/access";
import { exactTime } from "@/core/time";
import { CutKey } from "../shared/CutKey";
import { useTakenOver } from "../shared/useTypedBefore";
import { type Chosen, isChosen, type Place } from "./cells";
import { type Column, cellAt, type Row, sameCell } from "./grid";
import { COLUMN, FIRST, HEAD, ROW, Room } from "./gridLook";
import { sayCell } from "./sayCell";
import { gridTable as t } from "./strings";

interface TableProps {
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

/** One tab stop; the arrows walk, with Shift they choose. Only what is seen is worked out and drawn. */
export function GridTable(props: TableProps) {
  const { rows, columns, chosen, onChoose } = props;
  const room = useRef<HTMLDivElement>(null);
  const focus = chosen.to;
  const keeping = (index: number) => (range: Range) => {
    const shown = defaultRangeExtractor(range);
    // Where the focus is stays drawn, wherever one scrolls: a screen reader stands there.
    return index < 0 || index >= range.count || shown.includes(index) ? shown : [...shown, index].sort((a, b) => a - b);
  };
  const takenOver = useTakenOver();
  const vertical = useVirtualizer({
    count: rows.length,
    getScrollElement: () => room.current,
    estimateSize: () => ROW,
    // What is not seen yet is drawn once the page is there.
    overscan: takenOver ? 16 : 1,
    // The rows begin under the head, which stays where it is.
    scrollMargin: HEAD,
    scrollPaddingStart: HEAD,
    rangeExtractor: keeping(focus.row),
    initialRect: { width: 1200, height: 600 },
  });
  const horizontal = useVirtualizer({
    horizontal: true,
    count: columns.length,
    getScrollElement: () => room.current,
    estimateSize: () => COLUMN,
    overscan: takenOver ? 4 : 1,
    scrollMargin: FIRST,
    scrollPaddingStart: FIRST,
    rangeExtractor: keeping(focus.column),
    initialRect: { width: 1200, height: 600 },
  });
  const seen = horizontal.getVirtualItems().map((item) => item.index);
  const width = `calc(var(--first) + ${columns.length * COLUMN}px)`;
  // A move of the focus brings it into sight, and so does less room.
  useEffect(() => {
    if (focus.row >= 0) vertical.scrollToIndex(focus.row, { align: "auto" });
    if (focus.column >= 0) horizontal.scrollToIndex(focus.column, { align: "auto" });
  }, [focus.row, focus.column, vertical.scrollRect?.height]);
  const go = (row: number, column: number, extend: boolean) => {
    const to = {
      row: Math.max(0, Math.min(rows.length - 1, row)),
      column: Math.max(-1, Math.min(columns.length - 1, column)),
    };
    onChoose({ from: extend ? chosen.from : to, to });
  };
  const keys = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.target !== event.currentTarget) return;
    const page = Math.max(1, Math.floor((room.current?.clientHeight ?? 600) / ROW) - 2);
    const { row, column } = focus;
    const here = rows[row];
    const walks: Record<string, () => void> = {
      ArrowDown: () => go(row + 1, column, event.shiftKey),
      ArrowUp: () => go(row - 1, column, event.shiftKey),
      ArrowRight: () =>
        column === -1 && here && !here.open && here.node.type === "folder"
          ? props.onFold(here)
          : go(row, column + 1, event.shiftKey),
      ArrowLeft: () =>
        column === -1 && here?.open && here.node.type === "folder"
          ? props.onFold(here)
          : go(row, column - 1, event.shiftKey),
      PageDown: () => go(row + page, column, event.shiftKey),
      PageUp: () => go(row - page, column, event.shiftKey),
      Home: () => go(event.ctrlKey ? 0 : row, -1, event.shiftKey),
      End: () => go(event.ctrlKey ? rows.length - 1 : row, columns.length - 1, event.shiftKey),
    };
    if (props.onKey(event)) event.preventDefault();
    else if (walks[event.key] && !event.altKey && !event.metaKey) {
      walks[event.key]!();
      event.preventDefault();
    }
  };
  const press = useCallback(
    (event: PointerEvent, row: number, column: number) => {
      if (event.type === "pointerdown") {
        if (event.button !== 0) return;
        // A finger scrolls; it chooses one cell by a tap.
        if (event.pointerType !== "touch") (event.target as Element).releasePointerCapture?.(event.pointerId);
        onChoose({ from: event.shiftKey ? chosen.from : { row, column }, to: { row, column } });
      } else if (event.buttons === 1 && event.pointerType !== "touch" && column >= 0)
        onChoose({ from: chosen.from, to: { row, column } });
    },
    [chosen.from, onChoose],
  );
  return (
    <Room
      ref={room}
      role="grid"
      tabIndex={0}
      aria-label={props.label}
      aria-rowcount={rows.length + 1}
      aria-colcount={columns.length + 1}
      aria-multiselectable
      aria-activedescendant={rows[focus.row] ? cellId(focus) : undefined}
      onKeyDown={keys}
      onFocus={(event) => {
        // A press puts the focus on the cell, which goes as one scrolls on: the grid hears the keys, and the cell is marked.
        if (event.target !== event.currentTarget && !event.target.closest("button, a, input"))
          event.currentTarget.focus({ preventScroll: true });
      }}
      style={{ "--first": `min(${FIRST}px, 44vw)` } as React.CSSProperties}
    >
      <div role="rowgroup" className="head" style={{ width, minWidth: "100%" }}>
        <div role="row" aria-rowindex={1} style={{ display: "contents" }}>
          <span role="columnheader" aria-colindex={1}>
            {t.cuts1Use2Reveal3Edit}
          </span>
          <span aria-hidden style={{ width: (seen[0] ?? 0) * COLUMN, padding: 0, border: 0 }} />
          {runsOf(seen).map(({ index, gap }) => {
            const column = columns[index]!;
            return (
              <span
                key={column.key}
                role="columnheader"
                aria-colindex={index + 2}
                className={classes({ at: index === focus.column, first: column.first, under: column.under })}
                style={{ width: COLUMN, marginLeft: gap * COLUMN }}
                title={`${column.name}, ${column.note}`}
              >
                {column.subject.kind === "group" && column.members > 0 ? (
                  <button type="button" tabIndex={-1} onClick={() => props.onUnfold(column)}>
                    <span>{column.name}</span>
                    {props.unfolded.has(column.subject.id) ? <ChevronDown size={14} /> : <ChevronRight size={14} />}
                  </button>
                ) : (
                  <span>{column.name}</span>
                )}
                <small>{column.note}</small>
              </span>
            );
          })}
        </div>
      </div>
      <div role="rowgroup" style={{ position: "relative", height: vertical.getTotalSize(), width, minWidth: "100%" }}>
        {vertical.getVirtualItems().map((item) => (
          <Line
            key={rows[item.index]!.node.id}
            {...props}
            index={item.index}
            top={item.start - HEAD}
            seen={seen}
            press={press}
          />
        ))}
      </div>
      {props.children}
    </Room>
  );
}

export const cellId = ({ row, column }: Place): string => `cell-${row}-${column}`;

const classes = (of: Record<string, boolean>): string =>
  Object.entries(of)
    .filter(([, on]) => on)
    .map(([name]) => name)
    .join(" ");

/** The columns that are drawn, each with the room of those left out before it. */
const runsOf = (seen: readonly number[]): { index: number; gap: number }[] =>
  seen.map((index, i) => ({ index, gap: i === 0 ? 0 : index - seen[i - 1]! - 1 }));

interface LineProps extends TableProps {
  index: number;
  top: number;
  seen: readonly number[];
  press: (event: PointerEvent, row: number, column: number) => void;
}

function Line(props: LineProps) {
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
            {drafted && changed && <span className="was">{levelWord(was!.level)}</span>}
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
                {mark ? <i>{mark}</i> : <b>{levelWord(cell.level)}</b>}
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
