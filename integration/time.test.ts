import { describe, expect, test } from "vitest";
import { sayDay, sayTime } from "../src/core/time";
import { fromLocal, toLocal } from "../src/interface/shared/localTime";

const ZONE = "Europe/London";
const at = (text: string) => Date.parse(text);
const now = at("2026-05-13T12:00:00+01:00");

describe("moments as people say them", () => {
  test.each([
    ["2026-05-13T00:00:00+01:00", "today, 00:00"],
    ["2026-05-12T23:59:00+01:00", "yesterday, 23:59"],
    ["2026-05-14T09:05:00+01:00", "tomorrow, 09:05"],
    ["2026-05-17T18:00:00+01:00", "Sunday, 18:00"],
    ["2026-09-30T18:00:00+01:00", "30 September, 18:00"],
    ["2027-01-02T08:00:00+00:00", "2 January 2027, 08:00"],
  ])("%s", (text, said) => expect(sayTime(at(text), now, ZONE)).toBe(said));

  test("the day is the organisation's, not the server's", () => {
    expect(sayDay(at("2026-05-13T13:00:00Z"), now, "Pacific/Auckland")).toBe("tomorrow");
    expect(sayDay(at("2026-05-13T13:00:00Z"), now, ZONE)).toBe("today");
  });
});

describe("date-and-time fields", () => {
  test("there and back", () => expect(fromLocal(toLocal(now, ZONE), ZONE)).toBe(now));
  test("a time that spring leaves out begins an hour on; of one that autumn repeats the first counts", () => {
    expect(new Date(fromLocal("2026-03-29T01:30", ZONE)!).toISOString()).toMatch(/^2026-03-29T0[01]:30/);
    expect(new Date(fromLocal("2026-10-25T01:30", ZONE)!).toISOString()).toBe("2026-10-25T00:30:00.000Z");
  });
  test("empty is no moment", () => expect(fromLocal("", ZONE)).toBeNull());
});
