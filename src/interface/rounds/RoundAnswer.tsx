"use client";

import { levelWord } from "@/core/access/level";
import { Act, Chip } from "../shared/controls";
import { roundAnswer as t } from "./strings";
import { type Row, SAY_WORDS, type Say } from "./words";

/** The same as the keys, for the pointer. */
export function RoundAnswer({ row, now, onSay }: { row: Row; now: Say | null; onSay: (say: Say | null) => void }) {
  const of = t.on(row.who, row.what);
  if (now !== null)
    return (
      <>
        <Chip data-tone={now === "confirmed" ? "good" : "bad"}>
          {now === "lower" ? t.lowerTo(levelWord(row.lower!)) : SAY_WORDS[now]}
        </Chip>
        {row.reviewer === null && (
          <Act onPress={() => onSay(null)} aria-label={t.undo(of)}>
            {t.undo2}
          </Act>
        )}
      </>
    );
  if (row.reviewer !== null) return <span className="small">{t.reviewsYours(row.reviewer)}</span>;
  return (
    <>
      <Act onPress={() => onSay("confirmed")} aria-label={t.confirm(of)}>
        {t.confirm2}
      </Act>
      {row.lower && (
        <Act onPress={() => onSay("lower")} aria-label={t.lower(of)}>
          {t.lower2}
        </Act>
      )}
      <Act onPress={() => onSay("end")} aria-label={t.end(of)}>
        {t.end2}
      </Act>
    </>
  );
}
