import { expect, test } from "vitest";
import { letterOf } from "./letter";

const letter = letterOf({
  organisation: "Tarrowick <Trust>",
  paragraphs: ['Hello Ada "x" <img src=https://elsewhere.example/a.png>', "Second\nline"],
  act: { word: "Set up your sign-in", address: "https://galtry.example/join#abc" },
  after: ["It works once."],
});

test("both parts say the same, and carry one address", () => {
  for (const part of [letter.text, letter.html]) {
    expect(part).toContain("https://galtry.example/join#abc");
    expect(part).toContain("It works once.");
    expect(part).toContain("Set up your sign-in");
  }
  expect(letter.text.startsWith('Hello Ada "x" <img')).toBe(true);
});

test("what people wrote is text in the HTML part: no tag and nothing fetched", () => {
  expect(letter.html).not.toMatch(/<img|<script|Tarrowick <Trust>/);
  expect(letter.html).toContain("Tarrowick &#60;Trust&#62;");
  expect(letter.html).toContain("Second<br>line");
  expect([...letter.html.matchAll(/(?:href|src)="([^"]+)"/g)].map(([, address]) => address)).toEqual([
    "https://galtry.example/join#abc",
  ]);
});
