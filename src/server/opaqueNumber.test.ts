import { expect, test } from "vitest";
import { hideNumber, shownNumber } from "./opaqueNumber";

const keys = { fingerprints: new Uint8Array(32).fill(7) };

test("a number comes back as it went, for its own purpose and with its own key", () => {
  for (const number of [0, 1, 2, 999_999, Number.MAX_SAFE_INTEGER]) {
    const text = hideNumber(keys, "live", number);
    expect(text).toMatch(/^[\w-]{22}$/);
    expect(hideNumber(keys, "live", number)).toBe(text);
    expect(shownNumber(keys, "live", text)).toBe(number);
    expect(shownNumber(keys, "journal", text)).toBe(null);
    expect(shownNumber({ fingerprints: new Uint8Array(32) }, "live", text)).toBe(null);
  }
});

test("what is none is none", () => {
  for (const text of ["", "17", "x".repeat(22), "é", "a".repeat(1000)])
    expect(shownNumber(keys, "live", text)).toBe(null);
});
