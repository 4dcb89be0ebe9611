"use client";

import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { ArrowDown, ArrowUp, FolderClosed, FolderOpen, GripVertical } from "lucide-react";
import Link from "next/link";
import { type KeyboardEvent, memo, type PointerEvent, useMemo, useRef, useState } from "react";
import { useDrag, useDrop } from "react-aria";
import { Button as AriaButton } from "react-aria-components";
import styled from "styled-components";
import { atLeast } from "@/core/access";
import { levelWord } from "@/core/access/level";
import { strengthOf } from "@/core/generator/strengthWords";
import { COLUMN_WORDS, LEDGER_COLUMNS, type LedgerColumn, type LedgerSort, type LedgerView } from "@/core/ledgerView";
import { siteName } from "@/core/signin/address";
import { exactTime, sayDay } from "@/core/time";
import type { LedgerRow } from "@/server/vaults/vaults";
import { useCommand } from "../shared/ask";
import { CutKey } from "../shared/CutKey";
import { Act, Chip } from "../shared/controls";
import { Stamp } from "../shared/Stamp";
import { useTakenOver } from "../shared/useTypedBefore";
import { isHeading, type Line } from "./arrange";
import type { Chosen } from "./chosen";
import { ledgerTable as t } from "./strings";

const ROW = 44;

const WIDTHS: Record<LedgerColumn, string> = {
  kind: "112px",
  address: "158px",
  tags: "132px",
  who: "76px",
  strength: "92px",
  used: "90px",
  changed: "90px",
  you: "108px",
};

const Rows = styled.div<{ $columns: readonly LedgerColumn[] }>`
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  --ground: var(--sheet);
  outline: none;
  [role="row"] { display: grid; grid-template-columns: 26px minmax(0, 1fr) ${({ $columns }) => $columns.map((one) => WIDTHS[one]).join(" ")}; gap: 12px; align-items: center; height: ${ROW}px; padding: 0 12px; border-bottom: 1px solid var(--rule); }
  [role="row"].head { height: 38px; border-bottom-color: var(--edge); color: var(--soft); font-size: 13.5px; font-weight: 650; }
  [role="row"].heading { align-items: end; padding-bottom: 6px; font-weight: 650; }
  [role="row"]:not(.head, .heading):hover { background: var(--lit); --ground: var(--lit); }
  [role="row"][aria-selected="true"] { background: var(--pick); --ground: var(--pick); box-shadow: inset 4px 0 var(--ink); }
  [role="row"][data-drop] { background: var(--pick); outline: 2px dashed var(--ink); outline-offset: -2px; }
  &:focus-visible [role="row"][data-active] { outline: 2px solid var(--copper); outline-offset: -2px; }
  [role="gridcell"] { min-width: 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; font-size: 13.5px; }
  .what { display: flex; align-items: center; gap: 10px; font-size: 15px; }
  .what > span:last-child { display: flex; gap: 10px; min-width: 0; align-items: baseline; }
  .what a { overflow: hidden; text-overflow: ellipsis; font-weight: 600; text-decoration: none; }
  .what .soft { min-width: 0; flex-shrink: 4; overflow: hidden; text-overflow: ellipsis; }
  .what a:hover { text-decoration: underline 1px; }
  .folder { display: flex; align-items: center; gap: 10px; min-width: 0; height: 100%; padding: 0 8px; border: 0; background: none; color: inherit; font: inherit; cursor: pointer; }
  .folder svg { flex: none; }
  .what a.change { flex: none; font-weight: 400; text-decoration: underline 1px var(--edge); text-underline-offset: 3px; }
  .folder b { overflow: hidden; text-overflow: ellipsis; font-weight: 600; }
  .you { display: flex; align-items: center; gap: 8px; }
  .pick { display: grid; place-items: center; width: 26px; height: 100%; padding: 0; border: 0; background: none; cursor: pointer; }
  .pick i { display: grid; place-items: center; width: 16px; height: 16px; border: 1.5px solid var(--edge); border-radius: 3px; background: var(--sheet); }
  .pick[aria-checked="true"] i, .pick[aria-checked="mixed"] i { background: var(--ink); border-color: var(--ink); }
  .pick[aria-checked="true"] i::after { content: ""; width: 8px; height: 4px; margin-top: -2px; border: solid var(--sheet); border-width: 0 0 2px 2px; rotate: -45deg; }
  .pick[aria-checked="mixed"] i::after { content: ""; width: 8px; height: 2px; background: var(--sheet); }
  .sort { display: inline-flex; align-items: center; gap: 3px; padding: 0; border: 0; background: none; color: inherit; font: inherit; cursor: pointer; }
  .sort:hover { color: var(--ink); text-decoration: underline 1px var(--edge); text-underline-offset: 3px; }
  .grip { flex: none; display: grid; place-items: center; width: 18px; height: 28px; margin: 0 -6px; padding: 0; border: 0; background: none; color: var(--soft); cursor: grab; opacity: 0; }
  [role="row"]:hover .grip, .grip:focus { opacity: 1; }
  @media (max-width: 1023px) { [role="row"] { grid-template-columns: 26px minmax(0, 1fr) 84px 108px; } .c-kind, .c-address, .c-tags, .c-strength, .c-used, .c-changed { display: none; } &[data-few] [role="row"] { grid-template-columns: 26px minmax(0, 1fr) 108px; } }
  @media (max-width: 719px) { [role="row"], &[data-few] [role="row"] { grid-template-columns: 26px minmax(0, 1fr) 104px; gap: 8px; } .c-who, .folder .soft, .grip { display: none; } .what > span:last-child { display: grid; grid-template-columns: minmax(0, 1fr); gap: 0; line-height: 19px; } }
`;

