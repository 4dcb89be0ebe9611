/** A round in words, and the shape in which it comes. */
import type { Odd } from "@/core/access/rounds";
import type { roundPage } from "@/server/access/rounds";

export type RoundView = Awaited<ReturnType<(typeof roundPage)["execute"]>>;
export type Row = RoundView["lines"][number];
export type Say = NonNullable<Row["say"]>;

export const ODD_WORDS: Record<Odd, string> = {
  gone: "has left or is suspended",
  "no-end": "guest without an end",
  unused: "not used for 90 days",
  ways: "has as much another way",
  passed: "its reason has passed",
};

export const SAY_WORDS: Record<Say, string> = { confirmed: "stays", lower: "lower", end: "ends" };

export function sayCounts(kept: readonly { say: Say }[]): string {
  const count = (say: Say) => kept.filter((line) => line.say === say).length;
  return `${count("confirmed")} confirmed, ${count("lower")} to be lowered, ${count("end")} to be ended`;
}
