import { describe, expect, test } from "vitest";
import { fromLocal, toLocal } from "../src/interface/shared/localTime";

const ZONE = "Europe/London";
const at = (text: string) => Date.parse(text);
const now = at("2026-05-13T12:00:00+01:00");

describe("date-and-time fields", () => {
  test("there and back", () => expect(fromLocal(toLocal(now, ZONE), ZONE)).toBe(now));
  test("a time that spring leaves out begins an hour on; of one that autumn repeats the first counts", () => {
    expect(new Date(fromLocal("2026-03-29T01:30", ZONE)!).toISOString()).toMatch(/^2026-03-29T0[01]:30/);
    expect(new Date(fromLocal("2026-10-25T01:30", ZONE)!).toISOString()).toBe("2026-10-25T00:30:00.000Z");
  });
  test("empty is no moment", () => expect(fromLocal("", ZONE)).toBeNull());
});
