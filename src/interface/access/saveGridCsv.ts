import { type Change, Lookup, withChanges } from "@/core/access";
import { runQuery } from "../shared/ask";
import { fileName, save } from "../shared/save";
import { columnsOf, type Grid, gridOf, knownIn, type Row } from "./grid";
import { gridCsv } from "./gridCsv";

/** With more people each of them is no column: those who have a grant of their own are, and all groups. */
const MOST_PEOPLE = 400;

interface Saved {
  grid: Grid;
  /** Drafted, and in the file as they would be. */
  changes: readonly Change[];
  rows: readonly Row[];
  columns: { text: string; guests: boolean; unfolded: ReadonlySet<string> };
  asked: number | null;
  at: number;
  me: string;
}

/**
 * The whole grid as a file: with everybody who can use something here, also those who have no column on screen.
 * @returns what stood in the way, or null; a file with people left out is never saved
 */
export async function saveGridCsv({ grid, changes, rows, columns, asked, at, me }: Saved): Promise<string | null> {
  const answer = await runQuery("access.accessGrid", { vaultId: grid.vault.id, at: asked, everybody: true });
  if (!answer.ok) return answer.refused.message;
  const whole = gridOf(answer.result);
  const lookup = new Lookup(
    changes.length === 0 ? whole.organised : withChanges(whole.organised, knownIn(whole, changes)),
  );
  const every = columnsOf(whole, lookup, { ...columns, all: whole.people.length <= MOST_PEOPLE }, at, me);
  save(
    new Blob(["\uFEFF", gridCsv(rows, every, lookup, at, grid.zone)]),
    `access-${fileName(grid.vault.name)}-${new Date(at).toISOString().slice(0, 10)}.csv`,
  );
  return null;
}
