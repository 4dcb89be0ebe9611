"use client";

import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { ArrowDown, ArrowUp } from "lucide-react";
import { type KeyboardEvent, useMemo, useRef, useState } from "react";
import { COLUMN_WORDS, LEDGER_COLUMNS, type LedgerSort } from "@/core/ledgerView";
import { useTakenOver } from "../shared/useTypedBefore";
import { isHeading } from "./arrange";
import { OneRow, PLACED, type TableProps } from "./LedgerRow";
import { ROW, Rows } from "./ledgerLook";
import { ledgerTable as t } from "./strings";

/** One tab stop; the arrows walk, Space chooses, Enter opens. Only what is seen is drawn. */
export function LedgerTable(props: TableProps) {
  const { lines, columns, chosen, bin, view, onSort } = props;
  const parent = useRef<HTMLDivElement>(null);
  const [active, setActive] = useState(0);
  const shownColumns = useMemo(() => LEDGER_COLUMNS.filter((one) => columns.includes(one)), [columns]);
  const takenOver = useTakenOver();
  const virtual = useWindowVirtualizer({
    count: lines.length,
    estimateSize: () => ROW,
    // What is not seen yet is drawn once the page is there.
    overscan: takenOver ? 12 : 1,
    scrollMargin: parent.current?.offsetTop ?? 0,
    initialRect: { width: 1200, height: 700 },
  });
  const at = Math.min(active, lines.length - 1);
  const activeRow = lines[at];
  const entryIds = lines.flatMap((line) => (isHeading(line) ? [] : [line.row.id]));
  const all = entryIds.length > 0 && entryIds.every((id) => chosen.ids.has(id));
  const go = (to: number, event: KeyboardEvent) => {
    let next = Math.max(0, Math.min(lines.length - 1, to));
    while (isHeading(lines[next]!) && next > 0 && next < lines.length - 1) next += to > at ? 1 : -1;
    setActive(next);
    virtual.scrollToIndex(next, { align: "auto" });
    const line = lines[next]!;
    if (event.shiftKey && !isHeading(line)) {
      if (chosen.from === null && activeRow && !isHeading(activeRow)) props.onChoose(activeRow.row.id, "turn");
      props.onChoose(line.row.id, "through");
    }
  };
  const keys = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.target !== event.currentTarget) return;
    const row = activeRow && !isHeading(activeRow) ? activeRow.row : null;
    const page = Math.max(1, Math.floor(window.innerHeight / ROW) - 3);
    const shift = event.altKey && row && props.onShift;
    const acts: Record<string, () => void> = {
      ArrowDown: () => (shift ? shift(row.id, 1) : go(at + 1, event)),
      ArrowUp: () => (shift ? shift(row.id, -1) : go(at - 1, event)),
      Home: () => go(0, event),
      End: () => go(lines.length - 1, event),
      PageDown: () => go(at + page, event),
      PageUp: () => go(at - page, event),
      " ": () => row && props.onChoose(row.id, event.shiftKey ? "through" : "turn"),
      Enter: () => row && props.onOpen(row),
      ArrowRight: () => row?.type === "folder" && props.turn(row.id, true),
      ArrowLeft: () => row?.type === "folder" && props.turn(row.id, false),
      Escape: () => props.onChooseAll(false),
    };
    if (event.key.toLowerCase() === "a" && (event.ctrlKey || event.metaKey)) props.onChooseAll(true);
    else if (acts[event.key]) acts[event.key]!();
    else return;
    event.preventDefault();
  };
  return (
    <Rows
      role="treegrid"
      tabIndex={0}
      $columns={shownColumns}
      data-few={!shownColumns.includes("who") || undefined}
      aria-multiselectable
      aria-rowcount={lines.length + 1}
      aria-colcount={shownColumns.length + 2}
      aria-label={bin ? t.bin : t.entries}
      aria-activedescendant={activeRow && !isHeading(activeRow) ? `row-${activeRow.row.id}` : undefined}
      onKeyDown={keys}
    >
      <div role="rowgroup">
        <div role="row" className="head" aria-rowindex={1}>
          <span role="columnheader">
            <button
              type="button"
              role="checkbox"
              tabIndex={-1}
              className="pick"
              aria-checked={all ? "true" : chosen.ids.size > 0 ? "mixed" : "false"}
              aria-label={t.selectAllRowsShown}
              onClick={() => props.onChooseAll(!all)}
            >
              <i />
            </button>
          </span>
          <SortedHead word={t.name} sort="name" {...{ view, onSort }} />
          {shownColumns.map((one) => (
            <SortedHead
              key={one}
              word={one === "changed" && bin ? t.putInTheBin : COLUMN_WORDS[one]}
              sort={one === "tags" ? null : one}
              className={`c-${one}`}
              {...{ view, onSort }}
            />
          ))}
        </div>
      </div>
      <div ref={parent} role="rowgroup" style={{ height: virtual.getTotalSize(), position: "relative" }}>
        {virtual.getVirtualItems().map((item) => {
          const line = lines[item.index]!;
          const top = item.start - virtual.options.scrollMargin;
          if (isHeading(line))
            return (
              <div
                key={`# ${line.heading}`}
                role="row"
                className="heading"
                aria-rowindex={item.index + 2}
                style={{ ...PLACED, top }}
              >
                <span role="gridcell" style={{ gridColumn: "1 / -1" }}>
                  {line.heading} <span className="soft small">{t.count(line.count)}</span>
                </span>
              </div>
            );
          return (
            <OneRow
              key={`${line.row.id} ${item.index}`}
              {...props}
              columns={shownColumns}
              line={line}
              index={item.index}
              active={item.index === at}
              top={top}
              onActive={setActive}
              live={takenOver}
            />
          );
        })}
      </div>
    </Rows>
  );
}

interface SortedHeadProps extends Pick<TableProps, "view" | "onSort"> {
  word: string;
  /** Null: nobody sorts by it. */
  sort: LedgerSort | null;
  className?: string;
}

/** Pressed, the rows are sorted by it; pressed again, the other way round. */
function SortedHead({ word, sort, className, view, onSort }: SortedHeadProps) {
  const here = view.sort === sort;
  return (
    <span
      role="columnheader"
      className={className}
      aria-sort={!here ? undefined : view.reverse === FALLS.has(view.sort) ? "ascending" : "descending"}
    >
      {sort === null ? (
        word
      ) : (
        <button type="button" tabIndex={-1} className="sort" onClick={() => onSort(sort)}>
          {word}
          {here && (view.reverse ? <ArrowUp size={13} aria-hidden /> : <ArrowDown size={13} aria-hidden />)}
        </button>
      )}
    </span>
  );
}

/** Sorted largest or newest first. */
const FALLS: ReadonlySet<LedgerSort> = new Set(["used", "new", "who", "changed", "you"]);
