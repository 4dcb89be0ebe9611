/**
 * Windows that come back: on some days of the week, between two times on the wall. An end that is not after its start
 * is on the next day. A start in the hour that spring leaves out is at that hour's end; in the hour that autumn
 * repeats the first start and the last end count.
 */
import { momentsOf, wallDay } from "../zone";
import type { Instant } from "./instant";

export interface Weekly {
  /** ISO 8601 weekdays: Monday 1 to Sunday 7. */
  days: readonly number[];
  /** Minutes after midnight, 0 to 1439. */
  start: number;
  /** Minutes after midnight, 1 to 1440. */
  end: number;
  /** IANA time zone. */
  zone: string;
}

const DAY = 86_400_000;
const MINUTE = 60_000;

/** 1970-01-01 was a Thursday. */
const weekday = (day: number): number => ((((day + 3) % 7) + 7) % 7) + 1;

interface Span {
  from: Instant;
  until: Instant;
}

const spans = new WeakMap<Weekly, Map<number, Span>>();

/** When the window that begins on a day of the wall calendar is open. */
function spanOf(weekly: Weekly, day: number): Span {
  let known = spans.get(weekly);
  if (!known) {
    known = new Map();
    spans.set(weekly, known);
  }
  const kept = known.get(day);
  if (kept) return kept;
  const { zone, start, end } = weekly;
  const ends = end > start ? day : day + 1;
  const span = {
    from: momentsOf(zone, day * DAY + start * MINUTE).first,
    until: momentsOf(zone, ends * DAY + end * MINUTE).last,
  };
  known.set(day, span);
  return span;
}

/** The windows that begin on the days around `at`, earliest first. */
function around(weekly: Weekly, at: Instant, back: number, ahead: number): Span[] {
  const today = wallDay(weekly.zone, at);
  const found: Span[] = [];
  for (let day = today - back; day <= today + ahead; day++)
    if (weekly.days.includes(weekday(day))) found.push(spanOf(weekly, day));
  return found;
}

/** Whether one of the windows is open at `at`. */
export function isOpen(weekly: Weekly, at: Instant): boolean {
  return around(weekly, at, 2, 1).some(({ from, until }) => from <= at && at < until);
}

/** Every moment after `at`, up to `to`, at which it opens or closes. Two windows that touch are one. */
export function edgesOf(weekly: Weekly, at: Instant, to: Instant): Instant[] {
  const edges = around(weekly, at, 2, Math.ceil((to - at) / DAY) + 2).flatMap(({ from, until }) => [from, until]);
  return [...new Set(edges)]
    .filter((edge) => edge > at && edge <= to && isOpen(weekly, edge) !== isOpen(weekly, edge - 1))
    .sort((a, b) => a - b);
}
