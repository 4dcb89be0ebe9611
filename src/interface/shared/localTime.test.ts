import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { fromLocal, soonEnds, toLocal } from "./localTime";

const ZONE = "Europe/London";
const DAY = 86_400_000;

describe("ends that people name", () => {
  beforeEach(() => vi.useFakeTimers());
  afterEach(() => vi.useRealTimers());

  test.each(Array.from({ length: 7 }, (_, i) => i))("are ahead, at six in the evening, on their day: day %i", (i) => {
    // Over the night on which the clocks go back.
    const now = Date.UTC(2026, 9, 22, 21, 30) + i * DAY;
    vi.setSystemTime(now);
    const weekday = new Intl.DateTimeFormat("en-GB", { timeZone: ZONE, weekday: "long" });
    for (const { says, at } of soonEnds(ZONE)) {
      expect(at).toBeGreaterThan(now);
      expect(toLocal(at, ZONE).slice(11)).toBe("18:00");
      if (/day,/.test(says)) expect(`${weekday.format(at)}, 18:00`).toBe(says);
    }
  });
});

test("a time that spring leaves out begins when the gap is over; of one that autumn repeats, the first counts", () => {
  expect(fromLocal("2026-03-29T01:30", ZONE)).toBe(Date.UTC(2026, 2, 29, 1));
  expect(fromLocal("2026-10-25T01:30", ZONE)).toBe(Date.UTC(2026, 9, 25, 0, 30));
  expect(toLocal(fromLocal("2026-07-01T18:00", ZONE), ZONE)).toBe("2026-07-01T18:00");
  expect([fromLocal("", ZONE), toLocal(null, ZONE)]).toEqual([null, ""]);
});
