"use client";

import { levelWord } from "@/core/access/level";
import { Act, Chip } from "../shared/controls";
import { type Row, SAY_WORDS, type Say } from "./words";

/** The same as the keys, for the pointer. */
export function RoundAnswer({ row, now, onSay }: { row: Row; now: Say | null; onSay: (say: Say | null) => void }) {
  const of = `${row.who} on ${row.what}`;
  if (now !== null)
    return (
      <>
        <Chip data-tone={now === "confirmed" ? "good" : "bad"}>
          {now === "lower" ? `lower, to ${levelWord(row.lower!)}` : SAY_WORDS[now]}
        </Chip>
        <Act onPress={() => onSay(null)} aria-label={`Undo: ${of}`}>
          Undo
        </Act>
      </>
    );
  return (
    <>
      <Act onPress={() => onSay("confirmed")} aria-label={`Stays: ${of}`}>
        Stays
      </Act>
      {row.lower && (
        <Act onPress={() => onSay("lower")} aria-label={`Lower: ${of}`}>
          Lower
        </Act>
      )}
      <Act onPress={() => onSay("end")} aria-label={`Ends: ${of}`}>
        Ends
      </Act>
    </>
  );
}
