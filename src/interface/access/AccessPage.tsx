"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import {
  type KeyboardEvent,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useState,
  useSyncExternalStore,
} from "react";
import styled from "styled-components";
import {
  type Change,
  isActive,
  LEVELS,
  Lookup,
  levelWord,
  placeOf,
  subjectKey,
  type Terms,
  withChanges,
} from "@/core/access";
import { sayTime } from "@/core/time";
import type { GridModel } from "@/server/access/grid";
import { Where, Wrap } from "../frame/Frame";
import { RoundBand, RoundHere, useGridRound } from "../rounds/RoundInGrid";
import type { Row as RoundRow, RoundView } from "../rounds/words";
import { runQuery } from "../shared/ask";
import { Button, ButtonLink, CheckField, fieldLook, Select } from "../shared/controls";
import { fromLocal, toLocal } from "../shared/localTime";
import { fileName, save } from "../shared/save";
import { CellTerms } from "./CellTerms";
import { type Chosen, GridTable, isChosen } from "./GridTable";
import { type Column, cellAt, columnsOf, grantsBelow, gridOf, type Row, rowsOf } from "./grid";
import { gridCsv } from "./gridCsv";
import { PrintedGrid } from "./PrintedGrid";
import { SlipFoot } from "./SlipFoot";
import { accessPage as t } from "./strings";
import { type OwnSlip, sameTerms, useSlip, withChange } from "./useSlip";
import { Why } from "./Why";

const Screen = styled.div`
  display: flex;
  flex-direction: column;
  height: calc(100dvh - 56px);
  @media (max-width: 1023px) { height: auto; }
  @media print { display: block; height: auto; > :not(.printed) { display: none; } }
`;

const Tools = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  padding: 8px var(--gutter);
  border-bottom: 1px solid var(--rule);
  > select { width: auto; max-width: 158px; }
  .moment { display: flex; gap: 8px; align-items: center; }
  .moment input { width: 212px; }
  .end { display: flex; gap: 8px; margin-left: auto; }
  @media (max-width: 719px) { .wide { display: none; } }
`;

const Narrow = styled.input`${fieldLook} width: 118px;`;

const KeyTo = styled.p`
  position: sticky;
  left: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  max-width: calc(100vw - 24px);
  padding: 10px var(--gutter) 12px;
  color: var(--soft);
  font-size: 13px;
  line-height: 20px;
  @media (max-width: 719px) { .wide { display: none; } }
