import { expect, test } from "vitest";
import { readMonth, sayMonth } from "./month";

test.each([
  ["08/27", "2027-08"],
  ["8/27", "2027-08"],
  ["08/2027", "2027-08"],
  [" 08 / 27 ", "2027-08"],
  ["08-27", "2027-08"],
  ["08.2027", "2027-08"],
  ["0827", "2027-08"],
  ["2027-08", "2027-08"],
  ["12/99", "2099-12"],
])("%s is read as %s", (typed, month) => {
  expect(readMonth(typed)).toBe(month);
});

test.each(["13/2028", "0/27", "00/27", "2027", "8", "08/027", "aug 27", "2027-13", "08/27/2027", ""])(
  "%j is not a month",
  (typed) => {
    expect(readMonth(typed)).toBeNull();
  },
);

test("written as cards have it", () => {
  expect(sayMonth("2027-08")).toBe("08/2027");
  expect(sayMonth("")).toBe("");
});
