"use client";

import { useEffect } from "react";
import { createPortal } from "react-dom";
import styled from "styled-components";
import { type Lookup, levelWord } from "@/core/access";
import { exactTime } from "@/core/time";
import { type Column, cellAt, type Grid, type Row } from "./grid";
import { printedGrid as t } from "./strings";

/** More than this nobody prints: the CSV has all. */
const MOST_ROWS = 2000;
const MOST_COLUMNS = 40;

const Paper = styled.div`
  display: none;
  @media print {
    display: block;
    color: #000;
    background: #fff;
    table { width: 100%; border-collapse: collapse; font-size: 9pt; line-height: 1.25; }
    th, td { padding: 2pt 4pt; border: 0.5pt solid #999; text-align: left; vertical-align: top; overflow-wrap: anywhere; }
    thead { display: table-header-group; }
    tr { break-inside: avoid; }
    h1 { font-size: 14pt; margin-bottom: 4pt; }
    p { margin-bottom: 8pt; }
  }
`;

interface PrintedProps {
  grid: Grid;
  rows: readonly Row[];
  columns: readonly Column[];
  lookup: Lookup;
  at: number;
  now: number;
  onDone: () => void;
}

/** The grid as it is shown, as a table on paper. */
export function PrintedGrid({ grid, rows, columns, lookup, at, now, onDone }: PrintedProps) {
  useEffect(() => {
    document.body.classList.add("printing-grid");
    window.print();
    document.body.classList.remove("printing-grid");
    onDone();
  }, [onDone]);
  const shown = columns.slice(0, MOST_COLUMNS);
  return createPortal(
    <Paper className="printed">
      <h1>{t.accessTo(grid.vault.name)}</h1>
      <p>
        {t.asAtPrintedCapitalsSetDirectly(
          exactTime(at, grid.zone),
          exactTime(now, grid.zone),
          rows.length > MOST_ROWS && t.theFirstPlacesTheCsvHasAll(MOST_ROWS),
          columns.length > MOST_COLUMNS && t.theFirstColumnsTheCsvHasAll(MOST_COLUMNS),
        )}
      </p>
      <table>
        <thead>
          <tr>
            <th>{t.place}</th>
            {shown.map((column) => (
              <th key={column.key}>{column.name}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST_ROWS).map(({ node, depth }) => (
            <tr key={node.id}>
              <th style={{ paddingLeft: `${4 + depth * 10}pt`, fontWeight: node.type === "entry" ? 400 : 700 }}>
                {node.name}
              </th>
              {shown.map((column) => {
                const cell = node.mine ? cellAt(lookup, column, node.id, at) : null;
                const word = !cell || cell.level === "none" ? "" : levelWord(cell.level);
                return (
                  <td key={column.key}>
                    {cell?.set ? word.toUpperCase() : word}
                    {cell?.until != null && t.until(exactTime(cell.until, grid.zone))}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </Paper>,
    document.body,
  );
}
