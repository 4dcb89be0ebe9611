"use client";

import Link from "next/link";
import { useMemo } from "react";
import styled from "styled-components";
import { subjectKey } from "@/core/access";
import { levelWord } from "@/core/access/level";
import { sayTime } from "@/core/time";
import { Act } from "../shared/controls";
import { RoundAnswer } from "./RoundAnswer";
import { roundInGrid as t } from "./strings";
import { ROUND_KEYS, type RoundState, useRound } from "./useRound";
import { ODD_WORDS, type RoundView, type Row, SAY_WORDS } from "./words";

const NONE: readonly Row[] = [];

const Band = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  align-items: center;
  padding: 6px var(--gutter);
  background: var(--lit);
  border-bottom: 1px solid var(--rule);
  font-size: 14px;
  line-height: 20px;
`;

const Here = styled.div`
  margin-bottom: 6px;
  .do { display: flex; flex-wrap: wrap; gap: 2px 12px; align-items: center; }
  .do button { color: inherit; text-decoration-color: var(--baize-edge); }
`;

/** The cell of a grant. */
const cellOf = (row: Row) => `${row.nodeId} ${subjectKey(row.subject)}`;

/**
 * A round that is under way, by the cells in which its lines stand; without lines while there is none.
 * @param has whether the grid has a cell for a line: it has none for people who have left
 */
export function useGridRound(view: RoundView | null, has: (row: Row) => boolean) {
  const lines = view?.lines ?? NONE;
  const state = useRound(view?.vault.id ?? "", lines);
  const cells = useMemo(() => {
    const cells = new Map<string, Row[]>();
    for (const row of lines) cells.set(cellOf(row), [...(cells.get(cellOf(row)) ?? []), row]);
    return cells;
  }, [lines]);
  const marks = new Map([...cells].map(([cell, rows]) => [cell, markOf(rows, state)]));
  return {
    ...state,
    marks,
    lines,
    linesAt: (nodeId: string, subject: string) => cells.get(`${nodeId} ${subject}`) ?? [],
    /** The oddest of which nothing is said yet, but these. */
    next: (except: readonly Row[] = []) =>
      lines.find((row) => state.sayOf(row) === null && row.reviewer === null && has(row) && !except.includes(row)),
    /** Says it of those of whom it can be said, and gives them; null where the key says nothing. */
    key: (key: string, rows: readonly Row[]): readonly Row[] | null => {
      const what = ROUND_KEYS[key.toLowerCase()];
      if (what === undefined) return null;
      const said = rows.filter((row) => row.reviewer === null && (what !== "lower" || row.lower !== null));
      for (const row of said) void state.say(row, what);
      return said;
    },
  };
}

export type GridRound = ReturnType<typeof useGridRound>;

function markOf(rows: readonly Row[], { sayOf }: RoundState): string {
  const says = new Set(rows.map(sayOf));
  if (says.has(null))
    return rows.some((row) => sayOf(row) === null && row.odd.length > 0) ? t.unusualNoAnswerYet : t.noAnswerYet;
  return [...says].map((say) => SAY_WORDS[say!]).join(", ");
}

/** Over the grid: how far it is, and the way on. */
export function RoundBand({ view, round, onNext }: { view: RoundView; round: GridRound; onNext: () => void }) {
  return (
    <Band>
      <b>{t.aRoundIsUnderWay}</b>
      <span role="status">{t.ofReviewed(round.looked, round.lines.length)}</span>
      {round.next() && <Act onPress={onNext}>{t.next}</Act>}
      <Link href={`/access/${view.vault.id}/rounds`}>
        {round.left === 0 ? t.finishTheRound : round.next() ? t.showAsAList : t.theRestIsInTheList}
      </Link>
      <span className="soft">
        {t.confirmLowerEndNoAnswerNext(
          <kbd>{t.c}</kbd>,
          <kbd>{t.l}</kbd>,
          <kbd>{t.e}</kbd>,
          <kbd>{t.u}</kbd>,
          <kbd>{t.n}</kbd>,
        )}
      </span>
      {round.wrong && <b role="alert">{round.wrong}</b>}
    </Band>
  );
}

/** At the cell that has the focus: what the round says of what is set there. */
export function RoundHere({
  rows,
  round,
  now,
  zone,
}: {
  rows: readonly Row[];
  round: GridRound;
  now: number;
  zone: string;
}) {
  return rows.map((row) => (
    <Here key={row.grantId}>
      <p>
        {t.inTheRound(
          levelWord(row.level),
          row.lastUse === null ? t.neverUsed : t.used(sayTime(row.lastUse, now, zone)),
          row.odd.map((odd) => `, ${ODD_WORDS[odd]}`).join(""),
        )}
      </p>
      <div className="do">
        <RoundAnswer row={row} now={round.sayOf(row)} onSay={(what) => void round.say(row, what)} />
      </div>
    </Here>
  ));
}
