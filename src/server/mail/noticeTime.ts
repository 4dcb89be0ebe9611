import { eq } from "drizzle-orm";
import { mailTime, type NoticeSort } from "../../core/people/notices";
import { momentsOf, offsetAt } from "../../core/zone";
import type { Reader } from "../database/client";
import { persons } from "../database/schema";
import { timeZone } from "../organisation";

/** Those who are in Galtry at that moment have read or answered it by then. */
const WAIT_MS = 60_000;

/** The daily mail goes out at seven on the organisation's clock. */
const DAILY_HOUR = 7;

const HOUR_MS = 3_600_000;

export const DAY_MS = 24 * HOUR_MS;

/** When a notice goes by mail; null where the person reads it only in Galtry. */
export async function whenMailed(tx: Reader, personId: string, sort: NoticeSort, at: number): Promise<number | null> {
  if (sort === "security") return at;
  const [person] = await tx.select({ choices: persons.mailChoices }).from(persons).where(eq(persons.id, personId));
  const time = mailTime(person?.choices ?? null, sort);
  if (time === "never") return null;
  return time === "at once" ? at + WAIT_MS : nextMorning(at, await timeZone(tx));
}

/** The next moment at which the clock on the wall shows the hour of the daily mail. */
export function nextMorning(at: number, zone: string): number {
  const wall = at + offsetAt(zone, at);
  const today = Math.floor(wall / DAY_MS) * DAY_MS + DAILY_HOUR * HOUR_MS;
  const { first } = momentsOf(zone, today);
  return first > at ? first : momentsOf(zone, today + DAY_MS).first;
}
