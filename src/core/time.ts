/** Moments as people say them, in the organisation's time zone. */

const part = (at: number, zone: string, options: Intl.DateTimeFormatOptions) =>
  new Intl.DateTimeFormat("en-GB", { timeZone: zone, ...options }).format(at);

/** Days since 1970 in that zone. */
function dayNumber(at: number, zone: string): number {
  const [day, month, year] = part(at, zone, { day: "2-digit", month: "2-digit", year: "numeric" })
    .split("/")
    .map(Number);
  return Math.round(Date.UTC(year!, month! - 1, day!) / 86_400_000);
}

/** "today", "yesterday", "Sunday" within a week, "3 May", "3 May 2025". */
export function sayDay(at: number, now: number, zone: string): string {
  const distance = dayNumber(at, zone) - dayNumber(now, zone);
  if (distance === 0) return "today";
  if (distance === -1) return "yesterday";
  if (distance === 1) return "tomorrow";
  if (Math.abs(distance) < 7) return part(at, zone, { weekday: "long" });
  const sameYear = part(at, zone, { year: "numeric" }) === part(now, zone, { year: "numeric" });
  return part(at, zone, { day: "numeric", month: "long", ...(sameYear ? {} : { year: "numeric" }) });
}

/** "Sunday, 18:00", "today, 09:12", "30 September, 18:00". */
export function sayTime(at: number, now: number, zone: string): string {
  return `${sayDay(at, now, zone)}, ${part(at, zone, { hour: "2-digit", minute: "2-digit", hourCycle: "h23" })}`;
}

/** The exact moment, for hover. */
export function exactTime(at: number, zone: string): string {
  return part(at, zone, { dateStyle: "full", timeStyle: "long" });
}