interface TableProps {
  lines: Line<LedgerRow>[];
  columns: readonly LedgerColumn[];
  view: Pick<LedgerView, "sort" | "reverse">;
  onSort: (sort: LedgerSort) => void;
  open: ReadonlySet<string>;
  turn: (id: string, open: boolean) => void;
  vaultId: string;
  bin: boolean;
  zone: string;
  now: number;
  chosen: Chosen;
  onChoose: (id: string, how: "one" | "turn" | "through") => void;
  onChooseAll: (all: boolean) => void;
  onOpen: (row: LedgerRow) => void;
  /** Put into a folder, or at the vault's top (null). Null where nothing can be moved. */
  onMove: ((ids: string[], folderId: string | null) => void) | null;
  /** One place up or down in one's own order. */
  onShift: ((id: string, by: -1 | 1) => void) | null;
}

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

interface RowProps extends TableProps {
  line: Exclude<Line<LedgerRow>, { heading: string }>;
  index: number;
  active: boolean;
  top: number;
  onActive: (index: number) => void;
  /** The page is taken over: rows can be dragged. */
  live: boolean;
}

const PLACED = { position: "absolute", insetInline: 0 } as const;
const NODES = "application/x-galtry-nodes";

/** Drawn again only when something of it changes: scrolling draws the rows that come. */
const OneRow = memo(function OneRow(props: RowProps) {
  const { line, columns, chosen, bin, onMove, open, turn, vaultId } = props;
  const { row, depth, inside, way } = line;
  const isChosen = chosen.ids.has(row.id);
  const dragged = isChosen ? [...chosen.ids] : [row.id];
  const { dragProps, dragButtonProps } = useDrag({
    hasDragButton: true,
    isDisabled: !onMove,
    getItems: () => [{ [NODES]: JSON.stringify(dragged) }],
  });
  const click = (event: React.MouseEvent | PointerEvent) => {
    props.onActive(props.index);
    if (event.shiftKey) props.onChoose(row.id, "through");
    else if (event.ctrlKey || event.metaKey) props.onChoose(row.id, "turn");
    else return false;
    event.preventDefault();
    return true;
  };
  return (
    <DropRow
      takes={row.type === "folder" && onMove !== null && !bin}
      onNodes={(ids) =>
        onMove?.(
          ids.filter((id) => id !== row.id),
          row.id,
        )
      }
    >
      {({ dropProps, over, ref }) => (
        <div
          ref={ref}
          {...(dropProps as object)}
          id={`row-${row.id}`}
          role="row"
          tabIndex={-1}
          data-type={row.type}
          data-active={props.active || undefined}
          data-drop={over || undefined}
          aria-selected={isChosen}
          aria-level={depth + 1}
          aria-expanded={row.type === "folder" ? open.has(row.id) : undefined}
          aria-rowindex={props.index + 2}
          style={{ ...PLACED, top: props.top }}
          onClickCapture={(event) => {
            if (click(event)) event.stopPropagation();
          }}
        >
          <span role="gridcell">
            <button
              type="button"
              role="checkbox"
              tabIndex={-1}
              className="pick"
              aria-checked={isChosen}
              aria-label={t.select(row.name)}
              onClick={() => props.onChoose(row.id, "turn")}
            >
              <i />
            </button>
          </span>
          <span role="gridcell" className="what" title={row.name} style={{ paddingLeft: depth * 24 }} {...dragProps}>
            {onMove && !bin && !props.live && <span className="grip" />}
            {onMove && !bin && props.live && (
              <AriaButton className="grip" aria-label={t.drag(row.name)} {...dragButtonProps}>
                <GripVertical size={15} aria-hidden />
              </AriaButton>
            )}
            {row.type === "folder" ? (
              <>
                <FolderName row={row} inside={inside} open={open.has(row.id)} turn={turn} />
                {inside === 0 && open.has(row.id) && !bin && atLeast(row.level, "edit") && (
                  <Link href={`/vaults/${props.vaultId}/new?in=${row.id}`} prefetch={false}>
                    {t.addHere}
                  </Link>
                )}
                {row.level !== "none" && (
                  <Link
                    className="small change"
                    href={`/vaults/${vaultId}/folder/${row.id}`}
                    prefetch={false}
                    aria-label={t.edit(row.name)}
                  >
                    {t.edit2}
                  </Link>
                )}
              </>
            ) : (
              <>
                <Stamp name={row.name} picture={row.picture} />
                <span>
                  <Link href={`/entry/${row.id}`} prefetch={false} draggable={false}>
                    {row.name}
                  </Link>
                  {row.asideAt !== null && <Chip data-tone="plain">{t.setAside}</Chip>}
                  {(row.description || way) && (
                    <span className="soft small">{[way, row.description].filter(Boolean).join(" · ")}</span>
                  )}
                </span>
              </>
            )}
          </span>
          {columns.map((one) => (
            <span key={one} role="gridcell" className={`c-${one} ${one === "you" ? "you" : "soft"}`}>
              <Cell column={one} row={row} bin={bin} zone={props.zone} now={props.now} />
            </span>
          ))}
        </div>
      )}
    </DropRow>
  );
});

