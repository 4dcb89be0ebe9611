/** Between moments and the text of a date-and-time field, in the organisation's time zone. */
import { fromAbsolute } from "@internationalized/date";
import { momentsOf } from "@/core/zone";
import { localTime as t } from "./strings";

/** "2026-05-03T18:00", or empty for no moment. */
export function toLocal(at: number | null, zone: string): string {
  if (at === null) return "";
  return fromAbsolute(at, zone).toString().slice(0, 16);
}

/** A time that spring leaves out begins at the gap's end; of one that autumn repeats, the first counts. */
export const fromLocal = (text: string, zone: string): number | null =>
  text === "" ? null : momentsOf(zone, Date.parse(`${text.slice(0, 16)}Z`)).first;

/** Ends that people name: tomorrow, Friday, Sunday, in two weeks. */
export function soonEnds(zone: string): { says: string; at: number }[] {
  const at = (days: number) => fromLocal(`${toLocal(Date.now() + days * 86_400_000, zone).slice(0, 10)}T18:00`, zone)!;
  const weekday = new Intl.DateTimeFormat("en-GB", { timeZone: zone, weekday: "short" }).format(Date.now());
  const today = ["Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"].indexOf(weekday);
  const to = (day: number) => (day - today + 7) % 7 || 7;
  return [
    { says: t.tomorrow1800, at: at(1) },
    { says: t.friday1800, at: at(to(5)) },
    { says: t.sunday1800, at: at(to(7)) },
    { says: t.inTwoWeeks, at: at(14) },
  ];
}

/** Today at ten in the evening; where that is near, tomorrow. */
export function thisEvening(zone: string, now: number): number {
  const evening = fromLocal(`${toLocal(now, zone).slice(0, 10)}T22:00`, zone)!;
  return evening - now > 1_800_000 ? evening : evening + 86_400_000;
}

/** A day as a date field gives it; null for anything else. */
export const dayOf = (text: string | undefined): string | null =>
  /^\d{4}-\d\d-\d\d$/.test(text ?? "") && !Number.isNaN(Date.parse(text!)) ? text! : null;

export const dayAfter = (day: string): string => new Date(Date.parse(day) + 86_400_000).toISOString().slice(0, 10);