`;

const SHOWS = {
  all: "Everything",
  set: t.setDirectly,
  ends: t.withAnEndDate,
  ways: t.moreThanOneWay,
  guests: "Guests",
  use: t.atUse,
  reveal: t.atReveal,
  edit: t.atEdit,
  steward: t.atSteward,
  blocked: "Blocked",
} as const;
type Shows = keyof typeof SHOWS;

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

/**
 * The page comes with the people and groups whom a grant concerns. All others are fetched when they are wanted: a name is
 * looked for, everybody is shown, something is drafted for one.
 */
function useEverybody(concerned: GridModel, at: number | null, wanted: boolean): GridModel {
  const [whole, setWhole] = useState<{ of: GridModel; model: GridModel } | null>(null);
  useEffect(() => {
    if (!wanted || whole?.of === concerned) return;
    let gone = false;
    void runQuery<GridModel>("access.accessGrid", { vaultId: concerned.vault.id, at, everybody: true }).then(
      (answer) => {
        if (answer.ok && !gone) setWhole({ of: concerned, model: answer.result });
      },
    );
    return () => {
      gone = true;
    };
  }, [concerned, at, wanted, whole]);
  // Until it is fetched anew what was fetched before stays, so that no column comes and goes.
  return wanted && whole ? whole.model : concerned;
}

/** With more people each of them is no column of the CSV: those who have a grant of their own are, and all groups. */
const MOST_CSV_PEOPLE = 400;

/** Who can do what in one vault: rows are its places, columns groups and people, cells cut keys. */
export function AccessPage({ model: concerned, slip, vaults, roundView, me, now, asked }: AccessPageProps) {
  const router = useRouter();
  const state = useSlip(slip);
  const { changes } = state;
  const at = asked ?? now;
  const past = concerned.past !== null;
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(new Set());
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
    () => (past || changes.length === 0 ? before : new Lookup(withChanges(grid.organised, known(grid, changes)))),
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

  const to = { row: Math.min(chosen.to.row, rows.length - 1), column: Math.min(chosen.to.column, columns.length - 1) };
  const kept: Chosen = {
    from: { row: Math.min(chosen.from.row, rows.length - 1), column: Math.min(chosen.from.column, columns.length - 1) },
    to,
  };
  const focusRow = useDeferredValue(rows[to.row]);
  const focusColumn = useDeferredValue(to.column >= 0 ? columns[to.column] : undefined);

  /** What was said of the cell before is over. */
  const choose = useCallback((next: Chosen) => {
    setSaid("");
    setChosen(next);
  }, []);
  const fold = useCallback(
    (row: Row) =>
      setOpen((was) => {
        const next = new Set(was);
        if (next.has(row.node.id)) next.delete(row.node.id);
        else next.add(row.node.id);
        return next;
      }),
    [],
  );
  const unfold = useCallback((column: Column) => {
    if (column.subject.kind !== "group") return;
    const { id } = column.subject;
    setUnfolded((was) => {
      const next = new Set(was);
      if (next.has(id)) next.delete(id);
      else next.add(id);
      return next;
    });
  }, []);

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
    const above: string[] = [];
    for (let up = grid.node.get(line.nodeId)?.parent; up; up = grid.node.get(up)?.parent) above.push(up);
    setOpen((was) => new Set([...was, ...above]));
    setRowText("");
    setColumnText("");
    setShows("all");
    setNarrowAt(subjectKey(line.subject));
    setSought(line);
  };

  /** Null takes away what is set; the time that stands at a cell stays unless one is given. */
  const set = (wanted: Terms | null, timed: boolean) => {
    if (past) return setSaid(t.thisIsAPastDateAndCannot);
    const cells = rows.flatMap((row, r) =>
      columns.flatMap((column, c) => (row.node.mine && isChosen(kept, r, c) ? [{ row, column }] : [])),
    );
    if (cells.length === 0) return setSaid(t.youAreNotAStewardOfIt);
    setLast(wanted);
    state.change((was) => {
      let next = [...was];
      for (const { row, column } of cells) {
        const here = before
          .grantsOn(row.node.id)
          .filter((one) => subjectKey(one.subject) === subjectKey(column.subject));
        const standing = here.map(({ level, from, until, weekly }) => ({ level, from, until, weekly: weekly ?? null }));
        const earlier = was.find((one) => placeOf(one) === `set ${row.node.id} ${subjectKey(column.subject)}`);
        const [time] = earlier?.type === "set" && earlier.grants.length > 0 ? earlier.grants : standing;
        const given = wanted && (timed || !time ? wanted : { ...time, level: wanted.level });
        const change: Change = {
          type: "set",
          nodeId: row.node.id,
          subject: column.subject,
          grants: given ? [given] : [],
        };
        next = sameTerms(change.grants, standing)
          ? next.filter((one) => placeOf(one) !== placeOf(change))
          : withChange(next, change);
      }
      return next;
    });
  };
  const takeOff = () =>
    state.change((was) => {
      const places = new Set(
        rows.flatMap((row, r) =>
          columns.flatMap((column, c) =>
            isChosen(kept, r, c) ? [`set ${row.node.id} ${subjectKey(column.subject)}`] : [],
          ),
        ),
      );
      return was.filter((one) => !places.has(placeOf(one)));
    });
  const linesChosen = () =>
    rows.flatMap((row, r) =>
      columns.flatMap((column, c) =>
        isChosen(kept, r, c) ? round.linesAt(row.node.id, subjectKey(column.subject)) : [],
      ),
    );
  const plain = (level: Terms["level"]): Terms => ({ level, from: null, until: null, weekly: null });
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
    const lines = roundView ? linesChosen() : [];
    const looked = roundView ? round.key(event.key, lines) : null;
    if (looked) {
      if (lines.length === 0) setSaid(t.nothingIsSetDirectlyHereARound);
      else if (looked.length === 0) setSaid(t.thereIsNoLevelBelowUseEnd);
      // One after the other, the oddest first.
      else if (lines.length === 1 && event.key.toLowerCase() !== "u") seek(round.next(lines));
      return true;
    }
    if (event.key === "0") set(null, false);
    else if (/^[1-4]$/.test(event.key)) set(plain(LEVELS[Number(event.key) - 1]!), false);
    else if (event.key.toLowerCase() === "b") set(plain("blocked"), false);
    else if (event.key === ".") last !== undefined && set(last, true);
    else if (event.key.toLowerCase() === "g") columns[to.column] && unfold(columns[to.column]!);
    else if (event.key === "Enter") !past && setTerms(true);
    else if (event.key === "Delete" || event.key === "Backspace") takeOff();
    else if (event.key === "Escape") setChosen({ from: to, to });
    else if (event.key === " ") document.getElementById("why-here")?.focus();
    else return false;
    return true;
  };
  /** Every place, also in folders that are closed, and everybody who can use something here: not only what is shown. */
  const everyRow = () => rowsOf(grid, { open: new Set(grid.node.keys()), text: rowText, only });
  const saveCsv = async () => {
    const answer = await runQuery<GridModel>("access.accessGrid", {
      vaultId: grid.vault.id,
      at: asked,
      everybody: true,
    });
    const whole = answer.ok ? gridOf(answer.result) : grid;
    const lookup = new Lookup(
      past || changes.length === 0 ? whole.organised : withChanges(whole.organised, known(whole, changes)),
    );
    const choice = { all: whole.people.length <= MOST_CSV_PEOPLE, text: columnText, guests: shows === "guests" };
    const everyColumn = columnsOf(whole, lookup, { ...choice, unfolded }, at, me);
    save(
      new Blob(["\uFEFF", gridCsv(everyRow(), everyColumn, lookup, at, grid.zone)]),
      `access-${fileName(grid.vault.name)}-${new Date(at).toISOString().slice(0, 10)}.csv`,
    );
  };
  const goTo = (moment: number | null) =>
    router.push(`/access/${grid.vault.id}${moment === null ? "" : `?at=${moment}`}`);
  const one = rows[to.row];
  const focusStart = startOf(after, one, columns[to.column]);
  const several =
    (Math.abs(kept.from.row - to.row) + 1) * (to.column < 0 ? 0 : Math.abs(kept.from.column - to.column) + 1);
  const entries = grid.entries.get(grid.vault.id) ?? 0;
  return (
    <Screen>
      <h1 className="unseen">{t.accessTo(grid.vault.name)}</h1>
      <Where>
        <Wrap style={{ maxWidth: "none" }}>
          <p>
            {t.accessTo2(<Link href={`/vaults/${grid.vault.id}`}>{grid.vault.name}</Link>)}
            {asked === null ? (
              t.now
            ) : past ? (
              <b>{t.asItWas(sayTime(asked, now, grid.zone))}</b>
            ) : (
              <b>{t.asItWillBe(sayTime(asked, now, grid.zone))}</b>
            )}
            . {t.entries(entries)}.{" "}
            {past ? (
              t.youSeeOnlyWhatYouAreA
            ) : (
              <b>{changes.length === 0 ? "" : t.draftedNoneAppliedYet(t.changes(changes.length))}</b>
            )}{" "}
            <span role="status">{said}</span>
          </p>
        </Wrap>
      </Where>
      <Tools role="group" aria-label={t.filters}>
        {vaults.length > 1 && (
          <Select
            aria-label={t.vault}
            value={grid.vault.id}
            onChange={(event) => router.push(`/access/${event.target.value}`)}
          >
            {vaults.map((vault) => (
              <option key={vault.id} value={vault.id}>
                {vault.name}
              </option>
            ))}
          </Select>
        )}
        <Narrow
          className="wide"
          aria-label={t.filterPlaces}
          placeholder={t.places}
          value={rowText}
          onChange={(event) => setRowText(event.target.value)}
        />
        <Narrow
          className="wide"
          aria-label={t.filterPeopleAndGroups}
          placeholder={t.people}
          value={columnText}
          onChange={(event) => setColumnText(event.target.value)}
        />
        <Select aria-label={t.show} value={shows} onChange={(event) => setShows(event.target.value as Shows)}>
          {Object.entries(SHOWS).map(([value, word]) => (
            <option key={value} value={value}>
              {word}
            </option>
          ))}
        </Select>
        {narrow && (
          <Select aria-label={t.forWord} value={columns[0]?.key} onChange={(event) => setNarrowAt(event.target.value)}>
            {allColumns.map((column) => (
              <option key={column.key} value={column.key}>
                {column.name}, {column.note}
              </option>
            ))}
          </Select>
        )}
        <span className="moment wide">
          <span aria-hidden>{t.at}</span>
          <Narrow
            type="datetime-local"
            aria-label={t.at}
            defaultValue={toLocal(asked, grid.zone)}
            key={asked}
            onChange={(event) => {
              const moment = fromLocal(event.target.value, grid.zone);
              if (moment !== null && moment > 0) goTo(moment);
            }}
          />
        </span>
        <CheckField
          type="checkbox"
          label={t.allPeopleAndGroups}
          checked={all}
          onChange={(event) => setAll(event.target.checked)}
        />
        <div className="end wide">
          {asked !== null && <Button onPress={() => goTo(null)}>{t.now2}</Button>}
          {model.rounds && <ButtonLink href={`/access/${model.vault.id}/rounds`}>{t.rounds}</ButtonLink>}
          <Button onPress={() => setPrinting(true)}>{t.print}</Button>
          <Button onPress={saveCsv}>{t.csv}</Button>
        </div>
      </Tools>
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
        <KeyTo>
          <span>{t.solidSetDirectly}</span>
          <span>{t.hollowInheritedOrFromAGroup}</span>
          <span>{t.clockHasAnEndDate}</span>
          <span>{t.struckThroughBlocked}</span>
          <span>{t.dashedOnTheSlip}</span>
          <span>{t.foldedCornerAnEffectOfTheSlip}</span>
          <span className="wide">{t.n0To4AndBSetA}</span>
        </KeyTo>
      </GridTable>
      {!past && (
        <SlipFoot
          state={state}
          zone={grid.zone}
          now={now}
          me={me}
          onApplied={() => router.refresh()}
          why={
            <div id="why-here" tabIndex={-1}>
              {focusRow && focusColumn ? (
                <>
                  <h2>{several > 1 ? t.cells(several) : `${focusColumn.name}, ${focusRow.node.name}`}</h2>
                  {focusRow.node.mine && (
                    <Acts
                      onLevel={(level) => set(level === "none" ? null : plain(level), false)}
                      onTime={() => setTerms(true)}
                    />
                  )}
                  {several <= 1 && (
                    <RoundHere
                      {...{ round, now, zone: grid.zone }}
                      rows={round.linesAt(focusRow.node.id, subjectKey(focusColumn.subject))}
                    />
                  )}
                  {several <= 1 && (
                    <Why {...{ grid, at, now, me }} lookup={after} row={focusRow} column={focusColumn} />
                  )}
                </>
              ) : (
                <p className="soft">{t.chooseACellToSeeWhyIt}</p>
              )}
            </div>
          }
        />
      )}
      {terms && one && columns[to.column] && (
        <CellTerms
          title={several > 1 ? t.setCells(several) : t.on(columns[to.column]!.name, one.node.name)}
          start={focusStart}
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

const NARROW = "(max-width: 719px)";

const useNarrow = (): boolean =>
  useSyncExternalStore(
    (heard) => {
      const query = matchMedia(NARROW);
      query.addEventListener("change", heard);
      return () => query.removeEventListener("change", heard);
    },
    () => matchMedia(NARROW).matches,
    () => false,
  );

/** Changes of places that are not in this vault change nothing here. */
const known = (grid: ReturnType<typeof gridOf>, changes: readonly Change[]): Change[] =>
  changes.filter((change) => change.type === "member" || grid.node.has(change.nodeId));

function startOf(lookup: Lookup, row: Row | undefined, column: Column | undefined): Terms | null {
  if (!row || !column) return null;
  const [grant] = lookup.grantsOn(row.node.id).filter((one) => subjectKey(one.subject) === subjectKey(column.subject));
  return grant ? { level: grant.level, from: grant.from, until: grant.until, weekly: grant.weekly ?? null } : null;
}

/** Rows on which a shown column has what is asked for. */
function showing(
  shows: Shows,
  lookup: Lookup,
  columns: readonly Column[],
  at: number,
): ((node: { id: string; mine: boolean }) => boolean) | null {
  if (shows === "all" || shows === "guests") return null;
  const subjects = new Set(columns.map((column) => subjectKey(column.subject)));
  if (shows === "set" || shows === "ends")
    return ({ id, mine }) =>
      mine &&
      lookup
        .grantsOn(id)
        .some(
          (grant) =>
            subjects.has(subjectKey(grant.subject)) &&
            (shows === "set" ? isActive(grant, at) : grant.until !== null && grant.until > at),
        );
  // What decides about one node decides about all of its region.
  const regions = new Map<string, boolean>();
  return ({ id, mine }) => {
    if (!mine) return false;
    const region = lookup.region(id);
    const known = regions.get(region);
    if (known !== undefined) return known;
    const fits = columns.some((column) => {
      const cell = cellAt(lookup, column, region, at);
      return shows === "ways" ? cell.ways > 1 && column.subject.kind === "person" : cell.level === shows;
    });
    regions.set(region, fits);
    return fits;
  };
}

const Levels = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  margin: 2px 0 6px;
  button { min-height: 26px; padding: 0; border: 0; background: none; color: inherit; font: 600 14px/20px var(--text); text-decoration: underline 1px var(--baize-edge); text-underline-offset: 3px; cursor: pointer; }
`;

/** The same as the keys, for the pointer. */
function Acts({ onLevel, onTime }: { onLevel: (level: Terms["level"] | "none") => void; onTime: () => void }) {
  return (
    <Levels role="group" aria-label={t.setTheSelectedCells}>
      {(["none", ...LEVELS, "blocked"] as const).map((level) => (
        <button key={level} type="button" onClick={() => onLevel(level)}>
          {level === "none" ? t.end : levelWord(level)}
        </button>
      ))}
      <button type="button" onClick={onTime}>
        {t.withDates}
      </button>
    </Levels>
  );
}