interface Droppable {
  dropProps: object;
  over: boolean;
  ref: React.RefObject<HTMLDivElement | null>;
}

/** Takes what is dropped on it, with the pointer or with the keys of React Aria's drag and drop. */
function DropRow({
  takes,
  onNodes,
  children,
}: {
  takes: boolean;
  onNodes: (ids: string[]) => void;
  children: (droppable: Droppable) => React.ReactNode;
}) {
  const ref = useRef<HTMLDivElement>(null);
  const { dropProps, isDropTarget } = useDrop({
    ref,
    isDisabled: !takes,
    getDropOperation: (types) => (types.has(NODES) ? "move" : "cancel"),
    onDrop: async (event) => {
      for (const item of event.items)
        if (item.kind === "text" && item.types.has(NODES)) onNodes(JSON.parse(await item.getText(NODES)) as string[]);
    },
  });
  return children({ dropProps: takes ? dropProps : {}, over: isDropTarget, ref });
}

/** Over the table while something can be moved: to the vault's top. */
export function DropToTop({ name, onNodes }: { name: string; onNodes: (ids: string[]) => void }) {
  return (
    <DropRow takes onNodes={onNodes}>
      {({ dropProps, over, ref }) => (
        <div
          ref={ref}
          {...dropProps}
          role="button"
          tabIndex={-1}
          aria-label={t.dropAtTheTopOf(name)}
          style={{ height: 10, marginBottom: -10, outline: over ? "2px dashed var(--ink)" : "none" }}
        />
      )}
    </DropRow>
  );
}

