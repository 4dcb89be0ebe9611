"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { runCommand } from "../shared/ask";
import type { Row, Say } from "./words";

/** A page that was drawn just before something was kept comes after it: so long what was said counts more. */
const LATE_PAGE_MS = 3000;

interface Said {
  say: Say | null;
  /** When it was kept; null while it is on its way. */
  keptAt: number | null;
}

/** What is said in a round: at once on the page, then kept; taken back where it is refused. */
export function useRound(vaultId: string, lines: readonly Row[]) {
  const router = useRouter();
  const [said, setSaid] = useState<ReadonlyMap<string, Said>>(new Map());
  const [wrong, setWrong] = useState<string | null>(null);
  // What the page is drawn with counts again, also where another steward said something else.
  useEffect(() => {
    const drawn = new Map(lines.map((row) => [row.grantId, row.say]));
    const counts = ([id, { say, keptAt }]: [string, Said]) =>
      keptAt === null || (drawn.get(id) !== say && Date.now() - keptAt < LATE_PAGE_MS);
    setSaid((before) => new Map([...before].filter(counts)));
  }, [lines]);
  const sayOf = (row: Row): Say | null => said.get(row.grantId)?.say ?? (said.has(row.grantId) ? null : row.say);
  const say = async (row: Row, what: Say | null): Promise<void> => {
    setSaid((before) => new Map(before).set(row.grantId, { say: what, keptAt: null }));
    const answer = await runCommand("rounds.answerInRound", { vaultId, grantId: row.grantId, say: what });
    setWrong(answer.ok ? null : answer.refused.message);
    setSaid((before) => {
      const next = new Map(before);
      // Said anew meanwhile: that is on its way itself.
      if (next.get(row.grantId)?.say !== what) return before;
      if (answer.ok) next.set(row.grantId, { say: what, keptAt: Date.now() });
      else next.delete(row.grantId);
      return next;
    });
    if (!answer.ok) router.refresh();
  };
  return {
    sayOf,
    say,
    wrong,
    looked: lines.filter((row) => sayOf(row) !== null).length,
    /** How many have no answer yet: one's own to give, and for another steward. */
    left: lines.filter((row) => row.reviewer === null && sayOf(row) === null).length,
    forAnother: lines.find((row) => row.reviewer !== null && sayOf(row) === null)?.reviewer ?? null,
  };
}

export type RoundState = ReturnType<typeof useRound>;

/** What each key says. */
export const ROUND_KEYS: Record<string, Say | null> = { c: "confirmed", l: "lower", e: "end", u: null };
