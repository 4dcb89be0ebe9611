/** Between moments and the text of a date-and-time field, in the organisation's time zone. */
import { fromAbsolute, parseDateTime, toZoned } from "@internationalized/date";

/** "2026-05-03T18:00", or empty for no moment. */
export function toLocal(at: number | null, zone: string): string {
  if (at === null) return "";
  return fromAbsolute(at, zone).toString().slice(0, 16);
}

/** A time that spring leaves out begins at the gap's end; of one that autumn repeats, the first counts. */
export function fromLocal(text: string, zone: string): number | null {
  if (text === "") return null;
  return toZoned(parseDateTime(text), zone, "earlier").toDate().getTime();
}
