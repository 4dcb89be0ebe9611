import { type Lookup, subjectKey, type Terms } from "@/core/access";
import { RoundHere, type useGridRound } from "../rounds/RoundInGrid";
import { plainTerms } from "./cells";
import type { Column, Grid, Row } from "./grid";
import { LevelActs } from "./LevelActs";
import { accessPage as t } from "./strings";
import { Why } from "./Why";

interface WhyHereProps {
  grid: Grid;
  lookup: Lookup;
  row: Row | undefined;
  column: Column | undefined;
  /** How many cells are selected. */
  several: number;
  round: ReturnType<typeof useGridRound>;
  /** Whether anything can be set in this grid. */
  changes: boolean;
  at: number;
  now: number;
  me: string;
  onSet: (wanted: Terms | null) => void;
  onTime: () => void;
}

/** The cell that is selected: what can be set there, its line of the round, and why it is as it is. */
export function WhyHere({
  grid,
  lookup,
  row,
  column,
  several,
  round,
  changes,
  at,
  now,
  me,
  onSet,
  onTime,
}: WhyHereProps) {
  return (
    <div id="why-here" tabIndex={-1}>
      {row && column ? (
        <>
          <h2>{several > 1 ? t.cells(several) : `${column.name}, ${row.node.name}`}</h2>
          {row.node.mine && changes && (
            <LevelActs onLevel={(level) => onSet(level === "none" ? null : plainTerms(level))} onTime={onTime} />
          )}
          {several <= 1 && (
            <RoundHere
              {...{ round, now, zone: grid.zone }}
              rows={round.linesAt(row.node.id, subjectKey(column.subject))}
            />
          )}
          {several <= 1 && <Why {...{ grid, at, now, me, lookup, row, column }} />}
        </>
      ) : (
        <p className="soft">{t.chooseACellToSeeWhyIt}</p>
      )}
    </div>
  );
}
