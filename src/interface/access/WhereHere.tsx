import Link from "next/link";
import { sayTime } from "@/core/time";
import type { GridModel } from "@/server/access/grid";
import { Where, Wrap } from "../frame/Frame";
import type { Grid } from "./grid";
import { accessPage as t } from "./strings";

interface WhereHereProps {
  concerned: GridModel;
  grid: Grid;
  /** The moment that is shown; null for now. */
  asked: number | null;
  now: number;
  past: boolean;
  drafted: number;
  /** Of the last key. */
  said: string;
}

/** Which vault, as of when, and what is drafted. */
export function WhereHere({ concerned, grid, asked, now, past, drafted, said }: WhereHereProps) {
  const entries = grid.entries.get(grid.vault.id) ?? 0;
  const then = asked === null ? null : sayTime(asked, now, grid.zone);
  return (
    <Where>
      <Wrap style={{ maxWidth: "none" }}>
        <p>
          {t.accessTo2(<Link href={`/vaults/${grid.vault.id}`}>{grid.vault.name}</Link>)}
          {then === null ? t.now : <b>{concerned.past !== null ? t.asItWas(then) : t.asItWillBe(then)}</b>}.{" "}
          {t.entries(entries)}.{" "}
          {concerned.reads ? (
            t.youRead
          ) : past ? (
            t.youSeeOnlyWhatYouAreA
          ) : (
            <b>{drafted === 0 ? "" : t.draftedNoneAppliedYet(t.changes(drafted))}</b>
          )}{" "}
          <span role="status">{said}</span>
        </p>
      </Wrap>
    </Where>
  );
}
