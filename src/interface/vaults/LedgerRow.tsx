"use client";

import { FolderClosed, FolderOpen, GripVertical } from "lucide-react";
import Link from "next/link";
import { memo, type PointerEvent, useRef } from "react";
import { useDrag, useDrop } from "react-aria";
import { Button as AriaButton } from "react-aria-components";
import { atLeast } from "@/core/access";
import type { LedgerColumn, LedgerSort, LedgerView } from "@/core/ledgerView";
import type { LedgerRow } from "@/server/vaults/vaults";
import { Chip } from "../shared/controls";
import { Stamp } from "../shared/Stamp";
import type { Line } from "./arrange";
import type { Chosen } from "./chosen";
import { Cell } from "./LedgerCell";
import { ledgerTable as t } from "./strings";

export interface TableProps {
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

interface RowProps extends TableProps {
  line: Exclude<Line<LedgerRow>, { heading: string }>;
  index: number;
  active: boolean;
  top: number;
  onActive: (index: number) => void;
  /** The page is taken over: rows can be dragged. */
  live: boolean;
}

export const PLACED = { position: "absolute", insetInline: 0 } as const;

const NODES = "application/x-galtry-nodes";

/** Drawn again only when something of it changes: scrolling draws the rows that come. */
export const OneRow = memo(function OneRow(props: RowProps) {
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