interface CellProps {
  column: LedgerColumn;
  row: LedgerRow;
  bin: boolean;
  zone: string;
  now: number;
}

function Cell({ column, row, bin, zone, now }: CellProps) {
  switch (column) {
    case "kind":
      return <>{row.kind}</>;
    case "address":
      return (
        <span className="mono" title={row.signInPage}>
          {siteName(row.signInPage)}
        </span>
      );
    case "tags":
      return <span title={row.tags.join(", ")}>{row.tags.join(", ")}</span>;
    case "who":
      return <>{row.people === null ? "" : t.people(row.people)}</>;
    case "strength":
      return <StrengthWord row={row} />;
    case "used":
      return row.usedAt === null ? null : (
        <span title={exactTime(row.usedAt, zone)}>{sayDay(row.usedAt, now, zone)}</span>
      );
    case "changed": {
      const at = bin ? row.binnedAt! : row.changedAt;
      return bin || row.type === "entry" ? <span title={exactTime(at, zone)}>{sayDay(at, now, zone)}</span> : null;
    }
    case "you":
      if (bin) return row.binnedWith === null || row.binnedWith === row.id ? <Restore row={row} /> : null;
      return row.level === "none" ? null : (
        <>
          <CutKey level={row.level} inherited={!row.setHere} silent /> {levelWord(row.level)}
        </>
      );
  }
}

function StrengthWord({ row }: { row: LedgerRow }) {
  if (row.guesses === null) return null;
  const { word } = strengthOf(row.guesses);
  const weak = word === "weak" || word === "very weak";
  return (
    <span style={weak ? { color: "var(--crimson)", fontWeight: 600 } : undefined}>
      {word}
      {row.same !== null && row.same > 1 && `, ${row.same}×`}
    </span>
  );
}

interface FolderNameProps {
  row: LedgerRow;
  inside: number;
  open: boolean;
  turn: (id: string, open: boolean) => void;
}

/** Opens and closes in place; the arrow keys do too. */
function FolderName({ row, inside, open, turn }: FolderNameProps) {
  const Sign = open ? FolderOpen : FolderClosed;
  return (
    <button
      type="button"
      className="folder"
      aria-expanded={open}
      onClick={() => turn(row.id, !open)}
      onKeyDown={(event) => {
        if (event.key === "ArrowRight") turn(row.id, true);
        else if (event.key === "ArrowLeft") turn(row.id, false);
      }}
    >
      <Sign size={20} strokeWidth={1.6} aria-hidden />
      <b>{row.name}</b>
      <span className="soft small">{inside === 0 ? t.empty : t.count(inside)}</span>
    </button>
  );
}

function Restore({ row }: { row: LedgerRow }) {
  const restore = useCommand(row.type === "folder" ? "vaults.restoreFolder" : "vaults.restoreEntry");
  return (
    <>
      <Act
        onPress={() => restore.run(row.type === "folder" ? { folderId: row.id } : { entryIds: [row.id] })}
        isDisabled={restore.running}
        aria-label={t.restore(row.name)}
      >
        {t.restore2}
      </Act>
      {restore.refused && <span role="alert">{restore.refused.message} </span>}
      {restore.refused?.data?.placeGone === true && row.type === "entry" && (
        <Link href={`/entry/${row.id}`}>{t.chooseAPlace}</Link>
      )}
    </>
  );
}
