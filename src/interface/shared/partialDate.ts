/** A date of which only some parts were filled in. */

export interface Filled {
  day?: number;
  month?: number;
  year?: number;
  hour?: number;
  minute?: number;
}

const two = (number: number): string => String(number).padStart(2, "0");

/**
 * "2026-05-03T18:00", with what is left open completed: the next such day, in this month and year where it is still to
 * come, and the usual time. Null where not even the day is given, or where there is no such day.
 */
export function wholeMoment(filled: Filled, time: string, today: Date): string | null {
  const { day } = filled;
  if (day === undefined) return null;
  const now = { year: today.getFullYear(), month: today.getMonth() + 1, day: today.getDate() };
  let year = filled.year ?? now.year;
  let month = filled.month ?? now.month;
  const isPast = (): boolean =>
    year < now.year || (year === now.year && (month < now.month || (month === now.month && day < now.day)));
  if (isPast()) {
    if (filled.month === undefined && filled.year === undefined) {
      month = (month % 12) + 1;
      if (month === 1) year += 1;
    } else if (filled.year === undefined) year += 1;
  }
  if (day > new Date(Date.UTC(year, month, 0)).getUTCDate()) return null;
  const [usualHour = "00", usualMinute = "00"] = time.split(":");
  const hour = filled.hour === undefined ? usualHour : two(filled.hour);
  const minute = filled.minute === undefined ? (filled.hour === undefined ? usualMinute : "00") : two(filled.minute);
  return `${year}-${two(month)}-${two(day)}T${hour}:${minute}`;
}
