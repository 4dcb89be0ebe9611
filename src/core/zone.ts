/** Wall time in a zone of the IANA database, as the runtime knows it. */

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Offsets change on whole quarters of an hour. */
const QUARTER = HOUR / 4;

const formats = new Map<string, Intl.DateTimeFormat>();
const offsets = new Map<string, number>();
/** More than a year of quarters that were asked for; then it starts anew. */
const MOST_KEPT = 50_000;

/** How far wall time is ahead of UTC at `at`, in milliseconds. */
export function offsetAt(zone: string, at: number): number {
  const quarter = Math.floor(at / QUARTER) * QUARTER;
  const key = `${zone} ${quarter}`;
  const known = offsets.get(key);
  if (known !== undefined) return known;
  let format = formats.get(zone);
  if (!format) {
    format = new Intl.DateTimeFormat("en-GB", {
      timeZone: zone,
      ...({ year: "numeric", month: "numeric", day: "numeric", hour: "numeric", minute: "numeric" } as const),
      hourCycle: "h23",
    });
    formats.set(zone, format);
  }
  const part: Record<string, number> = {};
  for (const { type, value } of format.formatToParts(quarter)) part[type] = Number(value);
  const wall = Date.UTC(part.year!, part.month! - 1, part.day!, part.hour!, part.minute!);
  if (offsets.size > MOST_KEPT) offsets.clear();
  offsets.set(key, wall - quarter);
  return wall - quarter;
}

/** Days since 1970-01-01 of the wall calendar at `at`. */
export const wallDay = (zone: string, at: number): number => Math.floor((at + offsetAt(zone, at)) / DAY);

/**
 * The moments at which a clock on the wall shows `wall`.
 * @param wall milliseconds since 1970-01-01 00:00 of the wall
 * @returns in the hour that autumn repeats, the first and the last; in the hour that spring leaves out, twice its end
 */
export function momentsOf(zone: string, wall: number): { first: number; last: number } {
  const [before, after] = [offsetAt(zone, wall - DAY), offsetAt(zone, wall + DAY)];
  const shown = [...new Set([before, after])]
    .map((offset) => wall - offset)
    .filter((at) => at + offsetAt(zone, at) === wall);
  if (shown.length > 0) return { first: Math.min(...shown), last: Math.max(...shown) };
  const jump = changeBetween(zone, wall - DAY - before, wall + DAY - after);
  return { first: jump, last: jump };
}

/** The first moment of the new offset between two moments that have different ones. */
function changeBetween(zone: string, from: number, to: number): number {
  const before = offsetAt(zone, from);
  let [low, high] = [Math.floor(from / QUARTER), Math.ceil(to / QUARTER)];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (offsetAt(zone, middle * QUARTER) === before) low = middle;
    else high = middle;
  }
  return high * QUARTER;
}

/** Every moment after `from`, up to `to`, at which clocks are changed. */
export function clockChanges(zone: string, from: number, to: number): number[] {
  const changes: number[] = [];
  for (let at = from; at < to; at += 7 * DAY) {
    const next = Math.min(at + 7 * DAY, to);
    if (offsetAt(zone, at) !== offsetAt(zone, next)) changes.push(changeBetween(zone, at, next));
  }
  return changes;
}
