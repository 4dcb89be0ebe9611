import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { clockChanges, momentsOf, offsetAt } from "../zone";
import { slowlyOpen } from "./slowly.testing";
import { edgesOf, isOpen, type Weekly } from "./weekly";

const LONDON = "Europe/London";
const HOUR = 3_600_000;
const utc = (text: string) => Date.parse(`${text}Z`);
const weekly = (days: number[], start: number, end: number, zone = LONDON): Weekly => ({ days, start, end, zone });
const [SAT, SUN] = [6, 7];

describe("the clock on the wall", () => {
  test("changes twice a year, and its moments are found to the minute", () => {
    expect(clockChanges(LONDON, utc("2026-01-01T00:00"), utc("2027-01-01T00:00"))).toEqual([
      utc("2026-03-29T01:00"),
      utc("2026-10-25T01:00"),
    ]);
    expect(offsetAt(LONDON, utc("2026-03-29T00:59"))).toBe(0);
    expect(offsetAt(LONDON, utc("2026-03-29T01:00"))).toBe(HOUR);
    expect(clockChanges("Asia/Kathmandu", utc("2026-01-01T00:00"), utc("2027-01-01T00:00"))).toEqual([]);
  });

  test("shows an hour twice in autumn and none in spring", () => {
    const wall = (text: string) => Date.parse(`${text}Z`);
    expect(momentsOf(LONDON, wall("2026-10-25T01:30"))).toEqual({
      first: utc("2026-10-25T00:30"),
      last: utc("2026-10-25T01:30"),
    });
    const gap = utc("2026-03-29T01:00");
    expect(momentsOf(LONDON, wall("2026-03-29T01:30"))).toEqual({ first: gap, last: gap });
    expect(momentsOf(LONDON, wall("2026-07-01T12:00"))).toEqual({
      first: utc("2026-07-01T11:00"),
      last: utc("2026-07-01T11:00"),
    });
  });
});

describe("weekly windows", () => {
  test("Saturdays from nine to six", () => {
    const saturdays = weekly([SAT], 9 * 60, 18 * 60);
    expect(edgesOf(saturdays, utc("2026-07-01T00:00"), utc("2026-07-12T00:00"))).toEqual([
      utc("2026-07-04T08:00"),
      utc("2026-07-04T17:00"),
      utc("2026-07-11T08:00"),
      utc("2026-07-11T17:00"),
    ]);
    expect(isOpen(saturdays, utc("2026-07-04T07:59"))).toBe(false);
    expect(isOpen(saturdays, utc("2026-07-04T08:00"))).toBe(true);
    expect(isOpen(saturdays, utc("2026-07-04T17:00"))).toBe(false);
  });

  test("a start after its end runs past midnight", () => {
    const night = weekly([SAT], 22 * 60, 6 * 60);
    expect(edgesOf(night, utc("2026-07-01T00:00"), utc("2026-07-08T00:00"))).toEqual([
      utc("2026-07-04T21:00"),
      utc("2026-07-05T05:00"),
    ]);
  });

  test("days that touch are one window, whole days of a whole week never close", () => {
    expect(edgesOf(weekly([SAT, SUN], 0, 1440), utc("2026-07-01T00:00"), utc("2026-07-08T00:00"))).toHaveLength(2);
    expect(edgesOf(weekly([1, 2, 3, 4, 5, 6, 7], 0, 1440), 0, 30 * 86_400_000)).toEqual([]);
  });

  test("in spring a start that is left out begins when the hour is over", () => {
    const early = weekly([SUN], 90, 180);
    expect(edgesOf(early, utc("2026-03-28T12:00"), utc("2026-03-29T12:00"))).toEqual([
      utc("2026-03-29T01:00"),
      utc("2026-03-29T02:00"),
    ]);
  });

  test("in autumn the first start and the last end count", () => {
    const early = weekly([SUN], 60 + 15, 60 + 45);
    expect(edgesOf(early, utc("2026-10-24T12:00"), utc("2026-10-25T12:00"))).toEqual([
      utc("2026-10-25T00:15"),
      utc("2026-10-25T01:45"),
    ]);
    const late = weekly([SUN], 60 + 30, 120);
    expect(edgesOf(late, utc("2026-10-24T12:00"), utc("2026-10-25T12:00"))).toEqual([
      utc("2026-10-25T00:30"),
      utc("2026-10-25T02:00"),
    ]);
  });

  test("as a clock on the wall says, a whole year long, but for the two hours of the changes", () => {
    const changes = clockChanges(LONDON, utc("2025-12-01T00:00"), utc("2027-02-01T00:00"));
    const change = (at: number) => changes.some((one) => Math.abs(one - at) <= 2 * HOUR);
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }),
        fc.integer({ min: 0, max: 1439 }),
        fc.integer({ min: 1, max: 1440 }),
        fc.integer({ min: utc("2026-01-01T00:00") / 60_000, max: utc("2027-01-01T00:00") / 60_000 }),
        (days, start, end, minute) => {
          const at = minute * 60_000;
          if (change(at)) return;
          const window = weekly(days, start, end);
          expect(isOpen(window, at)).toBe(slowlyOpen(window, at));
          // It stays so until its next edge.
          const [next = at + 8 * 86_400_000] = edgesOf(window, at, at + 8 * 86_400_000);
          expect(isOpen(window, Math.floor((at + next) / 2))).toBe(isOpen(window, at));
        },
      ),
      { numRuns: 3000 },
    );
  });
});
