/** Dates in what something was given for: "until 30 September", "the fair, May 2026", "Christmas shop 2025". */
import type { Instant } from "./instant";

const MONTHS = [
  "january",
  "february",
  "march",
  "april",
  "may",
  "june",
  "july",
  "august",
  "september",
  "october",
  "november",
  "december",
];
const MONTH = `(${MONTHS.map((name) => `${name}|${name.slice(0, 3)}`).join("|")})`;
const DAY_FIRST = new RegExp(`\\b(\\d{1,2})(?:st|nd|rd|th)?\\s+${MONTH}\\.?(?:\\s+(\\d{4}))?\\b`, "gi");
const MONTH_FIRST = new RegExp(
  `\\b${MONTH}\\.?(?:\\s+(\\d{1,2})(?:st|nd|rd|th)?\\b(?!\\d))?,?(?:\\s+(\\d{4}))?\\b`,
  "gi",
);
const YEAR = /\b(20\d\d)\b/g;

const monthOf = (word: string): number => MONTHS.findIndex((name) => name.startsWith(word.toLowerCase().slice(0, 3)));

/** The end of a day, of a month where no day is named, in UTC: a day more or less does not matter here. */
const endOf = (year: number, month: number, day: number | null): Instant =>
  day === null ? Date.UTC(year, month + 1, 1) : Date.UTC(year, month, day + 1);

/**
 * Whether a reason names a time, and all it names is over. A date without a year is the first one after `since`. A bare
 * month ("may") counts only with a day or a year, as it may be another word.
 * @param since when it was given
 */
export function passedReason(why: string, since: Instant, at: Instant): boolean {
  const ends: Instant[] = [];
  const next = (month: number, day: number | null): Instant => {
    const year = new Date(since).getUTCFullYear();
    const end = endOf(year, month, day);
    return end > since ? end : endOf(year + 1, month, day);
  };
  const note = (month: number, day: number | null, year: string | undefined) =>
    ends.push(year ? endOf(Number(year), month, day) : next(month, day));
  let rest = why.replace(DAY_FIRST, (_, day: string, month: string, year?: string) => {
    note(monthOf(month), Number(day), year);
    return " ";
  });
  rest = rest.replace(MONTH_FIRST, (whole, month: string, day?: string, year?: string) => {
    if (!day && !year) return whole;
    note(monthOf(month), day ? Number(day) : null, year);
    return " ";
  });
  for (const [, year] of rest.matchAll(YEAR)) ends.push(Date.UTC(Number(year) + 1, 0, 1));
  return ends.length > 0 && ends.every((end) => end <= at);
}
