"use client";

import { useRouter } from "next/navigation";
import { type KeyboardEvent, useCallback, useDeferredValue, useEffect, useMemo, useState } from "react";
import styled from "styled-components";
import { type Change, Lookup, placeOf, subjectKey, type Terms, withChanges } from "@/core/access";
import type { GridModel } from "@/server/access/grid";
import { Wrap } from "../frame/Frame";
import { RoundBand, useGridRound } from "../rounds/RoundInGrid";
import type { Row as RoundRow, RoundView } from "../rounds/words";
import { useNarrow } from "../shared/useNarrow";
import { CellTerms } from "./CellTerms";
import {
  actOfKey,
  type Chosen,
  cellsIn,
  countOf,
  draftCells,
  within as keptWithin,
  startOf,
  withoutCells,
} from "./cells";
import { GridTable } from "./GridTable";
import { GridTools } from "./GridTools";
import { type Column, columnsOf, grantsBelow, gridOf, knownIn, placesAbove, type Row, rowsOf } from "./grid";
import { KeyTo } from "./KeyTo";
import { PrintedGrid } from "./PrintedGrid";
import { SlipFoot } from "./SlipFoot";
import { saveGridCsv } from "./saveGridCsv";
import { type Shows, showing } from "./showing";
import { accessPage as t } from "./strings";
import { useEverybody } from "./useEverybody";
import { type OwnSlip, useSlip } from "./useSlip";
import { useToggled } from "./useToggled";
import { WhereHere } from "./WhereHere";
import { WhyHere } from "./WhyHere";

const Screen = styled.main`
  &:focus { outline: none; }
  display: flex;
  flex-direction: column;
  height: calc(100dvh - 56px);
  @media (max-width: 1023px) { height: auto; }
  @media print { display: block; height: auto; > :not(.printed) { display: none; } }
`;

interface AccessPageProps {
  model: GridModel;
  slip: OwnSlip;
  vaults: { id: string; name: string }[];
  /** Of the round that is under way; null while there is none. */
  roundView: RoundView | null;
  me: string;
  now: number;
  /** The moment that was asked for in the address; null for this one. */
  asked: number | null;
}

const isOfPerson = (change: Change): boolean =>
  change.type === "member" || (change.type === "set" && change.subject.kind === "person");

