"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { runCommand } from "../shared/ask";
import type { Row, Say } from "./words";

/** What is said in a round: at once on the page, then kept; taken back where it is refused. */
export function useRound(vaultId: string, lines: readonly Row[]) {
  const router = useRouter();
  const [said, setSaid] = useState<ReadonlyMap<string, Say | null>>(new Map());
  const [wrong, setWrong] = useState<string | null>(null);
  // What the page was drawn with is newer than what was said before it.
  useEffect(() => setSaid(new Map()), [lines]);
  const sayOf = (row: Row): Say | null => (said.has(row.grantId) ? said.get(row.grantId)! : row.say);
  const say = async (row: Row, what: Say | null): Promise<void> => {
    setSaid((before) => new Map(before).set(row.grantId, what));
    const answer = await runCommand("rounds.say", { vaultId, grantId: row.grantId, say: what });
    setWrong(answer.ok ? null : answer.refused.message);
    if (answer.ok) return;
    setSaid((before) => new Map(before).set(row.grantId, row.say));
    router.refresh();
  };
  return { sayOf, say, wrong, looked: lines.filter((row) => sayOf(row) !== null).length };
}

export type RoundState = ReturnType<typeof useRound>;

/** What each key says. */
export const ROUND_KEYS: Record<string, Say | null> = { c: "confirmed", l: "lower", e: "end", u: null };
