import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { exactTime, sayDay, sayTime, zonedHour } from "./time";

const LONDON = "Europe/London";
const at = (text: string) => Date.parse(text);
const now = at("2026-11-26T12:00:00Z");

describe("a day, as people say it", () => {
  test.each([
    ["2026-11-26T00:00:00Z", "today"],
    ["2026-11-25T23:59:00Z", "yesterday"],
    ["2026-11-27T23:59:00Z", "tomorrow"],
    ["2026-11-29T18:00:00Z", "Sunday"],
    ["2026-11-20T18:00:00Z", "Friday"],
    ["2026-12-03T18:00:00Z", "3 December"],
    ["2026-11-19T18:00:00Z", "19 November"],
    ["2025-05-03T18:00:00Z", "3 May 2025"],
    ["2027-01-01T18:00:00Z", "1 January 2027"],
  ])("%s is %s", (moment, said) => expect(sayDay(at(moment), now, LONDON)).toBe(said));

  test("is the organisation's day, not that of Greenwich", () => {
    const late = at("2026-11-26T23:30:00Z");
    expect(sayDay(late, now, LONDON)).toBe("today");
    expect(sayDay(late, now, "Asia/Tokyo")).toBe("tomorrow");
    expect(sayDay(late, now, "America/New_York")).toBe("today");
    expect(sayDay(at("2026-11-26T12:30:00Z"), now, "Pacific/Auckland")).toBe("today");
    // One zone after the other: neither is answered with the other's format.
    expect(sayTime(late, now, "Asia/Tokyo")).toBe("tomorrow, 08:30");
    expect(sayTime(late, now, LONDON)).toBe("today, 23:30");
  });

  test("a day of twenty-three or twenty-five hours is one day", () => {
    // The clocks go back on 25 October 2026 in London, and forward on 28 March 2027.
    const noon = (day: string) => at(`${day}T12:00:00Z`);
    expect(sayDay(noon("2026-10-26"), noon("2026-10-25"), LONDON)).toBe("tomorrow");
    expect(sayDay(noon("2026-10-24"), noon("2026-10-25"), LONDON)).toBe("yesterday");
    expect(sayDay(noon("2027-03-29"), noon("2027-03-28"), LONDON)).toBe("tomorrow");
  });

  test("says the same whatever was said before", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 4_000_000_000_000 }),
        fc.constantFrom(LONDON, "Asia/Tokyo", "America/New_York", "UTC"),
        (moment, zone) => {
          const plain = new Intl.DateTimeFormat("en-GB", {
            timeZone: zone,
            hour: "2-digit",
            minute: "2-digit",
            hourCycle: "h23",
          }).format(moment);
          expect(sayTime(moment, now, zone).endsWith(`, ${plain}`)).toBe(true);
        },
      ),
    ));
});

test("the exact moment names weekday, date, seconds and zone", () =>
  expect(exactTime(at("2026-07-01T08:05:09Z"), LONDON)).toMatch(/^Wednesday,? 1 July 2026 at 09:05:09 (BST|GMT\+1)$/));

test("the hour is that of the zone's clock, on either side of a change of clocks", () => {
  expect(zonedHour(Date.UTC(2026, 6, 1, 23, 30), "Europe/London")).toBe(0);
  expect(zonedHour(Date.UTC(2026, 11, 1, 23, 30), "Europe/London")).toBe(23);
  expect(zonedHour(Date.UTC(2026, 9, 25, 0, 59), "Europe/London")).toBe(1);
  expect(zonedHour(Date.UTC(2026, 9, 25, 1, 1), "Europe/London")).toBe(1);
});
