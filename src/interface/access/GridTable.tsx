"use client";

import { defaultRangeExtractor, type Range, useVirtualizer } from "@tanstack/react-virtual";
import { ChevronDown, ChevronRight } from "lucide-react";
import { type KeyboardEvent, memo, type PointerEvent, type ReactNode, useCallback, useEffect, useRef } from "react";
import styled from "styled-components";
import { type Lookup, levelWord, sayWeekly } from "@/core/access";
import { exactTime } from "@/core/time";
import { CutKey } from "../shared/CutKey";
import { useTakenOver } from "../shared/useTypedBefore";
import { type Cell, type Column, cellAt, type Row, sameCell } from "./grid";
import { gridTable as t } from "./strings";

const ROW = 46;
const HEAD = 58;
const COLUMN = 104;
const FIRST = 288;

const Room = styled.div`
  flex: 1;
  min-height: 180px;
  overflow: auto;
  background: var(--sheet);
  --ground: var(--sheet);
  outline: none;
  user-select: none;
  .line { position: absolute; left: 0; display: flex; height: ${ROW}px; width: 100%; border-bottom: 1px solid var(--rule); background: var(--sheet); --ground: var(--sheet); }
  .line.place { background: var(--paper); --ground: var(--paper); }
  .line.place > :first-child { font-weight: 650; }
  .line.here, .line > .at { background: var(--lit); --ground: var(--lit); }
  .line > :first-child, .head [role="columnheader"]:first-child { position: sticky; left: 0; z-index: 2; flex: none; width: var(--first); background: inherit; }
  .line > :first-child { display: flex; align-items: center; gap: 4px; padding: 0 12px 0 calc(var(--gutter) + 20px * var(--depth)); white-space: nowrap; overflow: hidden; }
  .line > :first-child span { overflow: hidden; text-overflow: ellipsis; }
  .line > :first-child svg { flex: none; }
  .cell { flex: none; position: relative; display: grid; place-content: center; justify-items: center; width: ${COLUMN}px; border-left: 1px solid var(--rule); font-size: 12px; line-height: 13px; color: var(--soft); }
  .cell b { display: none; font-weight: 400; white-space: nowrap; }
  .line.here .cell b, .cell.at b { display: block; }
  .cell i { font-style: normal; white-space: nowrap; color: var(--ink); }
  .cell.first, .head .first { border-left: 3px double var(--edge); }
  .cell.under, .head .under { border-left-style: dotted; }
  .cell.chosen { background: var(--pick); --ground: var(--pick); }
  .cell.drafted::before { content: ""; position: absolute; inset: 1px; border: 1.5px dashed var(--ink); border-radius: 3px; pointer-events: none; }
  .cell.follows::before { content: ""; position: absolute; top: 0; right: 0; border: 5px solid; border-color: var(--ink) var(--ink) transparent transparent; }
  .was { position: relative; font-size: 11px; line-height: 11px; }
  .was::after { content: ""; position: absolute; inset: 5px -6px auto; border-top: 1.5px solid var(--crimson); rotate: -7deg; }
  .head { position: sticky; top: 0; z-index: 3; display: flex; height: ${HEAD}px; background: var(--paper); border-bottom: 1px solid var(--edge); }
  .head [role="columnheader"] { flex: none; display: flex; flex-direction: column; justify-content: end; padding: 4px 6px 6px; font-size: 13.5px; line-height: 17px; border-left: 1px solid var(--rule); }
  .head [role="columnheader"]:first-child { z-index: 4; justify-content: end; padding-left: var(--gutter); border-left: 0; color: var(--soft); font-size: 12.5px; background: var(--paper); }
  .head .at { box-shadow: inset 0 -3px var(--ink); }
  .head [role="columnheader"] > span, .head button > span { display: block; max-height: 34px; overflow: hidden; overflow-wrap: anywhere; font-weight: 650; }
  .head small { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; color: var(--soft); font-size: 12px; }
  .head button { display: flex; align-items: end; gap: 2px; padding: 0; border: 0; background: none; color: inherit; font: inherit; text-align: left; cursor: pointer; }
  .head button svg { flex: none; margin-bottom: 2px; }
  @media (max-width: 719px) { flex: none; height: 56vh; .cell b { display: block; } }
  &:focus-visible .focus { outline: 2px solid var(--copper); outline-offset: -2px; }
`;

export interface Place {
  row: number;
  /** -1 is the row's name. */
  column: number;
}

export interface Chosen {
  from: Place;
  to: Place;
}

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

export const isChosen = ({ from, to }: Chosen, row: number, column: number): boolean =>
  row >= Math.min(from.row, to.row) &&
  row <= Math.max(from.row, to.row) &&
  column >= Math.min(from.column, to.column) &&
  column <= Math.max(from.column, to.column);

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
