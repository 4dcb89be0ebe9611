/** A round in words, and the shape in which it comes. */
import type { Odd } from "@/core/access/rounds";
import type { roundPage } from "@/server/access/rounds/rounds";
import { words as t } from "./strings";

export type RoundView = Awaited<ReturnType<(typeof roundPage)["execute"]>>;
export type Row = RoundView["lines"][number];
export type Say = NonNullable<Row["say"]>;

export const ODD_WORDS: Record<Odd, string> = {
  gone: t.hasLeftOrIsSuspended,
  "no-end": t.guestWithNoEndDate,
  unused: t.notUsedFor90Days,
  ways: t.hasTheSameAccessAnotherWay,
  passed: t.itsReasonIsOutOfDate,
};

export const SAY_WORDS: Record<Say, string> = { confirmed: t.confirmed, lower: t.lower, end: t.end };

export function sayCounts(kept: readonly { say: Say }[]): string {
  const count = (say: Say) => kept.filter((line) => line.say === say).length;
  return t.counts(count("confirmed"), count("lower"), count("end"));
}
