"use client";

import { defaultRangeExtractor, type Range, useVirtualizer } from "@tanstack/react-virtual";
import { ChevronDown, ChevronRight } from "lucide-react";
import { type KeyboardEvent, type PointerEvent, useCallback, useEffect, useRef } from "react";
import { useTakenOver } from "../shared/useTypedBefore";
import { cellId, classes, Line, runsOf, type TableProps } from "./GridRow";
import { COLUMN, FIRST, HEAD, ROW, Room } from "./gridLook";
import { gridTable as t } from "./strings";

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
