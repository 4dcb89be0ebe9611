import { expect, it } from "vitest";
import { onceAMinute } from "./onceAMinute";

it("lets each id through once a minute, however many others come between", () => {
  const may = onceAMinute();
  expect(may("a", 0)).toBe(true);
  expect(may("b", 30_000)).toBe(true);
  expect(may("a", 59_999)).toBe(false);
  expect(may("a", 60_000)).toBe(true);
  expect(may("b", 89_999)).toBe(false);
  expect(may("b", 90_000)).toBe(true);
  expect(may("a", 119_999)).toBe(false);
});
