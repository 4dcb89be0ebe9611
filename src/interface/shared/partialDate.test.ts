import { expect, test } from "vitest";
import { wholeMoment } from "./partialDate";

const today = new Date(2026, 10, 29, 12);

test.each([
  ["day and month that are to come", { day: 24, month: 12 }, "2026-12-24T18:00"],
  ["day and month that are over: of next year", { day: 3, month: 5 }, "2027-05-03T18:00"],
  ["today counts as to come", { day: 29, month: 11 }, "2026-11-29T18:00"],
  ["a day alone: of this month", { day: 30 }, "2026-11-30T18:00"],
  ["a day alone that is over: of next month", { day: 3 }, "2026-12-03T18:00"],
  ["a year that is given stays, also a past one", { day: 3, month: 5, year: 2026 }, "2026-05-03T18:00"],
  ["an hour alone is on the hour", { day: 24, month: 12, hour: 9 }, "2026-12-24T09:00"],
  ["all of it", { day: 1, month: 2, year: 2031, hour: 7, minute: 5 }, "2031-02-01T07:05"],
])("%s", (_word, filled, whole) => {
  expect(wholeMoment(filled, "18:00", today)).toBe(whole);
});

test("in December a day alone that is over is of January", () => {
  expect(wholeMoment({ day: 3 }, "18:00", new Date(2026, 11, 24, 12))).toBe("2027-01-03T18:00");
});

test("without a day, or where the month has no such day, there is no date", () => {
  expect(wholeMoment({ month: 5, year: 2027 }, "18:00", today)).toBeNull();
  expect(wholeMoment({ hour: 12 }, "18:00", today)).toBeNull();
  expect(wholeMoment({ day: 31, month: 4, year: 2027 }, "18:00", today)).toBeNull();
  expect(wholeMoment({ day: 29, month: 2, year: 2027 }, "18:00", today)).toBeNull();
});
