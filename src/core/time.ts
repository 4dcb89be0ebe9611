/** Moments as people say them, in the organisation's time zone. */

const DAY = { day: "2-digit", month: "2-digit", year: "numeric" } as const;
const WEEKDAY = { weekday: "long" } as const;
const YEAR = { year: "numeric" } as const;
const DATE = { day: "numeric", month: "long" } as const;
const SHORT_DATE = { day: "numeric", month: "short" } as const;
const DATE_OF_YEAR = { ...DATE, ...YEAR } as const;
const CLOCK = { hour: "2-digit", minute: "2-digit", hourCycle: "h23" } as const;
const EXACT = { dateStyle: "full", timeStyle: "long" } as const;

/** Making a format takes thousands of times as long as using it, and a ledger says a day in each row. */
const formats = new Map<Intl.DateTimeFormatOptions, Map<string, Intl.DateTimeFormat>>();

function part(at: number, zone: string, options: Intl.DateTimeFormatOptions): string {
  const zones = formats.get(options) ?? new Map<string, Intl.DateTimeFormat>();
  formats.set(options, zones);
  const known = zones.get(zone) ?? new Intl.DateTimeFormat("en-GB", { timeZone: zone, ...options });
  zones.set(zone, known);
  return known.format(at);
}

/** Days since 1970 in that zone. */
function dayNumber(at: number, zone: string): number {
  const [day, month, year] = part(at, zone, DAY).split("/").map(Number);
  return Math.round(Date.UTC(year!, month! - 1, day!) / 86_400_000);
}

/** "today", "yesterday", "Sunday" within a week, "3 May", "3 May 2025". */
export function sayDay(at: number, now: number, zone: string): string {
  const distance = dayNumber(at, zone) - dayNumber(now, zone);
  if (distance === 0) return "today";
  if (distance === -1) return "yesterday";
  if (distance === 1) return "tomorrow";
  if (Math.abs(distance) < 7) return part(at, zone, WEEKDAY);
  const sameYear = part(at, zone, YEAR) === part(now, zone, YEAR);
  return part(at, zone, sameYear ? DATE : DATE_OF_YEAR);
}

/** "30 Sept", where there is little room. */
export const sayShortDay = (at: number, zone: string): string => part(at, zone, SHORT_DATE);

/** "Sunday, 18:00", "today, 09:12", "30 September, 18:00". */
export function sayTime(at: number, now: number, zone: string): string {
  return `${sayDay(at, now, zone)}, ${part(at, zone, CLOCK)}`;
}

/** "6 May, 18:00", "6 May 2027, 18:00": for text that is kept and read later, when "tomorrow" would be another day. */
export function sayDate(at: number, now: number, zone: string): string {
  const sameYear = part(at, zone, YEAR) === part(now, zone, YEAR);
  return `${part(at, zone, sameYear ? DATE : DATE_OF_YEAR)}, ${part(at, zone, CLOCK)}`;
}

/** "6 May 2027, 18:00", whatever the year: for what is kept and read in another. */
export const sayFullDate = (at: number, zone: string): string =>
  `${part(at, zone, DATE_OF_YEAR)}, ${part(at, zone, CLOCK)}`;

/** The exact moment, for hover. */
export function exactTime(at: number, zone: string): string {
  return part(at, zone, EXACT);
}

const HOUR: Intl.DateTimeFormatOptions = { hour: "2-digit", hourCycle: "h23" };

/** The hour of the day in that zone, 0 to 23. */
export const zonedHour = (at: number, zone: string): number => Number(part(at, zone, HOUR));

/** The year in that zone. */
export const zonedYear = (at: number, zone: string): number => Number(part(at, zone, YEAR));

/** The same day of a later month, or of an earlier one (`months` below 0), in UTC; its last where it has no such day. */
export function monthsAfter(at: number, months: number): number {
  const from = new Date(at);
  const to = new Date(at);
  to.setUTCDate(1);
  to.setUTCMonth(to.getUTCMonth() + months);
  const last = new Date(Date.UTC(to.getUTCFullYear(), to.getUTCMonth() + 1, 0)).getUTCDate();
  to.setUTCDate(Math.min(from.getUTCDate(), last));
  return to.getTime();
}