/** Who can do what in one vault: rows are its places, columns groups and people, cells cut keys. */
export function AccessPage({ model: concerned, slip, vaults, roundView, me, now, asked }: AccessPageProps) {
  const router = useRouter();
  const state = useSlip(slip);
  const { changes } = state;
  const at = asked ?? now;
  // Nothing of what is over, or that one only reads, can be changed.
  const past = concerned.past !== null || concerned.reads;
  const [open, toggleOpen, openToo] = useToggled();
  const [unfolded, toggleUnfolded] = useToggled();
  const [rowText, setRowText] = useState("");
  const [columnText, setColumnText] = useState("");
  const [shows, setShows] = useState<Shows>("all");
  const [all, setAll] = useState(false);
  const wide = all || columnText.trim() !== "" || shows === "guests" || changes.some(isOfPerson);
  const model = useEverybody(concerned, asked, wide);
  const grid = useMemo(() => gridOf(model), [model]);
  const [chosen, setChosen] = useState<Chosen>({ from: { row: 0, column: 0 }, to: { row: 0, column: 0 } });
  const [terms, setTerms] = useState(false);
  const [last, setLast] = useState<Terms | null | undefined>(undefined);
  const [printing, setPrinting] = useState(false);
  const [said, setSaid] = useState("");
  const shown = useMemo(() => new Set(grid.people.map(({ id }) => id)), [grid]);
  const round = useGridRound(
    roundView,
    ({ nodeId, subject }) => grid.node.has(nodeId) && (subject.kind !== "person" || shown.has(subject.id)),
  );
  const [sought, setSought] = useState<RoundRow | null>(null);

  const before = useMemo(() => new Lookup(grid.organised), [grid]);
  const after = useMemo(
    () => (past || changes.length === 0 ? before : new Lookup(withChanges(grid.organised, knownIn(grid, changes)))),
    [grid, before, changes, past],
  );
  const drafted = useMemo(() => new Set(past ? [] : changes.map(placeOf)), [changes, past]);
  const [narrowAt, setNarrowAt] = useState("everyone");
  const narrow = useNarrow();
  const allColumns = useMemo(
    () => columnsOf(grid, after, { all, text: columnText, guests: shows === "guests", unfolded }, at, me),
    [grid, after, all, columnText, shows, unfolded, at, me],
  );
  // On a phone one column is read at a time.
  const columns = useMemo(() => {
    if (!narrow) return allColumns;
    return allColumns
      .filter((column) => column.key === narrowAt)
      .concat(allColumns)
      .slice(0, 1);
  }, [allColumns, narrow, narrowAt]);
  const only = useMemo(() => showing(shows, after, columns, at), [shows, after, columns, at]);
  const rows = useMemo(() => rowsOf(grid, { open, text: rowText, only }), [grid, open, rowText, only]);
  const within = useMemo(() => grantsBelow(after, at), [after, at]);

  const kept = keptWithin(chosen, rows.length, columns.length);
  const { to } = kept;
  const focusRow = useDeferredValue(rows[to.row]);
  const focusColumn = useDeferredValue(to.column >= 0 ? columns[to.column] : undefined);

  /** What was said of the cell before is over. */
  const choose = useCallback((next: Chosen) => {
    setSaid("");
    setChosen(next);
  }, []);
  const fold = useCallback((row: Row) => toggleOpen(row.node.id), [toggleOpen]);
  const unfold = useCallback(
    ({ subject }: Column) => subject.kind === "group" && toggleUnfolded(subject.id),
    [toggleUnfolded],
  );

  // Found once its folders are open and its column is shown.
  useEffect(() => {
    if (!sought) return;
    const row = rows.findIndex(({ node }) => node.id === sought.nodeId);
    const column = columns.findIndex(({ key }) => key === subjectKey(sought.subject));
    if (row < 0 || column < 0) return;
    setChosen({ from: { row, column }, to: { row, column } });
    setSought(null);
  }, [sought, rows, columns]);
  const seek = (line: RoundRow | undefined) => {
    if (!line) return;
    openToo(placesAbove(grid, line.nodeId));
    setRowText("");
    setColumnText("");
    setShows("all");
    setNarrowAt(subjectKey(line.subject));
    setSought(line);
  };

  /** Null takes away what is set; the time that stands at a cell stays unless one is given. */
  const set = (wanted: Terms | null, timed: boolean) => {
    if (past) return setSaid(concerned.reads ? t.youRead : t.thisIsAPastDateAndCannot);
    const cells = cellsIn(rows, columns, kept).filter(({ row }) => row.node.mine);
    if (cells.length === 0) return setSaid(t.youAreNotAStewardOfIt);
    setLast(wanted);
    state.change((was) => draftCells(was, before, cells, wanted, timed));
  };
  const takeOff = () => state.change((was) => withoutCells(was, cellsIn(rows, columns, kept)));
  const keys = (event: KeyboardEvent): boolean => {
    if (event.ctrlKey || event.metaKey || event.altKey) return false;
    if (roundView && event.key.toLowerCase() === "n") {
      seek(round.next());
      return true;
    }
    const row = rows[to.row];
    if (to.column === -1) {
      if ((event.key !== "Enter" && event.key !== " ") || row?.node.type !== "folder") return false;
      fold(row);
      return true;
    }
    const lines = roundView
      ? cellsIn(rows, columns, kept).flatMap((cell) => round.linesAt(cell.row.node.id, subjectKey(cell.column.subject)))
      : [];
    const looked = roundView ? round.key(event.key, lines) : null;
    if (looked) {
      if (lines.length === 0) setSaid(t.nothingIsSetDirectlyHereARound);
      else if (looked.length === 0)
        setSaid(lines[0]?.reviewer ? t.reviewsYours(lines[0].reviewer) : t.thereIsNoLevelBelowUseEnd);
      // One after the other, the oddest first.
      else if (lines.length === 1 && event.key.toLowerCase() !== "u") seek(round.next(lines));
      return true;
    }
    const act = actOfKey(event.key);
    if (!act) return false;
    const column = columns[to.column];
    if (act.do === "set") set(act.terms, false);
    else if (act.do === "again") last !== undefined && set(last, true);
    else if (act.do === "unfold") column && unfold(column);
    else if (act.do === "terms") !past && setTerms(true);
    else if (act.do === "take off") takeOff();
    else if (act.do === "one cell") setChosen({ from: to, to });
    else document.getElementById("why-here")?.focus();
    return true;
  };
  /** Every place, also in folders that are closed, and everybody who can use something here: not only what is shown. */
  const everyRow = () => rowsOf(grid, { open: new Set(grid.node.keys()), text: rowText, only });
  const saveCsv = async () =>
    setSaid(
      (await saveGridCsv({
        ...{ grid, changes: past ? [] : changes, asked, at, me },
        rows: everyRow(),
        columns: { text: columnText, guests: shows === "guests", unfolded },
      })) ?? "",
    );
  const goTo = (moment: number | null) =>
    router.push(`/access/${grid.vault.id}${moment === null ? "" : `?at=${moment}`}`);
  const one = rows[to.row];
  const column = columns[to.column];
  const several = countOf(kept);
  const why = (
    <WhyHere
      {...{ grid, at, now, me, round, several }}
      lookup={after}
      row={focusRow}
      column={focusColumn}
      changes={!past}
      onSet={(wanted) => set(wanted, false)}
      onTime={() => setTerms(true)}
    />
  );
  return (
    <Screen id="content" tabIndex={-1}>
      <h1 className="unseen">{t.accessTo(grid.vault.name)}</h1>
      <WhereHere {...{ concerned, grid, asked, now, past, said }} drafted={changes.length} />
      <GridTools
        {...{ grid, vaults, asked, rowText, columnText, shows, all }}
        columns={narrow ? allColumns : null}
        column={columns[0]?.key}
        rounds={model.rounds}
        onRowText={setRowText}
        onColumnText={setColumnText}
        onShows={setShows}
        onAll={setAll}
        onColumn={setNarrowAt}
        onMoment={goTo}
        onPrint={() => setPrinting(true)}
        onCsv={saveCsv}
      />
      {roundView && <RoundBand view={roundView} round={round} onNext={() => seek(round.next())} />}
      <GridTable
        marks={round.marks}
        {...{ rows, columns, before, after, drafted, within, at, unfolded }}
        entries={grid.entries}
        zone={grid.zone}
        chosen={kept}
        label={t.accessTo(grid.vault.name)}
        onChoose={choose}
        onFold={fold}
        onUnfold={unfold}
        onKey={keys}
      >
        <KeyTo changes={!concerned.reads} />
      </GridTable>
      {concerned.reads && <Wrap style={{ maxWidth: "none", paddingBlock: 16 }}>{why}</Wrap>}
      {!past && (
        <SlipFoot state={state} zone={grid.zone} now={now} me={me} onApplied={() => router.refresh()} why={why} />
      )}
      {terms && one && column && (
        <CellTerms
          title={several > 1 ? t.setCells(several) : t.on(column.name, one.node.name)}
          start={startOf(after, { row: one, column })}
          zone={grid.zone}
          now={now}
          onSet={(wanted) => set(wanted, true)}
          onClose={() => setTerms(false)}
        />
      )}
      {printing && (
        <PrintedGrid
          {...{ grid, columns, at, now }}
          rows={everyRow()}
          lookup={after}
          onDone={() => setPrinting(false)}
        />
      )}
    </Screen>
  );
}
